import { isMilestone, type Plan } from '../plan/schema';
import { extentOf } from '../compare/behind';
import { planFinish } from '../compare/planFinish';
import { statusEnd } from '../plan/status';
import { isComplete } from '../schedule/given';
import { NONE } from '../schedule/slots';
import { FF, FS } from '../schedule/links';
import { longestPath } from '../schedule/paths';
import type { Schedule } from '../schedule/model';
import { scheduleDates, schedulePlan } from '../schedule/schedule';
import { dayOf } from '../time/civil';
import { activityTime } from '../schedule/workingDays';
import {
  actualInTheFuture,
  checked,
  hardConstraints,
  highFloats,
  longDurations,
  missingResources,
  negativeFloats,
  openEnds,
  plannedInThePast,
} from './checks';

/** One point of the assessment: how many of how many, against what is allowed. */
export interface AssessmentPoint {
  name: AssessmentName;
  count: number;
  base: number;
  /** Null where there is nothing to measure. */
  value: number | null;
  /** A share of 0 to 1, a ratio around 1, or a test that holds (1) or breaks (0). */
  as: 'share' | 'index' | 'test';
  kind: 'atMost' | 'atLeast';
  threshold: number;
  passes: boolean;
  refs: string[];
}

export type AssessmentName =
  | 'missing logic'
  | 'leads'
  | 'lags'
  | 'finish-to-start links'
  | 'hard constraints'
  | 'high float'
  | 'negative float'
  | 'long durations'
  | 'invalid dates'
  | 'missing resources'
  | 'missed activities'
  | 'critical path test'
  | 'critical path length index'
  | 'baseline execution index';

/** The measure of a point in words. */
export function pointWords({ value, as }: AssessmentPoint): string {
  if (value === null) return 'nothing to measure';
  if (as === 'test') return value === 1 ? 'holds' : 'breaks';
  return as === 'share' ? `${Math.round(value * 1000) / 10} %` : value.toFixed(2);
}

/** Critical path length index: 0.90 for a path of 100 days that is 10 days late. */
export const criticalPathLengthIndex = (length: number, float: number): number | null =>
  length <= 0 ? null : (length + float) / length;
/** Baseline execution index: what is done of what should be done by now. */
export const baselineExecutionIndex = (done: number, due: number): number | null => (due === 0 ? null : done / due);

/** How far the critical path test delays its first activity, in working days. */
const TEST_DELAY = 600;

/**
 * The published 14-point schedule assessment of a public body, with its thresholds (from memory). Counts are of
 * activities that are not done, without summaries and supporting work, unless a point says otherwise; of float, of those
 * whose float is known.
 */
export function assessSchedule(plan: Plan, s: Schedule, baseline: Plan | null): AssessmentPoint[] {
  const c = checked(plan, s, { longDuration: 44, highFloat: 44, longLag: 0 });
  const open = c.work.filter((i) => !isComplete(plan.activities[i]!));
  const refs = (positions: number[]) => positions.map((i) => plan.activities[i]!.ref);
  const share = (name: AssessmentName, positions: number[], base: number, threshold: number): AssessmentPoint => {
    const value = base === 0 ? null : positions.length / base;
    return {
      name,
      count: positions.length,
      base,
      value,
      as: 'share',
      kind: 'atMost',
      threshold,
      passes: value === null || value <= threshold,
      refs: refs(positions),
    };
  };
  const linkShare = (
    name: AssessmentName,
    test: (l: Plan['links'][number]) => boolean,
    kind: AssessmentPoint['kind'],
    threshold: number,
  ): AssessmentPoint => {
    const found = plan.links.filter(test);
    const base = plan.links.length;
    const value = base === 0 ? null : found.length / base;
    const passes = value === null || (kind === 'atMost' ? value <= threshold : value >= threshold);
    return {
      name,
      count: found.length,
      base,
      value,
      as: 'share',
      kind,
      threshold,
      passes,
      refs: kind === 'atMost' ? found.flatMap((l) => [l.from, l.to]) : [],
    };
  };
  const index = (
    name: AssessmentName,
    value: number | null,
    count: number,
    base: number,
    list: number[] = [],
  ): AssessmentPoint => ({
    name,
    count,
    base,
    value,
    as: 'index',
    kind: 'atLeast',
    threshold: 0.95,
    passes: value === null || value >= 0.95,
    refs: refs(list),
  });

  const ends = [...new Set([...openEnds(c, 'to'), ...openEnds(c, 'from')])].sort((a, b) => a - b);
  const work = open.filter((i) => !isMilestone(plan.activities[i]!.kind));
  const floating = open.filter((i) => s.totalFloat[i] !== NONE);
  const path = criticalPathTest(plan, s);
  const { due, done, missed } = againstBaseline(plan, s, baseline, c.work);
  const length = pathLength(plan, s);
  return [
    share('missing logic', ends, open.length, 0.05),
    linkShare('leads', (l) => l.lag < 0, 'atMost', 0),
    linkShare('lags', (l) => l.lag > 0, 'atMost', 0.05),
    linkShare('finish-to-start links', (l) => l.type === 'FS', 'atLeast', 0.9),
    share('hard constraints', hardConstraints(c), open.length, 0.05),
    share('high float', highFloats(c), plan.links.length === 0 ? 0 : floating.length, 0.05),
    share('negative float', negativeFloats(c), floating.length, 0),
    share('long durations', longDurations(c), work.length, 0.05),
    share('invalid dates', [...new Set([...plannedInThePast(c), ...actualInTheFuture(c)])], c.work.length, 0),
    share('missing resources', missingResources(c), work.length, 0),
    share('missed activities', missed, due.length, 0.05),
    {
      name: 'critical path test',
      count: path.held ? 1 : 0,
      base: 1,
      value: path.held === null ? null : path.held ? 1 : 0,
      as: 'test',
      kind: 'atLeast',
      threshold: 1,
      passes: path.held !== false,
      refs: path.refs,
    },
    index(
      'critical path length index',
      criticalPathLengthIndex(length.days, length.float),
      Math.round(length.days),
      Math.round(length.float),
    ),
    index('baseline execution index', baselineExecutionIndex(done.length, due.length), done.length, due.length),
  ];
}

/** What should be done by the status date by the baseline, what of it is, and what came (or will come) later than promised. */
function againstBaseline(
  plan: Plan,
  s: Schedule,
  baseline: Plan | null,
  work: number[],
): { due: number[]; done: number[]; missed: number[] } {
  const { statusDate } = plan;
  if (!baseline || statusDate === null) return { due: [], done: [], missed: [] };
  const status = dayOf(statusDate);
  const base = schedulePlan(baseline);
  const promised = new Map(
    baseline.activities.flatMap((a, i) => {
      // What was stated was promised; the rest follows from the logic.
      const finish = (extentOf(base.given, [i]) ?? extentOf(base, [i]))?.last;
      return finish === undefined ? [] : [[a.ref, finish] as const];
    }),
  );
  const due = work.filter((i) => (promised.get(plan.activities[i]!.ref) ?? Number.POSITIVE_INFINITY) <= status);
  const last = (i: number): number => extentOf(s, [i])?.last ?? Number.POSITIVE_INFINITY;
  const isDone = (i: number) => isComplete(plan.activities[i]!) && last(i) <= status;
  const done = work.filter((i) => isDone(i) && promised.has(plan.activities[i]!.ref));
  const missed = due.filter((i) => !isDone(i) || last(i) > promised.get(plan.activities[i]!.ref)!);
  return { due, done, missed };
}

/** Working days from the status date (or the start) to the shown finish, and the least float on the way there. */
function pathLength(plan: Plan, s: Schedule): { days: number; float: number } {
  const last = planFinish(s);
  if (last === null || s.planFinish === NONE) return { days: 0, float: 0 };
  const time = activityTime(plan, s);
  const from = statusEnd(plan) ?? s.network.planStart * s.network.slotMinutes;
  const floats = plan.activities.flatMap((_, k) =>
    s.totalFloat[k] === NONE ? [] : [s.totalFloat[k]! / time.minutesPerDay(k)],
  );
  // Without links nothing is known of a path.
  if (floats.length === 0 || plan.links.length === 0) return { days: 0, float: 0 };
  const days = time.daysBetween(last.position, from, s.planFinish);
  return { days, float: floats.reduce((a, b) => Math.min(a, b), 0) };
}

/**
 * Makes the first activity of the path that decides the end much longer and asks whether the computed finish follows:
 * whether the path is whole. Not possible where nothing leads to the end.
 */
function criticalPathTest(plan: Plan, s: Schedule): { held: boolean | null; refs: string[] } {
  const path = longestPath(s);
  // Work that is longer moves what waits for its end, not what waits for its start.
  const i = path.find(
    (k, at) =>
      !isComplete(plan.activities[k]!) &&
      s.network.duration[s.network.nodeOf[k]!]! > 0 &&
      (at === path.length - 1 || leadsByFinish(s, k, path[at + 1]!)),
  );
  if (path.length < 2 || i === undefined) return { held: null, refs: [] };
  const computed: Plan = { ...plan, source: 'computed' };
  const before = plan.source === 'computed' ? s : scheduleDates(computed);
  const net = before.network;
  const v = net.nodeOf[i]!;
  const time = net.times[net.calendar[v]!]!;
  const perDay = net.resolution === 'day' ? 1 : time.spec.minutesPerDay;
  const more = TEST_DELAY * time.spec.minutesPerDay;
  const a = plan.activities[i]!;
  const minutes = (slots: number) => (net.resolution === 'day' ? slots * time.spec.minutesPerDay : slots);
  const longer = {
    ...a,
    duration: minutes(net.duration[v]!) + more,
    remaining: a.actualStart === null ? null : minutes(net.remaining[v]!) + more,
    // What was done of it stays done.
    percent: a.actualStart === null ? a.percent : null,
  };
  const after = scheduleDates({ ...computed, activities: plan.activities.map((x, k) => (k === i ? longer : x)) });
  const moved = time.between(before.planFinish / net.slotMinutes, after.planFinish / net.slotMinutes) / perDay;
  return { held: Math.abs(moved - TEST_DELAY) <= TEST_DELAY * 0.05, refs: [a.ref] };
}

function leadsByFinish({ network: net, adjacency: adj }: Schedule, from: number, to: number): boolean {
  const [u, w] = [net.nodeOf[from]!, net.nodeOf[to]!];
  for (let k = adj.outAt[u]!; k < adj.outAt[u + 1]!; k++) {
    const link = adj.out[k]!;
    if (net.linkTo[link] === w && (net.linkType[link] === FS || net.linkType[link] === FF)) return true;
  }
  return false;
}
