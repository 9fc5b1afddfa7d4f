import {
  type Block,
  closedPieces,
  conditionHolds,
  dayOf,
  firstDayOf,
  type FlowPoint,
  isComplete,
  isMilestone,
  lastDayOf,
  type Line,
  linearBlocks,
  type LineClash,
  lineClashes,
  pinTrouble,
  linearWorks,
  MINUTES_PER_DAY,
  NONE,
  type Plan,
} from '@clembo/core';
import type { LinearBrief } from '../../brief/linear';
import { NOTHING_SHOWN } from '../../graph/shown';
import type { Shown } from '../../graph/scene';
import type { ComposeInput } from '../composed';
import { type CodeLook, codeLooks } from '../timeline/codes';
import type { Strip } from './strips';

interface Common extends CodeLook {
  ref: string;
  name: string;
  /** What stands above it in the outline; empty for nothing. */
  group: string;
  critical: boolean;
  complete: boolean;
  quantity: number | null;
  /** Days on which it begins and ends, as the plan shows them. */
  start: number;
  finish: number;
}

/** Work that moves along the line. */
export interface Flow extends Common {
  points: FlowPoint[];
  /** Where it was promised; null where nothing was. */
  promised: FlowPoint[] | null;
  /** The place up to which it is done; null where nothing is. */
  doneTo: number | null;
  /** Distance of all crews in a working day, where it is the same all the way. */
  rate: number | null;
  crews: number;
  /** The pieces of it that are planned while the line is closed there. */
  closed: FlowPoint[][];
}

/** Work that holds a stretch of the line. */
export interface Held extends Common {
  block: Block;
  /** 0 to 1 */
  progress: number;
}

/** A point in time at a place. */
export interface Point extends Common {
  place: number;
  time: number;
}

export interface LineSelection {
  line: Line | null;
  flows: Flow[];
  blocks: Held[];
  points: Point[];
  /** Pictures along the line that can be laid there. */
  strips: Strip[];
  clashes: LineClash[];
  /** The last day of the work on the page, on its stretch of the line; null for none. */
  until: number | null;
  /** Whether no work on the line is as the brief asks, anywhere and at any time. */
  isEmpty: boolean;
  /** Work on the line that has no dates. */
  undated: { ref: string; name: string }[];
  /** Works that have dates and places, and no rate that could be drawn. */
  unknown: number;
  counts: Shown;
}

/** The places, in the unit of the line, and the days of a page. */
export interface Range {
  from: number;
  to: number;
  day0: number;
  day1: number;
}

/** Everything of a plan that lies on one of its lines. */
export function selectLine({ plan, schedule: s, brief, promised }: ComposeInput<LinearBrief>): LineSelection {
  const line = plan.lines.find((l) => l.id === brief.line) ?? (brief.line === null ? (plan.lines[0] ?? null) : null);
  const isOn = (p: Plan, i: number) => {
    const own = p.activities[i]!.line;
    return own === null ? line?.id === plan.lines[0]?.id : own === line?.id;
  };
  const holds = brief.where.tests.length === 0 ? null : conditionHolds(plan, s, brief.where, null);
  const wanted = (i: number) => {
    const a = plan.activities[i]!;
    return (
      isOn(plan, i) &&
      (holds === null || holds(i)) &&
      (brief.only !== 'critical' || (s.critical[i] === 1 && !isComplete(a))) &&
      (brief.only !== 'open' || !isComplete(a))
    );
  };
  const looks = codeLooks(plan, brief.colour, brief);
  const common = (i: number): Common => {
    const a = plan.activities[i]!;
    const span = { start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 };
    const parent = s.outline.parent[i]!;
    return {
      ref: a.ref,
      name: a.name || a.ref,
      group: parent === -1 ? '' : plan.activities[parent]!.name,
      critical: s.critical[i] === 1 && plan.links.length > 0 && !isComplete(a),
      complete: isComplete(a),
      quantity: a.quantity,
      start: firstDayOf(span),
      finish: lastDayOf(span),
      ...looks(brief.colour === null ? [] : [a.codes[brief.colour] ?? '']),
    };
  };
  const before =
    promised === null
      ? null
      : new Map(linearWorks(promised.plan, promised.schedule).works.map((w) => [w.work.ref, w.points]));
  const allFlows = linearWorks(plan, s)
    .works.filter((w) => wanted(w.position))
    .map((w): Flow => {
      const a = plan.activities[w.position]!;
      const { from, to, rates, crews } = w.work;
      const done = isComplete(a) ? 1 : (a.percent ?? 0) / 100;
      return {
        ...common(w.position),
        points: w.points,
        promised: before?.get(a.ref) ?? null,
        doneTo: done > 0 ? from + done * (to - from) : null,
        rate: rates.length === 1 ? rates[0]!.perDay * crews : null,
        crews,
        closed: isComplete(a) ? [] : w.windows.flatMap((x) => closedPieces(w.points, x)),
      };
    });
  const positions = new Map(plan.activities.map((a, i) => [a.ref, i]));
  const allBlocks = linearBlocks(plan, s).flatMap((block): Held[] => {
    const i = positions.get(block.ref)!;
    if (!wanted(i)) return [];
    const a = plan.activities[i]!;
    return [{ ...common(i), block, progress: isComplete(a) ? 1 : (a.percent ?? 0) / 100 }];
  });
  const allPoints = plan.activities.flatMap((a, i): Point[] => {
    const at = a.from ?? a.to;
    if (at === null || !isMilestone(a.kind) || s.start[i] === NONE || !wanted(i)) return [];
    return [{ ...common(i), place: at / 1000, time: s.start[i]! / MINUTES_PER_DAY }];
  });
  const found = { line, flows: allFlows, blocks: allBlocks, points: allPoints };
  const places = placesOf(found, brief);
  const isDue = (start: number, finish: number) =>
    (brief.from === null || finish > dayOf(brief.from)) && (brief.to === null || start < brief.to / MINUTES_PER_DAY);
  const isThere = (points: readonly FlowPoint[]) => {
    const times = timesOn(points, ...places);
    return times !== null && isDue(...times);
  };
  const flows = allFlows.filter((f) => isThere(f.points) || (f.promised !== null && isThere(f.promised)));
  const blocks = allBlocks.filter(
    ({ block: b }) => Math.min(places[1], b.to) - Math.max(places[0], b.from) > 1e-9 && isDue(b.start, b.finish),
  );
  const points = allPoints.filter(
    (p) => p.place >= places[0] && p.place <= places[1] && isDue(p.time - 1e-9, p.time + 1e-9),
  );
  const all = plan.activities.filter((_, i) => !s.outline.isSummary[i]).length;
  const shown = flows.length + blocks.length + points.length;
  const outside = allFlows.length + allBlocks.length + allPoints.length - shown;
  const onLine = (i: number) => {
    const a = plan.activities[i]!;
    const goes = a.from !== null && (isMilestone(a.kind) || (a.to !== null && a.to !== a.from));
    return goes && !s.outline.isSummary[i] && wanted(i);
  };
  const undated = plan.activities.flatMap((a, i) =>
    onLine(i) && s.start[i] === NONE ? [{ ref: a.ref, name: a.name || a.ref }] : [],
  );
  const drawable = plan.activities.filter((_, i) => onLine(i)).length;
  const unknown = Math.max(0, drawable - undated.length - shown - outside);
  const counts: Shown = {
    ...NOTHING_SHOWN,
    of: all,
    shown,
    undated: undated.length,
    outside,
    leftOut: all - shown - undated.length - outside,
  };
  const clashes = brief.clashes
    ? lineClashes(
        flows.map(({ ref, points: own }) => ({ ref, points: own })),
        blocks.map((b) => b.block),
        { days: brief.keep, distance: 0 },
      ).filter((c) => c.place >= places[0] && c.place <= places[1] && isDue(c.time, c.time))
    : [];
  // A page that is cut by place tells of the work on its stretch.
  const isCut = brief.fromPlace !== null || brief.toPlace !== null;
  const ends = [
    ...flows.map((f) => (isCut ? Math.ceil((timesOn(f.points, ...places)?.[1] ?? 0) - 1e-9) - 1 : f.finish)),
    ...blocks.map((b) => b.finish),
  ];
  return {
    line,
    flows,
    blocks,
    points,
    strips: brief.strips ? stripsOf(plan, line) : [],
    clashes,
    until: ends.length === 0 ? null : Math.max(...ends),
    isEmpty: allFlows.length + allBlocks.length === 0,
    undated,
    unknown,
    counts,
  };
}

/** When a flowline is on a stretch of the line, first and last; null where it does not come there. */
function timesOn(points: readonly FlowPoint[], low: number, high: number): [first: number, last: number] | null {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let k = 1; k < points.length; k++) {
    const [a, b] = [points[k - 1]!, points[k]!];
    const timeAt = (place: number) =>
      a.place === b.place ? a.time : a.time + ((b.time - a.time) * (place - a.place)) / (b.place - a.place);
    const [from, to] = [Math.max(low, Math.min(a.place, b.place)), Math.min(high, Math.max(a.place, b.place))];
    // Work that only touches the end of the stretch is not on it.
    const stands = a.place === b.place;
    if (stands ? a.place <= low || a.place >= high : to - from < 1e-9) continue;
    const times = stands ? [a.time, b.time] : [timeAt(from), timeAt(to)];
    first = Math.min(first, ...times);
    last = Math.max(last, ...times);
  }
  return first <= last ? [first, last] : null;
}

/** The days that a selection spans on a stretch of the line, and the brief. */
export function daysOf(
  { flows, blocks, points }: LineSelection,
  brief: LinearBrief,
  [low, high]: readonly [number, number],
): [number, number] {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const take = (a: number, b: number) => {
    first = Math.min(first, a);
    last = Math.max(last, b);
  };
  for (const { points: own, promised } of flows)
    for (const line of [own, promised]) {
      const times = line && timesOn(line, low, high);
      if (times) take(...times);
    }
  for (const { block } of blocks)
    if (Math.min(high, block.to) - Math.max(low, block.from) > 1e-9) take(block.start, block.finish);
  for (const p of points) if (p.place >= low && p.place <= high) take(p.time, p.time);
  if (!Number.isFinite(first)) return [0, 1];
  // A stretch that is cut out has room around it: names of what begins and ends there stand beside it.
  const cut = brief.fromPlace !== null || brief.toPlace !== null;
  const pad = cut ? Math.ceil((last - first) * 0.05) : 0;
  const from = brief.from === null ? Math.floor(first) - pad : dayOf(brief.from);
  const to = brief.to === null ? Math.ceil(last) + pad : brief.to / MINUTES_PER_DAY;
  return to > from ? [from, to] : [from, from + 1];
}

/** The places that a selection and the brief span, in the unit of the line. */
export function placesOf(
  { line, flows, blocks, points }: Pick<LineSelection, 'line' | 'flows' | 'blocks' | 'points'>,
  brief: LinearBrief,
): [number, number] {
  const found = [
    ...flows.flatMap((f) => [f.points[0]!.place, f.points.at(-1)!.place]),
    ...blocks.flatMap((b) => [b.block.from, b.block.to]),
    ...points.map((p) => p.place),
  ];
  const own = line && line.from !== line.to ? [line.from / 1000, line.to / 1000] : found;
  const low = brief.fromPlace === null ? Math.min(...own) : brief.fromPlace / 1000;
  const high = brief.toPlace === null ? Math.max(...own) : brief.toPlace / 1000;
  if (!Number.isFinite(low) || !Number.isFinite(high)) return [0, 1];
  return high > low ? [low, high] : high < low ? [high, low] : [low, low + 1];
}

/** The pictures of a line whose pins say how they lie. */
function stripsOf(plan: Plan, line: Line | null): Strip[] {
  return (line?.strips ?? []).flatMap(({ name, picture, pins }) => {
    const found = plan.pictures.find((p) => p.id === picture);
    return found && pinTrouble(pins) === null ? [{ name, picture: found, pins }] : [];
  });
}
