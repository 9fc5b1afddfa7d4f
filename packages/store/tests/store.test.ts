import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { makeActivity, type Plan } from '@clembo/core';
import pg from 'pg';
import { demoPlans } from '../../../demo/index';
import {
  createExhibit,
  createIntake,
  createPlan,
  createWorkspace,
  deleteExhibit,
  deletePlan,
  findColumnMap,
  firstWorkspace,
  keepColumnMap,
  listExhibits,
  listPlans,
  migrateStore,
  openStore,
  readExhibit,
  readIntake,
  readPlan,
  readPlanHead,
  renamePlan,
  type Store,
  updateExhibit,
} from '../src/index';

const admin = process.env.CLEMBO_TEST_ADMIN!;
const url = process.env.CLEMBO_TEST_DATABASE!;
let store: Store;
let ours: string;
let theirs: string;

beforeAll(async () => {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  await client.query('drop database if exists clembo_store with (force)');
  await client.query('create database clembo_store');
  await client.end();
  store = openStore(url);
  await migrateStore(store);
  await migrateStore(store); // twice does no harm
  ours = (await firstWorkspace(store)).id;
  theirs = await createWorkspace(store, 'Another');
});
afterAll(() => store.pool.end());

const [wall, museum] = demoPlans() as [ReturnType<typeof demoPlans>[number], ReturnType<typeof demoPlans>[number]];

describe('plans', () => {
  test('come back as they were kept, with their editions', async () => {
    const id = await createPlan(store, ours, wall.current, wall.currentEdition, [
      { name: wall.baselineEdition, plan: wall.baseline },
    ]);
    const read = (await readPlan(store, ours, id))!;
    expect(read.plan).toEqual(wall.current);
    expect(read.edition).toBe(wall.currentEdition);
    const kept = read.editions.find((e) => !e.working)!;
    const baseline = (await readPlan(store, ours, id, kept.id))!.plan;
    expect(baseline.activities).toEqual(wall.baseline.activities);
    expect(await readPlanHead(store, ours, id)).toMatchObject({
      name: 'Saltmere sea wall',
      version: 1,
      statusDate: wall.current.statusDate,
    });
  });

  test('text that COPY gives a meaning comes back unharmed', async () => {
    const odd = ['a\tb', 'line\nbreak\r', 'back\\slash \\N', '\\.', 'Ünïcödé – 防波堤 🌊', '"quoted", \'too\'', ''];
    const plan: Plan = {
      ...wall.current,
      activities: odd.map((name, i) =>
        makeActivity({ ref: `R${i}\t\\`, name, codes: { phase: name }, notes: name, responsible: [name] }),
      ),
      links: [],
    };
    const id = await createPlan(store, ours, plan, 'Odd');
    expect((await readPlan(store, ours, id))!.plan.activities).toEqual(plan.activities);
    await deletePlan(store, ours, id);
  });

  test('everything that an activity and a plan can hold comes back', async () => {
    const plan: Plan = {
      ...museum.current,
      percentShown: 'effort',
      retainedLogic: false,
      criticalFloat: 480,
      lines: [
        {
          id: 'ramp',
          name: 'Ramp',
          unit: 'm',
          from: -5_000,
          to: 40_000,
          stations: [{ name: 'Door', at: 0 }],
          zones: [{ name: 'Hall', from: 0, to: 20_000 }],
          windows: [{ name: 'Opening hours', from: 0, to: 40_000, start: 29_000_000, finish: 29_001_440 }],
        },
      ],
      activities: [
        makeActivity({
          ref: 'A',
          line: 'ramp',
          from: 0,
          to: 40_000,
          occupies: true,
          rate: 12.5,
          crews: 2,
          rates: [{ from: 0, to: 20_000, perDay: 7.25 }],
          stretches: [
            { start: 29_000_160, finish: 29_001_440 },
            { start: 29_004_480, finish: 29_005_760 },
          ],
          constraint: { kind: 'fixedFinish', moment: 29_005_760 },
          deadline: 29_007_200,
          percent: 33.3,
          remaining: 960,
          onHold: true,
          responsible: ['One', 'Two'],
          quantity: 0.1,
          cost: -250,
        }),
        makeActivity({ ref: 'B' }),
      ],
      links: [{ from: 'A', to: 'B', type: 'SF', lag: -720, lagCalendar: 'elapsed' }],
    };
    const id = await createPlan(store, ours, plan, 'Whole');
    expect((await readPlan(store, ours, id))!.plan).toEqual(plan);
    await deletePlan(store, ours, id);
  });

  test('an edition of another plan is not read by way of one’s own', async () => {
    const [a, b] = await Promise.all(
      [ours, theirs].map((w) => createPlan(store, w, museum.current, 'Now', [{ name: 'Then', plan: museum.baseline }])),
    );
    const foreign = (await readPlan(store, theirs, b!))!.editions;
    expect(foreign.map((e) => e.name).sort()).toEqual(['Now', 'Then']);
    for (const e of foreign) expect(await readPlan(store, ours, a!, e.id)).toBeNull();
    await deletePlan(store, ours, a!);
    expect((await readPlan(store, theirs, b!))!.plan.activities.length).toBe(museum.current.activities.length);
    await deletePlan(store, theirs, b!);
  });

  test('a plan that cannot be written leaves nothing behind', async () => {
    const before = (await listPlans(store, ours)).length;
    const twice = { ...museum.current, calendars: [museum.current.calendars[0]!, museum.current.calendars[0]!] };
    await expect(createPlan(store, ours, twice, 'x')).rejects.toThrow();
    expect((await listPlans(store, ours)).length).toBe(before);
  });

  test('belong to their workspace', async () => {
    const id = await createPlan(store, ours, museum.current, museum.currentEdition);
    expect(await readPlan(store, theirs, id)).toBeNull();
    expect(await readPlanHead(store, theirs, id)).toBeNull();
    expect(await renamePlan(store, theirs, id, 'Mine now')).toBe(false);
    expect(await deletePlan(store, theirs, id)).toBe(false);
    expect(await createExhibit(store, theirs, id, 'x', {})).toBeNull();
    expect((await listPlans(store, theirs)).length).toBe(0);
    expect(await renamePlan(store, ours, id, 'The move')).toBe(true);
    expect((await listPlans(store, ours))[0]).toMatchObject({ name: 'The move', activities: 74 });
  });
});

test('exhibits are kept in order, changed and deleted, by their own workspace only', async () => {
  const plan = await createPlan(store, ours, museum.current, museum.currentEdition);
  const first = (await createExhibit(store, ours, plan, 'One', { kind: 'timeline' }))!;
  const second = (await createExhibit(store, ours, plan, 'Two', { kind: 'timeline' }))!;
  expect((await listExhibits(store, ours, plan)).map((e) => e.name)).toEqual(['One', 'Two']);
  expect(await updateExhibit(store, theirs, first, { name: 'Theirs' })).toBe(false);
  expect(await updateExhibit(store, ours, first, { brief: { kind: 'timeline', level: 2 } })).toBe(true);
  expect((await readExhibit(store, ours, first))!.brief).toEqual({ kind: 'timeline', level: 2 });
  expect(await readExhibit(store, theirs, first)).toBeNull();
  expect(await deleteExhibit(store, theirs, second)).toBe(false);
  expect(await deleteExhibit(store, ours, second)).toBe(true);
  await deletePlan(store, ours, plan);
  expect(await readExhibit(store, ours, first)).toBeNull();
});

test('intakes and column maps stay in their workspace', async () => {
  const content = Uint8Array.from([0, 255, 10, 13]);
  const id = await createIntake(store, ours, { source: 'x.csv', content, sheet: null, map: { a: 1 } });
  expect((await readIntake(store, ours, id))!.content).toEqual(content);
  expect(await readIntake(store, theirs, id)).toBeNull();
  await keepColumnMap(store, ours, ['Name', 'Start '], { first: true });
  await keepColumnMap(store, ours, ['name', 'start'], { second: true });
  expect(await findColumnMap(store, ours, ['NAME', 'START'])).toEqual({ second: true });
  expect(await findColumnMap(store, theirs, ['name', 'start'])).toBeNull();
});
