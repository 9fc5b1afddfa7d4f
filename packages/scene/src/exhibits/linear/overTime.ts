import { type Plan, resourceNeed, type Schedule } from '@clembo/core';
import type { LinearBrief } from '../../brief/linear';
import { KELP, MADDER, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { AmountWords } from '../../text/amounts';
import type { Measure } from '../../text/measure';
import type { Room } from '../sheet';
import { type Plane, timeAlong } from './plane';
import type { Flow, LineSelection } from './select';

/** The breadth of a strip beside the time axis, in sizes of the type. */
export const STRIP = 7;

/** What is told of a week. */
interface OfWeek {
  from: number;
  to: number;
  value: number;
  /** What there is of it; null where that is not limited. */
  limit: number | null;
}

/** What a strip beside the time axis tells. */
interface OverTime {
  weeks: OfWeek[];
  words: string;
}

/** Weeks of a page, cut at its first and last day. They begin on Mondays; day 4 was one. */
function weeksOf(day0: number, day1: number): { from: number; to: number }[] {
  const weeks: { from: number; to: number }[] = [];
  for (let from = day0 - ((((day0 - 4) % 7) + 7) % 7); from < day1; from += 7)
    weeks.push({ from: Math.max(from, day0), to: Math.min(from + 7, day1) });
  return weeks;
}

/** How many crews work on a day at most, week by week. */
export function crewsByWeek(
  flows: readonly Flow[],
  day0: number,
  day1: number,
): { from: number; to: number; crews: number }[] {
  return weeksOf(day0, day1).map(({ from, to }) => {
    let most = 0;
    for (let d = from; d < to; d++) {
      const crews = flows.reduce(
        (sum, f) => sum + (f.points[0]!.time < d + 1 && f.points.at(-1)!.time > d ? f.crews : 0),
        0,
      );
      most = Math.max(most, crews);
    }
    return { from, to, crews: most };
  });
}

/** How many strips a brief has beside the time axis. */
export const stripsOverTime = (brief: LinearBrief, plan: Plan, { flows }: LineSelection): number =>
  (brief.crews && flows.length > 0 ? 1 : 0) + (plan.resources.some((r) => r.id === brief.need) ? 1 : 0);

function crewsOver(flows: readonly Flow[], plane: Plane): OverTime {
  const weeks = crewsByWeek(flows, plane.day0, plane.day1);
  const most = Math.max(1, ...weeks.map((w) => w.crews));
  return { weeks: weeks.map((w) => ({ ...w, value: w.crews, limit: null })), words: `Crews, ${most} at most` };
}

/** The need of a resource by all work of the plan, on this line or not: that is what it is short for. */
function needOver(plan: Plan, s: Schedule, id: string, plane: Plane, amounts: AmountWords): OverTime | null {
  const weeks = weeksOf(Math.floor(plane.day0), Math.ceil(plane.day1));
  const own = resourceNeed(plan, s, [...weeks.map((w) => w.from), weeks.at(-1)!.to]).find((n) => n.resource.id === id);
  if (!own) return null;
  const over = own.most ? own.need.filter((n, k) => n > own.most![k]!).length : 0;
  const short = over === 0 ? '' : `, more than there is in ${over} ${over === 1 ? 'week' : 'weeks'}`;
  return {
    weeks: weeks.map((w, k) => ({ ...w, value: own.need[k]!, limit: own.most?.[k] ?? null })),
    words: `${own.resource.name}, ${amounts.effort(Math.max(0, ...own.need))} a week at most${short}`,
  };
}

/** Crews and the need of a resource over time, beside the time axis: a bar for every week, and the most of them as a number. */
export function overTime(
  { brief, plan, schedule }: { brief: LinearBrief; plan: Plan; schedule: Schedule },
  { flows }: LineSelection,
  plane: Plane,
  size: number,
  { measure, amounts }: { measure: Measure; amounts: AmountWords },
  room: Room,
): SceneNode[] {
  const need = brief.need === null ? null : needOver(plan, schedule, brief.need, plane, amounts);
  const strips = [...(brief.crews && flows.length > 0 ? [crewsOver(flows, plane)] : []), ...(need ? [need] : [])];
  return strips.flatMap((strip, k) => {
    const base = plane.across
      ? room.right - (strips.length - k) * STRIP * size + size * 0.8
      : plane.bottom + (k + 1) * STRIP * size;
    return stripNodes(strip, base, plane, size, measure);
  });
}

function stripNodes(
  { weeks, words }: OverTime,
  base: number,
  plane: Plane,
  size: number,
  measure: Measure,
): SceneNode[] {
  const most = Math.max(1, ...weeks.flatMap((w) => [w.value, w.limit ?? 0]));
  const long = STRIP * size - size * 2;
  /** A box along the time axis, from one height above the base of the strip to another. */
  const box = (a: number, b: number, low: number, high: number, fill: string): SceneNode => ({
    type: 'rect',
    x: round(plane.across ? base + low : a),
    y: round(plane.across ? a : base - high),
    width: round(plane.across ? high - low : b - a),
    height: round(plane.across ? b - a : high - low),
    fill,
    role: 'curve',
  });
  const nodes = weeks.flatMap((w): SceneNode[] => {
    const [a, b] = [timeAlong(plane, w.from), timeAlong(plane, w.to)];
    const high = (w.value / most) * long;
    const over = w.limit !== null && w.value > w.limit;
    const limit = w.limit === null ? null : (w.limit / most) * long;
    return [
      ...(w.value === 0 ? [] : [box(a, a + Math.max(0.4, b - a - 0.5), 0, high, tint(over ? MADDER : KELP, 0.45))]),
      ...(limit === null ? [] : [box(a, b, limit - 0.3, limit + 0.3, SOFT_INK)]),
    ];
  });
  const along = plane.across ? plane.bottom - plane.top : plane.right - plane.left;
  const text = measure.shorten('label', size, words, along);
  nodes.push({
    type: 'text',
    // Where time runs down, the words run along the strip on its outer side.
    x: round(plane.across ? base + long + size * 0.3 : plane.left),
    y: round(plane.across ? plane.top : base - STRIP * size + size * 1.3),
    size,
    runs: [{ text, face: 'label', fill: SOFT_INK }],
    ...(plane.across ? { turn: 90 } : {}),
    role: 'scale',
  });
  return nodes;
}
