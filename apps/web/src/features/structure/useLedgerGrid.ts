'use client';
import { type Arrangement, selectFields } from '@clembo/core';
import { type KeyboardEvent, type RefObject, useCallback, useMemo, useRef, useState } from 'react';
import { useMay } from '@/ui/useMay';
import type { LedgerShape, Sight } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import type { Other } from '@/workers/presence';
import type { LineActs } from './GridLine';
import { type Chosen, columnWidth } from './grid';
import { GRID_KEYS } from './gridKeys';
import { type GridHand, gridActs, gridRun, narrowed } from './gridRun';
import { useCellEditing } from './useCellEditing';
import { useChoice, useColumnInSight } from './useChoice';
import { useClipboard } from './useClipboard';
import { useGridEdits } from './useGridEdits';
import { useRowCarry } from './useRowCarry';
import { useSheet } from './useSheet';
import { useSteady } from './useSteady';
import { useStrips } from './useStrips';

export interface LedgerProps {
  planId: string;
  open: OpenRoom;
  shape: LedgerShape;
  /** Where it is said which lines are in sight. */
  sight: RefObject<Sight>;
  arrangement: Arrangement;
  /** A row that is wanted in sight. */
  goal: { place: number } | null;
  /** Who else looks at the plan, and where. */
  others: readonly Other[];
  /** Brings an activity in sight, wherever it stands. */
  onJump: (ref: string) => void;
  onToggle: (key: string) => void;
  onArrange: (part: Partial<Arrangement>) => void;
  onChosen: (chosen: Chosen) => void;
}

/** Columns of the ledger: their fields, names and widths. */
function useColumns(open: OpenRoom, arrangement: Arrangement) {
  const fields = useMemo(() => ['name', ...arrangement.columns.map((c) => c.field)], [arrangement.columns]);
  // Lines are drawn again where this is another; it seldom is when the plan is.
  const { codeFields, effortDay } = open.head;
  const names = useMemo(() => new Map(selectFields(open.head).map((f) => [f.id, f.name])), [codeFields, effortDay]);
  const widths = useMemo(
    () => [arrangement.nameWidth, ...arrangement.columns.map((c) => c.width ?? columnWidth(c.field))],
    [arrangement],
  );
  return { fields, names, widths };
}

/** What the ledger holds: what is in sight, chosen, typed into and dragged. */
function useLedgerState(props: LedgerProps) {
  const { planId, open, shape, sight, arrangement, goal, onChosen } = props;
  const columns = useColumns(open, arrangement);
  const { fields, names, widths } = columns;
  const scroller = useRef<HTMLDivElement>(null);
  const may = useMay(planId);
  /** Rows that are to be repeated in units. */
  const [repeating, setRepeating] = useState<string[] | null>(null);
  const [finding, setFinding] = useState(false);
  const sheet = useSheet(open, shape, sight, arrangement, scroller);
  const { list, at, opened } = sheet;
  const scrollTo = useCallback((row: number, align?: 'center') => list.scrollToIndex(row, { align }), [list]);
  const beyond = useRef(0);
  const choice = useChoice({ shape, sight, at, columns: fields.length, beyond, goal, scrollTo, onChosen });
  const { focus, setFocus, anchor, chosen, area, go } = choice;
  useColumnInSight(scroller, focus.col, widths, sheet.width);
  const toFocus = () => scroller.current?.focus({ preventScroll: true });
  const behind = chosen?.ref || null;
  const edits = useGridEdits({ planId, open, shape, fields, range: area, from: focus, behind });
  const cells = useCellEditing({
    open,
    shape,
    fields,
    names,
    at,
    wrongs: edits.wrongs,
    mayEdit: may.edit,
    focus,
    setFocus,
    go,
    scrollTo,
    toFocus,
    type: edits.type,
    add: edits.addOne,
    beyond,
  });
  const strips = useStrips({ open, view: sheet.view, inSight: sheet.inSight, opened, change: edits.change, toFocus });
  const { landing, onCarry } = useRowCarry((ref, to) => void edits.carry(ref, to.place, to.ref));
  useClipboard({
    open,
    own: () => document.activeElement === scroller.current && !cells.editing,
    at,
    area,
    onClear: () => void edits.clear(),
    onPaste: (text) => void edits.paste(text, anchor !== null),
  });
  return {
    ...columns,
    ...sheet,
    ...choice,
    scroller,
    may,
    repeating,
    setRepeating,
    finding,
    setFinding,
    edits,
    cells,
    strips,
    landing,
    onCarry,
    toFocus,
  };
}

/** What the keys, the buttons and the lines of the ledger do. */
function useLedgerHand(props: LedgerProps, state: ReturnType<typeof useLedgerState>) {
  const { open, shape, arrangement, onJump, onToggle, onArrange } = props;
  const { at, opened, around, focus, setFocus, anchor, setAnchor, chosen, area, go } = state;
  const { fields, edits, cells, strips, scroller, toFocus } = state;
  const behind = chosen?.ref || null;
  /** The next Tab leaves the sheet. */
  const letGo = useRef(false);
  const walk = (ref: string) => {
    state.setOpened(ref);
    onJump(ref);
    toFocus();
  };
  /** Lists only rows with what is in a cell; a second cell narrows that down. */
  const like = async (row: number, col: number) => {
    const ref = at(row)?.ref;
    const test = ref ? await open.room.like(ref, fields[col]!) : null;
    if (test) onArrange({ where: narrowed(arrangement.where, test) });
  };
  const openChosen = () => state.toggle(behind);
  const hand: GridHand = {
    focus,
    last: shape.lines,
    columns: fields.length,
    height: scroller.current?.clientHeight ?? 300,
    drawnOut: anchor !== null,
    follow: strips.follow,
    view: state.view,
    edits,
    neighbour: (side) => around?.[side][0]?.ref,
    go,
    drawOut: (from, to) => {
      setAnchor(from);
      if (to) setFocus(to);
    },
    edit: cells.edit,
    name: cells.name,
    open: openChosen,
    close: () => state.setOpened(null),
    walk,
    toggle: () => chosen && onToggle(chosen.key),
    find: () => state.setFinding(true),
    like: () => void like(focus.row, focus.col),
    everything: () => onArrange({ where: { match: 'all', tests: [] } }),
    look: state.setView,
  };
  const outlined = arrangement.groups.length === 0 && arrangement.sort.length === 0;
  const onKey = (e: KeyboardEvent) => {
    if (e.target !== scroller.current) return;
    if (cells.editing) return cells.ahead(e);
    const leaves = letGo.current && e.key === 'Tab';
    letGo.current = e.key === 'Escape';
    if (leaves) return;
    const state = {
      drawnOut: anchor !== null,
      opened: opened !== null,
      onRow: behind !== null,
      canClose: chosen?.canClose === true,
      outlined,
    };
    const found = GRID_KEYS.find((k) => k.when(e, state));
    if (!found) return;
    e.preventDefault();
    e.stopPropagation();
    gridRun(hand)[found.act](e);
  };
  const repeat = async () => {
    const refs = (await open.room.refsOn(area.top, area.bottom + 1)).filter((r) => r !== '');
    if (refs.length > 0) state.setRepeating(refs);
  };
  const acts = gridActs(
    { ...hand, repeat: () => void repeat() },
    {
      onRow: behind !== null,
      summary: chosen?.summary === true,
      outlined,
      several: area.bottom > area.top,
      isOpen: opened !== null && opened === behind,
    },
  );
  const lineActs: LineActs = {
    pick: (index, col, extend) => {
      edits.endAdding();
      setAnchor(extend ? (anchor ?? focus) : null);
      setFocus({ row: index, col });
      toFocus();
    },
    like: (index, col) => void like(index, col),
    carry: state.onCarry,
    over: (index, col) => {
      setAnchor((a) => a ?? focus);
      setFocus({ row: index, col });
    },
    edit: (index, col) => cells.edit(index, col, null),
    toggle: onToggle,
    typed: (text) => {
      cells.typed.current = text;
    },
    done: cells.leave,
    leave: () => {
      cells.end();
      toFocus();
    },
    openUp: state.toggle,
    grip: (e, grip, line) => line.strip && strips.grip(e, grip, line.ref, line.strip, false),
  };
  const on = useSteady(lineActs);
  return { outlined, onKey, acts, on, walk };
}

/** The ledger with all that can be done with it; the view below draws it. */
export function useLedgerGrid(props: LedgerProps) {
  const state = useLedgerState(props);
  return { ...state, ...useLedgerHand(props, state) };
}

export type LedgerSheet = ReturnType<typeof useLedgerGrid>;
