import type { Activity } from '../plan/schema';
import { type Rate, sectionsOf } from './flowline';

type Paced = Pick<Activity, 'ref' | 'from' | 'to' | 'occupies' | 'rate' | 'rates' | 'crews' | 'quantity' | 'output'>;

/** Whether it goes from one place to another, instead of holding its stretch. */
export const goesAlong = (a: Pick<Activity, 'from' | 'to' | 'occupies'>): boolean =>
  a.from !== null && a.to !== null && a.from !== a.to && !a.occupies;

/** Places are stored as whole thousandths of the line's unit. */
export const THOUSANDTHS = 1000;

/** Working days that all crews need for the quantity at the daily output of one; null where one of them is not said. */
const daysByOutput = ({ quantity, output, crews }: Paced): number | null =>
  quantity !== null && quantity > 0 && output !== null && output > 0 ? quantity / output / (crews || 1) : null;

/** The rates of one crew that the activity itself states, sections behind the whole way; none where it states none. */
export function statedRates(a: Paced): Rate[] {
  if (a.from === null || a.to === null) return [];
  const [low, high] = [Math.min(a.from, a.to) / THOUSANDTHS, Math.max(a.from, a.to) / THOUSANDTHS];
  const byOutput = daysByOutput(a);
  const whole = a.rate ?? (byOutput === null ? 0 : (high - low) / byOutput / (a.crews || 1));
  return [
    ...(whole > 0 ? [{ from: low, to: high, perDay: whole }] : []),
    ...a.rates.map((r) => ({ from: r.from / THOUSANDTHS, to: r.to / THOUSANDTHS, perDay: r.perDay })),
  ];
}

/** Whether it has no rate of its own for its whole way, so that its dates give it. */
export const paceIsOfDates = (a: Paced): boolean => a.rate === null && statedRates(a).length === a.rates.length;

/**
 * Working days that an activity's own rates give to its way, or its daily output to its quantity: length / rate, or
 * quantity / output, shared by its crews. Not rounded. Null where neither is stated for all of it.
 */
export function daysByRate(a: Paced): number | null {
  if (!goesAlong(a)) return daysByOutput(a);
  const rates = statedRates(a);
  if (rates.length === 0) return null;
  const work = { ref: a.ref, from: a.from! / THOUSANDTHS, to: a.to! / THOUSANDTHS, rates, crews: a.crews || 1 };
  try {
    return sectionsOf(work).reduce((sum, s) => sum + Math.abs(s.to - s.from) / s.perDay, 0);
  } catch {
    return null;
  }
}
