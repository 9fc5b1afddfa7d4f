import { describe, expect, test } from '@jest/globals';
import { amountWords, LOCALES, localeOfPage } from '../src/amounts/amountWords';
import { applyCommand, makeActivity, makePlan, FIVE_DAY, schedulePlan } from '@clembo/core';
import { typedInto } from '../src/typed/typed';

// Source of the notations: Unicode CLDR, by way of the ICU of Node.js; the examples are common practice.
describe('amounts in words', () => {
  const say = (locale: string, currency: string | null = null, effortDay: number | null = null) =>
    amountWords({ currency, effortDay }, locale);
  test('money in the currency of the plan and the notation of the workspace', () => {
    expect(say('en-GB', 'GBP').money(41_200_000)).toBe('£412,000');
    expect(say('de-DE', 'EUR').money(41_200_000)).toBe('412.000 €');
    expect(say('en-GB', 'GBP').money(712_345_600)).toBe('£7.12 M');
    expect(say('de-DE', 'EUR').money(712_345_600)).toBe('7,12 M €');
    expect(say('en-GB').money(41_200_000)).toBe('412,000');
  });
  test('effort in hours or in person-days, which are no working days', () => {
    expect(say('en-GB').effort(400 * 60)).toBe('400 h');
    expect(say('en-GB', null, 480).effort(400 * 60)).toBe('50 person-days');
    expect(say('en-GB', null, 480).effort(480)).toBe('1 person-day');
    expect(say('fr-FR').effort(61_400 * 60)).toBe('61 400 h');
  });
  test('a locale that nobody knows is written as British English; none has characters that break lines', () => {
    expect(say('xx-XX', 'EUR').number(1234.5)).toBe('1,234.5');
    for (const locale of LOCALES) expect(say(locale, 'EUR').money(-123_456_789_00)).not.toMatch(/[\u00a0\u202f]/);
  });
});

test('the notation of a page is that of its language; English leaves it to the workspace', () => {
  expect(localeOfPage('de', 'en-GB')).toBe('de-DE');
  expect(localeOfPage('de', 'de-CH')).toBe('de-CH');
  expect(localeOfPage('en', 'nl-NL')).toBe('nl-NL');
  expect(localeOfPage(undefined)).toBe('en-GB');
  const plan = makePlan({ name: 'P', calendars: [FIVE_DAY], calendar: FIVE_DAY.id, currency: 'EUR' });
  expect(amountWords(plan, localeOfPage('de', 'en-GB')).money(1_234_500)).toBe('12.345 €');
  expect(amountWords(plan, localeOfPage('fr')).money(1_234_500)).toBe('12 345 €');
});

describe('effort that is typed', () => {
  const plan = (effortDay: number | null) =>
    makePlan({
      name: 'E',
      calendars: [FIVE_DAY],
      calendar: FIVE_DAY.id,
      effortDay,
      activities: [makeActivity({ ref: 'A', name: 'A' })],
    });
  const typed = (effortDay: number | null, text: string) => {
    const p = plan(effortDay);
    const done = typedInto(p, schedulePlan(p), 'A', 'effort', text);
    if ('error' in done) return done.error;
    return applyCommand(p, done.command!).plan.activities[0]!.effort;
  };
  test('is in the unit of the plan unless it says its own', () => {
    expect(typed(null, '12')).toBe(720);
    expect(typed(480, '12')).toBe(5760);
    expect(typed(480, '12 h')).toBe(720);
    expect(typed(450, '2 person-days')).toBe(900);
    expect(typed(null, '3 pd')).toBe(1440);
    expect(typed(null, 'much')).toContain('is no effort');
  });
});
