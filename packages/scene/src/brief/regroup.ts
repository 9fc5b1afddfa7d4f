import type { Plan, Schedule } from '@clembo/core';
import { groupings, liesWithin } from './fields';
import type { TimelineBrief } from './timeline';

/** Another way to group a page. */
export interface Regrouping {
  words: string;
  change: Pick<TimelineBrief, 'lanes'> & Partial<TimelineBrief>;
}

const MOST = 12;

/**
 * Likely ways to group a page otherwise: by each field that makes a readable number of lanes, by one field within
 * another, and without lanes. The way it is grouped now is not among them.
 */
export function regroupings(plan: Plan, schedule: Schedule, brief: TimelineBrief): Regrouping[] {
  const fields = groupings(plan, schedule);
  const by = (name: string) => name.toLowerCase();
  const list: Regrouping[] = fields.map((f) => ({ words: `by ${by(f.name)}`, change: { lanes: [f.id] } }));
  const few = fields.filter((f) => f.values <= 9 && f.id !== 'outline').slice(0, 4);
  for (const outer of few)
    for (const inner of few) {
      if (outer === inner) continue;
      // A field that lies within another nests in it; of two that cross, either may be the outer one.
      if (liesWithin(plan, outer.id, inner.id) && outer.values > inner.values) continue;
      list.push({ words: `by ${by(outer.name)}, then ${by(inner.name)}`, change: { lanes: [outer.id, inner.id] } });
    }
  list.push({ words: 'without lanes', change: { lanes: [] } });
  const now = brief.lanes.join('\u0000');
  // What was set by hand for lanes belongs to the lanes that were.
  return list
    .filter(({ change }) => change.lanes.join('\u0000') !== now)
    .slice(0, MOST)
    .map(({ words, change }) => ({ words, change: { ...change, laneFirst: [], folded: [] } }));
}
