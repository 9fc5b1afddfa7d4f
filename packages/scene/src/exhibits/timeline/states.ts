import {
  type Band,
  isComplete,
  type Plan,
  type Schedule,
  type Status,
  statusAt,
  varianceReader,
  statusEnd,
} from '@clembo/core';
import { CATEGORIES, HAREBELL, INK, KELP, MADDER } from '../../graph/ink';
import type { Promised } from '../composed';

/** A value that a state can have, as a code book would have it. */
export interface StateValue {
  code: string;
  colour: string;
}

/** What has not begun: a grey that is told from ink and from every colour of a state. */
const TO_BEGIN = '#7A8790';

const STATUS: Record<Status, StateValue> = {
  complete: { code: 'complete', colour: KELP },
  inProgress: { code: 'inProgress', colour: CATEGORIES[3] },
  onHold: { code: 'onHold', colour: INK },
  lateToStart: { code: 'lateToStart', colour: MADDER },
  notStarted: { code: 'notStarted', colour: TO_BEGIN },
};
const BANDS: Record<Band, StateValue> = {
  breach: { code: 'breach', colour: MADDER },
  watch: { code: 'watch', colour: CATEGORIES[4] },
  inTolerance: { code: 'inTolerance', colour: CATEGORIES[0] },
  ahead: { code: 'ahead', colour: HAREBELL },
};
const CRITICAL: Record<'yes' | 'no', StateValue> = {
  yes: { code: 'yes', colour: CATEGORIES[4] },
  no: { code: 'no', colour: CATEGORIES[0] },
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
    const moment = statusEnd(plan) ?? Number.NEGATIVE_INFINITY;
    return (i) => statusAt(plan, s, i, moment);
  }
  if (field === '=critical')
    return (i) => (plan.links.length > 0 && s.critical[i] === 1 && !isComplete(plan.activities[i]!) ? 'yes' : 'no');
  if (field !== '=band') return null;
  if (!promised) return () => '';
  const variance = varianceReader(plan, s, promised.plan, promised.schedule);
  return (i) => variance(i)?.band ?? '';
}
