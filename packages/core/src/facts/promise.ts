import type { Command } from '../commands/command';
import type { Activity, Plan } from '../plan/schema';
import { isComplete, UNKNOWN } from '../schedule/given';
import { NONE } from '../schedule/slots';
import type { Schedule } from '../schedule/model';

/** What a promise can give to activities that have no dates of their own. */
export interface PromiseOffer {
  /** How many have only promised dates. */
  rows: number;
  /** How many are under way with no finish but the promised length. */
  underWay: number;
  /** Takes the promised dates as they stand. */
  command: Command;
}

/**
 * Offers the promised dates to what has none: those that came with the source, else those of the edition that the plan
 * is measured against. Null where there is nothing to offer.
 */
export function promiseOffer(
  plan: Plan,
  s: Schedule,
  promised: { plan: Plan; schedule: Schedule } | null,
): PromiseOffer | null {
  // Computed dates come from lengths and links alone.
  if (plan.source === 'computed') return null;
  let [rows, underWay] = [0, 0];
  const commands: Command[] = [];
  plan.activities.forEach((a, i) => {
    if (s.outline.isSummary[i] || isComplete(a) || s.finishFrom[i] !== UNKNOWN) return;
    const own = a.promised ?? (promised && promiseOf(promised, a.ref));
    if (!own || (own.start === null && own.finish === null)) return;
    if (s.start[i] === NONE) rows++;
    else underWay++;
    if (a.promised === null) commands.push({ do: 'changeActivity', ref: a.ref, part: { promised: own } });
  });
  if (rows + underWay === 0 || (plan.asPromised && commands.length === 0)) return null;
  if (!plan.asPromised) commands.push({ do: 'setPlan', settings: { asPromised: true } });
  return { rows, underWay, command: { do: 'all', commands } };
}

/** The dates that an edition shows of an activity. */
function promiseOf({ plan, schedule: s }: { plan: Plan; schedule: Schedule }, ref: string): Activity['promised'] {
  const i = s.outline.indexOf.get(ref);
  if (i === undefined || s.outline.isSummary[i] || s.start[i] === NONE) return null;
  const isPoint = s.start[i] === s.finish[i];
  if (isPoint && plan.activities[i]!.kind === 'activity') return null;
  return isPoint && s.atFinish[i] === 0
    ? { start: s.start[i]!, finish: null }
    : { start: s.start[i]!, finish: s.finish[i]! };
}
