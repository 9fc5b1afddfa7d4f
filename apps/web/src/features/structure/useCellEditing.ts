'use client';
import { editorOf } from '@clembo/formats/typed';
import {
  type Dispatch,
  type KeyboardEvent,
  type RefObject,
  type SetStateAction,
  useEffect,
  useRef,
  useState,
} from 'react';
import { wrong as sayWrong } from '@/ui/Toasts';
import { LOOK_ONLY } from '@/ui/useMay';
import type { LedgerShape, LedgerShown } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import { useKeeping } from '@/workers/planWrites';
import type { LeaveBy } from './CellInput';
import { goAlong, type Spot } from './grid';
import type { ByCell } from './useGridEdits';

/** How long after all is kept the lines are what they will be, in ms. */
const SETTLED = 600;
/** Where something stands that has no line yet. */
const NO_ROW = -1;

/** A cell that is being typed into. */
export interface Editing extends Spot {
  begin: string;
  /** Whether what is there is typed over. */
  over: boolean;
  /** The activity that it is typed for, wherever its row goes meanwhile; null for something new. */
  whose: Promise<string | null> | null;
}

interface Options {
  open: OpenRoom;
  shape: LedgerShape;
  fields: string[];
  names: ReadonlyMap<string, string>;
  at: (row: number) => LedgerShown | null;
  wrongs: ByCell<{ text: string }>;
  mayEdit: boolean;
  focus: Spot;
  setFocus: Dispatch<SetStateAction<Spot>>;
  go: (row: number, col: number) => void;
  scrollTo: (row: number) => void;
  toFocus: () => void;
  /** Types a text into a cell of the plan. */
  type: (cells: { ref: string; field: string; text: string }[]) => Promise<void>;
  /** Adds an activity at the end; gives its reference as soon as it is shown, null where it could not be added. */
  add: (text: string, field: string) => Promise<string | null>;
  /** The row behind all that are being added; 0 where none is. */
  beyond: RefObject<number>;
}

/**
 * The cell that is typed into. Invariants: the editor opens in the event of the key that opens it, before any answer of
 * the worker; keys that come before it is drawn are put in front; what is typed goes to the activity that stood there
 * when typing began, also to one that was added a moment ago and is still on its way.
 */
export function useCellEditing(options: Options) {
  const { open, shape, fields, names, at, wrongs, mayEdit, focus, setFocus, go, scrollTo, toFocus, type, add, beyond } =
    options;
  const [editing, setEditing] = useState<Editing | null>(null);
  /** The text as it stands in the editor. */
  const typed = useRef('');
  /** Activities that were added and have no line yet, by the row at which they were typed. */
  const fresh = useRef(new Map<number, Promise<string | null>>());

  const begin = (next: Editing): void => {
    typed.current = next.begin;
    setEditing(next);
    if (next.row >= 0) scrollTo(Math.min(next.row, shape.lines));
  };

  /** The row of an activity moved, and what is typed for it goes along. */
  const carry = (from: number, to: number): void => {
    // Whoever went on meanwhile is not brought back.
    setFocus((now) => (from === NO_ROW ? { row: to, col: 0 } : now.row === from ? { ...now, row: to } : now));
    setEditing((e) => e && (e.row === from ? { ...e, row: to, begin: typed.current, over: true } : e));
  };

  // What was added stands where the arrangement puts it: the choice follows it there.
  useEffect(() => {
    const { row } = focus;
    const whose = fresh.current.get(row);
    for (const known of fresh.current.keys()) if (known < shape.lines) fresh.current.delete(known);
    if (!whose || row >= shape.lines) return;
    let current = true;
    whose
      .then((ref) => (ref === null ? null : open.room.lineOf(ref)))
      .then(
        (found) => current && found && found.place >= 0 && found.place !== row && carry(row, found.place),
        () => {},
      );
    return () => {
      current = false;
    };
  }, [shape]);

  // What was added may be hidden by a filter: the line for what is new is then where it was.
  const isKeeping = useKeeping();
  const isBeyond = focus.row > shape.lines;
  useEffect(() => {
    if (isKeeping || !isBeyond) return;
    const timer = setTimeout(() => {
      beyond.current = 0;
      carry(focus.row, shape.lines);
    }, SETTLED);
    return () => clearTimeout(timer);
  }, [isKeeping, isBeyond, shape]);

  // What was just made is named as soon as it has a line.
  const waits = editing?.row === NO_ROW ? editing.whose : null;
  useEffect(() => {
    if (!waits) return;
    let current = true;
    waits.then(
      async (ref) => {
        const place = ref === null ? -1 : (await open.room.lineOf(ref)).place;
        if (!current) return;
        if (ref === null) setEditing(null);
        else if (place >= 0) carry(NO_ROW, place);
      },
      () => {},
    );
    return () => {
      current = false;
    };
  }, [waits, shape]);

  /** Opens the editor of a cell: over what is there, where a text begins it. */
  const edit = (row: number, col: number, text: string | null): void => {
    if (!mayEdit) return sayWrong(new Error(LOOK_ONLY));
    const field = fields[col]!;
    if (editorOf(field) === null)
      return sayWrong(new Error(`${names.get(field) ?? field}: this is worked out, and cannot be typed.`));
    const over = text !== null;
    if (row >= shape.lines)
      return begin({ row, col, begin: text ?? '', over: true, whose: fresh.current.get(row) ?? null });
    const line = at(row);
    if (!line) {
      // Its line has not come into sight yet.
      const whose = open.room.lines(row, row + 1).then(([l]) => (l?.kind === 'row' ? l.ref : null));
      return begin({ row, col, begin: text ?? '', over: true, whose });
    }
    if (line.kind !== 'row') return;
    const shown = wrongs.get(line.ref)?.get(field)?.text ?? (col === 0 ? line.name : line.cells[col - 1]!);
    begin({ row, col, begin: text ?? shown, over, whose: Promise.resolve(line.ref) });
    if (over || wrongs.get(line.ref)?.has(field)) return;
    // The cell may hold it otherwise than it is typed.
    open.room.editText(line.ref, field, shown).then(
      (known) =>
        setEditing((e) => (e?.row === row && e.col === col && typed.current === shown ? { ...e, begin: known } : e)),
      () => {},
    );
  };

  const leave = (said: string | Promise<string>, by: LeaveBy): void => {
    const e = editing;
    setEditing(null);
    toFocus();
    if (!e) return;
    if (e.row !== NO_ROW) {
      if (by === 'right' || by === 'left') goAlong(e, by === 'right' ? 1 : -1, fields.length, go);
      else if (by !== 'stay') go(e.row + (by === 'down' ? 1 : -1), e.col);
    }
    const field = fields[e.col]!;
    const { whose } = e;
    if (whose === null) {
      if (said === '' || (typeof said === 'string' && said.trim() === '')) return;
      const made = typeof said === 'string' ? add(said, field) : said.then((text) => add(text, field));
      fresh.current.set(e.row, made);
      beyond.current = Math.max(beyond.current, e.row + 1, shape.lines + 1);
      void made.then((ref) => ref === null && (beyond.current = 0));
      // The line for what is new goes down by one.
      if (by === 'down') setFocus({ row: beyond.current, col: 0 });
      return;
    }
    const line = at(e.row);
    const isWrong = line !== null && wrongs.get(line.ref)?.has(field) === true;
    if (!isWrong && !e.over && said === e.begin) return;
    Promise.all([whose, said]).then(
      ([ref, text]) => (ref === null ? undefined : type([{ ref, field, text }])),
      sayWrong,
    );
  };

  /** Takes the name of something that is being made, also before its line is there. */
  const name = (made: Promise<string | null>): void =>
    begin({ row: NO_ROW, col: 0, begin: '', over: true, whose: made });

  /** Keys that come while the editor is not drawn yet: nothing of it is lost, or taken as a key of the sheet. */
  const ahead = (e: KeyboardEvent): void => {
    e.stopPropagation();
    const by = LEAVING[e.key];
    if (by) leave(typed.current, e.shiftKey ? by[1] : by[0]);
    else if (e.key === 'Escape') setEditing(null);
    else if (e.key === 'Backspace') more(typed.current.slice(0, -1));
    else if (e.key.length === 1 && !e.ctrlKey && !e.metaKey) more(typed.current + e.key);
    else return;
    e.preventDefault();
  };
  const more = (text: string): void => {
    typed.current = text;
    setEditing((was) => was && { ...was, begin: text, over: true });
  };

  return { editing, edit, name, leave, ahead, typed, end: () => setEditing(null) };
}

const LEAVING: Record<string, [by: LeaveBy, withShift: LeaveBy]> = { Enter: ['down', 'up'], Tab: ['right', 'left'] };
