import { describe, expect, test } from '@jest/globals';
import { guessColumnMap, readDelimited, readParts, readPlan, type Table, usedParts, beginState } from '../src/index';
import { currencyOfAll, moneyHeading, moneyWord } from '../src/values/money';
import { monthEvidence } from '../src/values/dates';

/** What people write beside amounts; common practice in tables of costs. */

describe('money', () => {
  test.each<[string, string[], number]>([
    ['Budget', [], 1],
    ['Budget (k€)', ['EUR'], 1e3],
    ['Kosten [T€]', ['EUR'], 1e3],
    ['Kosten in TEUR', ['EUR'], 1e3],
    ['Kosten in Mio. EUR', ['EUR'], 1e6],
    ['Cost, £ thousands', ['GBP'], 1e3],
    ["Cost (£'000)", ['GBP'], 1e3],
    ['Value £m', ['GBP'], 1e6],
    ['Amount in US$ millions', ['USD'], 1e6],
    ['Coût (milliers €)', ['EUR'], 1e3],
    ['Price CHF', ['CHF'], 1],
    ['Length (m)', [], 1],
    ['Cost plan Kilburn', [], 1],
  ])('the heading “%s”', (heading, currencies, factor) => {
    expect(moneyHeading(heading)).toEqual({ currencies, factor });
  });

  test('words of several currencies leave them open; no others are taken for money', () => {
    expect(moneyWord('$')!.currencies).toEqual(['USD', 'AUD', 'CAD', 'NZD', 'HKD', 'SGD']);
    expect(moneyWord('kr.')!.currencies).toEqual(['SEK', 'NOK', 'DKK']);
    expect(['km', 'men', 'k', 'm²', '', '12'].map(moneyWord)).toEqual(Array(6).fill(null));
  });

  test('one currency is that of most amounts; what is named for sure settles what is not', () => {
    const dollars = moneyWord('$')!.currencies;
    expect(currencyOfAll([dollars, dollars, []])).toBe('USD');
    expect(currencyOfAll([dollars, ['AUD'], dollars])).toBe('AUD');
    expect(currencyOfAll([['EUR'], dollars, dollars])).toBe('USD');
    expect(currencyOfAll([[], []])).toBeNull();
  });

  const table = (name: string, text: string): Table => readDelimited(text, name);
  test('a scale is said by the heading or by the person, and never counted twice', () => {
    const t = table(
      'x.csv',
      'Name;Start;Finish;Budget (k€)\nDig;2026-03-02;2026-03-06;12,5\nLay;2026-03-02;;2 Mio. €\n',
    );
    const map = guessColumnMap(t);
    const costs = (m: typeof map) => readPlan(t, m, { name: 'x' }).plan.activities.map((a) => a.cost);
    expect(costs(map)).toEqual([12_500_00, 2_000_000_00]);
    expect(costs({ ...map, styles: map.styles.map((s) => ({ ...s, factor: 1 as const })) })).toEqual([
      12_50, 2_000_000_00,
    ]);
    const other = readPlan(t, { ...map, currency: 'GBP' }, { name: 'x' });
    expect(other.plan.activities[1]!.cost).toBeNull();
    expect(other.problems.map((p) => [p.code, p.value, p.detail])).toEqual([['otherCurrency', '2 Mio. €', 'GBP']]);
  });

  test('of several tables only the amounts in the plan’s currency are taken', () => {
    const tables = [
      table('a.csv', 'Name,Start,Finish,Cost\nDig,2026-03-02,2026-03-06,€100\n'),
      table('b.csv', 'Name,Start,Finish,Cost\nLay,2026-03-09,2026-03-13,£200\n'),
    ];
    const parts = tables.flatMap((_, k) => usedParts(beginState([tables[k]!], [])).map((p) => ({ ...p, table: k })));
    const { plan, problems } = readParts(tables, parts, { name: 'x' });
    expect([plan.currency, plan.activities.map((a) => a.cost)]).toEqual(['EUR', [100_00, null]]);
    expect(problems.map((p) => [p.source, p.code, p.value, p.detail])).toEqual([
      ['b.csv', 'otherCurrency', 'GBP', 'EUR'],
    ]);
  });
});

test('figures behind a month are years or days where the column says so', () => {
  expect(monthEvidence(['Apr-26', 'May-26', 'Jun-26', 'Jan-27'])).toBe('year');
  expect(monthEvidence(['Apr-26', 'Mar 2026'])).toBe('year');
  expect(monthEvidence(['Apr-45'])).toBe('year');
  expect(monthEvidence(['Apr-3', 'Apr-06', 'Apr-13', 'May-08', 'May-29', 'Jun-17'])).toBe('day');
  expect(monthEvidence(['Apr-26', 'May-27'])).toBeNull();
  expect(monthEvidence(['Apr-14', 'Apr-15', 'Apr-16', 'Apr-17'])).toBeNull();
  expect(monthEvidence(['2026-04-01'])).toBeNull();
});
