import { type CalendarSpec, minutesPerUnit } from '@clembo/core';

/** A duration or lag as written: an amount and its unit. Elapsed units ignore calendars. */
export interface ReadDuration {
  amount: number;
  unit: 'minute' | 'hour' | 'day' | 'week' | 'month';
  elapsed: boolean;
}

const UNITS: Record<string, ReadDuration['unit']> = {
  m: 'minute',
  min: 'minute',
  mins: 'minute',
  minute: 'minute',
  minutes: 'minute',
  h: 'hour',
  hr: 'hour',
  hrs: 'hour',
  hour: 'hour',
  hours: 'hour',
  std: 'hour',
  d: 'day',
  day: 'day',
  days: 'day',
  t: 'day',
  tag: 'day',
  tage: 'day',
  wd: 'day',
  j: 'day',
  w: 'week',
  wk: 'week',
  wks: 'week',
  week: 'week',
  weeks: 'week',
  woche: 'week',
  wochen: 'week',
  mo: 'month',
  mon: 'month',
  mons: 'month',
  month: 'month',
  months: 'month',
};

/** Reads `10`, `10 d`, `2.5 weeks`, `16h`, `3 elapsed days` (also `3 ed`). Without a unit, `unit` is meant. */
export function readDuration(text: string, unit: ReadDuration['unit']): ReadDuration | null {
  const m = /^([+-]?\s*[\d.,\s]*\d)\s*(elapsed\s+|e)?([a-z]+)?\.?\??$/i.exec(text.trim());
  if (!m) return null;
  const amount = readNumber(m[1]!.replace(/\s/g, ''));
  const named = m[3] === undefined ? unit : UNITS[m[3].toLowerCase()];
  if (amount === null || named === undefined) return null;
  return { amount, unit: named, elapsed: m[2] !== undefined };
}

const ELAPSED_DAYS: Record<ReadDuration['unit'], number> = {
  minute: 1 / 1440,
  hour: 1 / 24,
  day: 1,
  week: 7,
  month: 30,
};

/** Working minutes of a duration on a calendar, or those of the clock for an elapsed one. */
export const toMinutes = (d: ReadDuration, calendar: CalendarSpec): number =>
  Math.round(
    d.amount *
      (d.elapsed ? ELAPSED_DAYS[d.unit] * minutesPerUnit('elapsedDay', calendar) : minutesPerUnit(d.unit, calendar)),
  );

/** Reads a number with a point or a comma for decimals and the other, a space or ' between thousands. */
export function readNumber(text: string): number | null {
  if (/^\d{1,15}$/.test(text)) return Number(text);
  let t = text.trim().replace(/^[^\d+\-(.,]+|[^\d).,]+$/g, '');
  const negative = /^\(.*\)$/.test(t) || t.startsWith('-');
  t = t.replace(/[()+\-\s'\u00a0\u202f]/g, '');
  if (!/^[\d.,]*\d[\d.,]*$/.test(t)) return null;
  const comma = t.lastIndexOf(',');
  const point = t.lastIndexOf('.');
  if (comma >= 0 && point >= 0) {
    const decimal = comma > point ? ',' : '.';
    t = t.replaceAll(decimal === ',' ? '.' : ',', '').replace(decimal, '.');
  } else if (comma >= 0) {
    const groups = /^\d{1,3}(,\d{3})+$/.test(t);
    t = groups ? t.replaceAll(',', '') : t.replace(',', '.');
  } else if (/^\d{1,3}(\.\d{3}){2,}$/.test(t)) {
    t = t.replaceAll('.', '');
  }
  const value = Number(t);
  return Number.isFinite(value) ? (negative ? -value : value) : null;
}

const YES = new Set(['yes', 'y', 'true', '1', 'x', 'ja', 'oui', 'si', 'sí', 'wahr', '✓', '✔']);
const NO = new Set(['no', 'n', 'false', '0', '', 'nein', 'non', 'falsch', '-']);

/** Reads yes or no; null when it is neither. */
export function readYesNo(text: string): boolean | null {
  const t = text.trim().toLowerCase();
  return YES.has(t) ? true : NO.has(t) ? false : null;
}
