import { civilFromDay, weekdayOf } from '@clembo/core';

export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];
const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

export type DateStyle = 'short' | 'medium' | 'long' | 'weekday';

/** A day in words: `14 Sep`, `14 Sep 26`, `14 September 2026`, `Mon 14 Sep 2026`. */
export function formatDay(day: number, style: DateStyle): string {
  const { year, month, day: d } = civilFromDay(day);
  const name = MONTHS[month - 1]!;
  switch (style) {
    case 'short':
      return `${d} ${name.slice(0, 3)}`;
    case 'medium':
      return `${d} ${name.slice(0, 3)} ${String(year % 100).padStart(2, '0')}`;
    case 'long':
      return `${d} ${name} ${year}`;
    case 'weekday':
      return `${WEEKDAYS[weekdayOf(day)]} ${d} ${name.slice(0, 3)} ${year}`;
  }
}
