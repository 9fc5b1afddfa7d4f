import { conditionHolds, isMilestone, NONE, type Plan } from '@clembo/core';
import type { TimelineBrief } from '../../brief/timeline';
import { NEUTRAL } from '../../graph/ink';
import type { Promised } from '../composed';
import { isFolded, type Item } from './item';

/**
 * What the edition compared with had and the plan no longer has, where that edition promised it. It meets the condition
 * of the brief there, and stands in the lanes of its codes there.
 */
export function goneItems(plan: Plan, { plan: then, schedule: s }: Promised, brief: TimelineBrief): Item[] {
  if (brief.only !== 'all' && brief.only !== 'changed') return [];
  const now = new Set(plan.activities.map((a) => a.ref));
  const holds = brief.where.tests.length === 0 ? null : conditionHolds(then, s, brief.where, null);
  const items: Item[] = [];
  then.activities.forEach((a, i) => {
    if (now.has(a.ref) || s.outline.isSummary[i] || s.start[i] === NONE || (holds && !holds(i))) return;
    const point = isMilestone(a.kind);
    if (brief.include !== 'both' && (brief.include === 'milestones') !== point) return;
    if (brief.level !== null && s.outline.level[i]! > brief.level) return;
    let top = i;
    while (s.outline.parent[top] !== -1) top = s.outline.parent[top]!;
    const root = then.activities[top]!.ref;
    const lane = brief.lanes.map((f) => (f === 'outline' ? (now.has(root) ? root : '') : (a.codes[f] ?? '')));
    if (!brief.strays && lane.includes('')) return;
    items.push({
      index: -1,
      ref: a.ref,
      name: a.name || a.ref,
      form: point ? 'milestone' : 'bar',
      start: s.start[i]!,
      finish: s.finish[i]!,
      atFinish: !point || s.atFinish[i] === 1,
      members: [],
      without: 0,
      from: { start: s.startFrom[i]!, finish: s.finishFrom[i]! },
      stretches: null,
      lane,
      row: null,
      phase: false,
      progress: 0,
      measured: false,
      critical: false,
      criticalWork: null,
      deadline: null,
      complete: false,
      promised: null,
      off: null,
      fresh: false,
      gone: true,
      said: null,
      own: brief.looks.find((l) => l.ref === a.ref) ?? null,
      shaped: null,
      folded: isFolded(brief.folded, lane),
      category: null,
      categoryRank: 0,
      colour: NEUTRAL,
      shape: 'diamond',
      pattern: 0,
    });
  });
  return items;
}
