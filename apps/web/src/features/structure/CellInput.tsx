'use client';
import { isoDate } from '@clembo/core';
import { editorOf } from '@clembo/formats/typed';
import { type KeyboardEvent, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { Beside } from '@/ui/Beside';
import type { DayMeant } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import { DayPick } from './DayPick';
import { Choices, useSuggestions } from './Suggestions';
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
  /** The text, as it is typed. */
  onTyped?: (text: string) => void;
  /** The editor is left, with its text, or with the entry of a list that the text is taken for. */
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
  const list = useSuggestions(open, listed ? field : null, touched.current ? text : '');
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
    onTyped?.(said);
  };
  const leave = (by: LeaveBy, said: string | Promise<string>) => {
    if (done.current) return;
    done.current = true;
    onDone(said, by);
  };
  /** What Enter and Tab keep: an entry of the list, also of one that is still on its way. */
  const meantText = (): string | Promise<string> => {
    if (list.at >= 0) return list.found[list.at]!.text;
    if (!listed || !touched.current || list.isNow || list.isClosed) return text;
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
