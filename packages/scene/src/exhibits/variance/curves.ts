import {
  dayOf,
  earnedAmounts,
  earnedCurves,
  type EarnedValue,
  earnedValueOf,
  isComplete,
  isMilestone,
  NONE,
  plannedBy,
  shownDays,
  statusEnd,
  finishDayOf,
} from '@clembo/core';
import type { CurvesBrief } from '../../brief/variance';
import { HAIRLINE, INK, KELP, MADDER, SOFT_INK } from '../../graph/ink';
import { NOTHING_SHOWN } from '../../graph/shown';
import { round, type Scene, type SceneNode } from '../../graph/scene';
import type { LegendEntry } from '../../page/legend';
import type { PageFrame } from '../../page/frame';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import type { TextBox } from '../timeline/body';
import { lineEntry, statusEntry } from './entries';
import { rule, write } from '../../graph/nodes';
import { chosenOf } from './rows';
import { composeSheet, type Drawn, type Room } from '../sheet';
import { timePlot } from './timePlot';

type Input = ComposeInput<CurvesBrief>;

/** One line of the plot: values at the moments of the plot, null where it does not reach. */
interface Curve {
  name: string;
  values: (number | null)[];
  colour: string;
  width: number;
  dash: number;
}

interface Curves {
  moments: number[];
  list: Curve[];
  /** Everything that is counted, in the unit of the curves. */
  whole: number;
  say(value: number): string;
  statement: string;
}

/** About so many points make a curve. */
const POINTS = 90;

/** Promised, earned and spent over time, with what is to come. */
export function composeCurves(input: Input): Scene {
  return composeSheet(input, () => {
    const { plan, brief } = input;
    const { chosen, counts: asked } = chosenOf(
      input,
      (i) => brief.of !== 'milestones' || isMilestone(plan.activities[i]!.kind),
    );
    const made =
      chosen.length === 0
        ? null
        : brief.of === 'effort' || brief.of === 'cost'
          ? amountCurves(input, brief.of, chosen)
          : countCurves(input, chosen);
    // Where nothing is drawn, nothing is shown.
    const counts = made ? asked : { ...NOTHING_SHOWN, of: asked.of, leftOut: asked.of };
    return {
      kind: 'Curves',
      statement: made?.statement ?? plan.name,
      counts,
      content: {
        heads: ['Day', ...(made?.list.map((c) => c.name) ?? [])],
        named: 0,
        rows: (made?.moments ?? []).map((m, k) => ({
          ref: null,
          cells: [
            formatDay(dayOf(m), 'long'),
            ...made!.list.map((c) => (c.values[k] === null ? '' : made!.say(c.values[k]!))),
          ],
          values: [
            { day: dayOf(m) },
            ...made!.list.map((c) => (c.values[k] === null ? null : { number: c.values[k]! })),
          ],
        })),
      },
      undated: [],
      legend: (frame) => (made ? legend(frame, made, plan.statusDate !== null) : []),
      notice: made
        ? null
        : counts.of === 0
          ? 'This plan has no activities yet.'
          : brief.of === 'effort' || brief.of === 'cost'
            ? `No ${brief.of} was promised for what this brief asks for, so there is none to be earned.`
            : 'Nothing in the plan is what this brief asks for.',
      largest: 1.35,
      advice: [],
      draw: (room) => draw(room, made!, input),
    };
  });
}

/** Curves that have a value at all: before the first work nothing is earned, spent or done, and no line says so. */
const known = (list: readonly Curve[]): Curve[] => list.filter((c) => c.values.some((v) => v !== null));

/** Rising moments from the first day to the last, the status date among them. */
function momentsOf({ plan, schedule, promised }: Input, chosen: readonly number[]): number[] {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const take = (shown: { first: number; last: number } | null) => {
    if (!shown) return;
    first = Math.min(first, shown.first);
    last = Math.max(last, shown.last + 1);
  };
  for (const i of chosen) {
    take(shownDays(schedule, i));
    const j = promised!.schedule.outline.indexOf.get(plan.activities[i]!.ref);
    if (j !== undefined) take(shownDays(promised!.schedule, j));
  }
  if (first > last) return [];
  const step = Math.max(1, Math.ceil((last - first) / POINTS));
  const days = new Set([first, last]);
  for (let d = first; d < last; d += step) days.add(d);
  const status = plan.statusDate === null ? null : dayOf(plan.statusDate) + 1;
  if (status !== null && status > first && status < last) days.add(status);
  return [...days].sort((a, b) => a - b).map((d) => d * 1440);
}

function amountCurves(input: Input, amount: 'effort' | 'cost', chosen: readonly number[]): Curves | null {
  const { plan, schedule, brief, amounts } = input;
  const { plan: basePlan, schedule: b } = input.promised!;
  const refs = new Set(chosen.map((i) => plan.activities[i]!.ref));
  const { ev, ac, bac } = earnedAmounts(plan, schedule, basePlan, b, amount, refs);
  const moments = momentsOf(input, chosen);
  if (bac === 0 || moments.length === 0) return null;
  const now = statusEnd(plan) ?? moments.at(-1)!;
  const c = earnedCurves(plan, schedule, basePlan, b, amount, moments, now, refs);
  const value = earnedValueOf(plannedBy(basePlan, b, now, amount, refs), ev, ac, bac);
  const list: Curve[] = [
    { name: 'promised', values: c.planned, colour: SOFT_INK, width: 1.3, dash: 4 },
    { name: 'spent', values: c.spent, colour: MADDER, width: 1.5, dash: 0 },
    { name: 'earned', values: c.earned, colour: KELP, width: 2.2, dash: 0 },
  ];
  if (brief.forecast && plan.statusDate !== null) {
    const toCome = forecast(input, amount, chosen, moments, now, value);
    if (toCome) list.push(toCome);
  }
  const shown =
    brief.print === 'grey' ? list.map((l) => ({ ...l, colour: l.name === 'promised' ? SOFT_INK : INK })) : list;
  return {
    moments,
    list: known(shown),
    whole: bac,
    say: (v) => amounts.amount(v, amount),
    statement: saidAmounts(input, value, now, amount),
  };
}

/**
 * What is still to be spent: from what is spent now to what it will come to (BAC / CPI), spread as the work that is to
 * come lies in time.
 */
function forecast(
  input: Input,
  amount: 'effort' | 'cost',
  chosen: readonly number[],
  moments: readonly number[],
  now: number,
  { ac, eac, bac }: EarnedValue,
): Curve | null {
  const { plan, schedule } = input;
  const end = eac ?? bac;
  const refs = new Set(chosen.map((i) => plan.activities[i]!.ref));
  const by = (m: number) => plannedBy(plan, schedule, m, amount, refs);
  const [gone, all] = [by(now), by(Number.MAX_SAFE_INTEGER)];
  if (all <= gone || end <= ac) return null;
  const values = moments.map((m) => (m < now ? null : ac + ((by(m) - gone) / (all - gone)) * (end - ac)));
  return { name: 'to come', values, colour: MADDER, width: 1.3, dash: 1.5 };
}

function saidAmounts({ plan, amounts }: Input, v: EarnedValue, now: number, amount: 'effort' | 'cost'): string {
  const share = (x: number) => `${Math.round((100 * x) / v.bac)} %`;
  const when = formatDay(finishDayOf(now), 'long');
  const what = amount === 'effort' ? 'work' : 'cost';
  const stands = `${plan.name}: ${share(v.ev)} of the ${what} is earned where ${share(v.pv)} was promised by ${when}`;
  if (v.eac === null || v.vac === null || Math.abs(v.vac) < v.bac * 0.005) return stands;
  return `${stands}; at this rate it will come to ${amounts.amount(v.eac, amount)}, ${amounts.amount(Math.abs(v.vac), amount)} ${v.vac < 0 ? 'over' : 'under'} budget`;
}

/** How many were to be done by a day, are done, and will be done by the plan as it stands. */
function countCurves(input: Input, chosen: readonly number[]): Curves | null {
  const { plan, schedule: s, brief } = input;
  const b = input.promised!.schedule;
  const moments = momentsOf(input, chosen);
  if (moments.length === 0) return null;
  const now = statusEnd(plan) ?? moments.at(-1)!;
  const then: number[] = [];
  const done: number[] = [];
  const ahead: number[] = [];
  for (const i of chosen) {
    const a = plan.activities[i]!;
    const j = b.outline.indexOf.get(a.ref);
    if (j !== undefined && !b.outline.isSummary[j] && b.finish[j] !== NONE) then.push(b.finish[j]!);
    if (isComplete(a))
      done.push(Math.min(now, a.actualFinish ?? a.actualStart ?? (s.finish[i] === NONE ? now : s.finish[i]!)));
    else if (s.finish[i] !== NONE) ahead.push(Math.max(now, s.finish[i]!));
  }
  const by = (list: number[], m: number) => list.filter((x) => x <= m).length;
  const what =
    brief.of === 'milestones'
      ? (n: number) => (n === 1 ? 'milestone' : 'milestones')
      : (n: number) => (n === 1 ? 'activity' : 'activities');
  const list: Curve[] = [
    { name: 'promised', values: moments.map((m) => by(then, m)), colour: SOFT_INK, width: 1.3, dash: 4 },
    {
      name: brief.of === 'milestones' ? 'reached' : 'done',
      values: moments.map((m) => (m > now ? null : by(done, m))),
      colour: brief.print === 'grey' ? INK : KELP,
      width: 2.2,
      dash: 0,
    },
  ];
  if (brief.forecast && ahead.length > 0 && plan.statusDate !== null)
    list.push({
      name: 'to come',
      values: moments.map((m) => (m < now ? null : done.length + by(ahead, m))),
      colour: brief.print === 'grey' ? INK : KELP,
      width: 1.3,
      dash: 1.5,
    });
  const due = by(then, now);
  return {
    moments,
    list: known(list),
    whole: chosen.length,
    say: (v) => String(Math.round(v)),
    statement: `${plan.name}: ${done.length} of ${chosen.length} ${what(chosen.length)} ${brief.of === 'milestones' ? 'reached' : 'done'}, ${due} ${due === 1 ? 'was' : 'were'} promised by ${formatDay(finishDayOf(now), 'long')}`,
  };
}

function legend(frame: PageFrame, { list }: Curves, status: boolean): LegendEntry[] {
  return [
    ...list.map((c) =>
      lineEntry(frame, c.name[0]!.toUpperCase() + c.name.slice(1), (x0, x1, y) =>
        stroke(
          [
            [x0, y],
            [x1, y],
          ],
          c,
        ),
      ),
    ),
    ...(status ? [statusEntry(frame)] : []),
  ];
}

/** A line through points: in one piece, or in dashes of a length. */
function stroke(
  points: readonly (readonly [number, number])[],
  { colour, width, dash }: Pick<Curve, 'colour' | 'width' | 'dash'>,
): SceneNode[] {
  if (points.length < 2) return [];
  if (dash === 0)
    return [
      {
        type: 'path',
        steps: points.map(([x, y], k) => [k === 0 ? 'M' : 'L', round(x), round(y)]),
        stroke: colour,
        strokeWidth: width,
        role: 'curve',
      },
    ];
  const pieces: SceneNode[] = [];
  const gap = dash * 0.9 + 1;
  let [on, left] = [true, dash];
  let piece: [number, number][] = [[points[0]![0], points[0]![1]]];
  const end = () => {
    if (piece.length > 1)
      pieces.push({
        type: 'path',
        steps: piece.map(([x, y], k) => [k === 0 ? 'M' : 'L', round(x), round(y)]),
        stroke: colour,
        strokeWidth: width,
        role: 'curve',
      });
  };
  for (let k = 1; k < points.length; k++) {
    let [x0, y0] = points[k - 1]!;
    const [x1, y1] = points[k]!;
    for (let length = Math.hypot(x1 - x0, y1 - y0); length > 0; ) {
      const step = Math.min(left, length);
      const share = step / length;
      [x0, y0] = [x0 + (x1 - x0) * share, y0 + (y1 - y0) * share];
      if (on) piece.push([x0, y0]);
      length -= step;
      left -= step;
      if (left > 1e-9) continue;
      if (on) end();
      on = !on;
      left = on ? dash : gap;
      piece = [[x0, y0]];
    }
  }
  if (on) end();
  return pieces;
}

/** Round steps of a scale: about four of them to a value. */
export function niceSteps(most: number): number[] {
  const rough = most / 4;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 2.5, 5, 10].map((f) => f * power).find((x) => x >= rough)!;
  const list: number[] = [];
  for (let v = 0; v < most + step * 0.999; v += step) list.push(Math.round(v * 1e6) / 1e6);
  return list;
}

function draw(
  room: Room,
  { moments, list, say, whole }: Curves,
  { plan, measure, brief, amounts }: Input,
): Drawn | null {
  const { frame } = room;
  const size = frame.labelSize;
  const amount = brief.of === 'effort' || brief.of === 'cost' ? brief.of : null;
  const unit = amount ? (amount === 'cost' ? 100 : 60) : 1;
  const most = list.reduce((m, c) => c.values.reduce<number>((n, v) => Math.max(n, v ?? 0), m), whole);
  // Steps are round in the unit that they are told in.
  const inUnit = amount ? amounts.size(most, amount) : most;
  const factor = amount && inUnit > 0 ? most / inUnit : unit;
  const steps = niceSteps(inUnit)
    .filter((v) => amount !== null || Number.isInteger(v))
    .map((v) => v * factor);
  const top = steps.at(-1)!;
  const words = steps.map((v) => say(v));
  const gutter = words.reduce((m, w) => Math.max(m, measure.width('label', size, w)), 0) + size * 0.8;
  const ends = list.map((c) => {
    const k = c.values.findLastIndex((v) => v !== null);
    return { curve: c, k, value: c.values[k]! };
  });
  const nameOf = (c: Curve, value: number) => `${c.name} ${say(value)}`;
  const named = ends.map((e) => nameOf(e.curve, e.value));
  const beside = named.reduce((m, n) => Math.max(m, measure.width('labelStrong', size, n)), 0) + size;
  const left = room.left + gutter;
  const width = room.right - left - beside;
  if (width < frame.width * 0.35) return null;
  const plot = timePlot(
    { ...room, right: room.right - beside },
    left,
    { from: moments[0]!, to: moments.at(-1)! },
    plan.statusDate,
  );
  const bottom = room.bottom - size * 0.6;
  const height = bottom - plot.top - size;
  if (height < size * 9) return null;
  const y = (v: number) => bottom - (v / top) * height;
  const x = (k: number) => plot.scale.x(moments[k]!);
  const lines = list.map((c) => c.values.flatMap((v, k): [number, number][] => (v === null ? [] : [[x(k), y(v)]])));
  const placed = placeNames(ends, named, lines, x, y, size, plot.statusX, measure);
  const boxes: TextBox[] = placed.map((p) => p.box);
  const curves = list.flatMap((c): SceneNode[] => {
    const points = lines[list.indexOf(c)]!;
    return [
      {
        type: 'group',
        role: 'item',
        name: c.name,
        alt: nameOf(c, c.values.findLast((v) => v !== null) ?? 0),
        ref: c.name,
        children: clipped(points, boxes, c),
      },
    ];
  });
  return {
    nodes: [
      ...steps.flatMap((v) => levelLine(left, plot.scale.right, y(v), boxes, v === 0)),
      ...steps.map((v, k) =>
        write(
          left - size * 0.5 - measure.width('label', size, words[k]!),
          y(v) + size * 0.27,
          size,
          words[k]!,
          SOFT_INK,
          'scale',
        ),
      ),
      ...plot.lines(bottom, boxes),
      ...plot.axis,
      ...curves,
      ...placed.map((p) => write(p.box.left, p.base, size, p.text, p.curve.colour, 'label', 'labelStrong')),
    ],
    rows: list.length,
    shortened: 0,
    without: '',
  };
}

/** A line of the scale across the plot, which leaves out the boxes of texts. */
function levelLine(left: number, right: number, y: number, boxes: readonly TextBox[], ground: boolean): SceneNode[] {
  const gaps = boxes
    .filter((b) => b.top - 1 < y && b.bottom + 1 > y && b.right > left && b.left < right)
    .sort((a, b) => a.left - b.left);
  const nodes: SceneNode[] = [];
  let from = left;
  const piece = (to: number) => {
    if (to - from > 1) nodes.push(rule(from, y, to, y, ground ? INK : HAIRLINE, ground ? 0.9 : 0.5, 'grid'));
  };
  for (const gap of gaps) {
    piece(gap.left - 1.5);
    from = Math.max(from, gap.right + 1.5);
  }
  piece(right);
  return nodes;
}

interface Placed {
  curve: Curve;
  text: string;
  base: number;
  box: TextBox;
}

/** Names at the ends of the lines: behind them, else before them, where they stand on no line and on no other name. */
function placeNames(
  ends: readonly { curve: Curve; k: number; value: number }[],
  named: readonly string[],
  lines: readonly (readonly (readonly [number, number])[])[],
  x: (k: number) => number,
  y: (v: number) => number,
  size: number,
  statusX: number | null,
  measure: Input['measure'],
): Placed[] {
  const placed: Placed[] = [];
  const order = ends.map((_, n) => n).sort((a, b) => ends[b]!.k - ends[a]!.k || y(ends[a]!.value) - y(ends[b]!.value));
  for (const n of order) {
    const { curve, k, value } = ends[n]!;
    const text = named[n]!;
    const wide = measure.width('labelStrong', size, text);
    const boxAt = (left: number, base: number): TextBox => ({
      left,
      right: left + wide,
      top: base - size * 0.75,
      bottom: base + size * 0.25,
    });
    const free = (box: TextBox): boolean =>
      placed.every((p) => !meets(p.box, box, size * 0.3)) &&
      (statusX === null || statusX < box.left - 1 || statusX > box.right + 1) &&
      lines.every((line) => !crosses(line, box));
    const base = y(value) + size * 0.27;
    let found: { box: TextBox; base: number } | null = null;
    for (let step = 0; step < 40 && !found; step++) {
      // Level with the end first, then above and below it by turns.
      const at = base + (step % 2 === 0 ? 1 : -1) * Math.ceil(step / 2) * size * 0.3;
      for (const left of [x(k) + size * 0.5, x(k) - wide - size * 0.5]) {
        const box = boxAt(left, at);
        if (left > 0 && free(box)) {
          found = { box, base: at };
          break;
        }
      }
    }
    const last = found ?? { box: boxAt(x(k) + size * 0.5, base), base };
    placed.push({ curve, text, ...last });
  }
  return placed;
}

const meets = (a: TextBox, b: TextBox, gap: number): boolean =>
  a.left < b.right + gap && b.left < a.right + gap && a.top < b.bottom + gap && b.top < a.bottom + gap;

/** Whether a line goes through a box. */
const crosses = (line: readonly (readonly [number, number])[], box: TextBox): boolean =>
  line.some(([x1, y1], k) => {
    if (k === 0) return false;
    const [x0, y0] = line[k - 1]!;
    if (Math.max(x0, x1) < box.left || Math.min(x0, x1) > box.right) return false;
    const at = (x: number) => (x1 === x0 ? y1 : y0 + ((y1 - y0) * (x - x0)) / (x1 - x0));
    const [a, b] = [at(Math.max(box.left, Math.min(x0, x1))), at(Math.min(box.right, Math.max(x0, x1)))];
    const c = x1 === x0 ? y0 : a;
    return Math.max(a, b, c) > box.top - 1.5 && Math.min(a, b, c) < box.bottom + 1.5;
  });

/** A line that leaves out the boxes of texts. */
function clipped(points: readonly [number, number][], boxes: readonly TextBox[], c: Curve): SceneNode[] {
  const runs: [number, number][][] = [[]];
  const inside = ([x, y]: [number, number]) =>
    boxes.some((b) => x > b.left - 2 && x < b.right + 2 && y > b.top - 1 && y < b.bottom + 1);
  for (let k = 0; k < points.length; k++) {
    const [x1, y1] = points[k]!;
    if (k > 0) {
      const [x0, y0] = points[k - 1]!;
      const parts = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / 1.5));
      for (let n = 1; n < parts; n++) step([x0 + ((x1 - x0) * n) / parts, y0 + ((y1 - y0) * n) / parts], false);
    }
    step([x1, y1], true);
  }
  function step(p: [number, number], own: boolean): void {
    if (inside(p)) {
      if (runs.at(-1)!.length > 0) runs.push([]);
    } else if (own || runs.at(-1)!.length === 0) runs.at(-1)!.push(p);
  }
  return runs.flatMap((run) => stroke(run, c));
}
