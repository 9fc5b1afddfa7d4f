import { civilFromDay, weekdayOf } from '@clembo/core';
import type { BlindSpots, Shown } from '../../graph/scene';

/** Languages in which a page can be written (ISO 639-1). */
export const LANGUAGE_CODES = ['en', 'de', 'fr', 'es', 'it', 'nl'] as const;
export type LanguageCode = (typeof LANGUAGE_CODES)[number];

export type DateStyle = 'short' | 'medium' | 'long' | 'weekday';

/** The kinds of samples that the legend of a timeline explains. */
export type LegendWord =
  | 'toCome'
  | 'reached'
  | 'done'
  | 'group'
  | 'summary'
  | 'support'
  | 'interrupted'
  | 'critical'
  | 'slippedLater'
  | 'slippedEarlier'
  | 'promised'
  | 'promisedDate'
  | 'vague'
  | 'runsOn'
  | 'statusDate'
  | 'expected'
  | 'asPromised'
  | 'gone'
  | 'deadline'
  | 'nonWorking'
  | 'elapsed'
  | 'link'
  | 'criticalLink';

/** Everything that a page says by itself in one language; what the plan says stays in its own words. */
export interface PageLanguage {
  code: LanguageCode;
  /** What the language calls itself. */
  name: string;
  months: readonly string[];
  /** Short names of months (CLDR, stand-alone forms), as a page has room for them. */
  shortMonths: readonly string[];
  /** From Monday on. */
  weekdays: readonly string[];
  /** What stands before the number of a week, a quarter, and a fiscal year. */
  week: string;
  quarter: string;
  fiscalYear: string;
  decimal: ',' | '.';
  longDay(day: number, month: string, year: number): string;
  shortDay(day: number, month: string): string;
  /** Titles that a page gives itself. */
  runsTo(plan: string, day: string): string;
  completedOn(plan: string, day: string): string;
  asPromised: string;
  againstPromise(days: number, later: boolean): string;
  percentOfWork(percent: number): string;
  milestoneLate(name: string, days: number): string;
  span(from: string, to: string): string;
  status(day: string): string;
  promised(edition: string): string;
  given: string;
  computed: string;
  until(day: string): string;
  since(day: string): string;
  workingDays(count: string, one: boolean): string;
  daysDone(whole: string, done: string, toGo: string): string;
  allDone(whole: string): string;
  percentDone(percent: number): string;
  late(days: number): string;
  ahead(days: number): string;
  /** Of what the edition compared with did not have, and of what only it has. */
  fresh: string;
  goneNow: string;
  legend: Readonly<Record<LegendWord, string>>;
  several: string;
  without: string;
  other: string;
  wholePlan: string;
  states: Readonly<Record<string, string>>;
  shown(counts: Shown): string;
  notSeen(words: string): string;
  blind(
    spots: Pick<BlindSpots, 'links' | 'criticalLinks'> & { late: number; critical: number; milestones: number },
  ): string;
  fit: Readonly<
    Record<
      | 'datesWithoutRoom'
      | 'labelsShortened'
      | 'labelsInKey'
      | 'laneTitlesCut'
      | 'periodsWithoutName'
      | 'charactersMissing',
      readonly [one: string, several: string]
    >
  >;
  columnsCut: readonly [one: string, several: string];
  tiersCut: readonly [one: string, several: string];
  page(number: number, of: number): string;
  continued(title: string): string;
  /** Headings of the same content as a table, and what is noted of each thing there. */
  content: readonly [lane: string, name: string, start: string, finish: string, notes: string];
  noted: {
    milestone: string;
    reached: string;
    groupOf(count: number): string;
    /** How many of how many members of a group are critical. */
    criticalOf(count: number, of: number): string;
    summary: string;
    support: string;
    critical: string;
  };
  total: string;
  /** The heading of what people said about the page. */
  comments: string;
}

/** A day in words of a language: in English `14 Sep`, `14 Sep 26`, `14 September 2026`, `Mon 14 Sep 2026`. */
export function dayWords(l: PageLanguage, day: number, style: DateStyle): string {
  const { year, month, day: d } = civilFromDay(day);
  if (style === 'long') return l.longDay(d, l.months[month - 1]!, year);
  const short = l.shortDay(d, l.shortMonths[month - 1]!);
  if (style === 'short') return short;
  if (style === 'medium') return `${short} ${String(year % 100).padStart(2, '0')}`;
  return `${l.weekdays[weekdayOf(day)]} ${short} ${year}`;
}

/** A number with at most one decimal. */
export const numberWords = (l: PageLanguage, value: number): string =>
  String(Math.round(value * 10) / 10).replace('.', l.decimal);

/** Words that fields of a plan hold, by the words of a page for the same. */
const VALUES: Readonly<Record<string, (l: PageLanguage) => string>> = {
  complete: (l) => l.states.complete!,
  'in progress': (l) => l.states.inProgress!,
  'on hold': (l) => l.states.onHold!,
  'not started': (l) => l.states.notStarted!,
  milestone: (l) => l.noted.milestone,
  summary: (l) => l.noted.summary,
  'supporting work': (l) => l.noted.support,
  ahead: (l) => l.states.ahead!,
  'within what is normal': (l) => l.states.inTolerance!,
  'to be watched': (l) => l.states.watch!,
  'far off': (l) => l.states.breach!,
};

/** What a field such as the status holds, in a language; as it is where the language has no word for it. */
export function valueWords(l: PageLanguage, value: string): string {
  const words = l.code === 'en' ? undefined : VALUES[value]?.(l);
  return words === undefined ? value : words.charAt(0).toLowerCase() + words.slice(1);
}
