'use client';
import { isoDate } from '@clembo/core';
import { editorOf } from '@clembo/formats/typed';
import { type KeyboardEvent, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { DayMeant } from '@/workers/answers/ledger';
import type { Suggestion } from '@/workers/answers/suggestions';
import type { OpenRoom } from '@/workers/planRoom';
import { DayPick } from './DayPick';

export type LeaveBy = 'down' | 'up' | 'right' | 'left' | 'stay';

interface Props {
  open: OpenRoom;
  field: string;
  reference: string;
  label: string;
  begin: string;
  /** Whether what is there is typed over. */
  over: boolean;
  onDone: (text: string, by: LeaveBy) => void;
  onLeave: () => void;
}

/** The editor of a cell: what may be meant stands below it, and what a day is understood as. */
export function CellInput({ open, field, reference, label, begin, over, onDone, onLeave }: Props) {
  const [text, setText] = useState(begin);
  const [list, setList] = useState<Suggestion[]>([]);
  const [at, setAt] = useState(-1);
  const [meant, setMeant] = useState<DayMeant | null>(null);
  const [comesTo, setComesTo] = useState('');
  const latest = useRef({ list, at });
  latest.current = { list, at };
  const input = useRef<HTMLInputElement>(null);
  const done = useRef(false);
  const isDay = editorOf(field) === 'day';
  // As soon as it stands: what is typed meanwhile would go to nobody.
  useLayoutEffect(() => {
    const el = input.current!;
    el.focus();
    if (!over) el.select();
    else el.setSelectionRange(el.value.length, el.value.length);
  }, [over]);
  useEffect(() => {
    let current = true;
    if (isDay)
      open.room.dayMeant(reference, text).then(
        (found) => current && setMeant(found),
        () => {},
      );
    else if (field === 'days')
      open.room.lengthMeant(reference, text).then(
        (words) => current && setComesTo(words),
        () => {},
      );
    else if (field !== 'name' && field !== 'notes')
      open.room.suggestions(field, text).then(
        (found) => {
          if (!current) return;
          const next = found.filter((s) => s.text !== text);
          // What was chosen already stays chosen while it is among them.
          const chosen = latest.current.list[latest.current.at]?.text;
          setList(next);
          setAt(next.findIndex((s) => s.text === chosen));
        },
        () => {},
      );
    return () => {
      current = false;
    };
  }, [open, field, reference, text, isDay]);
  const leave = (by: LeaveBy, said = at >= 0 ? list[at]!.text : text) => {
    if (done.current) return;
    done.current = true;
    onDone(said, by);
  };
  const onKey = (e: KeyboardEvent) => {
    e.stopPropagation();
    if (e.key === 'Enter') leave(e.shiftKey ? 'up' : 'down');
    else if (e.key === 'Tab') {
      e.preventDefault();
      leave(e.shiftKey ? 'left' : 'right');
    } else if (e.key === 'Escape') {
      done.current = true;
      onLeave();
    } else if (e.key === 'ArrowDown' && list.length > 0) {
      e.preventDefault();
      setAt((k) => Math.min(list.length - 1, k + 1));
    } else if (e.key === 'ArrowUp' && list.length > 0) {
      e.preventDefault();
      setAt((k) => Math.max(-1, k - 1));
    }
  };
  return (
    <span className="absolute inset-0 z-30">
      <input
        ref={input}
        aria-label={label}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={onKey}
        onBlur={() => leave('stay', text)}
        onPointerDown={(e) => e.stopPropagation()}
        className="h-full w-full min-w-28 border-2 border-kelp bg-paper px-1.5 outline-none"
      />
      {isDay && meant && <DayPick open={open} meant={meant} onPick={(day) => leave('stay', isoDate(day))} />}
      {comesTo && (
        <span className="pointer-events-none absolute top-full left-0 z-40 rounded-b bg-ink px-2 py-0.5 text-[13px] whitespace-nowrap text-paper">
          {comesTo}
        </span>
      )}
      {list.length > 0 && (
        <ul className="panel absolute top-full left-0 min-w-44 p-1!" role="listbox" aria-label="What may be meant">
          {list.map((s, k) => (
            <li
              key={s.text}
              role="option"
              aria-selected={k === at}
              className={`flex cursor-pointer gap-3 rounded px-2 py-0.5 whitespace-nowrap ${k === at ? 'bg-wash' : ''}`}
              onPointerDown={(e) => {
                e.preventDefault();
                e.stopPropagation();
                leave('stay', s.text);
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
      )}
    </span>
  );
}
