import {
  civilFromDay,
  type Day,
  dayOf,
  NONE,
  type Plan,
  planFinish,
  type Schedule,
  shownDays,
  weekdayOf,
} from '@clembo/core';
import { readDate } from '../values/dates';

/** The first and the last day of a plan, or its status date where nothing has dates; null where nothing says when. */
export function daysOfPlan(plan: Plan, s: Schedule): { first: Day; last: Day } | null {
  const last = planFinish(s)?.day;
  if (last === undefined) {
    const moment = plan.statusDate ?? plan.start;
    return moment === null ? null : { first: dayOf(moment), last: dayOf(moment) };
  }
  let first = last;
  for (let i = 0; i < s.start.length; i++)
    if (s.start[i] !== NONE) first = Math.min(first, shownDays(s, i)?.first ?? first);
  return { first, last };
}

const WEEKDAYS = /^(mon|tue|wed|thu|fri|sat|sun|mo|di|mi|do|fr|sa|so)[a-zäöü]*\.?,?\s/i;
const WEEKDAY_OF: Record<string, number> = {
  mon: 0,
  tue: 1,
  wed: 2,
  thu: 3,
  fri: 4,
  sat: 5,
  sun: 6,
  mo: 0,
  di: 1,
  mi: 2,
  do: 3,
  fr: 4,
  sa: 5,
  so: 6,
};

/**
 * A day as it is typed, in any notation, day before month where it leaves that open. One without a year means the year
 * in which it can only be: near what it is typed for, on the weekday that it names, else within the days of the plan.
 * Null for what is no day, and for one that could be in several years.
 *
 * @param near a day of what it is typed for
 * @param within the days of the plan
 */
export function typedDay(text: string, near: Day | null, within: () => { first: Day; last: Day } | null): Day | null {
  const plain = text.trim().replace(/^([\p{L}]+\.?,?\s+\d{1,2}\.\d{1,2})$/u, '$1.');
  const whole = readDate(plain, { order: 'dmy' });
  if (whole) return whole.day === whole.last ? whole.day : null;
  const plan = within();
  const around = near ?? plan?.first ?? null;
  if (around === null) return null;
  const [from, to] = [
    civilFromDay(Math.min(around, plan?.first ?? around)).year,
    civilFromDay(Math.max(around, plan?.last ?? around)).year,
  ];
  const weekday = WEEKDAYS.exec(plain)?.[1]?.toLowerCase();
  const found: Day[] = [];
  for (let year = from - 1; year <= to + 1; year++) {
    const read = readDate(plain, { order: 'dmy', year });
    if (!read || read.day !== read.last) continue;
    if (weekday === undefined || weekdayOf(read.day) === WEEKDAY_OF[weekday]) found.push(read.day);
  }
  if (near !== null) return nearest(found, near);
  const inside = plan === null ? [] : found.filter((d) => d >= plan.first && d <= plan.last);
  if (inside.length > 0) return inside.length === 1 ? inside[0]! : null;
  return plan === null ? null : nearest(found, Math.round((plan.first + plan.last) / 2));
}

const nearest = (days: readonly Day[], to: Day): Day | null =>
  days.length === 0 ? null : days.reduce((best, d) => (Math.abs(d - to) < Math.abs(best - to) ? d : best));
