import type { Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
import { NONE } from '../schedule/slots';
import { IS_LAST } from '../schedule/leads';
import type { Schedule } from '../schedule/model';

/** How far the links of a plan reach: of the open activities, how many lead to its end. */
export interface Linked {
  lead: number;
  of: number;
  /** Whether enough of them do for a critical path to be told without a word: nine in ten. */
  isWhole: boolean;
  /** Positions of those that do not. */
  loose: number[];
}

/** The fact of what leads to the end; what ends the plan counts as leading there where anything leads to it. */
export function linkedToEnd(plan: Plan, s: Schedule): Linked {
  const loose: number[] = [];
  let lead = 0;
  for (let v = 0; v < s.network.count; v++) {
    const i = s.network.activityOf[v]!;
    if (isComplete(plan.activities[i]!)) continue;
    const leads = s.leads[v]!;
    if (leads !== 0 && leads !== IS_LAST) lead++;
    else loose.push(i);
  }
  const of = lead + loose.length;
  return { lead, of, isWhole: of > 0 && lead * 10 >= of * 9, loose };
}

/** What a float is counted to: the next thing that it would move, or only the end of the plan. */
export type FloatTo = 'next' | 'end';

/** The fact of the float of an activity, in working minutes of its calendar; null where it has none. */
export function floatOf(
  s: Schedule,
  i: number,
): { total: number; free: number; to: FloatTo; critical: boolean; last: boolean } | null {
  const v = s.network.nodeOf[i] ?? -1;
  if (v < 0 || s.totalFloat[i] === NONE) return null;
  const { outAt } = s.adjacency;
  return {
    total: s.totalFloat[i]!,
    free: s.freeFloat[i]!,
    to: outAt[v]! < outAt[v + 1]! ? 'next' : 'end',
    critical: s.critical[i] === 1,
    last: s.leads[v] === IS_LAST,
  };
}

/** Whether a float is told only against the end of the plan: nothing follows, and the activity does not end the plan. */
export function isLoose(s: Schedule, i: number): boolean {
  const float = floatOf(s, i);
  return float !== null && float.to === 'end' && !float.critical && !float.last;
}
