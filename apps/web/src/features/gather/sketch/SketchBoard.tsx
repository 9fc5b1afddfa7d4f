'use client';
import { type Day, workingDaysTo, workingSpan } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { type KeyboardEvent, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { KeyList } from '@/ui/KeyList';
import { Pick } from '@/ui/Pick';
import type { Drawing } from '@/workers/answers/drawn';
import type { SketchedRow } from '@/workers/answers/sketched';
import type { OpenRoom } from '@/workers/planRoom';
import { SKETCH_KEY_WORDS } from './sketchKeys';
import { SketchRow } from './SketchRow';
import { boardRange, ticks, type Zoom, ZOOMS, zoomFor } from './sketchScale';
import { type Drag, useDrag } from './useDrag';

export const ROW = 38;
const NAMES = 300;
/** How long something is that is made by a key, in days. */
const LENGTH_BY_KEY: Record<Zoom, number> = { weeks: 5, months: 12, quarters: 26, years: 61 };

interface Props {
  planId: string;
  open: OpenRoom;
  rows: SketchedRow[];
  today: Day;
}

/** A name that is typed before its row is there. */
interface Ahead {
  text: string;
  /** Enter was pressed: the name is complete. */
  done: boolean;
}

/** Takes a key into a name; false for what belongs to no name. */
function typedAhead(ahead: Ahead, e: KeyboardEvent): boolean {
  if (e.altKey) return false;
  if (e.key === 'Enter') ahead.done = true;
  else if (e.key === 'Backspace') ahead.text = ahead.text.slice(0, -1);
  else if (e.key.length === 1) ahead.text += e.key;
  else return false;
  return true;
}

/** The time line with its rows, and one more to draw on. */
export function SketchBoard({ planId, open, rows, today }: Props) {
  const { change } = usePlanChange(planId);
  const [zoom, setZoom] = useState<Zoom>(() => zoomFor(rows, 800));
  // The ground does not move under the pointer: it only grows while one draws.
  const [range, setRange] = useState(() => boardRange(rows, today, zoom));
  const wanted = boardRange(rows, today, zoom);
  if (wanted[0] < range[0] || wanted[1] > range[1])
    setRange([Math.min(range[0], wanted[0]), Math.max(range[1], wanted[1])]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [naming, setNaming] = useState<string | null>(null);
  /** What is typed of a name while its row is still on its way; null where none is. */
  const ahead = useRef<Ahead | null>(null);
  const ground = useRef<HTMLDivElement>(null);
  const board = useRef<HTMLDivElement>(null);
  const perDay = ZOOMS[zoom];
  const x = (day: Day) => (day - range[0]) * perDay;
  const dayAt = (clientX: number) =>
    range[0] + Math.floor((clientX - ground.current!.getBoundingClientRect().left) / perDay);
  const lines = useMemo(() => ticks(range, zoom), [range, zoom]);
  const at = rows.findIndex((r) => r.ref === chosen);

  // What there is stands in sight at the beginning, and when the zoom changes.
  useLayoutEffect(() => {
    const first = rows.reduce((least, r) => Math.min(least, r.start ?? least), Number.POSITIVE_INFINITY);
    board.current?.scrollTo({ left: x(Number.isFinite(first) ? first : today) - 60 });
  }, [zoom]);

  useLayoutEffect(() => {
    if (chosen !== null)
      board.current
        ?.querySelector(`[data-row="${CSS.escape(chosen)}"]`)
        ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [chosen, rows.length]);

  const draw = async (drawing: Drawing, words?: string) => {
    let about: string | null = null;
    if (drawing.do === 'make') {
      ahead.current = { text: '', done: false };
      board.current?.focus();
    }
    const made = await change(async (room) => {
      const done = await room.drawn(drawing);
      about = done?.ref ?? null;
      return done?.command ?? null;
    }, words);
    if (!made || about === null) {
      ahead.current = null;
      return;
    }
    setChosen(about);
    if (drawing.do !== 'make') return board.current?.focus();
    if (!ahead.current?.done) return setNaming(about);
    const { text } = ahead.current;
    ahead.current = null;
    call(about, text);
  };
  const call = (ref: string, name: string) =>
    void change({ do: 'changeActivity', ref, part: { name } }, `Call it ${name}`);
  const nameOf = (ref: string) => rows.find((r) => r.ref === ref)?.name || ref;

  const finish = (d: Drag) => {
    if (d.how === 'make') {
      const point = Math.abs(d.to - d.from) * perDay < 5;
      const [first, last] = [Math.min(d.from, d.to), Math.max(d.from, d.to)];
      void draw(
        { do: 'make', kind: point ? 'finishMilestone' : 'activity', first, last, behind: d.ref },
        point ? 'Draw a milestone' : 'Draw an activity',
      );
      return;
    }
    const row = rows.find((r) => r.ref === d.ref);
    if (!row || row.start === null || row.finish === null || d.from === d.to) return;
    const words = `Move ${nameOf(row.ref)}`;
    if (d.how === 'move' && (row.summary || row.kind === 'activity'))
      void draw(
        { do: 'shift', ref: row.ref, days: workingDaysTo(open.head, row.start, row.start + d.to - d.from) },
        words,
      );
    else void draw({ do: 'place', ref: row.ref, ...placed(row, d) }, words);
  };
  const { drag, begin } = useDrag(dayAt, finish);

  /** Something new made by a key: behind what is chosen, in time as in the list. */
  const make = (kind: 'activity' | 'finishMilestone') => {
    const row = rows[at] ?? rows.at(-1);
    const first = typeof row?.finish === 'number' ? row.finish + 1 : today;
    const last = kind === 'activity' ? first + LENGTH_BY_KEY[zoom] - 1 : first;
    const where = kind === 'activity' ? { first, last } : { first: row?.finish ?? today, last: row?.finish ?? today };
    void draw(
      { do: 'make', kind, ...where, behind: row?.ref ?? null },
      kind === 'activity' ? 'Draw an activity' : 'Draw a milestone',
    );
  };
  const remove = (row: SketchedRow) => {
    setChosen(rows[at + 1]?.ref ?? rows[at - 1]?.ref ?? null);
    void change({ do: 'removeActivity', ref: row.ref }, `Remove ${nameOf(row.ref)}`).then(() => board.current?.focus());
  };
  const onKey = (e: KeyboardEvent) => {
    if ((e.target as HTMLElement).tagName === 'INPUT' || e.ctrlKey || e.metaKey) return;
    if (ahead.current && !ahead.current.done && typedAhead(ahead.current, e)) {
      e.preventDefault();
      e.stopPropagation();
      return;
    }
    const row = rows[at];
    const run = keys(row, e);
    if (!run) return;
    e.preventDefault();
    e.stopPropagation();
    run();
  };
  const keys = (row: SketchedRow | undefined, e: KeyboardEvent): (() => void) | null => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
    if (e.key === 'a') return () => make('activity');
    if (e.key === 'm') return () => make('finishMilestone');
    if (e.key === 'ArrowDown' && !e.altKey)
      return () => setChosen(rows[Math.min(rows.length - 1, at + 1)]?.ref ?? null);
    if (e.key === 'ArrowUp' && !e.altKey) return () => setChosen(rows[Math.max(0, at - 1)]?.ref ?? null);
    if (e.key === 'Escape' && row) return () => setChosen(null);
    if (!row) return null;
    const { ref, start, finish: end } = row;
    if (e.key === 'Enter' || e.key === 'F2') return () => setNaming(ref);
    if (e.key === 'Delete' || e.key === 'Backspace') return () => remove(row);
    if (e.key === 'Tab') return () => void draw({ do: e.shiftKey ? 'outdent' : 'indent', ref });
    if (e.altKey && e.key === 'ArrowUp') return () => void draw({ do: 'up', ref });
    if (e.altKey && e.key === 'ArrowDown') return () => void draw({ do: 'down', ref });
    if (step && e.shiftKey) return () => void draw({ do: 'shift', ref, days: step }, `Move ${nameOf(ref)}`);
    const longer = { '+': 1, '-': -1 }[e.key];
    if (longer && start !== null && end !== null && row.kind === 'activity' && !row.summary)
      return () =>
        void draw(
          { do: 'place', ref, first: start, last: otherEnd(open, start, end, longer) },
          `Change the length of ${nameOf(ref)}`,
        );
    return null;
  };

  const dragOf = (ref: string): Drag | null => (drag && drag.ref === ref && drag.how !== 'make' ? drag : null);
  const wordsOf = (row: SketchedRow): string | null => {
    const own = dragOf(row.ref);
    return own && dragWords(open, row, own);
  };

  const height = (rows.length + 1) * ROW;
  return (
    <>
      <div className="mt-4 flex items-center gap-5 pb-2 text-[14.5px] text-soft">
        <span>
          {rows.length === 0
            ? 'Drag along the line to draw a phase; click it for a milestone.'
            : 'Drag to draw, click for a milestone, drag a bar or its ends to change it.'}
        </span>
        <Keys />
        <span className="ml-auto">
          <Pick
            label="Shown by"
            value={zoom}
            options={(Object.keys(ZOOMS) as Zoom[]).map((z) => [z, z])}
            onChange={(z) => {
              setZoom(z as Zoom);
              setRange(boardRange(rows, today, z as Zoom));
            }}
          />
        </span>
      </div>
      <div
        ref={board}
        role="application"
        aria-label="Time line to draw on"
        aria-describedby="sketch-keys"
        // biome-ignore lint: the board is worked by keys
        tabIndex={0}
        onKeyDown={onKey}
        className="relative min-h-0 flex-1 overflow-auto rounded-t-xl border border-b-0 border-line bg-paper outline-none focus-visible:border-marigold"
      >
        <div className="relative" style={{ width: NAMES + x(range[1] + 1), minHeight: '100%' }}>
          <div className="sticky top-0 z-20 flex h-8 border-b border-line bg-paper">
            <div className="sticky left-0 z-10 w-[300px] shrink-0 border-r border-line bg-paper" />
            <div className="relative flex-1">
              {lines.map((t) => (
                <span
                  key={t.day}
                  className={`absolute top-1.5 pl-1 text-[13px] whitespace-nowrap ${t.strong ? 'font-semibold' : 'text-soft'}`}
                  style={{ left: x(t.day) }}
                >
                  {t.label}
                </span>
              ))}
            </div>
          </div>
          <div
            ref={ground}
            data-testid="ground"
            className="absolute touch-none"
            style={{ left: NAMES, top: 32, right: 0, height: Math.max(height, 240), minHeight: 'calc(100% - 32px)' }}
            onPointerDown={(e) => {
              const k = Math.floor((e.clientY - ground.current!.getBoundingClientRect().top) / ROW);
              setNaming(null);
              begin(e, 'make', (rows[k] ?? rows.at(-1))?.ref ?? null, Math.min(k, rows.length));
            }}
          >
            {lines.map((t) => (
              <span
                key={t.day}
                aria-hidden
                className={`absolute inset-y-0 w-px ${t.strong ? 'bg-line' : 'bg-line/50'}`}
                style={{ left: x(t.day) }}
              />
            ))}
            {drag?.how === 'make' && <Ghost open={open} drag={drag} x={x} perDay={perDay} />}
          </div>
          <div aria-hidden className="pointer-events-none absolute inset-x-0 top-8 bottom-0">
            <div className="sticky left-0 h-full border-r border-line/70 bg-paper" style={{ width: NAMES }} />
          </div>
          <div role="list" aria-label="Drawn">
            {rows.map((row, k) => (
              <SketchRow
                key={row.ref}
                row={row}
                top={32 + k * ROW}
                names={NAMES}
                x={x}
                perDay={perDay}
                drag={dragOf(row.ref)}
                words={wordsOf(row)}
                chosen={row.ref === chosen}
                naming={row.ref === naming}
                begin={() => {
                  const text = ahead.current?.text ?? '';
                  ahead.current = null;
                  return text;
                }}
                onChoose={() => {
                  setChosen(row.ref);
                  board.current?.focus();
                }}
                onName={(name) => {
                  setNaming(null);
                  board.current?.focus();
                  if (name !== null && name !== row.name) call(row.ref, name);
                }}
                onNaming={() => setNaming(row.ref)}
                onBegin={(e, how) => {
                  setChosen(row.ref);
                  begin(e, how, row.ref, k);
                }}
              />
            ))}
          </div>
          {rows.length === 0 && !drag && (
            <p className="pointer-events-none absolute top-[46px] pl-4 text-soft" style={{ left: NAMES }}>
              Draw here
            </p>
          )}
        </div>
      </div>
    </>
  );
}

/** Where a bar or milestone is put that is dragged, by the ends that it has. */
function placed(row: SketchedRow, d: Drag): { first: Day; last: Day } {
  const by = d.to - d.from;
  const [start, finish] = [row.start!, row.finish!];
  if (d.how === 'move') return { first: start + by, last: finish + by };
  return d.how === 'start'
    ? { first: Math.min(start + by, finish), last: finish }
    : { first: start, last: Math.max(finish + by, start) };
}

const PLAIN = { calendar: null };

/** The finish of an activity that gets a working day longer or shorter. */
function otherEnd({ head }: OpenRoom, start: Day, finish: Day, by: number): Day {
  for (let day = finish + by; ; day += by) {
    if (day < start) return start;
    const span = workingSpan(head, PLAIN, day, day);
    if (span.first === day) return day;
    if (Math.abs(day - finish) > 400) return finish;
  }
}

function spanWords({ head }: OpenRoom, first: Day, last: Day): string {
  const span = workingSpan(head, PLAIN, first, last);
  return `${formatDay(span.first, 'weekday')} to ${formatDay(span.last, 'weekday')}: ${span.days} working ${span.days === 1 ? 'day' : 'days'}, ${span.last - span.first + 1} calendar days`;
}

function dragWords(open: OpenRoom, row: SketchedRow, drag: Drag): string {
  const { first, last } = placed(row, drag);
  return row.kind.endsWith('Milestone') ? formatDay(last, 'weekday') : spanWords(open, first, last);
}

/** What is being drawn, with its days in words. */
function Ghost({ open, drag, x, perDay }: { open: OpenRoom; drag: Drag; x: (day: Day) => number; perDay: number }) {
  const [first, last] = [Math.min(drag.from, drag.to), Math.max(drag.from, drag.to)];
  const point = (last - first) * perDay < 5;
  const top = drag.row * ROW;
  return (
    <>
      <span
        aria-hidden
        className={`absolute border border-kelp bg-kelp/30 ${point ? 'size-[11px] -translate-x-1/2 rotate-45' : 'h-[18px] rounded-[4px]'}`}
        style={
          point
            ? { left: x(last + 0.5), top: top + 13 }
            : { left: x(first), top: top + 10, width: (last - first + 1) * perDay }
        }
      />
      <span
        className="pointer-events-none absolute z-30 rounded bg-ink px-2 py-0.5 text-[13px] whitespace-nowrap text-paper"
        style={{ left: x(first), top: top + ROW }}
      >
        {point ? `Milestone on ${formatDay(last, 'weekday')}` : spanWords(open, first, last)}
      </span>
    </>
  );
}

function Keys() {
  return (
    <details className="relative">
      <summary className="cursor-pointer text-kelp">By keys</summary>
      <div className="panel absolute top-7 left-0 z-40 w-[430px] p-4! text-ink">
        <KeyList id="sketch-keys" keys={SKETCH_KEY_WORDS} />
      </div>
    </details>
  );
}
