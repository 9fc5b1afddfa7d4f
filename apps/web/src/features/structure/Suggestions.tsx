'use client';
import { useEffect, useState } from 'react';
import type { Suggestion } from '@/workers/answers/suggestions';
import type { OpenRoom } from '@/workers/planRoom';
import { takenOf } from './suggested';

/** What may be meant by a text; everything that may be said until something is typed. */
export function useSuggestions(open: OpenRoom, field: string | null, wanted: string) {
  const [shown, setShown] = useState<{ of: string; found: Suggestion[]; at: number }>({ of: '', found: [], at: -1 });
  const [isClosed, setClosed] = useState(false);
  useEffect(() => {
    if (field === null) return;
    let current = true;
    setClosed(false);
    open.room.suggestions(field, wanted).then(
      (found) => current && setShown({ of: wanted, found, at: wanted === '' ? -1 : takenOf(found, field, wanted) }),
      () => {},
    );
    return () => {
      current = false;
    };
  }, [open, field, wanted]);
  const isNow = !isClosed && shown.of === wanted;
  return {
    /** Whether the list is of what stands there now. */
    isNow,
    // The old list stands until the new one is there, so that nothing flickers; nothing of it is taken.
    found: isClosed ? [] : shown.found,
    at: isNow ? shown.at : -1,
    isClosed,
    close: () => setClosed(true),
    move: (by: 1 | -1) => setShown((s) => ({ ...s, at: Math.max(-1, Math.min(s.found.length - 1, s.at + by)) })),
  };
}

/** The list of what may be meant; the entry that Enter takes stands out. */
export function Choices({ found, at, onTake }: { found: Suggestion[]; at: number; onTake: (text: string) => void }) {
  return (
    <ul className="panel min-w-44 p-1!" role="listbox" aria-label="What may be meant">
      {found.map((s, k) => (
        <li
          key={s.text}
          role="option"
          aria-selected={k === at}
          className={`flex cursor-pointer gap-3 rounded px-2 py-0.5 whitespace-nowrap ${k === at ? 'bg-wash' : ''}`}
          onPointerDown={(e) => {
            e.preventDefault();
            e.stopPropagation();
            onTake(s.text);
          }}
        >
          {s.colour && (
            <span aria-hidden className="mt-1.5 size-2.5 shrink-0 rounded-[2px]" style={{ background: s.colour }} />
          )}
          <span className="font-semibold">{s.text}</span>
          <span className="max-w-60 truncate text-soft">{s.hint}</span>
        </li>
      ))}
    </ul>
  );
}
