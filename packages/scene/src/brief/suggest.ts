import type { CodeField, Plan, Schedule } from '@clembo/core';
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
  return brief;
}

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
  const { level, isSummary } = schedule.outline;
  const deepest = level.reduce((a, b) => Math.max(a, b), 1);
  const leaves = isSummary.filter((s) => !s).length;
  if (leaves <= 80) return null;
  for (let limit = deepest - 1; limit >= 2; limit--) if (thingsAt(schedule, limit) <= 80) return limit;
  return deepest > 2 ? 2 : null;
}
