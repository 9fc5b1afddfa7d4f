'use client';
import { type Arrangement, type Day, dayOf, selectFields } from '@clembo/core';
import { editorOf, fieldAbout } from '@clembo/formats/typed';
import { formatDay } from '@clembo/scene/dates';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { wrong as sayWrong } from '@/ui/Toasts';
import type { LedgerShape, Neighbours } from '@/workers/plan.worker';
import type { OpenRoom } from '@/workers/planRoom';
import type { LeaveBy } from './CellInput';
import { GridLine } from './GridLine';
import { blockHeight, NeighbourBlock } from './NeighbourBlock';
import { GridFoot } from './GridFoot';
import { GridHead } from './GridHead';
import { columnWidth, inRange, rangeOf, type Spot, tableText } from './grid';
import { keyOf, useGridEdits } from './useGridEdits';
import { useLines } from './useLines';
import { useStripDrag } from './useStripDrag';

const ROW_HEIGHT = 30;

interface Props {
  planId: string;
  open: OpenRoom;
  shape: LedgerShape;
  arrangement: Arrangement;
  /** A row that is wanted in sight. */
  goal: { place: number } | null;
  /** Brings an activity in sight, wherever it stands. */
  onJump: (ref: string) => void;
  onToggle: (key: string) => void;
  onArrange: (part: Partial<Arrangement>) => void;
  onChosen: (ref: string | null) => void;
}

interface Editing {
  row: number;
  col: number;
  begin: string;
  over: boolean;
}

/** The lines of the ledger as a sheet: chosen, typed into, copied and pasted by ranges; the last line is for what is new. */
export function LedgerGrid(props: Props) {
  const { planId, open, shape, arrangement, goal, onJump, onToggle, onArrange, onChosen } = props;
  const fields = useMemo(() => ['name', ...arrangement.columns.map((c) => c.field)], [arrangement.columns]);
  const names = useMemo(() => new Map(selectFields(open.head).map((f) => [f.id, f.name])), [open]);
  const widths = useMemo(
    () => [arrangement.nameWidth, ...arrangement.columns.map((c) => c.width ?? columnWidth(c.field))],
    [arrangement],
  );
  const scroller = useRef<HTMLDivElement>(null);
  const [focus, setFocus] = useState<Spot>({ row: 0, col: 0 });
  const [anchor, setAnchor] = useState<Spot | null>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  /** The activity that stands open with its neighbours. */
  const [opened, setOpened] = useState<string | null>(null);
  const [around, setAround] = useState<Neighbours | null>(null);
  const lines = useLines(open, shape);
  const [openAt, setOpenAt] = useState(-1);
  const total = shape.lines + 1;
  const list = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: (k) => (k === openAt && around ? ROW_HEIGHT + blockHeight(around) + 8 : ROW_HEIGHT),
    overscan: 14,
  });
  useEffect(() => {
    if (opened === null) {
      setAround(null);
      setOpenAt(-1);
      return;
    }
    let current = true;
    Promise.all([open.room.neighbours(opened), open.room.lineOf(opened)]).then(([found, { place }]) => {
      if (!current) return;
      setAround(found);
      setOpenAt(place);
    }, sayWrong);
    return () => {
      current = false;
    };
  }, [opened, open, shape]);
  useEffect(() => list.measure(), [openAt, around, list]);
  const items = list.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useEffect(() => lines.want(from, to), [lines, from, to]);
  const all = shape.range ?? [0, 30];
  // A little room at both ends, so that nothing is cut in two.
  const room = Math.max(1, Math.round((all[1] - all[0]) / 50));
  const range: [Day, Day] = [
    arrangement.from === null ? all[0] - room : dayOf(arrangement.from),
    arrangement.to === null ? all[1] + room : dayOf(arrangement.to - 1),
  ];
  const statusDay = open.head.statusDate === null ? null : open.head.statusDate / 1440;
  const chosen = lines.at(focus.row);
  const area = rangeOf(focus, anchor);

  const edits = useGridEdits({ planId, open, shape, fields, range: area, from: focus, behind: chosen?.ref || null });
  const { busy, change, wrongs, pending, naming, type } = edits;

  const follow = useRef<string | null>(null);
  /** Counts how often the person has chosen a cell: an answer that comes later than that does not choose another. */
  const picks = useRef(0);
  useEffect(() => {
    follow.current = chosen?.ref || null;
    onChosen(chosen?.ref || null);
  }, [chosen?.ref, onChosen]);
  // Rows that go elsewhere take the choice with them.
  useEffect(() => {
    const ref = naming ?? follow.current;
    if (ref === null) return;
    const picked = picks.current;
    let current = true;
    open.room.lineOf(ref).then(
      ({ place }) => {
        if (!current || place < 0 || (ref !== naming && picks.current !== picked)) return;
        setFocus((f) => (f.row === place ? f : { ...f, row: place }));
        if (ref !== naming) return;
        edits.setNaming(null);
        setEditing({ row: place, col: 0, begin: '', over: true });
        setFocus({ row: place, col: 0 });
      },
      () => {},
    );
    return () => {
      current = false;
    };
  }, [shape, naming]);
  useEffect(() => {
    if (!goal || goal.place < 0) return;
    setFocus({ row: goal.place, col: 0 });
    setAnchor(null);
    list.scrollToIndex(goal.place, { align: 'center' });
  }, [goal]);
  const toFocus = () => scroller.current?.focus({ preventScroll: true });

  const go = useCallback(
    (row: number, col: number, extend = false) => {
      picks.current++;
      const spot = { row: Math.max(0, Math.min(total - 1, row)), col: Math.max(0, Math.min(fields.length - 1, col)) };
      setAnchor((a) => (extend ? (a ?? focus) : null));
      setFocus(spot);
      list.scrollToIndex(spot.row);
    },
    [total, fields.length, focus, list],
  );

  const edit = async (row: number, col: number, begin: string | null) => {
    const line = lines.at(row);
    const field = fields[col]!;
    if (row >= shape.lines) {
      if (col === 0) setEditing({ row, col, begin: begin ?? '', over: begin !== null });
      return;
    }
    if (!line || line.kind !== 'row') return;
    if (editorOf(field) === null)
      return sayWrong(new Error(`${names.get(field) ?? field}: this is worked out, and cannot be typed.`));
    const known = wrongs.get(keyOf(line.ref, field));
    const text =
      begin ?? known?.text ?? (await open.room.editText(line.ref, field, col === 0 ? line.name : line.cells[col - 1]!));
    setEditing({ row, col, begin: text, over: begin !== null });
  };
  const leave = (text: string, by: LeaveBy) => {
    const e = editing;
    setEditing(null);
    toFocus();
    if (!e) return;
    if (by === 'down') go(e.row + 1, e.col);
    else if (by === 'up') go(e.row - 1, e.col);
    else if (by === 'right') go(e.row, e.col + 1);
    else if (by === 'left') go(e.row, e.col - 1);
    if (e.row >= shape.lines) {
      if (text.trim() === '') return;
      // The line for what is new goes down by one.
      picks.current++;
      if (by === 'down') setFocus({ row: Math.max(e.row, shape.lines) + 1, col: 0 });
      void edits.add([[text]], ['name']);
      return;
    }
    const line = lines.at(e.row);
    if (!line) return;
    const shown = e.col === 0 ? line.name : line.cells[e.col - 1]!;
    const known = wrongs.has(keyOf(line.ref, fields[e.col]!));
    if (!known && !e.over && text === e.begin && text === shown) return;
    void type([{ ref: line.ref, field: fields[e.col]!, text }]);
  };

  const walk = (ref: string) => {
    setOpened(ref);
    onJump(ref);
    toFocus();
  };
  useEffect(() => {
    const own = () => document.activeElement === scroller.current && !editing;
    const copy = (e: ClipboardEvent) => {
      if (!own()) return;
      e.preventDefault();
      const columns = Array.from({ length: area.right - area.left + 1 }, (_, k) => area.left + k);
      // What is in sight is at hand at once; more than that is asked for and put in when it comes.
      const near = Array.from({ length: area.bottom - area.top + 1 }, (_, k) => lines.at(area.top + k));
      if (near.every((l) => l !== null))
        e.clipboardData!.setData(
          'text/plain',
          tableText(near.map((l) => columns.map((c) => (c === 0 ? l!.name : (l!.cells[c - 1] ?? ''))))),
        );
      else
        void open.room
          .copied(area.top, area.bottom + 1, columns)
          .then((table) => navigator.clipboard.writeText(tableText(table)))
          .catch(sayWrong);
    };
    const cut = (e: ClipboardEvent) => {
      if (!own()) return;
      copy(e);
      void edits.clear();
    };
    const put = (e: ClipboardEvent) => {
      if (!own()) return;
      e.preventDefault();
      void edits.paste(e.clipboardData?.getData('text/plain') ?? '', anchor !== null);
    };
    document.addEventListener('copy', copy);
    document.addEventListener('cut', cut);
    document.addEventListener('paste', put);
    return () => {
      document.removeEventListener('copy', copy);
      document.removeEventListener('cut', cut);
      document.removeEventListener('paste', put);
    };
  });

  const onKey = (e: KeyboardEvent) => {
    if (e.target !== scroller.current) return;
    if (editing) {
      // The line is not there yet that is typed into: nothing that is typed meanwhile is lost.
      const { begin } = editing;
      if (e.key === 'Enter') leave(begin, 'down');
      else if (e.key === 'Backspace') setEditing({ ...editing, begin: begin.slice(0, -1) });
      else if (e.key.length === 1 && !e.ctrlKey && !e.metaKey) setEditing({ ...editing, begin: begin + e.key });
      else return;
      e.preventDefault();
      return;
    }
    const run = keyRun(e);
    if (!run) return;
    e.preventDefault();
    e.stopPropagation();
    run();
  };
  const keyRun = (e: KeyboardEvent): (() => void) | null => {
    const { row, col } = focus;
    const mod = e.ctrlKey || e.metaKey;
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / ROW_HEIGHT) - 2);
    const arrows: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const step = arrows[e.key];
    if (step && e.altKey && step[0] !== 0)
      return () => void edits.drawAll((ref) => ({ do: step[0] < 0 ? 'up' : 'down', ref }), 'Move');
    if (step && e.shiftKey && !mod && step[1] !== 0)
      return () => void edits.drawAll((ref) => ({ do: 'shift', ref, days: step[1] }), 'Move');
    if (step && mod && step[0] !== 0) return () => go(step[0] < 0 ? 0 : total - 1, col, e.shiftKey);
    if (step) return () => go(row + step[0], col + step[1], e.shiftKey);
    if (e.key === 'Home') return () => go(mod ? 0 : row, 0, e.shiftKey);
    if (e.key === 'End') return () => go(mod ? total - 1 : row, fields.length - 1, e.shiftKey);
    if (e.key === 'PageDown' || e.key === 'PageUp')
      return () => go(row + (e.key === 'PageDown' ? page : -page), col, e.shiftKey);
    if (e.key === 'Escape') return anchor ? () => setAnchor(null) : opened ? () => setOpened(null) : null;
    if (opened !== null && around && (e.key === '<' || e.key === '>')) {
      const next = (e.key === '<' ? around.before : around.after)[0];
      return next ? () => walk(next.ref) : null;
    }
    if (mod && e.key === 'd') return () => void edits.fillDown();
    if (mod && e.key === 'a')
      return () => {
        setAnchor({ row: 0, col: 0 });
        setFocus({ row: Math.max(0, shape.lines - 1), col: fields.length - 1 });
      };
    if (mod && (e.key === 'Delete' || e.key === 'Backspace'))
      return () => void edits.remove().then(() => setAnchor(null));
    if (mod) return null;
    if (e.key === 'Delete' || e.key === 'Backspace') return () => void edits.clear();
    if (e.key === 'Insert') return () => void edits.insert();
    if (e.key === 'Enter' && chosen?.ref) return () => setOpened((o) => (o === chosen.ref ? null : chosen.ref));
    if (e.key === 'Enter' || e.key === 'F2') return () => void edit(row, col, null);
    if (e.key === 'Tab') {
      if (!chosen?.ref || arrangement.groups.length + arrangement.sort.length > 0) return null;
      return () =>
        void edits.drawAll((ref) => ({ do: e.shiftKey ? 'outdent' : 'indent', ref }), e.shiftKey ? 'Out:' : 'In:');
    }
    if (e.key === ' ' && chosen?.canClose) return () => onToggle(chosen.key);
    if (e.key.length === 1 && !e.altKey) return () => void edit(row, col, e.key);
    return null;
  };

  const hasRow = Boolean(chosen?.ref);
  const outlined = hasRow && arrangement.groups.length === 0 && arrangement.sort.length === 0;

  const inSight = useRef<string[]>([]);
  inSight.current = [
    ...items.map((v) => lines.at(v.index)?.ref ?? '').filter((r) => r !== ''),
    ...(around ? [...around.before, ...around.after].map((n) => n.ref) : []),
  ];
  const { drag, would, onGrip } = useStripDrag({
    open,
    range,
    inSight,
    isGroup: (ref) => items.some((v) => lines.at(v.index)?.ref === ref && lines.at(v.index)?.summary),
    onDrop: (make, words) => {
      toFocus();
      void change(make, words);
    },
    onEnd: toFocus,
  });

  const fixed = widths.reduce((a, b) => a + b, 0);
  const grid = `${widths.map((w) => `${w}px`).join(' ')} minmax(300px, 1fr)`;
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <div
        ref={scroller}
        // biome-ignore lint: the sheet is worked by keys
        tabIndex={0}
        role="treegrid"
        aria-label="Ledger"
        aria-rowcount={total + 1}
        aria-colcount={fields.length + 1}
        aria-activedescendant={`cell-${focus.row}-${focus.col}`}
        aria-busy={busy}
        onKeyDown={onKey}
        className="relative min-h-0 flex-1 overflow-auto border-t border-line bg-paper outline-none"
      >
        <GridHead
          fields={fields}
          names={names}
          grid={grid}
          width={fixed + 300}
          range={range}
          statusDay={statusDay}
          arrangement={arrangement}
          about={(field) => fieldAbout(field)}
          onArrange={onArrange}
        />
        <div style={{ height: list.getTotalSize(), minWidth: fixed + 300 }} className="relative">
          {items.map((v) => {
            const line = lines.at(v.index);
            const own = (col: number) => (line ? wrongs.get(keyOf(line.ref, fields[col]!)) : undefined);
            return (
              <GridLine
                key={v.key}
                line={line}
                fresh={v.index === shape.lines}
                index={v.index}
                top={v.start}
                grid={grid}
                fields={fields}
                names={names}
                range={range}
                statusDay={statusDay}
                focusCol={v.index === focus.row ? focus.col : null}
                isChosen={(col) => anchor !== null && inRange(area, v.index, col)}
                wrongAt={own}
                pendingAt={(col) => (line ? pending.get(keyOf(line.ref, fields[col]!)) : undefined)}
                would={(line && would?.bars[line.ref]) ?? null}
                editing={editing?.row === v.index ? editing : null}
                open={open}
                onPick={(col, extend) => {
                  picks.current++;
                  edits.endAdding();
                  setAnchor(extend ? (anchor ?? focus) : null);
                  setFocus({ row: v.index, col });
                  toFocus();
                }}
                onOver={(col) => {
                  picks.current++;
                  setAnchor((a) => a ?? focus);
                  setFocus({ row: v.index, col });
                }}
                onEdit={(col) => void edit(v.index, col, null)}
                onToggle={() => line && onToggle(line.key)}
                onDone={leave}
                onLeave={() => {
                  setEditing(null);
                  toFocus();
                }}
                onOpen={() => line?.ref && setOpened((o) => (o === line.ref ? null : line.ref))}
                onGrip={(e, grip) => line?.strip && onGrip(e, grip, line.ref, line.strip.first, line.strip.last)}
              />
            );
          })}
          {openAt >= 0 && around && lines.at(openAt)?.ref === opened && (
            <div
              className="absolute inset-x-0 z-10"
              style={{ transform: `translateY(${(list.measurementsCache[openAt]?.start ?? 0) + ROW_HEIGHT + 4}px)` }}
            >
              <NeighbourBlock
                open={open}
                line={lines.at(openAt)!}
                neighbours={around}
                nameWidth={widths[0]!}
                cellsWidth={fixed - widths[0]!}
                range={range}
                statusDay={statusDay}
                would={(ref) => would?.bars[ref] ?? null}
                onWalk={walk}
                onChange={(command, words) => void change(command, words)}
                onLink={(field, text) => void edits.addLink(opened!, field, text)}
              />
            </div>
          )}
        </div>
      </div>
      <GridFoot
        acts={[
          ['Insert', 'A new activity behind the row (Insert)', () => void edits.insert(), true],
          ['Remove', 'Remove the rows (Ctrl Delete)', () => void edits.remove().then(() => setAnchor(null)), hasRow],
          [
            'In',
            'Into the row above (Tab)',
            () => void edits.drawAll((ref) => ({ do: 'indent', ref }), 'In:'),
            outlined,
          ],
          [
            'Out',
            'Out of its group (Shift Tab)',
            () => void edits.drawAll((ref) => ({ do: 'outdent', ref }), 'Out:'),
            outlined,
          ],
          [
            'Up',
            'Before the row above (Alt Up)',
            () => void edits.drawAll((ref) => ({ do: 'up', ref }), 'Move'),
            outlined,
          ],
          [
            'Down',
            'Behind the row below (Alt Down)',
            () => void edits.drawAll((ref) => ({ do: 'down', ref }), 'Move'),
            outlined,
          ],
          ['Fill down', 'The first row into those below (Ctrl D)', () => void edits.fillDown(), area.bottom > area.top],
          [
            opened !== null && opened === chosen?.ref ? 'Close' : 'Neighbours',
            'What leads to it, and what follows (Enter)',
            () => setOpened((o) => (o === chosen?.ref ? null : (chosen?.ref ?? null))),
            hasRow,
          ],
        ]}
        chosen={anchor ? `${area.bottom - area.top + 1} rows, ${area.right - area.left + 1} columns` : ''}
        bad={would?.bad ?? (drag === null && wrongs.size > 0)}
        words={
          drag
            ? `${formatDay(drag.grip === 'finish' ? drag.last + drag.to - drag.from : drag.first + drag.to - drag.from, 'weekday')}. ${would?.words ?? ''}`
            : wrongs.size > 0
              ? `${wrongs.size === 1 ? 'One cell' : `${wrongs.size} cells`} cannot be used as typed: ${[...wrongs.values()][0]!.why}`
              : ''
        }
        onLeave={!drag && wrongs.size > 0 ? edits.leaveWrongs : null}
      />
    </div>
  );
}
