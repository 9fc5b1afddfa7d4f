import { isMilestone, type Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { schedulePlan } from '../schedule/schedule';
import { brokenLinks, pushedBehind } from '../schedule/shown';
import { applyCommand } from './apply';
import type { Command } from './command';

/**
 * In a plan whose dates are given, a change moves nothing else. This is what has to move for the links to hold that
 * held before: activities that have not begun go later by as much as the links ask, and no more; nothing goes earlier.
 * What the change itself is about stays as it says. Empty where dates are computed: there it happens by itself.
 */
export function followersOf(plan: Plan, s: Schedule, command: Command): Command[] {
  if (plan.source === 'computed' || plan.links.length === 0) return [];
  const { plan: after } = applyCommand(plan, command);
  const then = schedulePlan(after);
  const before = new Set(plan.activities);
  const held = new Set(after.activities.flatMap((a, i) => (before.has(a) ? [] : [i])));
  const links = new Set(plan.links);
  const broken = new Set([...brokenLinks(s)].map((l) => plan.links[l]!));
  const without = new Set(after.links.flatMap((l, k) => (broken.has(l) ? [k] : [])));
  const fresh = new Set(after.links.flatMap((l, k) => (links.has(l) ? [] : [k])));
  return pushedBehind(then, held, without, fresh).map(({ position, start, finish }): Command => {
    const a = after.activities[position]!;
    if (isMilestone(a.kind)) {
      const atFinish = then.atFinish[position] === 1;
      return {
        do: 'changeActivity',
        ref: a.ref,
        part: { start: atFinish ? null : start, finish: atFinish ? finish : null, said: null },
      };
    }
    return { do: 'changeActivity', ref: a.ref, part: { start, finish, said: null } };
  });
}
