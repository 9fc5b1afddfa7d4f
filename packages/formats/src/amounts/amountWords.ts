import type { Plan } from '@clembo/core';

/** Spaces and hyphens that fonts may lack become plain ones. */
const plain = (text: string): string => text.replace(/\s/g, ' ').replace(/[\u2010-\u2012]/g, '-');

/** From here on amounts are told in millions. */
const MILLION = 1e6;

/** Notations that numbers can be written in (BCP 47). */
export const LOCALES = [
  'en-GB',
  'en-US',
  'de-DE',
  'de-CH',
  'fr-FR',
  'nl-NL',
  'es-ES',
  'it-IT',
  'pl-PL',
  'sv-SE',
  'el-GR',
  'uk-UA',
] as const;

/**
 * The notation of the amounts of a page: that of the language in which the page is written; English, which nobody needs
 * to choose, leaves it to the workspace.
 *
 * @param language ISO 639-1; undefined for pages that have none
 */
export function localeOfPage(language: string | undefined, locale = 'en-GB'): string {
  if (language === undefined || language === 'en' || locale.startsWith(`${language}-`)) return locale;
  return LOCALES.find((l) => l.startsWith(`${language}-`)) ?? locale;
}

type Amount = 'cost' | 'effort';

/**
 * Writes amounts of a plan in its currency (ISO 4217) and its unit of effort, in a locale's notation. Costs are in
 * hundredths, effort in minutes.
 *
 * @param locale BCP 47; one that is not known is written as British English
 */
export function amountWords(plan: Pick<Plan, 'currency' | 'effortDay'>, locale = 'en-GB') {
  const known = Intl.NumberFormat.supportedLocalesOf([locale])[0] ?? 'en-GB';
  const format = (options: Intl.NumberFormatOptions) => {
    const made = new Intl.NumberFormat(known, options);
    return (value: number) => plain(made.format(value));
  };
  const { currency, effortDay } = plan;
  const style = currency === null ? {} : ({ style: 'currency', currency, currencyDisplay: 'narrowSymbol' } as const);
  const whole = format({ ...style, maximumFractionDigits: 0, minimumFractionDigits: 0 });
  const number = format({ maximumFractionDigits: 1 });
  const symbol = currency === null ? '' : symbolOf(known, currency);
  const size = (value: number, of: Amount) => (of === 'cost' ? value / 100 : value / (effortDay ?? 60));
  const millions = new Intl.NumberFormat(known, { ...style, maximumFractionDigits: 2, minimumFractionDigits: 0 });
  const money = (hundredths: number) => {
    const value = hundredths / 100;
    if (Math.abs(value) < MILLION) return whole(value);
    const parts = millions.formatToParts(value / MILLION);
    const last = parts.findLastIndex((p) => p.type === 'integer' || p.type === 'fraction');
    return plain(parts.map((p, k) => (k === last ? `${p.value} M` : p.value)).join(''));
  };
  const effort = (minutes: number) => {
    const value = size(minutes, 'effort');
    const shown = number(Math.abs(value) >= 100 ? Math.round(value) : value);
    return effortDay === null ? `${shown} h` : `${shown} person-${shown === '1' ? 'day' : 'days'}`;
  };
  return {
    money,
    effort,
    size,
    number,
    amount: (value: number, of: Amount) => (of === 'cost' ? money(value) : effort(value)),
    unit: (of: Amount) => (of === 'cost' ? symbol : effortDay === null ? 'h' : 'person-days'),
  };
}

export type AmountWords = ReturnType<typeof amountWords>;

function symbolOf(locale: string, currency: string): string {
  const made = new Intl.NumberFormat(locale, { style: 'currency', currency, currencyDisplay: 'narrowSymbol' });
  return plain(made.formatToParts(0).find((p) => p.type === 'currency')?.value ?? currency);
}
