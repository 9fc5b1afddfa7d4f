'use client';
import { type Arrangement, defaultArrangement } from '@clembo/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ask } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';

interface Kept {
  name: string;
  arrangement: Arrangement;
}

/** How long the arrangement has to stand before it is kept, in milliseconds. */
const STANDS = 800;

/** The arrangement of a plan's ledger: as it stood last, changed here, kept under names. */
export function useArrangement(planId: string, codeFields: { id: string }[]) {
  const [kept, setKept] = useState<Kept[]>([]);
  const [arrangement, setArrangement] = useState<Arrangement | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const first = codeFields
    .slice(0, 2)
    .map((f) => `code.${f.id}`)
    .join(' ');
  useEffect(() => {
    let current = true;
    const begin = (list: Kept[]) => {
      if (!current) return;
      setKept(list.filter((k) => k.name !== ''));
      const own = defaultArrangement();
      const books = first === '' ? [] : first.split(' ').map((field) => ({ field, width: null }));
      setArrangement(list.find((k) => k.name === '')?.arrangement ?? { ...own, columns: [...own.columns, ...books] });
    };
    ask<Kept[]>(`/api/plans/${planId}/arrangements`).then(begin, () => begin([]));
    return () => {
      current = false;
    };
  }, [planId]);
  const put = (name: string, value: Arrangement | null) =>
    ask(`/api/plans/${planId}/arrangements`, { method: 'PUT', json: { name, arrangement: value } });
  const change = useCallback(
    (part: Partial<Arrangement>) => {
      setArrangement((old) => {
        if (!old) return old;
        const next = { ...old, ...part };
        clearTimeout(timer.current);
        timer.current = setTimeout(() => void put('', next).catch(() => {}), STANDS);
        return next;
      });
    },
    [planId],
  );
  const keep = (name: string) => {
    if (!arrangement) return;
    put(name, arrangement).then(() => {
      setKept((list) => [...list.filter((k) => k.name !== name), { name, arrangement }]);
      toast(`The arrangement is kept as “${name}”.`);
    }, wrong);
  };
  const drop = (name: string) => {
    put(name, null).then(() => setKept((list) => list.filter((k) => k.name !== name)), wrong);
  };
  return { arrangement, kept, change, keep, drop };
}
