import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import type { Day } from '../time/civil';
import { lastDayOf } from '../time/days';

/** The last of a plan: the day on which it ends, the moment of it, and the position of the activity that ends then. */
export interface PlanFinish {
  day: Day;
  moment: number;
  position: number;
}

/** The last day on which anything of a plan ends, groups apart; null for a plan without dates. */
export function planFinish(s: Schedule): PlanFinish | null {
  let last: PlanFinish | null = null;
  for (let i = 0; i < s.finish.length; i++) {
    if (s.outline.isSummary[i] || s.finish[i] === NONE) continue;
    const day = lastDayOf({ start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 });
    if (last === null || day > last.day) last = { day, moment: s.finish[i]!, position: i };
  }
  return last;
}
