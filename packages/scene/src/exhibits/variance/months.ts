import {
  type Day,
  dayOf,
  isComplete,
  isMilestone,
  monthStart,
  resourceNeed,
  shownDays,
  startOfDay,
  weekdayOf,
} from '@clembo/core';
import { categoriesOf } from '../../brief/palette';
import type { MonthsBrief } from '../../brief/variance';
import { GREY, HAIRLINE, INK, KELP, PAPER, SOFT_INK, tint } from '../../graph/ink';
import { round, type Scene, type SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import type { LegendEntry } from '../../page/legend';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import { niceSteps } from './curves';
import { statusEntry } from './entries';
import { rule, write } from '../../graph/nodes';
import { chosenOf } from './rows';
import { composeSheet, type Drawn, type Room } from '../sheet';
import { timePlot } from './timePlot';

type Input = ComposeInput<MonthsBrief>;

/** Amounts of steps of time: what was promised as an outline, what is now as a stack of parts. */
interface Months {
  /** Where steps begin, and behind the last one where it ends. */
  bounds: Day[];
  promised: number[] | null;
  stack: { name: string; colour: string; values: number[] }[];
  say(value: number): string;
  /** So much of a value is one of its unit. */
  unit: number;
  statement: string;
}

/** Up to so many days a page tells weeks, then months. */
const WEEKS = 420;
/** So many resources have a colour of their own; the others are told together. */
const OWN = 7;

/** What every month or week brings: hours that are needed, payments, or what finishes. */
export function composeMonths(input: Input): Scene {
  return composeSheet(input, () => {
    const { plan, schedule, brief } = input;
    const { chosen, counts } = chosenOf(input, (i) => {
      const a = plan.activities[i]!;
      if (brief.of === 'hours') return a.assignments.length > 0 && shownDays(schedule, i) !== null;
      return brief.of === 'finishes' || (isMilestone(a.kind) && (a.cost ?? 0) !== 0);
    });
    const made = chosen.length === 0 ? null : monthsOf(input, chosen);
    return {
      kind: 'Month by month',
      statement: made?.statement ?? plan.name,
      counts,
      content: {
        heads: ['From', ...(made?.promised ? ['promised'] : []), ...(made?.stack.map((s) => s.name) ?? [])],
        named: 0,
        rows: (made?.bounds.slice(0, -1) ?? []).map((day, k) => ({
          ref: null,
          cells: [
            formatDay(day, 'long'),
            ...(made!.promised ? [made!.say(made!.promised[k]!)] : []),
            ...made!.stack.map((s) => made!.say(s.values[k]!)),
          ],
          values: [
            { day },
            ...(made!.promised ? [{ number: made!.promised[k]! }] : []),
            ...made!.stack.map((s) => ({ number: s.values[k]! })),
          ],
        })),
      },
      undated: [],
      legend: (frame) => (made ? legend(frame, made, plan.statusDate !== null) : []),
      notice: made ? null : EMPTY[brief.of],
      largest: 1.35,
      advice: [],
      draw: (room) => draw(room, made!, input),
    };
  });
}

const EMPTY: Record<MonthsBrief['of'], string> = {
  hours: 'No resources work on what this brief asks for. Say under Structure who does the work.',
  payments: 'No payment hangs on a milestone of what this brief asks for.',
  finishes: 'Nothing in the plan is what this brief asks for.',
};

/** Whole weeks or months that hold all days of what is chosen, now and as promised. */
function boundsOf({ plan, schedule, promised }: Input, chosen: readonly number[]): Day[] {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const take = (shown: { first: Day; last: Day } | null) => {
    if (!shown) return;
    first = Math.min(first, shown.first);
    last = Math.max(last, shown.last);
  };
  for (const i of chosen) {
    take(shownDays(schedule, i));
    const j = promised!.schedule.outline.indexOf.get(plan.activities[i]!.ref);
    if (j !== undefined) take(shownDays(promised!.schedule, j));
  }
  if (first > last) return [];
  const weekly = last - first < WEEKS;
  const bounds = [weekly ? first - weekdayOf(first) : monthStart(first)];
  while (bounds.at(-1)! <= last) bounds.push(weekly ? bounds.at(-1)! + 7 : monthStart(bounds.at(-1)!, 1));
  return bounds;
}

function monthsOf(input: Input, chosen: readonly number[]): Months | null {
  const bounds = boundsOf(input, chosen);
  if (bounds.length === 0) return null;
  return input.brief.of === 'hours' ? hoursOf(input, chosen, bounds) : finishesOf(input, chosen, bounds);
}

function hoursOf({ plan, schedule, brief, amounts }: Input, chosen: readonly number[], bounds: Day[]): Months | null {
  const own = new Set(chosen);
  const some = {
    ...plan,
    activities: plan.activities.map((a, i) =>
      own.has(i) || a.assignments.length === 0 ? a : { ...a, assignments: [] },
    ),
  };
  const needs = resourceNeed(some, schedule, bounds)
    .map((n) => ({ name: n.resource.name, values: n.need, all: n.need.reduce((x, y) => x + y, 0) }))
    .filter((n) => n.all > 0)
    .sort((x, y) => y.all - x.all);
  if (needs.length === 0) return null;
  const others = needs.slice(OWN);
  const colours = categoriesOf(brief.palette);
  const colour = (k: number) => (brief.print === 'grey' ? tint(GREY, 1 - (0.8 * k) / (OWN + 1)) : (colours[k] ?? GREY));
  const stack = needs.slice(0, OWN).map((n, k) => ({ name: n.name, colour: colour(k), values: [...n.values] }));
  if (others.length > 0)
    stack.push({
      name: `${others.length} others`,
      colour: colour(OWN),
      values: bounds.slice(0, -1).map((_, k) => others.reduce((sum, n) => sum + n.values[k]!, 0)),
    });
  const sums = bounds.slice(0, -1).map((_, k) => stack.reduce((sum, s) => sum + s.values[k]!, 0));
  const most = sums.indexOf(Math.max(...sums));
  return {
    bounds,
    promised: null,
    stack,
    say: (v) => amounts.effort(v),
    unit: plan.effortDay ?? 60,
    statement: `${plan.name} needs most in ${stepWords(bounds, most)}: ${amounts.effort(sums[most]!)}`,
  };
}

const stepWords = (bounds: readonly Day[], k: number): string =>
  bounds[k + 1]! - bounds[k]! === 7
    ? `the week from ${formatDay(bounds[k]!, 'long')}`
    : formatDay(bounds[k]!, 'long').split(' ').slice(1).join(' ');

/** Payments, or how many finish: by the promise, and now, those that are there apart from those to come. */
function finishesOf(input: Input, chosen: readonly number[], bounds: Day[]): Months {
  const { plan, schedule, brief, amounts } = input;
  const { plan: then, schedule: b } = input.promised!;
  const money = brief.of === 'payments';
  const steps = bounds.length - 1;
  const at = (day: Day) => {
    let k = 0;
    while (k < steps - 1 && bounds[k + 1]! <= day) k++;
    return k;
  };
  const zero = () => new Array<number>(steps).fill(0);
  const [promised, done, open] = [zero(), zero(), zero()];
  for (const i of chosen) {
    const a = plan.activities[i]!;
    const shown = shownDays(schedule, i);
    const into = isComplete(a) ? done : open;
    if (shown) into[at(shown.last)]! += money ? (a.cost ?? 0) : 1;
    const j = b.outline.indexOf.get(a.ref);
    const was = j === undefined ? null : shownDays(b, j);
    if (was && j !== undefined) promised[at(was.last)]! += money ? (then.activities[j]!.cost ?? 0) : 1;
  }
  const sum = (list: number[]) => list.reduce((x, y) => x + y, 0);
  const say = money ? (v: number) => amounts.money(v) : (v: number) => String(v);
  const status = plan.statusDate === null ? null : dayOf(plan.statusDate);
  const due = status === null ? 0 : promised.reduce((n, v, k) => n + (bounds[k + 1]! <= status ? v : 0), 0);
  const colour = brief.print === 'grey' ? INK : KELP;
  return {
    bounds,
    promised,
    stack: [
      { name: money ? 'earned' : 'finished', colour, values: done },
      { name: money ? 'due' : 'to finish', colour: tint(colour, 0.35), values: open },
    ],
    say,
    unit: money ? 100 : 1,
    statement: money
      ? `${plan.name}: ${say(sum(done))} of ${say(sum(done) + sum(open))} is earned${due > 0 ? `, ${say(due)} was promised by the last full ${bounds[1]! - bounds[0]! === 7 ? 'week' : 'month'}` : ''}`
      : `${plan.name}: ${say(sum(done))} of ${chosen.length} ${chosen.length === 1 ? 'activity is' : 'activities are'} finished`,
  };
}

function legend(frame: PageFrame, { promised, stack }: Months, status: boolean): LegendEntry[] {
  const [wide, height] = [frame.smallSize * 1.3, frame.smallSize * 0.95];
  const box =
    (fill: string, stroke?: string) =>
    (x: number, y: number): SceneNode[] => [
      {
        type: 'rect',
        x: round(x),
        y: round(y - height / 2),
        width: round(wide),
        height: round(height),
        fill,
        ...(stroke && { stroke, strokeWidth: 0.8 }),
        role: 'bar',
      },
    ];
  return [
    ...(promised ? [{ title: 'Promised', width: wide, draw: box(PAPER, SOFT_INK) }] : []),
    ...stack.map((s) => ({ title: s.name[0]!.toUpperCase() + s.name.slice(1), width: wide, draw: box(s.colour) })),
    ...(status ? [statusEntry(frame)] : []),
  ];
}

function draw(room: Room, { bounds, promised, stack, say, unit }: Months, { plan, measure }: Input): Drawn | null {
  const { frame } = room;
  const size = frame.labelSize;
  const steps = bounds.length - 1;
  const sums = Array.from({ length: steps }, (_, k) => stack.reduce((sum, s) => sum + s.values[k]!, 0));
  const most = Math.max(...sums, ...(promised ?? [0]), unit);
  const marks = niceSteps(most / unit)
    .filter((v) => unit !== 1 || Number.isInteger(v))
    .map((v) => v * unit);
  const top = marks.at(-1)!;
  const words = marks.map((v) => say(v));
  const left = room.left + words.reduce((m, w) => Math.max(m, measure.width('label', size, w)), 0) + size * 0.8;
  if (room.right - left < frame.width * 0.35) return null;
  const range = { from: startOfDay(bounds[0]!), to: startOfDay(bounds.at(-1)!), exact: true };
  const plot = timePlot(room, left, range, plan.statusDate);
  const bottom = room.bottom - size * 0.6;
  const height = bottom - plot.top - size;
  if (height < size * 9) return null;
  const y = (v: number) => bottom - (v / top) * height;
  const x = (k: number) => plot.scale.x(startOfDay(bounds[k]!));
  const items = sums.map((sum, k): SceneNode => {
    const [x0, x1] = [x(k), x(k + 1)];
    const gap = Math.min(3, (x1 - x0) * 0.12);
    const parts = promised ? 2 : 1;
    const wide = (x1 - x0 - gap * 2) / parts;
    let base = 0;
    const nodes: SceneNode[] = [];
    if (promised && promised[k]! > 0)
      nodes.push({
        type: 'rect',
        x: round(x0 + gap),
        y: round(y(promised[k]!)),
        width: round(Math.max(0.4, wide - gap / 2)),
        height: round(bottom - y(promised[k]!)),
        fill: PAPER,
        stroke: SOFT_INK,
        strokeWidth: 0.8,
        role: 'promised',
      });
    for (const s of stack) {
      const v = s.values[k]!;
      if (v <= 0) continue;
      nodes.push({
        type: 'rect',
        x: round(x0 + gap + (promised ? wide : 0)),
        y: round(y(base + v)),
        width: round(Math.max(0.4, wide)),
        height: round(y(base) - y(base + v)),
        fill: s.colour,
        role: 'bar',
      });
      base += v;
    }
    return {
      type: 'group',
      role: 'item',
      name: stepWords(bounds, k),
      alt: [promised ? `promised ${say(promised[k]!)}` : '', `now ${say(sum)}`].filter(Boolean).join(', '),
      ref: `step ${k}`,
      children: nodes,
    };
  });
  return {
    nodes: [
      ...marks.map((v) =>
        rule(left, y(v), plot.scale.right, y(v), v === 0 ? INK : HAIRLINE, v === 0 ? 0.9 : 0.5, 'grid'),
      ),
      ...marks.map((v, k) =>
        write(
          left - size * 0.5 - measure.width('label', size, words[k]!),
          y(v) + size * 0.27,
          size,
          words[k]!,
          SOFT_INK,
          'scale',
        ),
      ),
      ...items,
      ...plot.lines(bottom, []).filter((n) => 'role' in n && n.role === 'status'),
      ...plot.axis,
    ],
    rows: stack.length,
    shortened: 0,
    without: '',
  };
}
