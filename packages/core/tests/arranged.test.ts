import { describe, expect, test } from '@jest/globals';
import {
  arrange,
  Arrangement,
  byText,
  endOfDay,
  type LedgerLine,
  makeActivity,
  makeField,
  makeLink,
  makeValue,
  parseIsoDate,
  type Plan,
  schedulePlan,
} from '../src/index';
import { day, planOf } from './helpers';

const end = (iso: string) => endOfDay(parseIsoDate(iso)!);
const plan: Plan = {
  ...planOf([], [], { source: 'given' }),
  codeFields: [
    makeField({
      id: 'zone',
      name: 'Zone',
      values: [makeValue({ code: 'S', title: 'South' }), makeValue({ code: 'N', title: 'North' })],
    }),
  ],
  activities: [
    makeActivity({ ref: 'G', name: 'Ground', kind: 'summary' }),
    makeActivity({
      ref: 'A',
      name: 'Dig 10',
      parent: 'G',
      start: day('2026-03-02'),
      finish: end('2026-03-06'),
      codes: { zone: 'N' },
      percent: 100,
      cost: 1000,
    }),
    makeActivity({
      ref: 'B',
      name: 'Dig 9',
      parent: 'G',
      start: day('2026-03-09'),
      finish: end('2026-03-13'),
      codes: { zone: 'S' },
      deadline: end('2026-03-10'),
    }),
    makeActivity({
      ref: 'M',
      name: 'Ready',
      parent: 'G',
      kind: 'finishMilestone',
      finish: end('2026-03-16'),
      codes: { zone: 'S' },
    }),
    makeActivity({
      ref: 'P',
      name: 'Paint',
      start: day('2026-03-20'),
      finish: end('2026-03-24'),
      codes: { zone: 'Q' },
    }),
    makeActivity({ ref: 'T', name: 'Tidy' }),
  ],
  links: [makeLink({ from: 'A', to: 'B' }), makeLink({ from: 'B', to: 'P' })],
};
const s = schedulePlan(plan);
const lines = (part: object, closed: string[] = []) => arrange(plan, s, Arrangement.parse(part), new Set(closed));
const say = (list: LedgerLine[]) =>
  list.map(
    (l) =>
      ' '.repeat(l.level - 1) +
      (l.kind === 'row' ? plan.activities[l.at]!.ref : l.kind === 'group' ? `[${l.title}]` : '[all]'),
  );

// Expectations by reading the six rows above
describe('the lines of the ledger', () => {
  test('by the outline, in the order of the plan', () => {
    expect(say(lines({}))).toEqual(['G', ' A', ' B', ' M', 'P', 'T']);
  });
  test('a closed group says what it conceals', () => {
    const [first, ...others] = lines({}, ['G']);
    expect(say(others)).toEqual(['P', 'T']);
    // B passes its deadline; both links touch what is concealed.
    expect(first!.kind === 'row' && first!.concealed).toMatchObject({ rows: 3, milestones: 1, late: 1, links: 2 });
    expect(first!.kind === 'row' && first!.closed).toBe(true);
  });
  test('what is asked for brings the groups that hold it', () => {
    const where = { match: 'all', tests: [{ field: 'name', is: 'contains', values: ['9'] }] };
    expect(say(lines({ where }))).toEqual(['G', ' B']);
    expect(say(lines({ where, summaries: false }))).toEqual(['B']);
  });
  test('by a code field in the order of its book, then what is not in it, then what has none', () => {
    const groups = ['code.zone'];
    expect(say(lines({ groups }))).toEqual(['[South]', ' B', ' M', '[North]', ' A', '[Q]', ' P', '[Without]', ' T']);
    const [south, , , north] = lines({ groups });
    expect(south!.kind === 'group' && [south!.totals.rows, south!.totals.first, south!.totals.last]).toEqual([
      2,
      parseIsoDate('2026-03-09'),
      parseIsoDate('2026-03-16'),
    ]);
    expect(north!.kind === 'group' && [north!.totals.percent, north!.totals.cost]).toEqual([100, 1000]);
  });
  test('groups in groups, closed by their keys', () => {
    const groups = ['code.zone', 'status'];
    const all = lines({ groups });
    expect(say(all).slice(0, 4)).toEqual(['[South]', ' [not started]', '  B', '  M']);
    const inner = all[1]!;
    expect(say(lines({ groups }, [inner.key])).slice(0, 3)).toEqual(['[South]', ' [not started]', '[North]']);
    const closed = lines({ groups }, [all[0]!.key])[0]!;
    expect(closed.kind === 'group' && closed.concealed).toMatchObject({ rows: 2, milestones: 1, late: 1 });
  });
  test('sorted by several fields, down and up; what has nothing stands last either way', () => {
    const sort = (...fields: [string, boolean][]) =>
      say(lines({ sort: fields.map(([field, down]) => ({ field, down })) }));
    expect(sort(['start', false])).toEqual(['A', 'B', 'M', 'P', 'T']);
    expect(sort(['start', true])).toEqual(['P', 'M', 'B', 'A', 'T']);
    expect(sort(['name', false])).toEqual(['B', 'A', 'P', 'M', 'T']);
    expect(sort(['code.zone', false], ['start', true])).toEqual(['M', 'B', 'A', 'P', 'T']);
  });
  test('a row for the whole plan', () => {
    const [whole] = lines({ whole: true });
    expect(whole!.kind === 'whole' && [whole!.totals.rows, whole!.totals.last]).toEqual([
      5,
      parseIsoDate('2026-03-24'),
    ]);
  });
});

test('texts by the size of the numbers in them', () => {
  expect(['a10', 'a9', 'A1', 'b', 'a9b', ''].sort(byText)).toEqual(['', 'A1', 'a9', 'a9b', 'a10', 'b']);
});
