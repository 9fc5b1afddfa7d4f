import { dayFromCivil, isCivil, isUsableDay, MINUTES_PER_DAY, weekdayOf } from '@clembo/core';
import { BY, FROM, MONTHS, PARTS, WEEKDAYS } from './calendarWords';

/** The order of the parts of a date written in numbers. */
export type DateOrder = 'dmy' | 'mdy' | 'ymd';

/** How the dates of a column are written, as far as each does not say it itself. */
export interface DateStyle {
  order: DateOrder;
  /** The year of dates that are written without one; null where nobody has said it. */
  year?: number | null;
  /** What two figures behind a month are (“Apr-26”); null where that is open. */
  behindMonth?: 'year' | 'day' | null;
}

/** A date that was read. */
export interface ReadDate {
  /** The first day that it can be, and the last: the same unless it is said vaguer than a day. */
  day: number;
  last: number;
  /** Its time, in minutes, where one was written. */
  minute: number | null;
  /** The words, where they say something else than one day: a quarter, “mid-March”, “by 17 July”. */
  said?: string;
  /** The date is a latest one, or an earliest one. */
  bound?: 'by' | 'from';
  /** A mark beside it: it has happened, or is held by a constraint. */
  mark?: 'actual' | 'constrained';
  /** A time zone stood beside the time; times are kept as written. */
  zone?: string;
}

/** No date is written longer; patterns are tried on what is not. */
const LONGEST = 80;

const ZONE = String.raw`(?:\s*(z|utc|gmt|[a-z]{2,3}t|(?:utc|gmt)?[+-]\d{1,2}(?::?\d{2})?))?`;
const CLOCK = String.raw`(\d{1,2})(?:[:.h](\d{2})(?::\d{2}(?:[.,]\d+)?)?\s*(am|pm)?|\s*(am|pm))(?:\s*uhr)?`;
const TIME = new RegExp(String.raw`(?:^|[T ,]\s*|(?<=\d)T)(?:at\s+|um\s+|à\s+)?${CLOCK}${ZONE}$`, 'i');
const MARK_BEHIND = /(?:(?<=[\d\s])A|\s*\((?:A|act\.?|actual|ist)\)|\s+(?:act\.?|actual|ist)|\s*\*)$/;
const MARK_BEFORE = /^(?:\*\s*|A\s+(?=\d)|(?:act\.|actual:?|ist:?)\s+)/i;

const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;

/**
 * Reads a date in any common notation: ISO 8601, numbers with `/`, `.` or `-`, month names, with or without a weekday,
 * a time and a zone, with the marks of the trade (actual, constrained), the day counts that spreadsheets keep dates
 * as, and dates that are said vaguer than a day (quarter, week, month, “mid-March”, “by 17 July”). Null when it is
 * none, when a weekday beside it says another day, or when its year is not known.
 */
export function readDate(text: string, style: DateStyle | DateOrder): ReadDate | null {
  if (text.length > LONGEST) return null;
  // Most tables have their dates so.
  if (text.length === 10 && ISO_DAY.test(text)) {
    const day = dayIfReal(text.slice(0, 4), Number(text.slice(5, 7)), Number(text.slice(8)));
    return day === null ? null : { day, last: day, minute: null };
  }
  const how = typeof style === 'string' ? { order: style } : style;
  const plain = text.trim().replace(/[\s\u00a0\u202f]+/g, ' ');
  if (!/\d/.test(plain) && !hasMonth(plain)) return null;
  let body = plain;
  let mark: ReadDate['mark'];
  const marked = MARK_BEHIND.exec(body) ?? MARK_BEFORE.exec(body);
  if (marked) {
    mark = marked[0].includes('*') ? 'constrained' : 'actual';
    body = (marked.index === 0 ? body.slice(marked[0].length) : body.slice(0, marked.index)).trim();
  }
  const bound = BY.test(body) ? 'by' : FROM.test(body) ? 'from' : undefined;
  if (bound) body = body.replace(bound === 'by' ? BY : FROM, '');
  const read = readMoment(body, how);
  if (!read) return null;
  return {
    ...read,
    ...((bound || read.last > read.day) && { said: plain }),
    ...(bound && { bound }),
    ...(mark && { mark }),
  };
}

const hasMonth = (text: string): boolean =>
  text
    .toLowerCase()
    .split(/[\s,./-]+/)
    .some((w) => MONTHS.has(w));

function readMoment(text: string, how: DateStyle): ReadDate | null {
  const whole = readSpan(text, how);
  if (whole) return { ...whole, minute: null };
  const time = TIME.exec(text);
  if (!time) return null;
  const half = (time[3] ?? time[4])?.toLowerCase();
  const hour = Number(time[1]);
  const minutes = Number(time[2] ?? 0);
  if (minutes > 59 || hour > (half ? 12 : 24)) return null;
  const minute = ((half ? hour % 12 : hour) + (half === 'pm' ? 12 : 0)) * 60 + minutes;
  const span = minute <= MINUTES_PER_DAY ? readSpan(text.slice(0, time.index).replace(/[,\s]+$/, ''), how) : null;
  return span && span.day === span.last ? { ...span, minute, ...(time[5] && { zone: time[5] }) } : null;
}

interface DaySpan {
  day: number;
  last: number;
}

/** A day or a span of days, with or without a weekday beside it. */
function readSpan(text: string, how: DateStyle): DaySpan | null {
  const day = readDay(text, how);
  if (day !== null) return { day, last: day };
  const vague = readVague(text, how);
  if (vague) return vague;
  const beside = /^(\p{L}+)\.?,?\s+(.+)$/u.exec(text);
  const behind = /^(.+?)[,\s]+\(?(\p{L}+)\.?\)?$/u.exec(text);
  for (const [word, rest] of [
    [beside?.[1], beside?.[2]],
    [behind?.[2], behind?.[1]],
  ]) {
    const weekday = word === undefined ? undefined : WEEKDAYS.get(word.toLowerCase());
    if (weekday === undefined) continue;
    const found = readDay(rest!, how);
    if (found !== null && weekdayOf(found) === weekday) return { day: found, last: found };
  }
  return null;
}

/** The day that a date would be whose weekday says another one; null where that is not what is wrong with it. */
export function dayWithoutWeekday(text: string, style: DateStyle): number | null {
  const m = /^(\p{L}+)\.?,?\s+(.+)$/u.exec(text.trim());
  return m && text.length <= LONGEST && WEEKDAYS.has(m[1]!.toLowerCase())
    ? (readDate(m[2]!, style)?.day ?? null)
    : null;
}

const NUMBERS = /^(\d{1,4})\s?([-/.])\s?(\d{1,2})\s?[-/.]\s?(\d{1,4})\.?$/;
const SPACED = /^(\d{1,4}) (\d{1,2}) (\d{1,4})$/;

function readDay(text: string, how: DateStyle): number | null {
  const numbers = NUMBERS.exec(text) ?? SPACED.exec(text);
  if (numbers) {
    const [a, b, c] = [numbers[1]!, numbers.at(-2)!, numbers.at(-1)!];
    if (a.length >= 3) return c.length <= 2 ? dayIfReal(a, Number(b), Number(c)) : null;
    if (how.order === 'ymd' && c.length <= 2) return dayIfReal(a, Number(b), Number(c));
    return how.order === 'mdy' ? dayIfReal(c, Number(a), Number(b)) : dayIfReal(c, Number(b), Number(a));
  }
  const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(text);
  if (compact) return dayIfReal(compact[1]!, Number(compact[2]), Number(compact[3]));
  if (/^\d{5}$/.test(text)) {
    const serial = Number(text) - 25_569; // days since 1899-12-30
    return isUsableDay(serial) ? serial : null;
  }
  const week = /^(\d{4})-?W(\d{2})-?([1-7])$/i.exec(text);
  if (week) {
    const monday = mondayOf(Number(week[1]), Number(week[2]));
    return monday === null ? null : monday + Number(week[3]) - 1;
  }
  const short = /^(\d{1,2})([-/.])(\d{1,2})\.?$/.exec(text);
  if (short && (short[2] !== '.' || text.endsWith('.')) && how.year) {
    const [a, b] = [Number(short[1]), Number(short[3])];
    return how.order === 'mdy' ? dayIfReal(String(how.year), a, b) : dayIfReal(String(how.year), b, a);
  }
  return readNamedMonth(text, how);
}

/** Words of a date with a month in words; null where something else stands among them. */
function datePieces(text: string): { month: number; monthAt: number; numbers: string[]; part: number | null } | null {
  const words = text
    .toLowerCase()
    .split(/[\s,./’'-]+|\b(?:de|of|the)\b|(?<=\d)(?:st|nd|rd|th|er|º|\.)(?![\p{L}])/u)
    .filter((w) => w !== '' && w !== 'del');
  let [month, monthAt, part] = [0, -1, null as number | null];
  const numbers: string[] = [];
  for (const word of words) {
    const named = MONTHS.get(word);
    if (named && month === 0) [month, monthAt] = [named, numbers.length];
    else if (/^\d{1,4}$/.test(word)) numbers.push(word);
    else if (part === null && month === 0 && numbers.length === 0 && PARTS.has(word)) part = PARTS.get(word)!;
    else return null;
  }
  return { month, monthAt, numbers, part };
}

function readNamedMonth(text: string, { year = null, behindMonth }: DateStyle): number | null {
  const pieces = datePieces(text);
  if (!pieces || pieces.month === 0 || pieces.part !== null) return null;
  const { month, numbers, monthAt } = pieces;
  const [first, second] = numbers;
  if (numbers.length === 2) {
    return first!.length > 2 ? dayIfReal(first!, month, Number(second)) : dayIfReal(second!, month, Number(first));
  }
  // A day before its month has its year elsewhere; a number behind a month may be either.
  const isDay = numbers.length === 1 && first!.length <= 2 && (monthAt === 1 || behindMonth === 'day');
  return isDay && year !== null ? dayIfReal(String(year), month, Number(first)) : null;
}

const QUARTER =
  /^(?:(?:q|t)\s?([1-4])|([1-4])\.?\s?(?:st|nd|rd|th|er|e|º)?\s?(?:quarter|qtr|quartal|trimestre|kwartaal))[\s/'’-]*(\d{4}|\d{2})?$/i;
const QUARTER_LATE = /^(\d{4})[\s/-]*q\s?([1-4])$/i;
const HALF = /^(?:h\s?([12])|([12])\.?\s?(?:halbjahr|half|semestre|semester))[\s/'’-]*(\d{4}|\d{2})?$/i;
const WEEK = /^(?:w|wk|week|kw|woche|semaine|sem|s|semana|settimana|week)\.?\s?(\d{1,2})[\s/'’.,-]*(\d{4}|\d{2})?$/i;
const WEEK_LATE = /^(\d{4})[\s/-]*(?:w|wk|kw)\s?(\d{1,2})$/i;

/** A week that is said by the day on which it begins or ends. */
const WEEK_FROM =
  /^(?:w\/c|wc|w\/b|week (?:commencing|beginning|of|starting|van|vanaf)|woche (?:ab|vom)|semaine du|semana del?|settimana del)\s+/i;
const WEEK_TO = /^(?:w\/e|week (?:ending|to)|woche bis)\s+/i;

/** Two figures behind a month in words, which may be a day or a year; with an apostrophe they are a year. */
const BEHIND_MONTH = /^(\p{L}+)\.?[\s-]*(['’]?)(\d{2})$/u;

/** True for a month in words with two figures behind it that may be a day or a year. */
export function isMonthWithNumber(text: string): boolean {
  const [, word, apostrophe] = BEHIND_MONTH.exec(text.trim()) ?? [];
  return word !== undefined && apostrophe === '' && MONTHS.has(word.toLowerCase());
}

/** Numbers behind months that are at most so many different ones, in at least so many cells, are years. */
const FEW_YEARS = 3;
const ENOUGH_MONTHS = 4;

/** What two figures behind a month are in a column; null where its values leave it open. */
export function monthEvidence(values: Iterable<string>): 'year' | 'day' | null {
  const numbers = new Map<number, Set<string>>();
  const years = new Set<number>();
  let cells = 0;
  for (const value of values) {
    const text = value.trim();
    if (isMonthWithNumber(text)) {
      const [, word, , figures] = BEHIND_MONTH.exec(text)!;
      const number = Number(figures);
      numbers.set(number, (numbers.get(number) ?? new Set()).add(word!.toLowerCase()));
      cells++;
    } else for (const m of text.matchAll(/(?<!\d)(?:19|20)(\d{2})(?!\d)/g)) years.add(Number(m[1]));
  }
  const all = [...numbers.keys()];
  if (cells === 0) return null;
  if (all.some((n) => n > 31 || n === 0)) return 'year';
  // The same few numbers behind one month after the other, or behind those that others name as their year.
  if (all.every((n) => years.has(n))) return 'year';
  const inARow = all.toSorted((a, b) => a - b).every((n, k, list) => k === 0 || n === list[k - 1]! + 1);
  const months = new Set([...numbers.values()].flatMap((words) => [...words])).size;
  if (cells >= ENOUGH_MONTHS && all.length <= FEW_YEARS && inARow && months >= all.length + 2) return 'year';
  return all.length > FEW_YEARS && !inARow ? 'day' : null;
}

/** A span of days that is said by a quarter, half, week, month, year, or a part of a month or year. */
function readVague(text: string, how: DateStyle): DaySpan | null {
  for (const [words, first] of [
    [WEEK_FROM, 0],
    [WEEK_TO, -6],
  ] as const) {
    const day = words.test(text) ? readDay(text.replace(words, ''), how) : null;
    if (day !== null) return { day: day + first, last: day + first + 6 };
  }
  const yearOf = (written: string | undefined) => (written ? fullYear(written) : (how.year ?? null));
  const months = (year: number | null, first: number, count: number): DaySpan | null =>
    year === null || !isUsableDay(dayFromCivil(year, 1, 1))
      ? null
      : { day: dayFromCivil(year, first, 1), last: lastOfMonth(year, first + count - 1) };
  const q = QUARTER.exec(text);
  if (q) return months(yearOf(q[3]), Number(q[1] ?? q[2]) * 3 - 2, 3);
  const late = QUARTER_LATE.exec(text);
  if (late) return months(Number(late[1]), Number(late[2]) * 3 - 2, 3);
  const h = HALF.exec(text);
  if (h) return months(yearOf(h[3]), Number(h[1] ?? h[2]) * 6 - 5, 6);
  const w = WEEK.exec(text);
  const w2 = WEEK_LATE.exec(text);
  if (w || w2) {
    const year = w ? yearOf(w[2]) : Number(w2![1]);
    const monday = year === null ? null : mondayOf(year, Number(w ? w[1] : w2![2]));
    return monday === null ? null : { day: monday, last: monday + 6 };
  }
  const numeric = /^(?:(\d{1,2})[/.-](\d{4})|(\d{4})[/.-](\d{1,2}))$/.exec(text);
  if (numeric) {
    const month = Number(numeric[1] ?? numeric[4]);
    return month >= 1 && month <= 12 ? months(Number(numeric[2] ?? numeric[3]), month, 1) : null;
  }
  const pieces = datePieces(text);
  if (!pieces || pieces.numbers.length > 1) return null;
  const written = pieces.numbers[0];
  // “Mar 26” may be a day or a year.
  const isYear = BEHIND_MONTH.exec(text)?.[2] || how.behindMonth === 'year';
  if (written !== undefined && written.length !== 4 && !(written.length === 2 && isYear && pieces.monthAt === 0))
    return null;
  const year = yearOf(written);
  if (pieces.month === 0) {
    if (written === undefined) return null;
    return pieces.part === null ? months(year, 1, 12) : months(year, pieces.part * 4 + 1, 4);
  }
  if (written === undefined && pieces.part === null) return null;
  const whole = months(year, pieces.month, 1);
  if (!whole || pieces.part === null) return whole;
  const third = whole.day + pieces.part * 10;
  return { day: third, last: pieces.part === 2 ? whole.last : third + 9 };
}

const lastOfMonth = (year: number, month: number): number =>
  (month === 12 ? dayFromCivil(year + 1, 1, 1) : dayFromCivil(year, month + 1, 1)) - 1;

/** The Monday of a week (ISO 8601: the first week holds 4 January). */
function mondayOf(year: number, week: number): number | null {
  const fourth = dayFromCivil(year, 1, 4);
  const monday = fourth - weekdayOf(fourth) + (week - 1) * 7;
  // The last week of the year is the 52nd or 53rd: its Thursday lies in the year.
  const inYear = week >= 1 && monday + 3 < dayFromCivil(year + 1, 1, 1);
  return inYear && isUsableDay(monday) ? monday : null;
}

/** Years of two figures are 1970 to 2069. */
const fullYear = (text: string): number => {
  const n = Number(text);
  return text.length > 2 ? n : n + (n < 70 ? 2000 : 1900);
};

function dayIfReal(yearText: string, month: number, day: number): number | null {
  if (yearText.length === 1 || yearText.length === 3) return null;
  const year = fullYear(yearText);
  if (!isCivil(year, month, day)) return null;
  const number = dayFromCivil(year, month, day);
  return isUsableDay(number) ? number : null;
}

/** True for a date whose year is not written: with the year of the others it would be one. */
export const lacksYear = (text: string, order: DateOrder): boolean =>
  text.length <= LONGEST &&
  readDate(text, order) === null &&
  // Over eleven years every day falls on every weekday, and one of them has a 29 February.
  Array.from({ length: 11 }, (_, k) => 2024 + k).some((year) => readDate(text, { order, year }) !== null);

const BETWEEN = /\s*(?:–|—|→|\.\.\.?)\s*|\s+(?:to|until|till|through|bis(?: zum)?|au|al|a|t\/m|tot|até|-)\s+|-/gi;

/**
 * Reads two dates in one cell: `2–9 June 2026`, `10 Jun 2026 – 24 Jun 2026`, `2 July 2026 14:00–18:00`. What the
 * first leaves open, the second says. Null when the cell is no such range.
 */
export function readRange(text: string, style: DateStyle): { start: ReadDate; finish: ReadDate } | null {
  if (text.length > LONGEST || readDate(text, style) !== null) return null;
  const plain = text
    .trim()
    .replace(/[\s\u00a0\u202f]+/g, ' ')
    .replace(/^(?:from|vom?|du|del?|dal|van)\s+/i, '');
  for (const m of plain.matchAll(BETWEEN)) {
    const [left, right] = [plain.slice(0, m.index).trim(), plain.slice(m.index + m[0].length).trim()];
    if (left === '' || right === '') continue;
    const finish = readDate(right, style);
    if (finish) {
      const start = readDate(left, style) ?? withRestOf(left, right, finish, style);
      if (start && start.day <= finish.last) return { start, finish };
      continue;
    }
    // The same day, from one time to another.
    const start = readDate(left, style);
    if (!start || start.minute === null) continue;
    const end = readDate(`${left.replace(TIME, '')} ${right}`, style);
    if (end && end.minute !== null && end.minute > start.minute) return { start, finish: end };
  }
  return null;
}

/** The first date of a range, with the month and year of the second where it has none. */
function withRestOf(left: string, right: string, finish: ReadDate, style: DateStyle): ReadDate | null {
  const year = new Date(finish.day * 86_400_000).getUTCFullYear();
  for (const y of [year, year - 1]) {
    const named = readDate(left, { ...style, year: y });
    if (named && named.day <= finish.last) return named;
  }
  const day = /^(?:\p{L}+\.?,?\s+)?(\d{1,2})\.?(?:st|nd|rd|th)?$/u.exec(left)?.[1];
  if (day === undefined || !(/\d[-/.]/.test(right) || hasMonth(right))) return null;
  const month = new Date(finish.day * 86_400_000).getUTCMonth() + 1;
  const found = dayIfReal(String(year), month, Number(day));
  return found === null ? null : { day: found, last: found, minute: null };
}

/** What a column of dates says about the order of day and month. */
export type OrderEvidence = DateOrder | 'open' | 'irrelevant' | 'mixed';

const ORDERED = /^(?:(\p{L}+)\.?,?\s+)?[*]?(\d{1,2})\s?([-/. ])\s?(\d{1,2})\s?[-/. ]\s?(\d{2}|\d{4})(?!\d)/u;
/** Dates of one plan do not lie further apart, in days. */
const WIDEST = 25 * 366;

/**
 * Settles the order of day, month and year by all values of a column: a number above twelve can only be a day, a
 * weekday beside a date fits one order only, and the dates of one plan do not lie decades apart.
 */
export function orderEvidence(values: Iterable<string>): OrderEvidence {
  let fits: DateOrder[] = ['dmy', 'mdy', 'ymd'];
  let told = false;
  let isMixed = false;
  const bounds = { dmy: [Infinity, -Infinity], mdy: [Infinity, -Infinity], ymd: [Infinity, -Infinity] };
  for (const value of values) {
    if (value.length > LONGEST) continue;
    const m = ORDERED.exec(value.trim());
    if (!m) continue;
    const weekday = m[1] === undefined ? undefined : WEEKDAYS.get(m[1].toLowerCase());
    const numbers = `${m[2]}-${m[4]}-${m[5]}`;
    const orders: DateOrder[] =
      m[3] === '-' && m[5]!.length === 2 && m[2]!.length === 2 ? ['dmy', 'mdy', 'ymd'] : ['dmy', 'mdy'];
    const days = orders.map((order) => [order, readDay(numbers, { order })] as const);
    const real = days.filter(([, day]) => day !== null && (weekday === undefined || weekdayOf(day) === weekday));
    if (real.length === 0) continue;
    for (const [order, day] of real) {
      const b = bounds[order];
      b[0] = Math.min(b[0]!, day!);
      b[1] = Math.max(b[1]!, day!);
    }
    told ||= new Set(days.map(([, day]) => day)).size > 1;
    const left = fits.filter((order) => real.some(([o]) => o === order));
    if (left.length === 0) isMixed = true;
    else fits = left;
  }
  if (isMixed) return 'mixed';
  if (!told) return 'irrelevant';
  const plausible = fits.filter((order) => bounds[order][1]! - bounds[order][0]! <= WIDEST);
  const left = plausible.length > 0 ? plausible : fits;
  return left.length === 1 ? left[0]! : 'open';
}

/** The years in which all weekdays beside dates without a year are right. */
export function yearsByWeekday(values: Iterable<string>, order: DateOrder): number[] {
  const years = Array.from({ length: 60 }, (_, k) => 1990 + k);
  let told = false;
  let left = years;
  for (const value of values) {
    if (!/^\p{L}+\.?,?\s+\d|\d\s*\(?\p{L}+\)?$/u.test(value.trim()) || readDate(value, order) !== null) continue;
    const fits = left.filter((year) => readDate(value, { order, year }) !== null);
    if (fits.length === 0 || fits.length === left.length) continue;
    told = true;
    left = fits;
  }
  return told ? left : [];
}
