import { dayFromCivil, isCivil, isUsableDay, MINUTES_PER_DAY } from '@clembo/core';

/** The order of the parts of a date written in numbers. */
export type DateOrder = 'dmy' | 'mdy';

/** A date that was read: its day and, where one was written, its time in minutes. */
export interface ReadDate {
  day: number;
  minute: number | null;
}

const MONTHS = monthNames();

/** Month names, long and short, of the languages that schedules usually come in. */
function monthNames(): Map<string, number> {
  const names = new Map<string, number>();
  for (const locale of ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'pl', 'cs', 'sv', 'da', 'nb', 'el', 'uk', 'ru']) {
    for (const style of ['long', 'short'] as const) {
      for (const more of [{}, { day: 'numeric' as const }]) {
        const format = new Intl.DateTimeFormat(locale, { month: style, timeZone: 'UTC', ...more });
        for (let month = 1; month <= 12; month++) {
          const part = format.formatToParts(Date.UTC(2026, month - 1, 1)).find((p) => p.type === 'month')!;
          const key = part.value.toLowerCase().replace(/\.$/, '');
          if (!/^\d+$/.test(key) && !names.has(key)) names.set(key, month);
        }
      }
    }
  }
  names.set('sept', 9);
  return names;
}

const TIME = /[T ,]+(\d{1,2})[:.h](\d{2})(?::\d{2}(?:\.\d+)?)?\s*(am|pm)?z?$/i;

/**
 * Reads a date in any common notation: ISO 8601, numbers with `/`, `.` or `-`, month names, with or without
 * a weekday in front and a time behind, and the day counts that spreadsheets keep dates as. `order` decides
 * where the numbers alone do not. Null when it is none.
 */
export function readDate(text: string, order: DateOrder): ReadDate | null {
  let body = text.trim();
  let minute: number | null = null;
  const time = TIME.exec(body);
  if (time && !/^\d{1,2}[.]\d{2}$/.test(body)) {
    const hour = Number(time[1]) % (time[3] ? 12 : 25);
    minute = (hour + (time[3]?.toLowerCase() === 'pm' ? 12 : 0)) * 60 + Number(time[2]);
    if (minute > MINUTES_PER_DAY || Number(time[2]) > 59) return null;
    body = body.slice(0, time.index);
  }
  const day = readDay(body, order);
  return day === null ? null : { day, minute };
}

function readDay(text: string, order: DateOrder): number | null {
  const numbers = /^(\d{1,4})[-/. ](\d{1,2})[-/. ](\d{1,4})\.?$/.exec(text);
  if (numbers) {
    const [a, b, c] = [numbers[1]!, numbers[2]!, numbers[3]!];
    if (a.length >= 3) return c.length <= 2 ? dayIfReal(a, Number(b), Number(c)) : null;
    return order === 'dmy' ? dayIfReal(c, Number(b), Number(a)) : dayIfReal(c, Number(a), Number(b));
  }
  const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(text);
  if (compact) return dayIfReal(compact[1]!, Number(compact[2]), Number(compact[3]));
  if (/^\d{5}$/.test(text)) {
    const serial = Number(text) - 25_569; // days since 1899-12-30
    return isUsableDay(serial) ? serial : null;
  }
  return readNamedMonth(text);
}

function readNamedMonth(text: string): number | null {
  const words = text
    .toLowerCase()
    .split(/[\s,./-]+|\bde\b|(?<=\d)(?:st|nd|rd|th)\b/)
    .filter((w) => w !== '');
  let month = 0;
  const numbers: string[] = [];
  for (const word of words) {
    const named = MONTHS.get(word);
    if (named && month === 0) month = named;
    else if (/^\d{1,4}$/.test(word)) numbers.push(word);
    else if (/\d/.test(word) || (month > 0 && numbers.length > 0)) return null;
  }
  if (month === 0 || numbers.length !== 2) return null;
  const [first, second] = [numbers[0]!, numbers[1]!];
  return first.length > 2 ? dayIfReal(first, month, Number(second)) : dayIfReal(second, month, Number(first));
}

/** Years of two figures are 1970 to 2069. */
function dayIfReal(yearText: string, month: number, day: number): number | null {
  if (yearText.length === 1 || yearText.length === 3) return null;
  const n = Number(yearText);
  const year = yearText.length > 2 ? n : n + (n < 70 ? 2000 : 1900);
  if (!isCivil(year, month, day)) return null;
  const number = dayFromCivil(year, month, day);
  return isUsableDay(number) ? number : null;
}

/** What a column of dates says about the order of day and month. */
export type OrderEvidence = 'dmy' | 'mdy' | 'open' | 'irrelevant' | 'mixed';

/** Settles day/month order by all values of a column: a number above twelve can only be a day. */
export function orderEvidence(values: Iterable<string>): OrderEvidence {
  let dayFirst = 0;
  let monthFirst = 0;
  let open = 0;
  for (const value of values) {
    const m = /^\s*(\d{1,2})[-/. ](\d{1,2})[-/. ](\d{2}|\d{4})\b/.exec(value);
    if (!m) continue;
    const [a, b] = [Number(m[1]), Number(m[2])];
    if (a > 12 && b <= 12) dayFirst++;
    else if (b > 12 && a <= 12) monthFirst++;
    else if (a !== b) open++;
  }
  if (dayFirst > 0 && monthFirst > 0) return 'mixed';
  if (dayFirst > 0) return 'dmy';
  if (monthFirst > 0) return 'mdy';
  return open > 0 ? 'open' : 'irrelevant';
}
