'use client';
import { fieldAbout } from '@clembo/formats/typed';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import type { OpenRoom } from '@/workers/planRoom';
import { changePlan } from '@/workers/planWrites';
import type { RoundWould } from '@/workers/answers/round';

interface Props {
  planId: string;
  open: OpenRoom;
  reference: string;
  field: string;
  label: string;
  /** What is known, as it is typed. */
  value: string;
  onWould: (would: RoundWould | null) => void;
  /** Enter was pressed and what was typed is kept. */
  onEnter: (input: HTMLElement, back: boolean) => void;
  wide?: boolean;
}

/** Between the last key and what it would bring, in milliseconds. */
const PAUSE = 120;

/** One thing to report. What cannot be used stays with the reason, until it is mended. */
export function AskedInput({ planId, open, reference, field, label, value, onWould, onEnter, wide = false }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const kept = useRef(false);
  const text = typed ?? value;
  useEffect(() => {
    if (typed === null) return;
    let current = true;
    const timer = setTimeout(
      () =>
        open.room.roundWould(reference, field, typed).then(
          (would) => current && onWould(would),
          () => {},
        ),
      PAUSE,
    );
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [open, reference, field, typed, onWould]);
  const keep = async (): Promise<boolean> => {
    if (typed === null || kept.current) return true;
    kept.current = true;
    const cells = [{ ref: reference, field, text: typed }];
    const error = (await open.room.typed(cells)).wrong[0]?.why ?? null;
    setWhy(error);
    if (error !== null) {
      kept.current = false;
      return false;
    }
    // Whoever types goes on while it is kept.
    void changePlan(planId, async (room) => (await room.typed(cells)).command)
      .then(
        () => setTyped(null),
        (e: Error) => setWhy(e.message),
      )
      .finally(() => {
        kept.current = false;
      });
    onWould(null);
    return true;
  };
  const onKey = (e: KeyboardEvent<HTMLInputElement | HTMLTextAreaElement>) => {
    if (e.key === 'Enter' && !e.altKey && !(wide && e.shiftKey)) {
      e.preventDefault();
      const input = e.currentTarget;
      const back = e.shiftKey;
      void keep().then((fine) => fine && onEnter(input, back));
    } else if (e.key === 'Escape') {
      e.stopPropagation();
      setTyped(null);
      setWhy(null);
      onWould(null);
    }
  };
  const shared = {
    'aria-label': label,
    'aria-invalid': why !== null,
    'data-field': field,
    title: why ?? fieldAbout(field),
    value: text,
    onKeyDown: onKey,
    onBlur: () => void keep(),
    className: `w-full rounded border bg-paper px-2 py-1 ${why ? 'border-madder' : 'border-line'}`,
  };
  return (
    <span className="block min-w-0">
      {wide ? (
        <textarea {...shared} rows={2} onChange={(e) => setTyped(e.target.value)} />
      ) : (
        <input {...shared} onChange={(e) => setTyped(e.target.value)} />
      )}
      {why && (
        <span role="alert" className="block text-[13.5px] text-madder">
          {why}
        </span>
      )}
    </span>
  );
}
