import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { applyCommand, type Command, compareEditions, isSame, makeActivity, makeLink, type Plan } from '@clembo/core';
import pg from 'pg';
import { migrationsFolder } from '../src/database';
import { demoPlans } from '../../../demo/index';
import {
  type Access,
  AccessRefused,
  changePlan,
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
  orderKeys,
  PlanRefused,
  readExhibit,
  readIntake,
  readPlan,
  readPlanHead,
  type Store,
  updateExhibit,
  VersionPassed,
} from '../src/index';

const admin = process.env.CLEMBO_TEST_ADMIN!;
const url = process.env.CLEMBO_TEST_DATABASE!;
let store: Store;
let ours: Access;
let theirs: Access;
const accessTo = (workspace: string): Access => ({ workspace, person: null, role: 'owner' });

beforeAll(async () => {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  await client.query('drop database if exists clembo_store with (force)');
  await client.query('create database clembo_store');
  await client.end();
  store = openStore(url);
  await migrateStore(store);
  await migrateStore(store); // twice does no harm
  ours = accessTo((await firstWorkspace(store)).id);
  theirs = accessTo(await createWorkspace(store, 'Another'));
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
    expect(await changePlan(store, theirs, id, 1, { do: 'setPlan', settings: { name: 'Mine now' } })).toBeNull();
    expect(await deletePlan(store, theirs, id)).toBe(false);
    expect(await createExhibit(store, theirs, id, 'x', {})).toBeNull();
    expect((await listPlans(store, theirs)).length).toBe(0);
    const renamed = await changePlan(store, ours, id, 1, { do: 'setPlan', settings: { name: 'The move' } });
    expect(renamed).toEqual({ version: 2, inverse: { do: 'setPlan', settings: { name: 'Museum move' } } });
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

describe('the edge of the store', () => {
  test('nothing enters that the schema does not accept, and the words say where', async () => {
    const spoilt = (part: object): Plan => ({
      ...museum.current,
      activities: museum.current.activities.map((a, i) => (i === 3 ? { ...a, ...part } : a)),
    });
    const ref = museum.current.activities[3]!.ref;
    await expect(createPlan(store, ours, spoilt({ percent: 140 }), 'x')).rejects.toThrow(PlanRefused);
    await expect(createPlan(store, ours, spoilt({ percent: 140 }), 'x')).rejects.toThrow(`activity “${ref}”, percent`);
    const twice = spoilt({ ref: museum.current.activities[0]!.ref });
    await expect(createPlan(store, ours, twice, 'x')).rejects.toThrow('Activities 1 and 4 have the same reference');
  });

  test('a reader may look, but not change', async () => {
    const id = await createPlan(store, ours, museum.current, 'Now');
    const reader: Access = { ...ours, role: 'reader' };
    expect((await readPlan(store, reader, id))!.plan.name).toBe('Museum move');
    await expect(deletePlan(store, reader, id)).rejects.toThrow(AccessRefused);
    await expect(changePlan(store, reader, id, 1, { do: 'setPlan', settings: {} })).rejects.toThrow(AccessRefused);
    await deletePlan(store, ours, id);
  });

  test('a plan has one working edition, and a reference one activity in it', async () => {
    const id = await createPlan(store, ours, museum.current, 'Now');
    const other = `insert into edition (plan_id, name, working, calendar) values ($1, 'x', true, 'x')`;
    await expect(store.pool.query(other, [id])).rejects.toThrow('one_working_edition');
    const again = `insert into activity select (jsonb_populate_record(null::activity, to_jsonb(a))).* from activity a
      join edition e on e.id = a.edition_id where e.plan_id = $1 limit 1`;
    await expect(store.pool.query(again, [id])).rejects.toThrow('activity_edition_id_ref_pk');
    await deletePlan(store, ours, id);
  });
});

describe('commands', () => {
  const open = async () => {
    const id = await createPlan(store, ours, museum.current, 'Now');
    return { id, read: async () => (await readPlan(store, ours, id))! };
  };

  test('what core makes of a command is what the store holds; its inverse leads back', async () => {
    const { id, read } = await open();
    const [first, second, third] = museum.current.activities.filter((a) => a.kind === 'activity');
    const commands: Command[] = [
      { do: 'setPlan', settings: { source: 'computed', start: 29_000_160 } },
      { do: 'changeActivity', ref: first!.ref, part: { name: 'Renamed', duration: 960, codes: { team: 'Estates' } } },
      { do: 'addActivity', activity: makeActivity({ ref: 'NEW', name: 'New' }), before: second!.ref },
      { do: 'moveActivity', ref: third!.ref, before: first!.ref },
      { do: 'addLink', link: makeLink({ from: first!.ref, to: third!.ref, type: 'SS', lag: 480 }) },
      { do: 'removeActivity', ref: second!.ref },
    ];
    let plan = museum.current;
    const inverses: Command[] = [];
    for (const [k, command] of commands.entries()) {
      const done = (await changePlan(store, ours, id, k + 1, command))!;
      plan = applyCommand(plan, command).plan;
      expect(done.version).toBe(k + 2);
      expect((await read()).plan.activities).toEqual(plan.activities);
      expect(isSame(compareEditions((await read()).plan, plan))).toBe(true);
      inverses.unshift(done.inverse);
    }
    let version = commands.length + 1;
    for (const inverse of inverses) version = (await changePlan(store, ours, id, version, inverse))!.version;
    expect(isSame(compareEditions((await read()).plan, museum.current))).toBe(true);
    expect((await read()).plan.activities.map((a) => a.ref)).toEqual(museum.current.activities.map((a) => a.ref));
    await deletePlan(store, ours, id);
  });

  test('a write that meets a newer version is refused, and nothing is lost', async () => {
    const { id, read } = await open();
    const named = (name: string): Command => ({ do: 'setPlan', settings: { name } });
    const both = await Promise.allSettled([
      changePlan(store, ours, id, 1, named('One')),
      changePlan(store, ours, id, 1, named('Two')),
    ]);
    expect(both.map((b) => b.status).sort()).toEqual(['fulfilled', 'rejected']);
    const refused = both.find((b) => b.status === 'rejected') as PromiseRejectedResult;
    expect(refused.reason).toBeInstanceOf(VersionPassed);
    expect((await read()).version).toBe(2);
    expect(['One', 'Two']).toContain((await read()).plan.name);
    await deletePlan(store, ours, id);
  });

  test('a command that does not fit changes nothing', async () => {
    const { id, read } = await open();
    await expect(changePlan(store, ours, id, 1, { do: 'removeActivity', ref: 'Z' })).rejects.toThrow('no activity Z');
    expect((await read()).version).toBe(1);
    await deletePlan(store, ours, id);
  });

  test('keys between neighbours, and a sign when they run out', () => {
    expect(orderKeys([1024, null, 2048])).toEqual([1024, 1536, 2048]);
    expect(orderKeys([null, 1024])).toEqual([0, 1024]);
    expect(orderKeys([1024, null, null])).toEqual([1024, 2048, 3072]);
    expect(orderKeys([null, null])).toEqual([1024, 2048]);
    let list: (number | null)[] = [0, 1024];
    let times = 0;
    // Always between the same two: some fifty times, as long as the numbers can tell them apart.
    for (; times < 200; times++) {
      const keys = orderKeys([list[0]!, null, list[1]!]);
      if (!keys) break;
      list = [keys[1]!, list[1]!];
    }
    expect(times).toBeGreaterThan(40);
    expect(times).toBeLessThan(200);
  });
});

test('where an edition came from, and the row of every activity there', async () => {
  const rowOf = new Map(museum.current.activities.map((a, i) => [a.ref, i + 2]));
  const source = { name: 'move.xlsx', sheet: 'Plan', map: { columns: [] }, rowOf };
  const id = await createPlan(store, ours, museum.current, 'From move.xlsx', [], source);
  const read = (await readPlan(store, ours, id))!;
  expect(read.source).toMatchObject({ name: 'move.xlsx', sheet: 'Plan' });
  expect(read.rows[museum.current.activities[4]!.ref]).toBe(6);
  await deletePlan(store, ours, id);
});

test('a database of an earlier version keeps its plans: order from positions, references told apart', async () => {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  await client.query('drop database if exists clembo_store_old with (force)');
  await client.query('create database clembo_store_old');
  await client.end();
  const old = openStore(url.replace(/\/[^/]*$/, '/clembo_store_old'));
  const folder = migrationsFolder();
  const files = readdirSync(folder)
    .filter((f) => f.endsWith('.sql'))
    .sort();
  const run = async (names: string[]) => {
    for (const name of names)
      for (const statement of readFileSync(join(folder, name), 'utf8').split('--> statement-breakpoint'))
        await old.pool.query(statement);
  };
  await run(files.slice(0, 3));
  await old.pool.query(`
    insert into workspace (id, name) values ('00000000-0000-4000-8000-000000000001', 'w');
    insert into plan (id, workspace_id, name, source, in_hours, critical_float, retained_logic)
      values ('00000000-0000-4000-8000-000000000002', '00000000-0000-4000-8000-000000000001', 'p', 'given', false, 0, true);
    insert into edition (id, plan_id, name, working, calendar)
      values ('00000000-0000-4000-8000-000000000003', '00000000-0000-4000-8000-000000000002', 'e', true, 'five-day');
    insert into activity (edition_id, position, ref, name, kind, on_hold, codes, notes)
      select '00000000-0000-4000-8000-000000000003', k, case when k = 2 then 'A0' else 'A' || k end, 'n', 'activity', false, '{}', ''
      from generate_series(0, 3) k;
  `);
  await run(files.slice(3));
  const rows = await old.pool.query('select ref from activity order by order_key');
  expect(rows.rows.map((r) => r.ref)).toEqual(['A0', 'A1', 'A0 (2)', 'A3']);
  await old.pool.end();
});
