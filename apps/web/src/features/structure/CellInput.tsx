'use client';
import { isoDate } from '@clembo/core';
import { editorOf } from '@clembo/formats/typed';
import { autoUpdate, flip, FloatingPortal, size, useFloating } from '@floating-ui/react';
import { type KeyboardEvent, type ReactNode, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { DayMeant } from '@/workers/answers/ledger';
import type { Suggestion } from '@/workers/answers/suggestions';
import type { OpenRoom } from '@/workers/planRoom';
import { DayPick } from './DayPick';
import { hasList, takenOf } from './suggested';

export type LeaveBy = 'down' | 'up' | 'right' | 'left' | 'stay';

interface Props {
  open: OpenRoom;
  field: string;
  reference: string;
  label: string;
  begin: string;
  /** Whether what is there is typed over. */
  over: boolean;
  /** What stands in it. */
  onTyped: (text: string) => void;
  /** It is left, with its text, or with what that is taken for. */
  onDone: (text: string | Promise<string>, by: LeaveBy) => void;
  onLeave: () => void;
}

/** The editor of a cell: what may be meant stands beside it, and what a day is understood as. */
export function CellInput({ open, field, reference, label, begin, over, onTyped, onDone, onLeave }: Props) {
  const [text, setText] = useState(begin);
  const touched = useRef(over);
  const input = useRef<HTMLInputElement>(null);
  const done = useRef(false);
  const isDay = editorOf(field) === 'day';
  const listed = hasList(field, isDay);
  const { meant, comesTo } = useMeant(open, field, reference, text);
  const list = useSuggestions(open, listed ? field : null, touched.current ? text : '', text);
  // As soon as it stands: what is typed meanwhile would go to nobody.
  useLayoutEffect(() => {
    done.current = false;
    const el = input.current!;
    el.focus();
    if (!over) el.select();
    else el.setSelectionRange(el.value.length, el.value.length);
    return () => {
      // Its row goes elsewhere, and what is typed with it.
      done.current = true;
    };
  }, [over]);
  // The cell holds it otherwise than it is shown.
  useLayoutEffect(() => {
    if (touched.current || input.current!.value === begin) return;
    setText(begin);
    input.current!.value = begin;
    input.current!.select();
  }, [begin]);
  const type = (said: string) => {
    touched.current = true;
    setText(said);
    onTyped(said);
  };
  const leave = (by: LeaveBy, said: string | Promise<string>) => {
    if (done.current) return;
    done.current = true;
    onDone(said, by);
  };
  /** What Enter and Tab keep: an entry of the list, also of one that is still on its way. */
  const meantText = (): string | Promise<string> => {
    if (list.at >= 0) return list.found[list.at]!.text;
    if (!listed || !touched.current || list.of === text || list.isClosed) return text;
    return open.room.suggestions(field, text).then(
      (found) => found[takenOf(found, field, text)]?.text ?? text,
      () => text,
    );
  };
  const onKey = (e: KeyboardEvent) => {
    e.stopPropagation();
    // Keys of an input method are its own.
    if (e.nativeEvent.isComposing) return;
    if (e.key === 'Enter') leave(e.shiftKey ? 'up' : 'down', meantText());
    else if (e.key === 'Tab') leave(e.shiftKey ? 'left' : 'right', meantText());
    else if (e.key === 'Escape' && list.found.length > 0) list.close();
    else if (e.key === 'Escape') {
      done.current = true;
      onLeave();
    } else if ((e.key === 'ArrowDown' || e.key === 'ArrowUp') && list.found.length > 0)
      list.move(e.key === 'ArrowDown' ? 1 : -1);
    else return;
    e.preventDefault();
  };
  return (
    <span className="absolute inset-0 z-30">
      <input
        ref={input}
        aria-label={label}
        value={text}
        onChange={(e) => type(e.target.value)}
        onKeyDown={onKey}
        onBlur={() => leave('stay', text)}
        onPointerDown={(e) => e.stopPropagation()}
        className="h-full w-full min-w-28 border-2 border-kelp bg-paper px-1.5 outline-none"
      />
      {isDay && meant && (
        <Beside of={input}>
          <DayPick open={open} meant={meant} onPick={(day) => leave('stay', isoDate(day))} />
        </Beside>
      )}
      {comesTo && (
        <Beside of={input}>
          <span className="pointer-events-none rounded-b bg-ink px-2 py-0.5 text-[13px] whitespace-nowrap text-paper">
            {comesTo}
          </span>
        </Beside>
      )}
      {list.found.length > 0 && (
        <Beside of={input}>
          <Choices found={list.found} at={list.at} onTake={(said) => leave('stay', said)} />
        </Beside>
      )}
    </span>
  );
}

/** What a day or a length that is being typed is understood as. */
function useMeant(open: OpenRoom, field: string, reference: string, text: string) {
  const [meant, setMeant] = useState<DayMeant | null>(null);
  const [comesTo, setComesTo] = useState('');
  const isDay = editorOf(field) === 'day';
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
    return () => {
      current = false;
    };
  }, [open, field, reference, text, isDay]);
  return { meant, comesTo };
}

/** What may be meant by a text; everything that may be said until something is typed. */
function useSuggestions(open: OpenRoom, field: string | null, wanted: string, text: string) {
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
    of: isNow ? text : null,
    // The old list stands until the new one is there, so that nothing flickers; nothing of it is taken.
    found: isClosed ? [] : shown.found,
    at: isNow ? shown.at : -1,
    isClosed,
    close: () => setClosed(true),
    move: (by: 1 | -1) => setShown((s) => ({ ...s, at: Math.max(-1, Math.min(s.found.length - 1, s.at + by)) })),
  };
}

/** Something that belongs to the cell and lies above everything: below it, or above it where there is no room. */
function Beside({ of, children }: { of: { current: HTMLInputElement | null }; children: ReactNode }) {
  const { refs, floatingStyles } = useFloating({
    placement: 'bottom-start',
    strategy: 'fixed',
    whileElementsMounted: autoUpdate,
    middleware: [
      flip({ padding: 6 }),
      size({
        padding: 6,
        apply: ({ availableHeight, elements }) =>
          void (elements.floating.style.maxHeight = `${Math.max(80, availableHeight)}px`),
      }),
    ],
  });
  useLayoutEffect(() => refs.setReference(of.current), [refs, of]);
  return (
    <FloatingPortal>
      <div ref={refs.setFloating} style={floatingStyles} className="z-50 flex overflow-auto text-[14.5px]">
        {children}
      </div>
    </FloatingPortal>
  );
}

function Choices({ found, at, onTake }: { found: Suggestion[]; at: number; onTake: (text: string) => void }) {
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
