import { describe, expect, test } from '@jest/globals';
import {
  type Condition,
  conditionHolds,
  ConditionRefused,
  conditionWords,
  makeActivity,
  makeField,
  makePlan,
  makeValue,
  FIVE_DAY,
  endOfDay,
  parseIsoDate,
  schedulePlan,
  selectFields,
} from '../src/index';
import { day } from './helpers';

const plan = makePlan({
  name: 'Quay',
  calendars: [FIVE_DAY],
  calendar: FIVE_DAY.id,
  codeFields: [
    makeField({
      id: 'zone',
      name: 'Zone',
      values: [makeValue({ code: 'N', title: 'North' }), makeValue({ code: 'S' })],
    }),
  ],
  activities: [
    makeActivity({ ref: 'G', name: 'Piling', kind: 'summary' }),
    makeActivity({
      ref: 'P1',
      name: 'Test pile',
      parent: 'G',
      start: day('2026-03-02'),
      finish: endOfDay(parseIsoDate('2026-03-06')!),
      duration: 5 * 480,
      codes: { zone: 'N' },
      responsible: ['Marine works', 'Survey'],
      percent: 40,
    }),
    makeActivity({
      ref: 'P2',
      name: 'Production PILES',
      parent: 'G',
      start: day('2026-03-09'),
      duration: 12 * 480,
      cost: 125_000,
    }),
    makeActivity({
      ref: 'M',
      name: 'Quay open',
      kind: 'finishMilestone',
      finish: endOfDay(parseIsoDate('2026-05-01')!),
      codes: { zone: 'S' },
    }),
  ],
});
const s = schedulePlan(plan);
const met = (condition: Condition): string =>
  plan.activities
    .filter((_, i) => conditionHolds(plan, s, condition)(i))
    .map((a) => a.ref)
    .join(' ');
const one = (field: string, is: string, ...values: string[]): Condition =>
  ({ match: 'all', tests: [{ field, is, values }] }) as Condition;

// Expectations by reading the four rows above
describe('conditions', () => {
  test.each<[string, Condition, string]>([
    ['a word in the name, whatever its case', one('name', 'contains', 'pile'), 'P1 P2'],
    ['a name without a word', one('name', 'lacks', 'pil'), 'M'],
    ['the beginning of a reference', one('ref', 'begins', 'p'), 'P1 P2'],
    ['the end of a name', one('name', 'ends', 'open'), 'M'],
    ['a code', one('code.zone', 'is', 'N'), 'P1'],
    ['any of several codes', one('code.zone', 'is', 'N', 'S'), 'P1 M'],
    ['not a code: what has none too', one('code.zone', 'isNot', 'N'), 'G P2 M'],
    ['an empty code', one('code.zone', 'empty'), 'G P2'],
    ['one of several people', one('responsible', 'is', 'survey'), 'P1'],
    ['nobody', one('responsible', 'empty'), 'G P2 M'],
    ['a day from which on', one('start', 'atLeast', '2026-03-09'), 'P2 M'],
    ['a day before which', one('finish', 'below', '2026-03-09'), 'P1'],
    ['working days, of groups too', one('days', 'above', '5'), 'G P2'],
    ['an amount that is nowhere is met by nothing', one('cost', 'below', '5'), ''],
    ['cost in the currency, not its hundredths', one('cost', 'is', '1250'), 'P2'],
    ['a kind', one('kind', 'is', 'milestone'), 'M'],
    ['a status', one('status', 'is', 'in progress'), 'P1'],
    ['the group above', one('group', 'is', 'Piling'), 'P1 P2'],
    ['nothing asked: everything', { match: 'all', tests: [] }, 'G P1 P2 M'],
    [
      'nested',
      {
        match: 'any',
        tests: [
          { field: 'ref', is: 'is', values: ['M'] },
          {
            match: 'all',
            tests: [
              { field: 'name', is: 'contains', values: ['pile'] },
              { field: 'days', is: 'atMost', values: ['5'] },
            ],
          },
        ],
      },
      'P1 M',
    ],
  ])('%s', (_, condition, expected) => expect(met(condition)).toBe(expected));

  test('what cannot be asked says so', () => {
    expect(() => met(one('code.trade', 'is', 'x'))).toThrow(ConditionRefused);
    expect(() => met(one('start', 'above', 'soon'))).toThrow(
      '“soon” is no day (as in 2026-07-31), which “start” is compared with.',
    );
    expect(() => met(one('days', 'above', '5 d'))).toThrow('“5 d” is no number');
    expect(() => met(one('days', 'contains', '5'))).toThrow('“working days” holds numbers; compare them by size.');
    expect(() => met(one('name', 'is'))).toThrow('Say what “name” is to be compared with.');
  });

  test('in words', () => {
    const words = conditionWords(plan, {
      match: 'all',
      tests: [
        { field: 'code.zone', is: 'is', values: ['N', 'S'] },
        { field: 'start', is: 'below', values: ['2026-03-09'] },
        {
          match: 'any',
          tests: [
            { field: 'name', is: 'filled', values: [] },
            { field: 'days', is: 'atLeast', values: ['3'] },
          ],
        },
      ],
    });
    expect(words).toBe(
      'Zone is North or S and start is before 2026-03-09 and (name is filled or working days is at least 3)',
    );
  });

  test('every field of a plan can be read of every row', () => {
    for (const f of selectFields(plan)) expect(() => met(one(f.id, 'filled'))).not.toThrow();
  });
});
