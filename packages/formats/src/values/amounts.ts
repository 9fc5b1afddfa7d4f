import { type CalendarSpec, minutesPerUnit } from '@clembo/core';
import { NONE_WORDS, NOT_YET } from './calendarWords';
import { moneyWord, scaleWord } from './money';

/** A duration or lag as written: an amount and its unit. Elapsed units ignore calendars. */
export interface ReadDuration {
  amount: number;
  unit: DurationUnit;
  elapsed: boolean;
}
export type DurationUnit = 'minute' | 'hour' | 'day' | 'week' | 'month';

/** The mark between whole numbers and decimals. */
export type DecimalMark = '.' | ',';

/** No amount or word of a unit is longer; patterns are tried on what is not. */
const LONGEST = 60;

const UNITS: ReadonlyMap<string, DurationUnit> = new Map(
  (
    [
      ['minute', 'min mins minute minutes minuten minuti minutos minuto'],
      ['hour', 'h hr hrs hour hours std stunde stunden heure heures hora horas ora ore uur uren u wh'],
      [
        'day',
        'd dy dys day days wd t tg tag tage tagen at arbeitstag arbeitstage j jr jrs jour jours jo jrd día días dia dias giorno giorni gg g dag dagen werkdag werkdagen wkd workday workdays',
      ],
      [
        'week',
        'w wk wks week weeks woche wochen wo sem semaine semaines semana semanas settimana settimane sett weken',
      ],
      [
        'month',
        'mo mos mon mons mth mths month months monat monate monaten mois mes meses mese mesi maand maanden mês mnd',
      ],
    ] as const
  ).flatMap(([unit, words]) => words.split(' ').map((word) => [word, unit] as const)),
);

const ELAPSED_WORDS =
  /^(?:elapsed|calendar|cal|kalender|fortlaufende?|e|ke)$|^(?:de calendrier|calendaires?|naturales|corridos|di calendario|kalenderdagen|kalendertage?)$/;

/** How durations of a column are written, as far as each does not say it itself. */
export interface DurationStyle {
  unit: DurationUnit;
  /** What a single “m” means; null where nothing has settled it. */
  m?: 'minute' | 'month' | null;
  decimal?: DecimalMark | null;
}

/**
 * Reads `10`, `10 d`, `2.5 weeks`, `16h`, `P3D` (ISO 8601), `3 elapsed days` (also `3 ed`, `3 calendar days`), `2 Wochen`,
 * `5 jours`. Without a unit, the column's is meant. Null when it is none, or when its unit is open.
 */
export function readDuration(text: string, how: DurationStyle | DurationUnit): ReadDuration | null {
  if (text.length > LONGEST) return null;
  const style = typeof how === 'string' ? { unit: how } : how;
  const plain = text.trim().replace(/[\s\u00a0\u202f]+/g, ' ');
  const iso = /^P(?:(\d+(?:[.,]\d+)?)([WDM]))?(?:T(?:(\d+(?:[.,]\d+)?)H)?(?:(\d+(?:[.,]\d+)?)M)?)?$/i.exec(plain);
  if (iso) return isoDuration(iso);
  const m = /^([+-]?\s?\d[\d.,\s']*|[+-]?[.,]\d+)\s*(.*?)\.?\??$/.exec(plain);
  if (!m) return null;
  const amount = readNumber(m[1]!.replace(/\s/g, ''), style.decimal ?? null, 'decimal');
  if (amount === null) return null;
  const words = m[2]!
    .toLowerCase()
    .split(' ')
    .filter(
      (w) => w !== '' && !/^(?:working|work|ouvrés?|ouvrables?|laborables?|hábiles|lavorativi|úteis|werk)$/.test(w),
    );
  let elapsed = false;
  if (words.length > 1 && (ELAPSED_WORDS.test(words[0]!) || ELAPSED_WORDS.test(words.slice(1).join(' ')))) {
    elapsed = true;
    if (ELAPSED_WORDS.test(words[0]!)) words.shift();
    else words.splice(1);
  }
  const word = (words.length === 1 ? words[0]! : words.join(' ')).replace(/\.$/, '');
  if (word === '') return { amount, unit: style.unit, elapsed };
  if (word === 'm') return style.m ? { amount, unit: style.m, elapsed } : null;
  const named = UNITS.get(word);
  if (named) return { amount, unit: named, elapsed };
  if (/^kalender(?:tage?|dagen)$/.test(word)) return { amount, unit: 'day', elapsed: true };
  const short = /^e(.+)$/.exec(word);
  const unit = short && UNITS.get(short[1]!);
  return unit ? { amount, unit, elapsed: true } : null;
}

function isoDuration(m: RegExpExecArray): ReadDuration | null {
  const [, amount, unit, hours, minutes] = m;
  const number = (t: string | undefined) => Number((t ?? '0').replace(',', '.'));
  if (amount !== undefined && hours === undefined && minutes === undefined)
    return {
      amount: number(amount),
      unit: { W: 'week', D: 'day', M: 'month' }[unit!.toUpperCase()] as DurationUnit,
      elapsed: false,
    };
  if (amount === undefined && (hours !== undefined || minutes !== undefined))
    return { amount: number(hours) * 60 + number(minutes), unit: 'minute', elapsed: false };
  return null;
}

const ELAPSED_DAYS: Record<DurationUnit, number> = { minute: 1 / 1440, hour: 1 / 24, day: 1, week: 7, month: 30 };

/** Working minutes of a duration on a calendar, or those of the clock for an elapsed one. */
export const toMinutes = (d: ReadDuration, calendar: CalendarSpec): number =>
  Math.round(
    d.amount *
      (d.elapsed ? ELAPSED_DAYS[d.unit] * minutesPerUnit('elapsedDay', calendar) : minutesPerUnit(d.unit, calendar)),
  );

/** What a number says of itself: a value, two values between which the column has to decide, or nothing. */
type NumberForm = { value: number } | { grouped: number; decimal: number; mark: DecimalMark } | null;

/** The number of a text, its scale and whether it is money; null where anything else stands beside it. */
function numberParts(
  text: string,
): { digits: string; sign: number; scale: number; money: boolean; currencies: readonly string[] } | null {
  let t = text.trim().replace(/[\u00a0\u202f\u2009]/g, ' ');
  let sign = 1;
  const bracket = /^(\D{0,6})\((.+)\)(\D{0,6})$/.exec(t);
  if (bracket) {
    sign = -1;
    t = `${bracket[1]}${bracket[2]}${bracket[3]}`;
  }
  const m = /^([^\d.,+\-−]*)([+\-−]?)([^\d.,+\-−]*)([.,]?\d[\d.,' ’]*?)\s*([+\-−]?)\s*([^\d.,+\-−' ][^\d]*)?$/.exec(t);
  if (!m) return null;
  if ([m[2], m[5]].some((s) => s === '-' || s === '−')) sign = -sign;
  let money = false;
  let currencies: readonly string[] = [];
  let scale = 1;
  for (const word of [m[1], m[3], m[6]].flatMap((w) => (w ?? '').trim().split(/\s+/))) {
    if (word === '') continue;
    const named = moneyWord(word);
    const scaled = scaleWord(word);
    if (named) {
      money = true;
      if (currencies.length === 0) currencies = named.currencies;
      scale *= named.factor;
    } else if (scaled !== null) scale *= scaled;
    else if (/^m\.?$/i.test(word) && (word === 'M' || /[€$£]/.test(text))) scale *= 1e6;
    else return null;
  }
  return { digits: m[4]!.trim(), sign, scale, money, currencies };
}

function formOf(text: string): NumberForm {
  if (text.length > LONGEST) return null;
  if (/^\d{1,15}$/.test(text)) return { value: Number(text) };
  const parts = numberParts(text);
  if (!parts) return null;
  const { sign, scale, money } = parts;
  let t = parts.digits;
  const value = (plain: string): NumberForm => {
    const n = Number(plain) * sign * scale;
    return plain !== '' && Number.isFinite(n) ? { value: scale === 1 ? n : Number(n.toPrecision(15)) } : null;
  };
  if (/[ '’]/.test(t)) {
    if (!/^\d{1,3}(?:[ '’]\d{3})+(?:[.,]\d+)?$/.test(t)) return null;
    t = t.replace(/[ '’]/g, '');
    return value(t.replace(',', '.'));
  }
  const [points, commas] = [t.split('.').length - 1, t.split(',').length - 1];
  if (points === 0 && commas === 0) return value(t);
  if (points > 0 && commas > 0) {
    const mark = t.lastIndexOf(',') > t.lastIndexOf('.') ? ',' : '.';
    const group = mark === ',' ? '.' : ',';
    const whole = t.slice(0, t.lastIndexOf(mark));
    if (!new RegExp(String.raw`^\d{1,3}(?:[${group}]\d{3})+$`).test(whole)) return null;
    return value(`${whole.replaceAll(group, '')}.${t.slice(t.lastIndexOf(mark) + 1)}`);
  }
  const mark: DecimalMark = points > 0 ? '.' : ',';
  if (points + commas > 1)
    return new RegExp(String.raw`^\d{1,3}(?:[${mark}]\d{3}){2,}$`).test(t) ? value(t.replaceAll(mark, '')) : null;
  const [whole, behind] = t.split(mark) as [string, string];
  // Three digits behind the only mark: thousands or thousandths.
  if (behind.length === 3 && /^[1-9]\d{0,2}$/.test(whole)) {
    const grouped = value(whole + behind);
    const decimal = value(`${whole}.${behind}`);
    if (!grouped || !decimal || !('value' in grouped) || !('value' in decimal)) return null;
    return money ? grouped : { grouped: grouped.value, decimal: decimal.value, mark };
  }
  return behind === '' ? null : value(`${whole === '' ? '0' : whole}.${behind}`);
}

/**
 * Reads a number with a point or a comma for decimals and the other, a space or ' between thousands; with a currency,
 * a scale (`$2.4M`, `12,5k`, `3 Mio.`) or in brackets for less than nothing.
 *
 * @param decimal the decimal mark of the column, or null while it is open
 * @param open what a number with three digits behind its only mark is while the mark is open: nothing, or as decimals
 */
export function readNumber(
  text: string,
  decimal: DecimalMark | null = null,
  open: 'nothing' | 'decimal' = 'nothing',
): number | null {
  const form = formOf(text);
  if (form === null) return null;
  if ('value' in form) return form.value;
  if (decimal === null) return open === 'decimal' ? form.decimal : null;
  return form.mark === decimal ? form.decimal : form.grouped;
}

const SAYS_NOTHING: { currencies: readonly string[]; isScaled: boolean } = { currencies: [], isScaled: false };

/** What an amount says of itself beside its number: the currencies that it may be in, and whether it carries a scale. */
export function saidOfAmount(text: string): { currencies: readonly string[]; isScaled: boolean } {
  // Most amounts are a number and no more.
  if (/^[\d.,]+$/.test(text)) return SAYS_NOTHING;
  const parts = text.length > LONGEST ? null : numberParts(text);
  return { currencies: parts?.currencies ?? [], isScaled: parts !== null && parts.scale !== 1 };
}

/** What a column of numbers says about its decimal mark. */
export type DecimalEvidence = DecimalMark | 'open' | 'irrelevant' | 'mixed';

/** So many numbers with just three digits behind their mark, and none with others, are thousands. */
const MANY = 3;

/** Settles the decimal mark by all values of a column that can show one. */
export function decimalEvidence(values: Iterable<string>): DecimalEvidence {
  const seen = { '.': 0, ',': 0 };
  const undecided = { '.': 0, ',': 0 };
  for (const text of values) {
    // Without a mark a number shows none.
    if (!text.includes('.') && !text.includes(',')) continue;
    const form = formOf(text);
    if (form === null) continue;
    if (!('value' in form)) {
      undecided[form.mark]++;
      continue;
    }
    const digits = numberParts(text)?.digits ?? '';
    const last = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
    if (last < 0) continue;
    const mark = digits[last] as DecimalMark;
    const groups =
      digits.split(mark).length > 2 || (digits.length - last === 4 && /^[1-9]\d{0,2}$/.test(digits.slice(0, last)));
    seen[groups ? (mark === '.' ? ',' : '.') : mark]++;
  }
  if (seen['.'] > 0 && seen[','] > 0) return 'mixed';
  if (seen['.'] > 0) return '.';
  if (seen[','] > 0) return ',';
  if (undecided['.'] > 0 && undecided[','] > 0) return 'open';
  const mark = undecided['.'] > 0 ? '.' : undecided[','] > 0 ? ',' : null;
  if (mark === null) return 'irrelevant';
  return undecided[mark] >= MANY ? (mark === '.' ? ',' : '.') : 'open';
}

/** How percentages without a sign are meant. */
export type PercentScale = 'percent' | 'fraction';

/** Reads a percentage; null when it is none, or when its column leaves open what a number up to one means. */
export function readPercent(
  text: string,
  scale: PercentScale | null,
  decimal: DecimalMark | null = null,
): number | null {
  const signed = /%|\b(?:percent|prozent|pct)\b/i.test(text);
  const value = readNumber(text.replace(/%|percent|prozent|pct/i, ''), decimal, 'decimal');
  if (value === null) return null;
  if (signed || value === 0) return value;
  if (scale === 'fraction') return value <= 1 ? round(value * 100) : null;
  if (scale === 'percent' || value > 1) return value;
  return null;
}

const round = (value: number): number => Number(value.toPrecision(12));

/** Settles what percentages without a sign mean, by all values of a column; null where they leave it open. */
export function percentScale(values: Iterable<string>): PercentScale | null {
  let [shares, above, signed, ones] = [0, 0, 0, 0];
  for (const text of values) {
    if (text.length > LONGEST) continue;
    if (/%/.test(text)) signed++;
    else {
      const value = readNumber(text, null, 'decimal');
      if (value === null || value === 0) continue;
      if (value > 1) above++;
      else if (value === 1) ones++;
      else shares++;
    }
  }
  if (shares + ones === 0) return 'percent';
  if (shares > 0 && above + signed === 0) return 'fraction';
  // Whole numbers from one on, with others far above it.
  return shares === 0 && above >= 3 && signed === 0 ? 'percent' : null;
}

const YES = new Set([
  'yes',
  'y',
  'true',
  '1',
  'x',
  'ja',
  'j',
  'oui',
  'o',
  'vrai',
  'si',
  'sí',
  's',
  'sì',
  'sim',
  'wahr',
  'waar',
  'verdadero',
  'vero',
  'verdadeiro',
  '✓',
  '✔',
  '☑',
  '✅',
]);
const NO = new Set([
  'no',
  'n',
  'false',
  '0',
  '',
  'nein',
  'nee',
  'non',
  'faux',
  'não',
  'nao',
  'falsch',
  'onwaar',
  'falso',
  '-',
  '–',
  '—',
  '☐',
  '✗',
  '✘',
]);

/** Reads yes or no; null when it is neither. */
export function readYesNo(text: string): boolean | null {
  const t = text.trim().toLowerCase();
  return YES.has(t) ? true : NO.has(t) ? false : null;
}

/** A cell that says that there is nothing, or nothing yet. */
export const saysNothing = (text: string): 'none' | 'notYet' | null => {
  const t = text.trim().toLowerCase();
  return NONE_WORDS.has(t) ? 'none' : NOT_YET.has(t) ? 'notYet' : null;
};
