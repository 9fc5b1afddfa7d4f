import { type Arrangement, isTest, type Test } from '@clembo/core';
import type { KeyboardEvent } from 'react';
import { goAlong, ROW_HEIGHT, type Spot } from './grid';
import type { Act } from './GridFoot';
import type { GridAct } from './gridKeys';
import { panned, type View, zoomed } from './stripView';
import type { useGridEdits } from './useGridEdits';

const MOVES: Record<string, [down: number, right: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** What the keys and buttons of the ledger need of it. */
export interface GridHand {
  focus: Spot;
  /** The last line, which is for something new. */
  last: number;
  columns: number;
  /** How many lines are in sight. */
  height: number;
  drawnOut: boolean;
  follow: boolean;
  view: View;
  edits: ReturnType<typeof useGridEdits>;
  /** The tightest neighbours of the activity that stands open. */
  neighbour: (side: 'before' | 'after') => string | undefined;
  go: (row: number, col: number, extend?: boolean) => void;
  drawOut: (from: Spot | null, to?: Spot) => void;
  edit: (row: number, col: number, begin: string | null) => void;
  /** Names what was just made, as soon as its line is there. */
  name: (made: Promise<string | null>) => void;
  open: () => void;
  close: () => void;
  walk: (ref: string) => void;
  toggle: () => void;
  find: () => void;
  like: () => void;
  everything: () => void;
  look: (view: View | null) => void;
}

const mod = (e: KeyboardEvent): boolean => e.ctrlKey || e.metaKey;

const removeRows = ({ edits, drawOut }: GridHand): void => void edits.remove().then(() => drawOut(null));

/** What each key of the ledger does. */
export function gridRun(hand: GridHand): Record<GridAct, (e: KeyboardEvent) => void> {
  const { focus, last, columns, edits, go } = hand;
  const move = (e: KeyboardEvent) => {
    const [down, right] = MOVES[e.key] ?? [0, 0];
    go(focus.row + down, focus.col + right, e.shiftKey);
  };
  const ends = (e: KeyboardEvent) => go(e.key === 'ArrowUp' ? 0 : last, focus.col, e.shiftKey);
  const page = Math.max(1, Math.floor(hand.height / ROW_HEIGHT) - 2);
  return {
    leave: () => (hand.drawnOut ? hand.drawOut(null) : hand.close()),
    go: (e) => {
      if (e.key === 'Home') go(mod(e) ? 0 : focus.row, 0, e.shiftKey);
      else if (e.key === 'End') go(mod(e) ? last : focus.row, columns - 1, e.shiftKey);
      else move(e);
    },
    next: (e) => goAlong(focus, e.shiftKey ? -1 : 1, columns, go),
    extend: (e) => ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && mod(e) ? ends(e) : move(e)),
    ends,
    page: (e) => go(focus.row + (e.key === 'PageDown' ? page : -page), focus.col, e.shiftKey),
    shift: (e) => void edits.shift(e.key === 'ArrowLeft' ? -1 : 1, hand.follow),
    carry: (e) => void edits.drawAll(e.key === 'ArrowUp' ? 'up' : 'down'),
    indent: (e) => void edits.drawAll(e.key === 'ArrowLeft' ? 'outdent' : 'indent'),
    open: hand.open,
    edit: () => hand.edit(focus.row, focus.col, null),
    over: (e) => hand.edit(focus.row, focus.col, e.key),
    walk: (e) => {
      const next = hand.neighbour(e.key === '<' ? 'before' : 'after');
      if (next) hand.walk(next);
    },
    insert: () => hand.name(edits.insert()),
    duplicate: () => hand.name(edits.duplicate()),
    remove: () => removeRows(hand),
    clear: () => void edits.clear(),
    fill: () => void edits.fillDown(),
    all: () => hand.drawOut({ row: 0, col: 0 }, { row: Math.max(0, last - 1), col: columns - 1 }),
    toggle: hand.toggle,
    find: hand.find,
    like: hand.like,
    everything: hand.everything,
    zoom: (e) => {
      const { view } = hand;
      hand.look(
        e.key === '0' ? null : zoomed(view, ['+', '='].includes(e.key) ? 1 / 1.6 : 1.6, (view.from + view.to) / 2),
      );
    },
    pan: (e) => hand.look(panned(hand.view, e.key === 'ArrowLeft' ? -0.2 : 0.2)),
  };
}

/** What the foot of the ledger offers for the rows that are chosen. */
export function gridActs(
  hand: GridHand & { repeat: () => void },
  now: { onRow: boolean; summary: boolean; outlined: boolean; several: boolean; isOpen: boolean },
): Act[] {
  const { edits } = hand;
  const { onRow, outlined } = now;
  return [
    ['Insert', 'A new activity behind the row (Insert)', () => hand.name(edits.insert()), true],
    [
      'Duplicate',
      'A copy of the rows with all that they hold (Ctrl Shift D)',
      () => hand.name(edits.duplicate()),
      onRow,
    ],
    ['Remove', 'Remove the rows (Ctrl Delete)', () => removeRows(hand), onRow],
    ['In', 'Into the row above (Alt Shift Right)', () => void edits.drawAll('indent'), onRow && outlined],
    ['Out', 'Out of its group (Alt Shift Left)', () => void edits.drawAll('outdent'), onRow && outlined],
    [
      'Milestone',
      'A milestone behind the row, linked to it',
      () => hand.name(edits.milestone()),
      onRow && !now.summary,
    ],
    ['Fill down', 'The first row into those below (Ctrl D)', () => void edits.fillDown(), now.several],
    ['Only like this', 'List only rows with what is in the cell (Alt Enter, or Alt and click)', hand.like, onRow, true],
    ['Repeat', 'The rows again for each floor, house or section of a line', hand.repeat, onRow],
    ['Find', 'Find and replace (Ctrl F)', hand.find, true, true],
    [now.isOpen ? 'Close' : 'Neighbours', 'What leads to it, and what follows (Enter)', hand.open, onRow, true],
  ];
}

/** A filter narrowed by what is in a cell; another value of the same field adds to it. */
export function narrowed(where: Arrangement['where'], test: Test): Arrangement['where'] {
  const tests = where.match === 'all' ? where.tests : [where];
  const same = tests.find((t) => isTest(t) && t.field === test.field && t.is === 'is' && test.is === 'is');
  return {
    match: 'all',
    tests: same
      ? tests.map((t) => (t === same && isTest(t) ? { ...t, values: [...new Set([...t.values, ...test.values])] } : t))
      : [...tests, test],
  };
}
