/** Languages that schedules usually come in. */
const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'pl', 'cs', 'sv', 'da', 'nb', 'el', 'uk', 'ru'];

const bare = (word: string): string => word.toLowerCase().replace(/\.$/, '');

/** Names of months or weekdays, long and short, by the language's own calendar data. */
function names(part: 'month' | 'weekday', count: number, date: (k: number) => number): Map<string, number> {
  const found = new Map<string, number>();
  for (const locale of LANGUAGES) {
    for (const style of ['long', 'short'] as const) {
      for (const more of part === 'month' ? [{}, { day: 'numeric' as const }] : [{}]) {
        const format = new Intl.DateTimeFormat(locale, { [part]: style, timeZone: 'UTC', ...more });
        for (let k = 0; k < count; k++) {
          const key = bare(format.formatToParts(date(k)).find((p) => p.type === part)!.value);
          if (!/^\d+$/.test(key) && !found.has(key)) found.set(key, k);
        }
      }
    }
  }
  return found;
}

/** Months by name, January as 1. */
export const MONTHS = new Map(
  [...names('month', 12, (k) => Date.UTC(2026, k, 1)), ['sept', 8] as const].map(([name, k]) => [name, k + 1]),
);

/** Weekdays by name, Monday as 0; German and Dutch write two letters. */
export const WEEKDAYS: ReadonlyMap<string, number> = new Map([
  ...Object.entries({ mo: 0, di: 1, mi: 2, do: 3, fr: 4, sa: 5, so: 6 }),
  ...Object.entries({ ma: 0, wo: 2, vr: 4, za: 5, zo: 6 }),
  ...Object.entries({ tues: 1, thur: 3, thurs: 3 }),
  // 5 January 2026 is a Monday.
  ...names('weekday', 7, (k) => Date.UTC(2026, 0, 5 + k)),
]);

/** Words for a part of a month or year: 0 for its beginning, 1 for its middle, 2 for its end. */
export const PARTS: ReadonlyMap<string, number> = new Map(
  [
    [
      'early',
      'beginning',
      'begin',
      'start',
      'anfang',
      'début',
      'debut',
      'principios',
      'inicios',
      'inizio',
      'início',
      'inicio',
    ],
    ['mid', 'middle', 'mitte', 'mi', 'mediados', 'metà', 'meta', 'half', 'medio', 'meados'],
    ['late', 'end', 'ende', 'fin', 'finales', 'fine', 'eind', 'einde', 'fim', 'finais'],
  ].flatMap((words, part) => words.map((word) => [word, part] as const)),
);

/** What is written where a date is not known yet, or where there is none. */
export const NOT_YET = new Set([
  'tbc',
  'tba',
  'tbd',
  'to be confirmed',
  'to be agreed',
  'to be announced',
  'to be determined',
  'open',
  'offen',
  'noch offen',
  'à confirmer',
  'à définir',
  'por confirmar',
  'por definir',
  'da confermare',
  'da definire',
  'nader te bepalen',
  'ntb',
  'a confirmar',
  'a definir',
  '?',
  '??',
  '???',
]);
export const NONE_WORDS = new Set([
  '-',
  '–',
  '—',
  '--',
  'n/a',
  'na',
  'n.a.',
  'none',
  'nil',
  'k.a.',
  'k. a.',
  'keine angabe',
  'n. a.',
  'not applicable',
  'entfällt',
  's/o',
  'n.v.t.',
  'nvt',
  'n/d',
  '.',
  '/',
]);

/** Words that begin a latest date, and an earliest one. */
export const BY =
  /^(?:by|until|till|before|not? later than|no later than|latest(?: by)?|bis(?: zum)?|spätestens(?: am)?|vor dem|avant le|au plus tard(?: le)?|jusqu['’]au|antes del?|hasta(?: el)?|a más tardar(?: el)?|entro(?: il)?|uiterlijk(?: op)?|vóór|até|o mais tardar)\s+/i;
export const FROM =
  /^(?:from|after|not before|not earlier than|no earlier than|as of|earliest|ab(?: dem)?|frühestens(?: am)?|dès(?: le)?|à partir du|desde(?: el)?|a partir del?|dal|non prima del|vanaf|a partir de)\s+/i;
