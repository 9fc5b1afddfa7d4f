'use client';
import { type Arrangement, dayOf, isTest, selectFields } from '@clembo/core';
import { editorOf, fieldAbout } from '@clembo/formats/typed';
import { formatDay } from '@clembo/scene/dates';
import { useVirtualizer } from '@tanstack/react-virtual';
import {
  type KeyboardEvent,
  type RefObject,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { wrong as sayWrong } from '@/ui/Toasts';
import { LOOK_ONLY, useMay } from '@/ui/useMay';
import type { LedgerShape, Sight } from '@/workers/answers/ledger';
import type { Neighbours } from '@/workers/answers/neighbours';
import type { OpenRoom } from '@/workers/planRoom';
import type { Other } from '@/workers/presence';
import type { LeaveBy } from './CellInput';
import { FindBar } from './FindBar';
import { type Act, GridFoot } from './GridFoot';
import { GridHead } from './GridHead';
import { FaintLine, GridLine, type LineActs } from './GridLine';
import { type Chosen, columnWidth, ROW_HEIGHT, rangeOf, type Spot } from './grid';
import { GRID_KEYS, type GridAct } from './gridKeys';
import { nearDay } from './nearDay';
import { blockHeight, NeighbourBlock } from './NeighbourBlock';
import { RepeatSheet } from './RepeatSheet';
import { panned, STRIP_LEAST, zoomed } from './stripView';
import { useByAndBy } from './useByAndBy';
import { useClipboard } from './useClipboard';
import { useFollow } from './useFollow';
import { useGridEdits } from './useGridEdits';
import { useLines } from './useLines';
import { useProposal } from './useProposal';
import { useRowCarry } from './useRowCarry';
import { useSteady } from './useSteady';
import { type Drag, useStripDrag } from './useStripDrag';
import { useView } from './useView';

/** How many lines that come into sight are drawn in one frame. */
const AT_ONCE = 6;
const MOVES: Record<string, [down: number, right: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

interface Props {
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

interface Editing {
  row: number;
  col: number;
  begin: string;
  over: boolean;
  /** Whom it is typed for, wherever the row goes meanwhile; null for something new. */
  ref: string | null;
}

/** The lines of the ledger as a sheet: chosen, typed into, copied and pasted by ranges; the last line is for what is new. */
export function LedgerGrid(props: Props) {
  const { planId, open, shape, sight, arrangement, goal, onJump, onToggle, onArrange, onChosen } = props;
  const fields = useMemo(() => ['name', ...arrangement.columns.map((c) => c.field)], [arrangement.columns]);
  // Lines are drawn again where this is another; it seldom is when the plan is.
  const { codeFields, effortDay } = open.head;
  const names = useMemo(() => new Map(selectFields(open.head).map((f) => [f.id, f.name])), [codeFields, effortDay]);
  const widths = useMemo(
    () => [arrangement.nameWidth, ...arrangement.columns.map((c) => c.width ?? columnWidth(c.field))],
    [arrangement],
  );
  const scroller = useRef<HTMLDivElement>(null);
  const [focus, setFocus] = useState<Spot>({ row: 0, col: 0 });
  const [anchor, setAnchor] = useState<Spot | null>(null);
  /** Rows that are to be repeated in units. */
  const [repeating, setRepeating] = useState<string[] | null>(null);
  const may = useMay(planId);
  const [editing, setEditing] = useState<Editing | null>(null);
  /** The activity that stands open with its neighbours. */
  const [opened, setOpened] = useState<string | null>(null);
  const [around, setAround] = useState<Neighbours | null>(null);
  const lines = useLines(open, shape, sight);
  const [openAt, setOpenAt] = useState(-1);
  const total = shape.lines + 1;
  const list = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: (k) => (k === openAt && around ? ROW_HEIGHT + blockHeight(around) + 8 : ROW_HEIGHT),
    overscan: 6,
    useFlushSync: false,
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
  useEffect(() => {
    list.measure();
    // What has opened is in sight.
    if (openAt >= 0) list.scrollToIndex(openAt);
  }, [openAt, around, list]);
  const items = list.getVirtualItems();
  const slots = useRef(1);
  slots.current = Math.max(slots.current, items.length);
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useLayoutEffect(() => lines.want(from, to), [lines, from, to]);
  const inFull = useByAndBy(
    items.map((v) => v.index).filter((k) => k === shape.lines || lines.at(k)),
    AT_ONCE,
  );
  const near = nearDay(open.head);
  const all = shape.range ?? [near, near + 30];
  // A little room at both ends, so that nothing is cut in two.
  const room = Math.max(1, Math.round((all[1] - all[0]) / 50));
  const from0 = arrangement.from === null ? all[0] - room : dayOf(arrangement.from);
  const to0 = arrangement.to === null ? all[1] + room + 1 : dayOf(arrangement.to - 1) + 1;
  const whole = useMemo(() => ({ from: from0, to: to0 }), [from0, to0]);
  const { view, setView, width: stripWidth, ground } = useView(open, whole, scroller);
  const statusDay = open.head.statusDate === null ? null : dayOf(open.head.statusDate) + 1;
  const [seen, setSeen] = useState(shape);
  if (seen !== shape) {
    setSeen(shape);
    // Rows that go elsewhere take the choice with them.
    const row = placeIn(shape, sight.current.ref);
    if (row >= 0 && row !== focus.row) setFocus({ ...focus, row });
  }
  const chosen = lines.at(focus.row);
  const area = rangeOf(focus, anchor);

  const edits = useGridEdits({
    planId,
    open,
    shape,
    fields,
    range: area,
    from: focus,
    behind: chosen?.ref || null,
  });
  const { busy, change, wrongs, pending, naming, type } = edits;
  const [finding, setFinding] = useState(false);
  const [follow, setFollow] = useFollow();
  const inSight = useRef<string[]>([]);
  inSight.current = [
    ...items.map((v) => lines.at(v.index)?.ref ?? '').filter((r) => r !== ''),
    ...(around ? [...around.before, ...around.after].map((n) => n.ref) : []),
  ];
  const { proposal, propose, keep, leave: leaveProposal } = useProposal(open, inSight, change);
  useEffect(leaveProposal, [opened, open]);
  /** Whether what is dragged belongs to the activity that stands open: it is proposed first. */
  const inBlock = useRef(false);
  const { drag, would, onGrip } = useStripDrag({
    open,
    view,
    follow,
    inSight,
    onDrop: (dragging, words) => {
      toFocus();
      const wanted = (room: OpenRoom['room']) => room.dragged(dragging, follow);
      if (inBlock.current) void propose(wanted, words);
      else void change(wanted, words);
    },
    onEnd: () => toFocus(),
  });
  const { landing, onCarry } = useRowCarry((ref, to) => void edits.carry(ref, to.place, to.ref));
  const foreseen = would ?? proposal?.would ?? null;

  useLayoutEffect(() => {
    // A line that is still on its way is the same choice.
    if (chosen || focus.row >= shape.lines) sight.current = { ...sight.current, ref: chosen?.ref || null };
  }, [chosen, focus.row, shape.lines, sight]);
  useEffect(() => {
    onChosen({ ref: chosen?.ref || null, top: area.top, bottom: area.bottom });
  }, [chosen?.ref, area.top, area.bottom, onChosen]);
  // What is new is named at once.
  useEffect(() => {
    if (naming === null) return;
    let current = true;
    open.room.lineOf(naming).then(
      ({ place }) => {
        if (!current || place < 0) return;
        edits.setNaming(null);
        setEditing({ row: place, col: 0, begin: '', over: true, ref: naming });
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
  // The chosen cell lies free between the names and the strips, which stay in sight.
  useEffect(() => {
    const el = scroller.current;
    if (!el || focus.col === 0) return;
    const left = widths.slice(0, focus.col).reduce((a, b) => a + b, 0);
    const room = el.clientWidth - stripWidth;
    if (left - el.scrollLeft < widths[0]!) el.scrollLeft = left - widths[0]!;
    else if (left + widths[focus.col]! - el.scrollLeft > room) el.scrollLeft = left + widths[focus.col]! - room;
  }, [focus.col, widths, stripWidth]);
  const toFocus = () => scroller.current?.focus({ preventScroll: true });

  const go = useCallback(
    (row: number, col: number, extend = false) => {
      const spot = { row: Math.max(0, Math.min(total - 1, row)), col: Math.max(0, Math.min(fields.length - 1, col)) };
      setAnchor((a) => (extend ? (a ?? focus) : null));
      setFocus(spot);
      list.scrollToIndex(spot.row);
    },
    [total, fields.length, focus, list],
  );

  const edit = async (row: number, col: number, begin: string | null) => {
    if (!may.edit) return sayWrong(new Error(LOOK_ONLY));
    const line = lines.at(row);
    const field = fields[col]!;
    if (row >= shape.lines) {
      if (col === 0) setEditing({ row, col, begin: begin ?? '', over: begin !== null, ref: null });
      return;
    }
    if (!line || line.kind !== 'row') return;
    if (editorOf(field) === null)
      return sayWrong(new Error(`${names.get(field) ?? field}: this is worked out, and cannot be typed.`));
    const known = wrongs.get(line.ref)?.get(field);
    const text =
      begin ?? known?.text ?? (await open.room.editText(line.ref, field, col === 0 ? line.name : line.cells[col - 1]!));
    setEditing({ row, col, begin: text, over: begin !== null, ref: line.ref });
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
    if (e.ref === null) {
      if (text.trim() === '') return;
      // The line for what is new goes down by one.
      if (by === 'down') setFocus({ row: Math.max(e.row, shape.lines) + 1, col: 0 });
      void edits.add([[text]], ['name']);
      return;
    }
    const line = lines.at(e.row);
    const shown = line?.ref === e.ref ? (e.col === 0 ? line.name : line.cells[e.col - 1]!) : null;
    const known = wrongs.get(e.ref)?.has(fields[e.col]!) === true;
    if (!known && !e.over && text === e.begin && text === shown) return;
    void type([{ ref: e.ref, field: fields[e.col]!, text }]);
  };

  const walk = (ref: string) => {
    setOpened(ref);
    onJump(ref);
    toFocus();
  };
  useClipboard({
    open,
    own: () => document.activeElement === scroller.current && !editing,
    at: lines.at,
    area,
    onClear: () => void edits.clear(),
    onPaste: (text) => void edits.paste(text, anchor !== null),
  });

  const onKey = (e: KeyboardEvent) => {
    if (e.target !== scroller.current) return;
    if (editing) {
      // The line is not there yet that is typed into: nothing that is typed meanwhile is lost, or taken as a key.
      e.stopPropagation();
      const { begin } = editing;
      if (e.key === 'Enter') leave(begin, 'down');
      else if (e.key === 'Backspace') setEditing((was) => was && { ...was, begin: was.begin.slice(0, -1) });
      else if (e.key.length === 1 && !e.ctrlKey && !e.metaKey)
        setEditing((was) => was && { ...was, begin: was.begin + e.key });
      else return;
      e.preventDefault();
      return;
    }
    const found = GRID_KEYS.find((k) => k.when(e, state));
    if (!found) return;
    e.preventDefault();
    e.stopPropagation();
    run[found.act](e);
  };
  const outlined = arrangement.groups.length === 0 && arrangement.sort.length === 0;
  const state = {
    drawnOut: anchor !== null,
    opened: opened !== null,
    onRow: Boolean(chosen?.ref),
    canClose: chosen?.canClose === true,
    outlined,
  };
  const page = () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / ROW_HEIGHT) - 2);
  const remove = () => void edits.remove().then(() => setAnchor(null));
  const openChosen = () => setOpened((o) => (o === chosen?.ref ? null : (chosen?.ref ?? null)));
  const drawnAs = (what: 'indent' | 'outdent' | 'up' | 'down', words: string) =>
    void edits.drawAll((ref) => ({ do: what, ref }), words);
  const run: Record<GridAct, (e: KeyboardEvent) => void> = {
    leave: () => (anchor ? setAnchor(null) : setOpened(null)),
    go: (e) => {
      const mod = e.ctrlKey || e.metaKey;
      const { row } = focus;
      if (e.key === 'Home') go(mod ? 0 : row, 0, e.shiftKey);
      else if (e.key === 'End') go(mod ? total - 1 : row, fields.length - 1, e.shiftKey);
      else move(e);
    },
    extend: (e) => ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && (e.ctrlKey || e.metaKey) ? run.ends(e) : move(e)),
    ends: (e) => go(e.key === 'ArrowUp' ? 0 : total - 1, focus.col, e.shiftKey),
    page: (e) => go(focus.row + (e.key === 'PageDown' ? page() : -page()), focus.col, e.shiftKey),
    shift: (e) => void edits.shift(e.key === 'ArrowLeft' ? -1 : 1, follow),
    carry: (e) => drawnAs(e.key === 'ArrowUp' ? 'up' : 'down', 'Move'),
    indent: (e) => drawnAs(e.shiftKey ? 'outdent' : 'indent', e.shiftKey ? 'Out:' : 'In:'),
    open: openChosen,
    edit: () => void edit(focus.row, focus.col, null),
    over: (e) => void edit(focus.row, focus.col, e.key),
    walk: (e) => {
      const next = (e.key === '<' ? around?.before : around?.after)?.[0];
      if (next) walk(next.ref);
    },
    insert: () => void edits.insert(),
    duplicate: () => void edits.duplicate(),
    remove,
    clear: () => void edits.clear(),
    fill: () => void edits.fillDown(),
    all: () => {
      setAnchor({ row: 0, col: 0 });
      setFocus({ row: Math.max(0, shape.lines - 1), col: fields.length - 1 });
    },
    toggle: () => chosen && onToggle(chosen.key),
    find: () => setFinding(true),
    like: () => void like(focus.row, focus.col),
    everything: () => onArrange({ where: { match: 'all', tests: [] } }),
    zoom: (e) =>
      setView(
        e.key === '0' ? null : zoomed(view, ['+', '='].includes(e.key) ? 1 / 1.6 : 1.6, (view.from + view.to) / 2),
      ),
    pan: (e) => setView(panned(view, e.key === 'ArrowLeft' ? -0.2 : 0.2)),
  };
  const move = (e: KeyboardEvent) => {
    const [down, right] = MOVES[e.key] ?? [0, 0];
    go(focus.row + down, focus.col + right, e.shiftKey);
  };
  /** Lists only rows with what is in a cell; a second cell narrows that down, another value of the same field adds to it. */
  const like = async (row: number, col: number) => {
    const line = lines.at(row);
    const test = line?.ref ? await open.room.like(line.ref, fields[col]!) : null;
    if (!test) return;
    const { where } = arrangement;
    const tests = where.match === 'all' ? where.tests : [where];
    const same = tests.find((t) => isTest(t) && t.field === test.field && t.is === 'is' && test.is === 'is');
    const next = same
      ? tests.map((t) => (t === same && isTest(t) ? { ...t, values: [...new Set([...t.values, ...test.values])] } : t))
      : [...tests, test];
    onArrange({ where: { match: 'all', tests: next } });
  };

  const wrongCells = [...wrongs.values()].flatMap((cells) => [...cells.values()]);
  const [firstWrong] = wrongCells;
  const wrongCount = wrongCells.length;
  const hasRow = Boolean(chosen?.ref);
  const repeat = async () => {
    const refs = (await open.room.refsOn(area.top, area.bottom + 1)).filter((r) => r !== '');
    if (refs.length > 0) setRepeating(refs);
  };
  const acts: Act[] = [
    ['Insert', 'A new activity behind the row (Insert)', () => void edits.insert(), true],
    ['Duplicate', 'A copy of the rows with all that they hold (Ctrl Shift D)', () => void edits.duplicate(), hasRow],
    ['Remove', 'Remove the rows (Ctrl Delete)', remove, hasRow],
    ['In', 'Into the row above (Tab)', () => drawnAs('indent', 'In:'), hasRow && outlined],
    ['Out', 'Out of its group (Shift Tab)', () => drawnAs('outdent', 'Out:'), hasRow && outlined],
    ['Milestone', 'A milestone behind the row, linked to it', () => void edits.milestone(), hasRow && !chosen?.summary],
    ['Fill down', 'The first row into those below (Ctrl D)', () => void edits.fillDown(), area.bottom > area.top],
    [
      'Only like this',
      'List only rows with what is in the cell (Alt Enter, or Alt and click)',
      () => void like(focus.row, focus.col),
      hasRow,
      true,
    ],
    ['Repeat', 'The rows again for each floor, house or section of a line', () => void repeat(), hasRow],
    ['Find', 'Find and replace (Ctrl F)', () => setFinding(true), true, true],
    [
      opened !== null && opened === chosen?.ref ? 'Close' : 'Neighbours',
      'What leads to it, and what follows (Enter)',
      openChosen,
      hasRow,
      true,
    ],
  ];
  const lineActs: LineActs = {
    pick: (index, col, extend) => {
      edits.endAdding();
      setAnchor(extend ? (anchor ?? focus) : null);
      setFocus({ row: index, col });
      toFocus();
    },
    like: (index, col) => void like(index, col),
    carry: onCarry,
    over: (index, col) => {
      setAnchor((a) => a ?? focus);
      setFocus({ row: index, col });
    },
    edit: (index, col) => void edit(index, col, null),
    toggle: onToggle,
    done: leave,
    leave: () => {
      setEditing(null);
      toFocus();
    },
    openUp: (ref) => setOpened((o) => (o === ref ? null : ref)),
    grip: (e, grip, line) => {
      inBlock.current = false;
      if (line.strip) onGrip(e, grip, line.ref, line.strip);
    },
  };
  const on = useSteady(lineActs);
  const otherAt = useMemo(
    () => new Map(props.others.flatMap((o) => (o.ref ? [[o.ref, o.name ?? 'someone else']] : []))),
    [props.others],
  );

  const fixed = widths.reduce((a, b) => a + b, 0);
  const grid = `${widths.map((w) => `${w}px`).join(' ')} minmax(${STRIP_LEAST}px, 1fr)`;
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      {finding && (
        <FindBar
          open={open}
          shape={shape}
          fields={fields}
          names={names}
          onShow={async ({ ref, field }) => {
            const { place } = await open.room.lineOf(ref);
            if (place >= 0) go(place, Math.max(0, fields.indexOf(field)));
          }}
          onReplace={edits.replace}
          onClose={() => {
            setFinding(false);
            toFocus();
          }}
        />
      )}
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
          width={fixed + STRIP_LEAST}
          view={view}
          stripWidth={stripWidth}
          onView={setView}
          statusDay={statusDay}
          arrangement={arrangement}
          about={(field) => fieldAbout(field)}
          onArrange={onArrange}
        />
        <div style={{ height: list.getTotalSize(), minWidth: fixed + STRIP_LEAST }} className="relative">
          {items.map((v) => {
            const line = lines.at(v.index);
            // What leaves at one end comes in at the other: elements are used again.
            const slot = v.index % slots.current;
            if (!inFull(v.index) && v.index !== focus.row)
              return <FaintLine key={`faint ${slot}`} line={line} top={v.start} grid={grid} />;
            return (
              <GridLine
                key={slot}
                line={line}
                fresh={v.index === shape.lines}
                index={v.index}
                top={v.start}
                grid={grid}
                fields={fields}
                names={names}
                view={view}
                ground={ground}
                statusDay={statusDay}
                landing={landing && line?.ref === landing.ref ? landing.place : null}
                carries={outlined && Boolean(line?.ref)}
                focusCol={v.index === focus.row ? focus.col : null}
                chosenFrom={anchor !== null && v.index >= area.top && v.index <= area.bottom ? area.left : null}
                chosenTo={area.right}
                wrongs={(line && wrongs.get(line.ref)) ?? null}
                pending={(line && pending.get(line.ref)) ?? null}
                would={(line && foreseen?.bars[line.ref]) ?? null}
                editing={editing?.row === v.index ? editing : null}
                open={editing?.row === v.index ? open : null}
                other={otherAt.get(line?.ref ?? '') ?? null}
                on={on}
              />
            );
          })}
          {openAt >= 0 && around && lines.at(openAt)?.ref === opened && (
            <div
              role="row"
              className="absolute inset-x-0 z-10"
              style={{ transform: `translateY(${(list.measurementsCache[openAt]?.start ?? 0) + ROW_HEIGHT + 4}px)` }}
            >
              <div role="gridcell">
                <NeighbourBlock
                  open={open}
                  line={lines.at(openAt)!}
                  neighbours={around}
                  nameWidth={widths[0]!}
                  cellsWidth={fixed - widths[0]!}
                  stripWidth={stripWidth}
                  view={view}
                  ground={ground}
                  statusDay={statusDay}
                  would={(ref) => foreseen?.bars[ref] ?? null}
                  onGrip={(e, grip, ref, strip) => {
                    inBlock.current = true;
                    onGrip(e, grip, ref, strip);
                  }}
                  onWalk={walk}
                  onChange={(command, words) => {
                    toFocus();
                    void propose((room) => (follow ? room.withFollowers(command) : Promise.resolve(command)), words);
                  }}
                  onLink={(field, text) => void edits.addLink(opened!, field, text)}
                />
              </div>
            </div>
          )}
        </div>
      </div>
      {drag?.line && (
        <svg aria-hidden className="pointer-events-none fixed inset-0 z-50 h-full w-full">
          <line {...drag.line} stroke="var(--color-ink)" strokeWidth={1.6} />
          <circle cx={drag.line.x2} cy={drag.line.y2} r={4} fill="var(--color-ink)" />
        </svg>
      )}
      {repeating && <RepeatSheet planId={planId} open={open} refs={repeating} onClose={() => setRepeating(null)} />}
      <GridFoot
        acts={may.edit ? acts : acts.filter(([, , , , looks]) => looks)}
        chosen={anchor ? `${area.bottom - area.top + 1} rows, ${area.right - area.left + 1} columns` : ''}
        follow={may.edit && open.head.source === 'given' ? follow : null}
        onFollow={setFollow}
        bad={foreseen?.bad ?? (drag === null && wrongs.size > 0)}
        words={
          drag
            ? `${dragSays(drag)} ${would?.words ?? ''}`
            : proposal
              ? `${proposal.words}. ${proposal.would.words}`
              : wrongs.size > 0
                ? `${wrongCount === 1 ? 'One cell' : `${wrongCount} cells`} cannot be used as typed: ${firstWrong!.why}`
                : ''
        }
        ways={
          proposal
            ? [
                ['Keep it', keep],
                ['Leave it', leaveProposal],
              ]
            : !drag && wrongs.size > 0
              ? [['Leave them as they were', edits.leaveWrongs]]
              : []
        }
      />
    </div>
  );
}

/** Where an activity stands now, as far as that came with the shape; -1 where it did not. */
function placeIn({ sight }: LedgerShape, ref: string | null): number {
  if (ref === null) return -1;
  if (ref === sight.ref) return sight.place;
  const at = sight.lines.findIndex((l) => l.ref === ref);
  return at < 0 ? -1 : sight.from + at;
}

/** What is being dragged, in words. */
function dragSays({ grip, strip, by, dragging }: Drag): string {
  if (grip === 'link')
    return dragging?.do === 'link' ? `${dragging.from} → ${dragging.to}, ${dragging.type}.` : 'To which bar?';
  if (grip === 'progress') return dragging?.do === 'progress' ? `${dragging.percent} % complete.` : '';
  return `${formatDay(grip === 'finish' ? strip.last + by : strip.first + by, 'weekday')}.`;
}
