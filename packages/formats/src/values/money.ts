/** What words beside an amount say of it. */
export interface MoneyWord {
  /** The currencies that are meant (ISO 4217): several where the word does not tell them apart, none where it names none. */
  currencies: readonly string[];
  /** How many units one of the amount stands for. */
  factor: number;
}

/** Currencies that amounts in tables are in, by the names that they have beside their code. */
const NAMES: Readonly<Record<string, readonly string[]>> = {
  EUR: ['€', 'euro', 'euros'],
  GBP: ['£'],
  USD: ['us$', '$'],
  CHF: ['fr', 'sfr'],
  SEK: ['kr'],
  NOK: ['kr'],
  DKK: ['kr'],
  PLN: ['zł'],
  CZK: ['kč'],
  HUF: ['ft'],
  RON: ['lei'],
  BRL: ['r$'],
  AUD: ['au$', 'a$', '$'],
  CAD: ['ca$', 'c$', '$'],
  NZD: ['nz$', '$'],
  HKD: ['hk$', '$'],
  SGD: ['s$', '$'],
  JPY: ['¥'],
  CNY: ['¥'],
  INR: ['₹'],
  ZAR: [],
  AED: [],
  SAR: [],
  QAR: [],
};
export const CURRENCIES: readonly string[] = Object.keys(NAMES);

const BY_WORD = new Map<string, string[]>();
for (const [code, names] of Object.entries(NAMES))
  for (const name of [code.toLowerCase(), ...names]) BY_WORD.set(name, [...(BY_WORD.get(name) ?? []), code]);

const FACTORS: ReadonlyMap<string, number> = new Map([
  ['k', 1e3],
  ['t', 1e3],
  ['m', 1e6],
  ['mn', 1e6],
  ['bn', 1e9],
]);

const GLUED = /^(k|t|mn|m|bn)?(\P{L}{1,2}|us\$|[a-z]{3})(k|mn|m|bn)?$/u;

/** A word that names a currency, with a scale that is written to it (k€, £m, TEUR); null for any other. */
export function moneyWord(word: string): MoneyWord | null {
  const plain = word.toLowerCase().replace(/\.$/, '');
  const whole = BY_WORD.get(plain);
  if (whole) return { currencies: whole, factor: 1 };
  const [, before, name, behind] = GLUED.exec(plain) ?? [];
  const glued = name === undefined ? undefined : BY_WORD.get(name);
  if (!glued || (before && behind)) return null;
  return { currencies: glued, factor: FACTORS.get(before ?? behind ?? '') ?? 1 };
}

const SCALES: ReadonlyMap<string, number> = new Map([
  ['k', 1e3],
  ['tsd', 1e3],
  ['tausend', 1e3],
  ['mio', 1e6],
  ['mill', 1e6],
  ['million', 1e6],
  ['millionen', 1e6],
  ['mn', 1e6],
  ['bn', 1e9],
  ['mrd', 1e9],
]);

/** How many units a word for a number stands for; null for any other word. */
export const scaleWord = (word: string): number | null => SCALES.get(word.toLowerCase().replace(/\.$/, '')) ?? null;

const THOUSANDS = /^['’]?000s?$|^(?:thousands?|milliers?|miles|migliaia|duizend(?:en)?|milhares)$/i;
const MILLIONS = /^(?:millions|millones|milioni|miljoen|milhões)$/i;

/** How many units a word for thousands or millions stands for; null for any other word. */
const manyWord = (word: string): number | null => (THOUSANDS.test(word) ? 1e3 : MILLIONS.test(word) ? 1e6 : null);

/** Whether a word says the currency or the scale of amounts. */
export const isMoneyUnit = (word: string): boolean =>
  moneyWord(word) !== null || scaleWord(word) !== null || manyWord(word) !== null;

/** What the heading of a column of money says of all its amounts: “Budget (k€)”, “Cost, £ '000”, “Kosten in Mio. EUR”. */
export function moneyHeading(heading: string): MoneyWord {
  let [currencies, factor]: [readonly string[], number] = [[], 1];
  for (const word of heading.split(/[\s()[\]/,;:]+/).filter((w) => w !== '')) {
    // Amounts “€'000”: the currency, then what stands behind it.
    const [, symbol, zeros] = /^(\D+?)(['’]?000s?)$/.exec(word) ?? [];
    const money = moneyWord(symbol ?? word);
    if (money && currencies.length === 0) currencies = money.currencies;
    factor *= money?.factor ?? scaleWord(word) ?? manyWord(word) ?? 1;
    if (zeros !== undefined) factor *= manyWord(zeros) ?? 1;
  }
  return { currencies, factor };
}

/** The one currency of amounts that name some each: what most of them may be in; null where none names any. */
export function currencyOfAll(said: Iterable<readonly string[]>): string | null {
  const counts = new Map<string, number>();
  const sure = new Set<string>();
  for (const currencies of said) {
    if (currencies.length === 1) sure.add(currencies[0]!);
    for (const c of currencies) counts.set(c, (counts.get(c) ?? 0) + 1);
  }
  // Where a word leaves several, one that is named elsewhere, else the one that it means most often.
  const worth = (c: string): number => counts.get(c)! + (sure.has(c) ? 0.5 : 0);
  return [...counts.keys()].reduce<string | null>((a, b) => (a !== null && worth(a) >= worth(b) ? a : b), null);
}
