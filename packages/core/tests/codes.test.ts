import { describe, expect, test } from '@jest/globals';
import {
  type CodeField,
  codesOutsideBook,
  fillChanges,
  fillCodes,
  freeFieldId,
  makeActivity,
  makeField,
  makeValue,
  type Plan,
  readPastedCodes,
  refillCodes,
  schedulePlan,
} from '../src/index';
import { planOf } from './helpers';

const named = (
  rows: [ref: string, name: string, codes?: Record<string, string>][],
  more: Partial<Plan> = {},
): Plan => ({
  ...planOf([], [], more),
  activities: rows.map(([ref, name, codes]) => makeActivity({ ref, name, duration: 480, codes: codes ?? {} })),
});
const rule = (code: string, field: string, is: 'contains' | 'begins', value: string) => ({
  code,
  when: { match: 'all' as const, tests: [{ field, is, values: [value] }] },
});
const TRADE: CodeField = makeField({
  id: 'trade',
  name: 'Trade',
  fill: { by: 'rules', rules: [rule('Piling', 'name', 'contains', 'pile'), rule('Marine', 'ref', 'begins', 'M')] },
});

describe('filling codes', () => {
  test('of several rules the first that catches decides, and each says how many it catches', () => {
    const plan = named(
      [
        ['M1', 'Pile trial'],
        ['M2', 'Tow barge'],
        ['M3', 'Pile cap'],
        ['X', 'Paint'],
      ],
      { codeFields: [TRADE] },
    );
    const { codes, caught, none } = fillCodes(plan, schedulePlan(plan), TRADE);
    expect(codes).toEqual(['Piling', 'Marine', 'Piling', '']);
    expect(caught).toEqual([
      { decides: 2, catches: 2 },
      { decides: 1, catches: 3 },
    ]);
    expect(none).toEqual([3]);
  });

  test('the first characters of another field', () => {
    const zone = makeField({ id: 'zone', name: 'Zone', fill: { by: 'characters', of: 'ref', count: 2 } });
    const plan = named(
      [
        ['N1-100', 'a'],
        ['Ü2-7', 'b'],
        ['7', 'c'],
      ],
      { codeFields: [zone] },
    );
    expect(fillCodes(plan, schedulePlan(plan), zone).codes).toEqual(['N1', 'Ü2', '7']);
    expect(fillChanges(plan, schedulePlan(plan), zone)).toEqual([
      ['N1-100', 'N1'],
      ['Ü2-7', 'Ü2'],
      ['7', '7'],
    ]);
  });

  test('after a refresh the new and the unfilled are filled, what followed the rules follows them, what a person said stays', () => {
    const before = named(
      [
        ['A', 'Pile trial', { trade: 'Piling' }],
        ['B', 'Pile cap', { trade: 'By hand' }],
        ['C', 'Tow barge', { trade: '' }],
      ],
      { codeFields: [TRADE] },
    );
    const after = {
      ...before,
      activities: [
        { ...before.activities[0]!, name: 'M trial' },
        { ...before.activities[1]!, name: 'Pile cap, east' },
        { ...before.activities[2]!, name: 'Pile barge' },
        makeActivity({ ref: 'M9', name: 'Anchor' }),
      ],
    };
    const codes = refillCodes(before, after).activities.map((a) => a.codes.trade);
    // A is caught by no rule any more: what it had stays, since nothing better is known.
    expect(codes).toEqual(['Piling', 'By hand', 'Piling', 'Marine']);
  });

  test('rules about a field that is gone leave the codes as they are', () => {
    const field = { ...TRADE, fill: { by: 'rules' as const, rules: [rule('Piling', 'code.gone', 'contains', 'x')] } };
    const plan = named([['A', 'Pile', { trade: 'Old' }]], { codeFields: [field] });
    expect(refillCodes(plan, plan).activities[0]!.codes).toEqual({ trade: 'Old' });
  });
});

describe('pasted codes', () => {
  const plan = named([
    ['A1', 'Dig'],
    ['A2', 'Drive'],
    ['A3', 'Cap'],
    ['A4', 'Dig'],
  ]);
  const read = (text: string, column?: number) =>
    readPastedCodes(
      plan,
      text.split('\n').map((l) => l.split('\t')),
      column,
    );

  test('beside references, in any order of rows and columns, with a heading', () => {
    const left = read('Zone\tRef\nNorth\tA3\nSouth\ta1');
    expect(left.heading).toEqual(['Zone', 'Ref']);
    expect([left.key, left.column, left.codes, left.unknown]).toEqual([
      { column: 1, by: 'ref' },
      0,
      [
        ['A3', 'North'],
        ['A1', 'South'],
      ],
      [],
    ]);
    expect(read('A2\tWest').heading).toBeNull();
    expect(read('A2\tWest').codes).toEqual([['A2', 'West']]);
  });
  test('beside names; a name of two activities is not guessed', () => {
    const byName = read('Cap\tNorth\nDig\tSouth\nDrive\t');
    expect([byName.key?.by, byName.codes, byName.ambiguous]).toEqual([
      'name',
      [
        ['A3', 'North'],
        ['A2', ''],
      ],
      [{ row: 1, key: 'Dig' }],
    ]);
  });
  test('keys that are nowhere, and rows that contradict each other, are listed', () => {
    const bad = read('A1\tNorth\nA1\tSouth\nA9\tWest\nA2\tWest');
    expect([bad.codes, bad.unknown, bad.contradicted]).toEqual([
      [
        ['A1', 'North'],
        ['A2', 'West'],
      ],
      [{ row: 2, key: 'A9' }],
      [{ row: 1, key: 'A1', first: 'North', second: 'South' }],
    ]);
  });
  test('of several columns the one that is said', () => {
    expect(read('x\tA1\tNorth\ny\tA2\tSouth', 2).codes).toEqual([
      ['A1', 'North'],
      ['A2', 'South'],
    ]);
  });
  test('a table whose columns name nothing has no key', () => {
    expect(read('foo\tbar').key).toBeNull();
    expect(read('A1').key).toBeNull();
  });
});

test('codes outside the book are found, and new fields get ids of their own', () => {
  const plan = named(
    [
      ['A', 'a', { zone: 'N' }],
      ['B', 'b', { zone: 'Q' }],
      ['C', 'c', { zone: 'Q' }],
    ],
    {
      codeFields: [makeField({ id: 'zone', name: 'Zone', values: [makeValue({ code: 'N' })] })],
    },
  );
  expect(codesOutsideBook(plan, plan.codeFields[0]!)).toEqual([{ code: 'Q', count: 2 }]);
  expect(['Zone', 'Kind of work', 'constructor', '…'].map((name) => freeFieldId(plan, name))).toEqual([
    'zone-2',
    'kind-of-work',
    'constructor-2',
    'field',
  ]);
});
