import { type Band, isComplete, type Plan, type Schedule, type Status, statusAt, varianceReader } from '@clembo/core';
import { CATEGORIES, HAREBELL, KELP, MADDER, NEUTRAL } from '../../graph/ink';
import type { Promised } from '../composed';

/** A value that a state can have, as a code book would have it. */
export interface StateValue {
  code: string;
  title: string;
  colour: string;
}

const STATUS: Record<Status, StateValue> = {
  complete: { code: 'complete', title: 'Complete', colour: KELP },
  inProgress: { code: 'inProgress', title: 'In progress', colour: CATEGORIES[6] },
  onHold: { code: 'onHold', title: 'On hold', colour: CATEGORIES[3] },
  lateToStart: { code: 'lateToStart', title: 'Should have started', colour: MADDER },
  notStarted: { code: 'notStarted', title: 'Not started', colour: NEUTRAL },
};
const BANDS: Record<Band, StateValue> = {
  breach: { code: 'breach', title: 'Far off the promise', colour: MADDER },
  watch: { code: 'watch', title: 'To be watched', colour: CATEGORIES[5] },
  inTolerance: { code: 'inTolerance', title: 'Within what is normal', colour: CATEGORIES[1] },
  ahead: { code: 'ahead', title: 'Ahead of the promise', colour: HAREBELL },
};
const CRITICAL: Record<'yes' | 'no', StateValue> = {
  yes: { code: 'yes', title: 'On the critical path', colour: CATEGORIES[4] },
  no: { code: 'no', title: 'Not critical', colour: CATEGORIES[0] },
};

/** Values that a state can have, the most pressing first. */
export const STATE_VALUES: Readonly<Record<string, StateValue[]>> = {
  '=status': Object.values(STATUS),
  '=critical': Object.values(CRITICAL),
  '=band': Object.values(BANDS),
};

/** Reads a state of activities; null for what is none. */
export function stateReader(
  field: string,
  plan: Plan,
  s: Schedule,
  promised: Promised | null,
): ((position: number) => string) | null {
  if (field === '=status') {
    const moment = plan.statusDate ?? Number.NEGATIVE_INFINITY;
    return (i) => statusAt(plan, s, i, moment);
  }
  if (field === '=critical')
    return (i) => (plan.links.length > 0 && s.critical[i] === 1 && !isComplete(plan.activities[i]!) ? 'yes' : 'no');
  if (field !== '=band') return null;
  if (!promised) return () => '';
  const variance = varianceReader(plan, s, promised.plan, promised.schedule);
  return (i) => variance(i)?.band ?? '';
}
