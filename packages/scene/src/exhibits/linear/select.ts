import {
  type Block,
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
  const looks = codeLooks(plan, brief.colour, brief.print);
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
  const flows = linearWorks(plan, s)
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
      };
    });
  const positions = new Map(plan.activities.map((a, i) => [a.ref, i]));
  const blocks = linearBlocks(plan, s).flatMap((block): Held[] => {
    const i = positions.get(block.ref)!;
    if (!wanted(i)) return [];
    const a = plan.activities[i]!;
    return [{ ...common(i), block, progress: isComplete(a) ? 1 : (a.percent ?? 0) / 100 }];
  });
  const points = plan.activities.flatMap((a, i): Point[] => {
    const at = a.from ?? a.to;
    if (at === null || !isMilestone(a.kind) || s.start[i] === NONE || !wanted(i)) return [];
    return [{ ...common(i), place: at / 1000, time: s.start[i]! / MINUTES_PER_DAY }];
  });
  const all = plan.activities.filter((_, i) => !s.outline.isSummary[i]).length;
  const shown = flows.length + blocks.length + points.length;
  const onLine = (i: number) => {
    const a = plan.activities[i]!;
    const goes = a.from !== null && (isMilestone(a.kind) || (a.to !== null && a.to !== a.from));
    return goes && !s.outline.isSummary[i] && wanted(i);
  };
  const undated = plan.activities.flatMap((a, i) =>
    onLine(i) && s.start[i] === NONE ? [{ ref: a.ref, name: a.name || a.ref }] : [],
  );
  const drawable = plan.activities.filter((_, i) => onLine(i)).length;
  const unknown = Math.max(0, drawable - undated.length - shown);
  const counts: Shown = {
    ...NOTHING_SHOWN,
    of: all,
    shown,
    undated: undated.length,
    leftOut: all - shown - undated.length,
  };
  const clashes = brief.clashes
    ? lineClashes(
        flows.map(({ ref, points: own }) => ({ ref, points: own })),
        blocks.map((b) => b.block),
        { days: brief.keep, distance: 0 },
      )
    : [];
  return {
    line,
    flows,
    blocks,
    points,
    strips: brief.strips ? stripsOf(plan, line) : [],
    clashes,
    undated,
    unknown,
    counts,
  };
}

/** The days that a selection and the brief span. */
export function daysOf({ flows, blocks, points }: LineSelection, brief: LinearBrief): [number, number] {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const take = (a: number, b: number) => {
    first = Math.min(first, a);
    last = Math.max(last, b);
  };
  for (const f of flows) {
    take(f.points[0]!.time, f.points.at(-1)!.time);
    if (f.promised) take(f.promised[0]!.time, f.promised.at(-1)!.time);
  }
  for (const b of blocks) take(b.block.start, b.block.finish);
  for (const p of points) take(p.time, p.time);
  if (!Number.isFinite(first)) return [0, 1];
  const from = brief.from === null ? Math.floor(first) : dayOf(brief.from);
  const to = brief.to === null ? Math.ceil(last) : brief.to / MINUTES_PER_DAY;
  return to > from ? [from, to] : [from, from + 1];
}

/** The places that a selection and the brief span, in the unit of the line. */
export function placesOf({ line, flows, blocks, points }: LineSelection, brief: LinearBrief): [number, number] {
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
