import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import {
  type Activity,
  endOfDay,
  FIVE_DAY,
  type Link,
  makeActivity,
  makeLink,
  makePlan,
  makeField,
  makeValue,
  type Plan,
  ROUND_THE_CLOCK,
  SIX_DAY,
  startOfDay,
} from '@clembo/core';
import { demoPlans } from '../../../demo/index';
import {
  guessColumnMap,
  readPlan,
  readTables,
  writePlanCalendar,
  writePlanCsv,
  writePlanModel,
  writePlanXlsx,
} from '../src/index';

const day = (iso: string) => Date.parse(iso) / 86_400_000;
const at = (start: string, finish: string) => ({ start: startOfDay(day(start)), finish: endOfDay(day(finish)) });

/** Everything that a table can hold, with what makes writers stumble. */
const PLAN: Plan = makePlan({
  name: 'Quay “East”: works & ways',
  calendars: [FIVE_DAY, SIX_DAY, ROUND_THE_CLOCK],
  calendar: FIVE_DAY.id,
  codeFields: [makeField({ id: 'zone', name: 'Zone', values: [makeValue({ code: 'N' }), makeValue({ code: 'S' })] })],
  activities: [
    makeActivity({ ref: 'Q', name: 'Quay', kind: 'summary' }),
    makeActivity({
      ref: 'Q1',
      name: '=Piles; north\'s "A"',
      parent: 'Q',
      ...at('2026-03-02', '2026-03-13'),
      duration: 4800,
      percent: 45,
      codes: { zone: 'N' },
      responsible: ['Smith, John', 'Meyer'],
      cost: 123450,
      effort: 6000,
      notes: 'line one\nline two, “quoted”',
      actualStart: startOfDay(day('2026-03-02')),
    }),
    makeActivity({
      ref: 'Q2',
      name: 'Capping – größer',
      parent: 'Q',
      calendar: SIX_DAY.id,
      ...at('2026-03-16', '2026-03-21'),
      duration: 2880,
      percent: 0,
      codes: { zone: 'S' },
      deadline: endOfDay(day('2026-03-28')),
      constraint: { kind: 'startNotEarlier', moment: startOfDay(day('2026-03-16')) },
    }),
    makeActivity({
      ref: 'Q3',
      name: 'Cure',
      parent: 'Q',
      calendar: ROUND_THE_CLOCK.id,
      ...at('2026-03-22', '2026-03-28'),
      duration: 7 * 1440,
      codes: { zone: 'S' },
    }),
    makeActivity({
      ref: 'Q4',
      name: '-12 °C test',
      parent: 'Q',
      ...at('2026-03-30', '2026-03-30'),
      duration: 240,
      codes: { zone: 'N' },
    }),
    makeActivity({
      ref: 'Q5',
      name: 'Open',
      kind: 'finishMilestone',
      duration: 0,
      finish: endOfDay(day('2026-03-31')),
      codes: { zone: 'N' },
    }),
    makeActivity({ ref: 'Q6', name: 'Undated', duration: 480, codes: { zone: 'N' } }),
  ],
  links: [
    makeLink({ from: 'Q1', to: 'Q2', lag: 960 }),
    makeLink({ from: 'Q2', to: 'Q3', type: 'SS' }),
    makeLink({ from: 'Q3', to: 'Q4', lag: 1440, lagCalendar: 'elapsed' }),
    makeLink({ from: 'Q4', to: 'Q5', type: 'FF', lag: -240 }),
    makeLink({ from: 'Q1', to: 'Q5' }),
  ],
});

/** `left` are problems that are right: what the format cannot hold. */
async function back(bytes: Uint8Array | string, name: string, left: string[] = []): Promise<Plan> {
  const data = typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes;
  const [table] = await readTables(data, name);
  const map = guessColumnMap(table!);
  const { plan, problems } = readPlan(table!, map, { name: PLAN.name });
  expect(problems.filter((p) => !left.includes(p.code))).toEqual([]);
  return plan;
}
const linkText = (l: Link) => `${l.from} ${l.to} ${l.type} ${l.lag} ${l.lagCalendar}`;
const calendarName = (plan: Plan, id: string | null) =>
  plan.calendars.find((c) => c.id === (id ?? plan.calendar))!.name;
const held = (plan: Plan, fields: (keyof Activity)[]) =>
  plan.activities.map((a) => [
    a.ref,
    calendarName(plan, a.calendar),
    // A group is written with the dates of what it holds.
    ...fields.map((f) => (a.kind === 'summary' && (f === 'start' || f === 'finish') ? null : a[f])),
  ]);
const ALL: (keyof Activity)[] = [
  'name',
  'kind',
  'parent',
  'start',
  'finish',
  'duration',
  'percent',
  'actualStart',
  'deadline',
  'constraint',
  'codes',
  'responsible',
  'effort',
  'cost',
  'notes',
];

describe('what is written is read back whole', () => {
  test.each([
    ['CSV', async () => back(writePlanCsv(PLAN), 'x.csv')],
    ['workbook', async () => back(await writePlanXlsx(PLAN), 'x.xlsx')],
  ])('%s: all that a table can hold', async (_, read) => {
    const plan = await read();
    expect(held(plan, ALL)).toEqual(held(PLAN, ALL));
    expect(plan.links.map(linkText).sort()).toEqual(PLAN.links.map(linkText).sort());
    expect(plan.codeFields.map((f) => f.name)).toEqual(['Zone']);
  });

  test('a model: tasks, their times, what holds what, sequences and calendars', async () => {
    const plan = await back(writePlanModel(PLAN, 0), 'x.ifc');
    const fields: (keyof Activity)[] = [
      'name',
      'parent',
      'start',
      'finish',
      'duration',
      'percent',
      'actualStart',
      'notes',
    ];
    // The calendar that all others use is that of no task in particular; a summary names none.
    const named = (p: Plan) => held(p, fields).map(([ref, , ...rest]) => [ref, ...rest]);
    expect(named(plan)).toEqual(named(PLAN));
    expect(plan.links.map((l) => `${l.from} ${l.to} ${l.type} ${l.lag}`).sort()).toEqual(
      PLAN.links.map((l) => `${l.from} ${l.to} ${l.type} ${l.lag}`).sort(),
    );
    const week = plan.calendars.find((c) => c.name === SIX_DAY.name)!;
    expect([week.week, week.minutesPerDay]).toEqual([SIX_DAY.week, SIX_DAY.minutesPerDay]);
  });

  test('a calendar: names, days, what holds what, categories and notes', async () => {
    const plan = await back(writePlanCalendar(PLAN, 0), 'x.ics');
    // A group lasts as long as what it holds; what has no date is in no calendar.
    const dated = PLAN.activities
      .filter((a) => a.ref !== 'Q6')
      .map((a) => (a.ref === 'Q' ? { ...a, ...at('2026-03-02', '2026-03-30') } : a));
    const days = (list: Activity[]) => list.map((a) => [a.ref, a.name, a.parent, a.finish, a.notes]).sort();
    expect(days(plan.activities)).toEqual(days(dated));
    expect(plan.activities.find((a) => a.ref === 'Q5')!.kind).toBe('finishMilestone');
  });

  test.each(demoPlans().map((p) => [p.current.name, p.current] as const))('%s as a workbook', async (_, demo) => {
    // A table names calendars and cannot say what they are.
    const plan = await back(await writePlanXlsx(demo), 'x.xlsx', ['unknownCalendar']);
    const fields: (keyof Activity)[] = ['name', 'kind', 'parent', 'start', 'finish', 'percent', 'responsible'];
    const bare = (p: Plan) => held(p, fields).map(([ref, , ...rest]) => [ref, ...rest]);
    // A milestone at the end of a day that is given by its start is read with both.
    const whole = demo.activities.map((a) =>
      a.kind === 'finishMilestone' && a.finish === null && a.start !== null ? { ...a, finish: a.start + 1440 } : a,
    );
    expect(bare(plan)).toEqual(bare({ ...demo, activities: whole }));
    expect(plan.links.length).toBe(demo.links.length);
  });
});

describe('what is written, beside readers that are not ours', () => {
  const folder = mkdtempSync(join(tmpdir(), 'clembo-out-'));
  const file = (name: string, bytes: Uint8Array | string) => {
    writeFileSync(join(folder, name), bytes);
    return join(folder, name);
  };
  const other = <T>(...args: string[]): T =>
    JSON.parse(
      execFileSync('/usr/bin/python3', [join(import.meta.dirname, 'readers.py'), ...args], { encoding: 'utf8' }),
    ) as T;

  test('openpyxl finds names, dates and numbers in the workbook, and no formula', async () => {
    const [sheet] = other<{ sheet: string; cells: unknown[][] }[]>('xlsx', file('x.xlsx', await writePlanXlsx(PLAN)));
    expect(sheet!.sheet).toBe('Quay “East”  works & ways');
    const [head, ...rows] = sheet!.cells as [string[], ...unknown[][]];
    const column = (name: string) => rows.map((row) => row[head.indexOf(name)]);
    expect(column('Name')).toEqual(PLAN.activities.map((a) => a.name));
    expect(column('Start')[1]).toEqual({ date: '2026-03-02' });
    expect(column('Finish')[1]).toEqual({ date: '2026-03-13' });
    expect(column('Budgeted cost')[1]).toBe(1234.5);
  });

  test('Python’s csv finds the same cells, and nothing that begins as a formula does', () => {
    const rows = other<string[][]>('csv', file('x.csv', writePlanCsv(PLAN)), 'utf-8-sig', ',');
    const name = rows[0]!.indexOf('Name');
    expect(rows.slice(1).map((r) => r[name])).toEqual(
      PLAN.activities.map((a) => (/^[=-]/.test(a.name) ? `'${a.name}` : a.name)),
    );
    expect(rows.flat().filter((c) => /^[=+@-]/.test(c))).toEqual([]);
  });

  test('icalendar finds the days', () => {
    const events = other<
      {
        uid: string;
        summary: string;
        start: { date: string } | null;
        end: { date: string } | null;
        due: { date: string } | null;
      }[]
    >('ics', file('x.ics', writePlanCalendar(PLAN, 0)));
    expect(events.map((e) => [e.uid, e.start?.date ?? null, e.end?.date ?? null, e.due?.date ?? null])).toEqual([
      ['Q', '2026-03-02', '2026-03-31', null],
      ['Q1', '2026-03-02', '2026-03-14', null],
      ['Q2', '2026-03-16', '2026-03-22', null],
      ['Q3', '2026-03-22', '2026-03-29', null],
      ['Q4', '2026-03-30', '2026-03-31', null],
      ['Q5', null, null, '2026-03-31'],
    ]);
    expect(events[1]!.summary).toBe(PLAN.activities[1]!.name);
  });
});
