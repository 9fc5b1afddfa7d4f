import { type CodeField, isMilestone, type Plan, type Schedule } from '@clembo/core';
import { PROMISED } from './parts';
import { defaultTimelineBrief, type TimelineBrief } from './timeline';

/**
 * A first brief for a plan: lanes by the code field that splits it into a readable number of bands, colours by
 * another one, an outline level that keeps the page below what a reader takes in, and a comparison with what was
 * promised where an edition says so.
 */
export function suggestTimelineBrief(plan: Plan, schedule: Schedule, editions = 0): TimelineBrief {
  const brief = defaultTimelineBrief();
  const covered = (f: CodeField) => plan.activities.filter((a) => a.codes[f.id] !== undefined).length;
  const most = Math.max(1, ...plan.codeFields.map(covered));
  const useful = plan.codeFields.filter((f) => f.values.length >= 2 && covered(f) >= most * 0.6);
  const lane =
    useful.find((f) => f.values.length >= 3 && f.values.length <= 9) ?? useful.find((f) => f.values.length <= 15);
  const colour = useful.find((f) => f !== lane && f.values.length <= 8) ?? lane;
  const topLevel = schedule.outline.roots.length;
  const byOutline = schedule.outline.level.some((l) => l > 1) && topLevel <= 15;
  brief.lanes = lane ? [lane.id] : byOutline ? ['outline'] : [];
  brief.colour = colour && colour.values.length <= 8 ? colour.id : null;
  brief.level = readableLevel(schedule);
  if (editions > 0) {
    brief.compare = PROMISED;
    brief.labels = ['name', 'finish', 'off'];
  }
  brief.page = plan.activities.length > 40 ? 'A3 landscape' : 'A4 landscape';
  const things = brief.level === null ? leavesOf(schedule) : thingsAt(schedule, brief.level);
  const sum = useful.find((f) => f.values.length >= 3 && f.values.length <= MOST_SUMS) ?? lane;
  if (things > MOST_EACH && sum) {
    brief.together = sum.id;
    brief.rows = 'each';
    brief.lanes = brief.lanes.filter((id) => id !== sum.id);
    if (brief.colour === sum.id) brief.colour = null;
    const points = plan.activities.filter((a) => isMilestone(a.kind)).length;
    if (points > MOST_POINTS) brief.include = 'activities';
  }
  return brief;
}

/** With more things than these on one page, the work of each value is one bar. */
export const MOST_EACH = 200;
/** More bars than these are not added up any more. */
const MOST_SUMS = 40;
/** More milestones than these beside them cannot be read. */
const MOST_POINTS = 40;

const leavesOf = ({ outline }: Schedule): number => outline.isSummary.filter((s) => !s).length;

/** How many things stand on a page that shows a plan down to a level: groups of that level, and what lies above it. */
export function thingsAt({ outline: { level, isSummary } }: Schedule, limit: number): number {
  return level.reduce((n, l, i) => n + (l === limit || (l < limit && !isSummary[i]) ? 1 : 0), 0);
}

/** The coarsest level that shows more than one thing: one group that holds all of a plan says nothing. */
export function coarsestLevel(schedule: Schedule): number {
  const deepest = schedule.outline.level.reduce((a, b) => Math.max(a, b), 1);
  let level = 1;
  while (level < deepest && thingsAt(schedule, level) < 2) level++;
  return level;
}

/** The deepest level at which at most 80 things are shown; null when that is the whole plan. */
export function readableLevel(schedule: Schedule): number | null {
  const { level } = schedule.outline;
  const deepest = level.reduce((a, b) => Math.max(a, b), 1);
  if (leavesOf(schedule) <= 80) return null;
  for (let limit = deepest - 1; limit >= 2; limit--) if (thingsAt(schedule, limit) <= 80) return limit;
  return deepest > 2 ? 2 : null;
}
