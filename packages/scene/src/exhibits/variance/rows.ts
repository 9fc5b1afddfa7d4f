import { NOTHING_SHOWN } from '../../graph/shown';
import {
  apartReader,
  type Band,
  bandOfDays,
  conditionHolds,
  type Condition,
  doneReader,
  addDone,
  type Extent,
  extentOf,
  isComplete,
  isMilestone,
  NONE,
  nothingDone,
  percentOf,
  promisedExtent,
  type Plan,
  type Schedule,
  stretchesAt,
  toleranceOf,
  type Tolerance,
} from '@clembo/core';
import type { Shown } from '../../graph/scene';
import type { ComposeInput, Promised } from '../composed';

/** What a row of a variance page is about: an activity, or several that are added up. */
export interface VarianceRow {
  ref: string | null;
  name: string;
  milestone: boolean;
  members: number[];
  complete: boolean;
  critical: boolean;
  /** 0 to 1 */
  progress: number;
  now: Extent;
  then: Extent | null;
  /** Working days late by start and by finish; null for what was not promised. */
  startOff: number | null;
  finishOff: number | null;
  band: Band | null;
  tolerance: Tolerance;
  stretches: { start: number; finish: number }[] | null;
}

export interface VarianceRows {
  rows: VarianceRow[];
  counts: Shown;
  undated: { ref: string; name: string }[];
}

interface Asked {
  where: Condition;
  include?: 'both' | 'activities' | 'milestones';
  of?: string;
}

/** The code of an activity in a field, or the top of the outline above it. */
export function codeIn(plan: Plan, { outline }: Schedule, field: string, i: number): string {
  if (field !== 'outline') return plan.activities[i]!.codes[field] ?? '';
  let top = i;
  while (outline.parent[top]! !== -1) top = outline.parent[top]!;
  return outline.isSummary[top] ? plan.activities[top]!.ref : '';
}

/** Titles of codes, in the order in which they are read. */
export function codeTitlesIn(plan: Plan, { outline }: Schedule, field: string): Map<string, string> {
  const titles = new Map<string, string>();
  if (field === 'outline')
    for (const i of outline.roots) {
      if (outline.isSummary[i])
        titles.set(plan.activities[i]!.ref, plan.activities[i]!.name || plan.activities[i]!.ref);
    }
  else for (const v of plan.codeFields.find((f) => f.id === field)?.values ?? []) titles.set(v.code, v.title);
  titles.set('', 'Without');
  return titles;
}

/** What a brief's condition asks of activities. */
export const holdsOf = ({
  plan,
  schedule,
  brief,
  promised,
}: ComposeInput<Pick<Asked, 'where'>>): ((i: number) => boolean) =>
  brief.where.tests.length === 0 ? () => true : conditionHolds(plan, schedule, brief.where, promised);

/** Positions of the activities that a page adds up: no groups, those that meet the condition and are wanted. */
export function chosenOf(
  input: ComposeInput<Pick<Asked, 'where'>>,
  wanted: (position: number) => boolean,
): { chosen: number[]; counts: Shown } {
  const holds = holdsOf(input);
  const counts: Shown = { ...NOTHING_SHOWN };
  const chosen: number[] = [];
  for (let i = 0; i < input.plan.activities.length; i++) {
    if (input.schedule.outline.isSummary[i]) continue;
    counts.of++;
    if (wanted(i) && holds(i)) chosen.push(i);
    else counts.leftOut++;
  }
  counts.shown = chosen.length;
  return { chosen, counts };
}

/** Chooses what a brief asks for, with where it stands and where it was promised. */
export function varianceRows(input: ComposeInput<Asked>): VarianceRows {
  const { plan, schedule: s, brief } = input;
  const promised = input.promised!;
  const holds = holdsOf(input);
  const include = brief.include ?? 'both';
  const counts: Shown = { ...NOTHING_SHOWN };
  const undated: VarianceRows['undated'] = [];
  const chosen: number[] = [];
  for (const i of s.outline.order) {
    if (s.outline.isSummary[i]) continue;
    counts.of++;
    const a = plan.activities[i]!;
    const point = isMilestone(a.kind);
    if ((include !== 'both' && (include === 'milestones') !== point) || !holds(i)) counts.leftOut++;
    else if (s.start[i] === NONE) {
      counts.undated++;
      undated.push({ ref: a.ref, name: a.name });
    } else chosen.push(i);
  }
  const of = brief.of ?? 'each';
  if (of === 'each') {
    const rows = chosen.map((i) => rowOf(input, promised, [i], null));
    tellApart(rows, plan, s);
    return { rows, counts, undated };
  }
  const groups = new Map<string, number[]>();
  for (const i of chosen) {
    const code = codeIn(plan, s, of, i);
    const own = groups.get(code);
    if (own) own.push(i);
    else groups.set(code, [i]);
  }
  const titles = codeTitlesIn(plan, s, of);
  const order = [...titles.keys()];
  const rank = (code: string) => (order.includes(code) ? order.indexOf(code) : order.length - 1.5);
  const rows = [...groups]
    .sort(([x], [y]) => rank(x) - rank(y))
    .map(([code, list]) => rowOf(input, promised, list, titles.get(code) ?? code));
  return { rows, counts, undated };
}

function rowOf(input: ComposeInput<Asked>, promised: Promised, members: number[], title: string | null): VarianceRow {
  const { plan, schedule: s } = input;
  const [only] = members;
  const single = title === null;
  const a = plan.activities[only!]!;
  const now = extentOf(s, members)!;
  const then = promisedExtent(plan, promised, members);
  const apart = apartReader(plan);
  const of = single ? only! : null;
  const sum = nothingDone();
  const read = doneReader(plan, s, plan.percentShown);
  for (const i of members) addDone(sum, read(i));
  const percent = percentOf(sum);
  const finishOff = then ? apart.finishes(of, then, now) : null;
  const tolerances = members.map((i) => toleranceOf(plan, plan.activities[i]!));
  const tolerance = tolerances.every((t) => t === tolerances[0]) ? tolerances[0]! : plan.tolerance;
  return {
    ref: single ? a.ref : null,
    name: title ?? (a.name || a.ref),
    milestone: single && isMilestone(a.kind),
    members,
    complete: members.every((i) => isComplete(plan.activities[i]!)),
    critical: plan.links.length > 0 && members.some((i) => s.critical[i] === 1 && !isComplete(plan.activities[i]!)),
    progress: Number.isNaN(percent) ? 0 : percent / 100,
    now,
    then,
    startOff: then ? apart.starts(of, then, now) : null,
    finishOff,
    band: finishOff === null ? null : bandOfDays(finishOff, tolerance),
    tolerance,
    stretches: single && a.stretches.length > 1 ? stretchesAt(plan, s, only!) : null,
  };
}

/** Where several rows have the same name, each says what it belongs to. */
function tellApart(rows: VarianceRow[], plan: Plan, s: Schedule): void {
  const known = new Map<string, number>();
  for (const r of rows) known.set(r.name, (known.get(r.name) ?? 0) + 1);
  for (const r of rows) {
    if (known.get(r.name)! < 2) continue;
    const parent = s.outline.parent[r.members[0]!]!;
    if (parent !== -1 && plan.activities[parent]!.name !== '') r.name = `${r.name} (${plan.activities[parent]!.name})`;
  }
}

/** Counts the activities of rows that are not on the page as left out. */
export function countRows(counts: Shown, shown: readonly VarianceRow[], all: readonly VarianceRow[]): Shown {
  const size = (list: readonly VarianceRow[], grouped: boolean) =>
    list.filter((r) => (r.ref === null) === grouped).reduce((n, r) => n + r.members.length, 0);
  const kept = new Set(shown);
  const out = all.filter((r) => !kept.has(r));
  return {
    ...counts,
    shown: size(shown, false),
    inGroups: size(shown, true),
    groups: shown.filter((r) => r.ref === null).length,
    leftOut: counts.leftOut + out.reduce((n, r) => n + r.members.length, 0),
  };
}

/** Activities of rows that have no room. */
export const noRoomOf = (rows: readonly VarianceRow[]) => ({
  activities: rows.filter((r) => r.ref !== null).length,
  grouped: rows.filter((r) => r.ref === null).reduce((n, r) => n + r.members.length, 0),
});
