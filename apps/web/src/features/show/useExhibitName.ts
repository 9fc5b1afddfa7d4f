'use client';
import { useState } from 'react';
import { ask, Refused } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';

interface Kept {
  name: string;
  version: number;
}

/** The name of an exhibit as it is kept, and a way to change it; an empty one changes nothing. */
export function useExhibitName(exhibitId: string, first: Kept): { kept: Kept; rename: (text: string) => void } {
  const [kept, setKept] = useState(first);
  const rename = (text: string) => {
    const wanted = text.trim();
    if (wanted === '' || wanted === kept.name) return;
    setKept({ ...kept, name: wanted });
    ask<Kept>(`/api/exhibits/${exhibitId}`, {
      method: 'PATCH',
      headers: { 'If-Match': `"${kept.version}"` },
      json: { name: wanted },
    }).then(setKept, (error) => {
      setKept(error instanceof Refused && error.status === 409 ? (error.body as { now: Kept }).now : kept);
      wrong(error);
    });
  };
  return { kept, rename };
}
