import { type ActivityTime, activityTime, NONE, outlineNumbers, percentComplete } from '@clembo/core';
import { calendarOf, finishDay, type Held, oneDecimal, startDay } from './held';

/** One row of the ledger. Days are day numbers, floats and lengths working days. */
export interface LedgerRow {
  ref: string;
  number: string;
  name: string;
  level: number;
  parent: number;
  kind: string;
  summary: boolean;
  start: number | null;
  finish: number | null;
  days: number | null;
  float: number | null;
  critical: boolean;
  /** Working days by which the computed finish lies after the given one; null where one is missing. */
  off: number | null;
  percent: number;
  codes: Record<string, string>;
}

/** The rows of the ledger in the order of the outline. */
export function ledgerRows(held: Held): LedgerRow[] {
  const { plan, schedule: s } = held;
  const { percent } = percentComplete(plan, s);
  const numbers = outlineNumbers(s.outline);
  const time = activityTime(plan, s);
  const positions = new Map([...s.outline.order].map((i, k) => [i, k]));
  return [...s.outline.order].map((i) => {
    const a = plan.activities[i]!;
    const perDay = calendarOf(held, a.calendar).minutesPerDay;
    const known = s.start[i] !== NONE;
    return {
      ref: a.ref,
      number: numbers[i]!,
      name: a.name,
      level: s.outline.level[i]!,
      parent: s.outline.parent[i] === -1 ? -1 : positions.get(s.outline.parent[i]!)!,
      kind: a.kind,
      summary: s.outline.isSummary[i]!,
      start: known ? startDay(held, i) : null,
      finish: known ? finishDay(held, i) : null,
      days: a.duration === null || a.duration === 0 || s.outline.isSummary[i] ? null : oneDecimal(a.duration / perDay),
      float: s.totalFloat[i] === NONE ? null : oneDecimal(s.totalFloat[i]! / perDay),
      critical: s.critical[i] === 1,
      off: offDays(held, time, i),
      percent: Math.round(percent[i]! || 0),
      codes: a.codes,
    };
  });
}

function offDays({ plan, schedule: s }: Held, time: ActivityTime, i: number): number | null {
  if (s.given.finish[i] === NONE || s.earlyFinish[i] === NONE || s.outline.isSummary[i] || plan.links.length === 0)
    return null;
  return oneDecimal(time.daysBetween(i, s.given.finish[i]!, s.earlyFinish[i]!));
}
