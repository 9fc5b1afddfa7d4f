import { type CalendarSpec, minutesPerUnit, workdaysPerWeek } from '@clembo/core';
import { readNumber } from './amounts';
import type { RateTime } from './rateTimes';

const TIMES: [pattern: RegExp, time: RateTime][] = [
  [/^(?:working\s+)?(?:h|hrs?|hours?|std|stunden?|heures?|horas?|ore|uur)$/i, 'hour'],
  [/^(?:shifts?|schicht(?:en)?|postes?|turnos?|turni)$/i, 'shift'],
  [
    /^(?:(?:working|work|calendar)?\s*(?:d|days?)|wd|tage?|at|arbeitstage?|jours?|j|d[ií]as?|giorn[oi]|dag(?:en)?)$/i,
    'day',
  ],
  [/^(?:wks?|weeks?|w|wochen?|semaines?|sem|semanas?|settiman[ae]|weken)$/i, 'week'],
  [/^(?:mo|mth|months?|monate?|mois|mes(?:es)?|mes[ei]|maand(?:en)?)$/i, 'month'],
];
const PER = /(?:\/|\bper\b|\ba\b|\bpro\b|\bje\b|\bpar\b|\bpor\b|\bal\b)\s*([\p{L}]+(?:\s+[\p{L}]+)?)\.?\s*\)?\s*$/iu;

const timeNamed = (word: string): RateTime | null => {
  const plain = word.trim();
  return (
    TIMES.find(([pattern]) => pattern.test(plain))?.[1] ??
    TIMES.find(([pattern]) => pattern.test(plain.split(/\s+/)[0]!))?.[1] ??
    null
  );
};

/** A longer text is no rate and no heading of rates: it is not looked through. */
const LONGEST = 100;

/** The unit of time that a rate, or its heading, names: `500 m/week`, `Rate (km per day)`; null where it names none. */
export function rateTimeOf(text: string): RateTime | null {
  if (text.length > LONGEST) return null;
  const said = PER.exec(text.trim().replace(/[\])]+$/, ''));
  return said ? timeNamed(said[1]!) : null;
}

/** How many thousands of the unit of place a rate is told in: a rate in km where places are metres counts a thousand. */
export const rateScale = (text: string): 'km' | 'm' | null =>
  text.length > LONGEST
    ? null
    : /\bkm\s*(?:\/|per|a|pro)/i.test(text)
      ? 'km'
      : /(?:^|[\s(\d])m\s*(?:\/|per|a|pro)/i.test(text)
        ? 'm'
        : null;

/** A number of a rate, whatever units stand behind it. */
export const rateNumber = (text: string, decimal: '.' | ',' | null): number | null =>
  text.length > LONGEST
    ? null
    : readNumber(
        text.replace(/\s*(?:km|m|ft|floors?|units?)?\s*(?:\/|\bper\b|\bpro\b)\s*[\p{L} ]+\.?$/iu, '').trim(),
        decimal,
      );

/** How much of a rate is done in a working day of a calendar. */
export function perWorkingDay(time: RateTime, calendar: CalendarSpec): number {
  switch (time) {
    case 'hour':
      return calendar.minutesPerDay / 60;
    case 'shift':
    case 'day':
      return 1;
    case 'week':
      return 1 / workdaysPerWeek(calendar);
    case 'month':
      return calendar.minutesPerDay / minutesPerUnit('month', calendar);
  }
}
