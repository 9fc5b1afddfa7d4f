'use client';
import type { CodeField } from '@clembo/core';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';

interface Kept {
  id: string;
  name: string;
  field: CodeField;
}

/** Books that were kept for other plans, to be given to this one. */
export function KeptBooks({ onTake }: { onTake: (field: CodeField) => void }) {
  const [kept, setKept] = useState<Kept[]>([]);
  const [asked, setAsked] = useState(false);
  useEffect(() => {
    if (asked) ask<Kept[]>('/api/books').then(setKept, wrong);
  }, [asked]);
  return (
    <details className="mt-5" onToggle={(e) => setAsked(e.currentTarget.open)}>
      <summary className="cursor-pointer text-kelp">Kept books</summary>
      {kept.length === 0 ? (
        <p className="mt-1 text-[14px] text-soft">None yet. “Keep for other plans” keeps one with its rules.</p>
      ) : (
        <ul className="mt-1 divide-y divide-line/60">
          {kept.map((k) => (
            <li key={k.id} className="flex items-center gap-2 py-1">
              <button
                type="button"
                className="min-w-0 flex-1 truncate text-left hover:underline"
                title={`Give ${k.name} to this plan`}
                onClick={() => onTake({ ...k.field, name: k.name })}
              >
                {k.name} <span className="text-[14px] text-soft">{k.field.values.length}</span>
              </button>
              <button
                type="button"
                aria-label={`Let go of the kept book ${k.name}`}
                className="rounded p-0.5 text-soft hover:bg-line"
                onClick={() =>
                  ask(`/api/books/${k.id}`, { method: 'DELETE' }).then(
                    () => setKept((list) => list.filter((x) => x.id !== k.id)),
                    wrong,
                  )
                }
              >
                <X size={14} />
              </button>
            </li>
          ))}
        </ul>
      )}
    </details>
  );
}
