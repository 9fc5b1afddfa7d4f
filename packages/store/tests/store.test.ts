import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { sql } from 'drizzle-orm';
import { join } from 'node:path';
import {
  applyCommand,
  type Command,
  compareEditions,
  DEFAULT_TOLERANCE,
  isSame,
  FIVE_DAY,
  makeActivity,
  makeLink,
  packPlan,
  type Plan,
} from '@clembo/core';
import pg from 'pg';
import { migrationsFolder } from '../src/database';
import { keepColumnMap } from '../src/intakes';
import { demoPlans } from '../../../demo/index';
import {
  type Access,
  AccessRefused,
  askFor,
  cancelJob,
  cancelledOf,
  changeExhibit,
  changeSettings,
  changePlan,
  createExhibit,
  createIntake,
  createPlan,
  createWorkspace,
  deleteExhibit,
  deleteIntake,
  deletePlan,
  endJob,
  describeEdition,
  firstWorkspace,
  IntakeGone,
  JobCancelled,
  JobWatch,
  keepEdition,
  keepPlan,
  keepReading,
  keepRefresh,
  knownMaps,
  listExhibits,
  listIntakes,
  listPlans,
  listRefreshes,
  localeOf,
  type MadeOfIntake,
  type MadeRefresh,
  migrateStore,
  openStore,
  type NewSource,
  orderKeys,
  PlanGone,
  PlanRefused,
  readExhibit,
  readIntake,
  readIntakeFiles,
  readJob,
  readJobFile,
  readPlan,
  readPlanHead,
  readSource,
  reportJob,
  restoreExhibit,
  restorePlan,
  reviveJobs,
  type Store,
  StoreDamaged,
  takeJob,
  turnRefresh,
  VersionPassed,
  workOnEdition,
  type JobInput,
  orderExhibits,
  keepBrief,
  listKeptBriefs,
  dropBrief,
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

  test('a picture is kept without what it tells beside its pixels; what is none, or not whole, is refused by name', async () => {
    const id = await createPlan(store, ours, { ...museum.current, name: 'With a picture' }, 'Now', []);
    const chunk = (type: string, body: string) => {
      const length = Buffer.alloc(4);
      length.writeUInt32BE(body.length);
      return Buffer.concat([length, Buffer.from(type + body, 'latin1'), Buffer.from([1, 2, 3, 4])]);
    };
    const head = Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]);
    const url = (kind: string, bytes: Buffer) => `data:image/${kind};base64,${bytes.toString('base64')}`;
    const whole = [
      head,
      chunk('IHDR', '12'),
      chunk('tEXt', 'Author Ada, at the quay'),
      chunk('IDAT', '99'),
      chunk('IEND', ''),
    ];
    const put = (data: string, version: number) =>
      changePlan(store, ours, id, version, {
        do: 'setPicture',
        picture: { id: 'p', name: 'Map of the quay', data, width: 10, height: 10 },
      });
    await put(url('png', Buffer.concat(whole)), 1);
    const [kept] = (await readPlan(store, ours, id))!.plan.pictures;
    expect(Buffer.from(kept!.data.split(',')[1]!, 'base64').toString('latin1')).not.toContain('Ada');
    expect(kept!.data).toBe(url('png', Buffer.concat(whole.filter((_, k) => k !== 2))));
    for (const wrong of [
      url('jpeg', Buffer.concat(whole)),
      url('png', Buffer.concat(whole.slice(0, 4))),
      url('png', Buffer.from('<svg onload="alert(1)"/>')),
    ])
      await expect(put(wrong, 2)).rejects.toThrow(/The picture “Map of the quay” cannot be kept: it is/);
    expect((await readPlan(store, ours, id))!.plan.pictures).toEqual([kept]);
    await deletePlan(store, ours, id);
  });

  test('tolerance, currency and the unit of effort are kept; what nobody said is as usual', async () => {
    const bounds = { watch: 1, breach: 2 };
    const tolerance = { days: bounds, effort: bounds, cost: bounds };
    const said = {
      ...museum.current,
      tolerance,
      tolerances: [{ field: 'project', code: 'X', tolerance: DEFAULT_TOLERANCE }],
      currency: 'EUR',
      effortDay: 450,
    };
    const id = await createPlan(store, ours, said, 'now');
    expect((await readPlan(store, ours, id))!.plan).toEqual(said);
    const settings = { tolerance: DEFAULT_TOLERANCE, currency: null };
    await changePlan(store, ours, id, 1, { do: 'setPlan', settings });
    expect((await readPlan(store, ours, id))!.plan).toMatchObject({ ...settings, effortDay: 450 });
    await store.pool.query('update plan set tolerance = null where id = $1', [id]);
    expect((await readPlan(store, ours, id))!.plan.tolerance).toEqual(DEFAULT_TOLERANCE);
  });

  test('editions that are kept together stand in their order', async () => {
    const names = ['one', 'two', 'three', 'four'];
    const kept = names.map((name) => ({ name, plan: wall.baseline }));
    const id = await createPlan(store, ours, wall.current, 'now', kept);
    const read = (await readPlan(store, ours, id))!;
    expect(read.editions.map((e) => e.name)).toEqual(['now', ...names.toReversed()]);
    expect(read.editions.find((e) => e.baseline)!.name).toBe('one');
  });

  test('a workspace writes numbers in a notation of its own', async () => {
    expect(await localeOf(store, ours)).toBe('en-GB');
    await changeSettings(store, ours, { locale: 'de-DE' });
    expect([await localeOf(store, ours), await localeOf(store, theirs)]).toEqual(['de-DE', 'en-GB']);
    await changeSettings(store, ours, { locale: 'en-GB' });
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
    expect(renamed).toMatchObject({ version: 2, inverse: { do: 'setPlan', settings: { name: 'Museum move' } } });
    expect((await listPlans(store, ours))[0]).toMatchObject({ name: 'The move', activities: 74 });
  });
});

const change = (access: Access, id: string, version: number, what: Parameters<typeof changeExhibit>[4]) =>
  changeExhibit(store, access, id, version, what, (brief) => brief as object);

describe('two people on one exhibit', () => {
  let id: string;
  beforeAll(async () => {
    const plan = await createPlan(store, ours, museum.current, museum.currentEdition);
    id = (await createExhibit(store, ours, plan, 'One', { kind: 'timeline', rows: 'packed', level: null }))!;
  });

  test('keep what both have chosen where it is about different parts', async () => {
    expect(await change(ours, id, 1, { brief: { rows: 'each' } })).toMatchObject({ version: 2 });
    const merged = await change(ours, id, 1, { brief: { level: 3 }, name: 'Together' });
    expect(merged).toEqual({
      name: 'Together',
      brief: { kind: 'timeline', rows: 'each', level: 3 },
      version: 3,
    });
  });

  test('are told of each other where it is about the same, and nothing is overwritten', async () => {
    const late = change(ours, id, 1, { brief: { rows: 'packed' } });
    await expect(late).rejects.toThrow('Someone else has changed the rows of this exhibit meanwhile');
    await expect(late).rejects.toMatchObject({ parts: ['rows'], now: { version: 3 } });
    // The same choice is no conflict.
    expect(await change(ours, id, 1, { brief: { rows: 'each' } })).toMatchObject({ version: 3 });
    expect((await readExhibit(store, ours, id))!.brief).toEqual({ kind: 'timeline', rows: 'each', level: 3 });
  });

  test('at the same moment get an answer each, and versions that count on', async () => {
    const at = (await readExhibit(store, ours, id))!.version;
    const all = await Promise.allSettled(
      Array.from({ length: 8 }, (_, k) => change(ours, id, at, { brief: { title: `Number ${k}` } })),
    );
    expect(all.filter((r) => r.status === 'fulfilled').length).toBe(1);
    expect((await readExhibit(store, ours, id))!.version).toBe(at + 1);
  });

  test('who add exhibits at once give each a place of its own', async () => {
    const plan = await createPlan(store, ours, museum.current, museum.currentEdition);
    await Promise.all(Array.from({ length: 8 }, (_, k) => createExhibit(store, ours, plan, `E${k}`, {})));
    const { rows } = await store.pool.query('select position from exhibit where plan_id = $1 order by 1', [plan]);
    expect(rows.map((r) => r.position)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  });
});

test('what is deleted can be brought back, by its own workspace only', async () => {
  const plan = await createPlan(store, ours, museum.current, museum.currentEdition);
  const exhibit = (await createExhibit(store, ours, plan, 'One', {}))!;
  expect(await deleteExhibit(store, ours, exhibit)).toBe(true);
  expect(await readExhibit(store, ours, exhibit)).toBeNull();
  expect(await restoreExhibit(store, theirs, exhibit)).toBe(false);
  expect(await restoreExhibit(store, ours, exhibit)).toBe(true);
  expect(await deletePlan(store, ours, plan)).toBe(true);
  expect(await deletePlan(store, ours, plan)).toBe(false);
  expect(await readPlan(store, ours, plan)).toBeNull();
  expect(await readExhibit(store, ours, exhibit)).toBeNull();
  expect((await listPlans(store, ours)).some((p) => p.id === plan)).toBe(false);
  expect(await restorePlan(store, theirs, plan)).toBe(false);
  expect(await restorePlan(store, ours, plan)).toBe(true);
  expect((await readPlan(store, ours, plan))!.plan).toEqual(museum.current);
});

test('an edition that has lost some of its rows is not shown as if it were whole', async () => {
  const id = await createPlan(store, ours, museum.current, museum.currentEdition);
  const { editionId, plan } = (await readPlan(store, ours, id))!;
  await store.pool.query('delete from activity where edition_id = $1 and ref = $2', [
    editionId,
    plan.activities[5]!.ref,
  ]);
  await expect(readPlan(store, ours, id)).rejects.toThrow(StoreDamaged);
  await expect(readPlan(store, ours, id)).rejects.toThrow(
    `was kept with ${plan.activities.length} activities, and ${plan.activities.length - 1} are found`,
  );
});

test('exhibits are kept in order, changed and deleted, by their own workspace only', async () => {
  const plan = await createPlan(store, ours, museum.current, museum.currentEdition);
  const first = (await createExhibit(store, ours, plan, 'One', { kind: 'timeline' }))!;
  const second = (await createExhibit(store, ours, plan, 'Two', { kind: 'timeline' }))!;
  expect((await listExhibits(store, ours, plan)).map((e) => e.name)).toEqual(['One', 'Two']);
  expect(await change(theirs, first, 1, { name: 'Theirs' })).toBeNull();
  expect(await change(ours, first, 1, { brief: { level: 2 } })).toMatchObject({ version: 2 });
  expect((await readExhibit(store, ours, first))!.brief).toEqual({ kind: 'timeline', level: 2 });
  expect(await readExhibit(store, theirs, first)).toBeNull();
  expect(await deleteExhibit(store, theirs, second)).toBe(false);
  expect(await deleteExhibit(store, ours, second)).toBe(true);
  await deletePlan(store, ours, plan);
  expect(await readExhibit(store, ours, first)).toBeNull();
});

test('intakes and column maps stay in their workspace', async () => {
  const content = Uint8Array.from([0, 255, 10, 13]);
  const { intake, job } = await createIntake(store, ours, [{ name: 'x.csv', content }]);
  expect(await readIntakeFiles(store, ours, intake)).toEqual([{ name: 'x.csv', content }]);
  expect(await readIntakeFiles(store, theirs, intake)).toEqual([]);
  expect(await readIntake(store, theirs, intake)).toBeNull();
  expect(await readJob(store, ours, job)).toMatchObject({ state: 'waiting', result: null });
  expect(await readJob(store, theirs, job)).toBeNull();
  expect(await listIntakes(store, ours)).toEqual([]);
  await keepReading(store, ours, intake, { state: {}, preview: { rows: 3 } });
  expect((await listIntakes(store, ours)).map((i) => i.source)).toEqual(['x.csv']);
  expect(await deleteIntake(store, theirs, intake)).toBe(false);
  await keepColumnMap(store.db, ours, ['Name', 'Start '], { first: true });
  await keepColumnMap(store.db, ours, ['name', 'start'], { second: true });
  expect(await knownMaps(store, ours)).toEqual([{ second: true }]);
  expect(await knownMaps(store, theirs)).toEqual([]);
});

const origin = (name: string, sheet: string | null = null): NewSource => ({
  name,
  sheet,
  map: null,
  content: null,
  aliases: {},
  problems: [],
});

describe('editions', () => {
  test('are named, noted, kept as they stand, measured against, and worked on again without loss', async () => {
    const id = await createPlan(store, ours, museum.current, 'Now', [{ name: 'Promised', plan: museum.baseline }]);
    const editions = async () => (await readPlan(store, ours, id))!.editions;
    const promised = (await editions()).find((e) => !e.working)!;
    expect(promised.baseline).toBe(true);
    const kept = (await keepEdition(store, ours, id, 'Before the talk', 'as agreed'))!;
    expect(await keepEdition(store, theirs, id, 'x')).toBeNull();
    expect(await describeEdition(store, theirs, id, kept, { name: 'x' })).toBe(false);
    expect(await describeEdition(store, ours, id, kept, { name: 'Talk', baseline: true })).toBe(true);
    expect((await editions()).find((e) => e.id === kept)).toMatchObject({
      name: 'Talk',
      note: 'as agreed',
      baseline: true,
    });
    expect((await editions()).find((e) => e.id === promised.id)!.baseline).toBe(false);

    const was = (await readPlan(store, ours, id))!;
    expect(await workOnEdition(store, theirs, id, promised.id, 'x')).toBeNull();
    expect(await workOnEdition(store, ours, id, promised.id, 'Set aside')).toEqual({ version: was.version + 1 });
    const now = (await readPlan(store, ours, id))!;
    expect(compareEditions(now.plan, museum.baseline)).toMatchObject({ added: [], removed: [], changed: [] });
    const aside = (await editions()).find((e) => e.name === 'Set aside')!;
    expect(isSame(compareEditions((await readPlan(store, ours, id, aside.id))!.plan, was.plan))).toBe(true);
    // And back again.
    await workOnEdition(store, ours, id, aside.id, 'Promised again');
    expect(isSame(compareEditions((await readPlan(store, ours, id))!.plan, was.plan))).toBe(true);
    await deletePlan(store, ours, id);
  });
});

describe('a refresh', () => {
  const begin = async (plan: string) =>
    (await createIntake(store, ours, [{ name: 'week 2.csv', content: Uint8Array.of(1) }], plan)).intake;
  const [first, second, third] = museum.current.activities;
  /** One renamed, one gone, one new. */
  const after = (): Plan => ({
    ...museum.current,
    activities: [
      { ...first!, name: 'Renamed' },
      ...museum.current.activities.slice(1).filter((a) => a.ref !== third!.ref),
      { ...second!, ref: 'new one', name: 'New', parent: null },
    ].map((a) => (a.parent === third!.ref ? { ...a, parent: null } : a)),
    links: museum.current.links.filter((l) => l.from !== third!.ref && l.to !== third!.ref),
  });
  const made = (version: number): MadeRefresh => ({
    version,
    after: after(),
    name: 'week 2.csv',
    counts: { accepted: 3, refused: 1 },
    origin: { sources: [origin('week 2.csv')], placeOf: new Map([[second!.ref, [0, 9] as const]]) },
    maps: [],
  });

  test('is one step: the edition before is kept, it can be taken back and done again, and later edits stay', async () => {
    const id = await createPlan(store, ours, museum.current, 'Week 1');
    const intake = await begin(id);
    await expect(createIntake(store, theirs, [{ name: 'x', content: Uint8Array.of(1) }], id)).rejects.toThrow(PlanGone);
    await expect(keepRefresh(store, ours, intake, made(7))).rejects.toThrow(VersionPassed);
    await expect(keepRefresh(store, theirs, intake, made(1))).rejects.toThrow(IntakeGone);
    expect(await keepRefresh(store, ours, intake, made(1))).toBe(id);
    // Asked for again, it leads to the same.
    expect(await keepRefresh(store, ours, intake, made(1))).toBe(id);
    const now = (await readPlan(store, ours, id))!;
    expect(isSame(compareEditions(now.plan, after()))).toBe(true);
    expect(now.edition).toBe('week 2.csv');
    expect(now.rows[second!.ref]).toEqual([1, 9]);
    const before = now.editions.find((e) => e.name === 'Week 1')!;
    expect(isSame(compareEditions((await readPlan(store, ours, id, before.id))!.plan, museum.current))).toBe(true);

    const [done] = await listRefreshes(store, ours, id);
    expect(done).toMatchObject({ name: 'week 2.csv', undone: false, counts: { accepted: 3, refused: 1 } });
    await changePlan(store, ours, id, now.version, {
      do: 'changeActivity',
      ref: second!.ref,
      part: { notes: 'by hand' },
    });
    expect(await turnRefresh(store, theirs, id, done!.id, true)).toBeNull();
    expect(await turnRefresh(store, ours, id, done!.id, true)).toMatchObject({ left: 0 });
    const back = (await readPlan(store, ours, id))!.plan;
    const names = (plan: Plan) => plan.activities.map((a) => a.name).sort();
    expect(names(back)).toEqual(names(museum.current));
    expect(back.links.length).toBe(museum.current.links.length);
    expect(back.activities.find((a) => a.ref === second!.ref)!.notes).toBe('by hand');

    await turnRefresh(store, ours, id, done!.id, false);
    expect(names((await readPlan(store, ours, id))!.plan)).toEqual(names(after()));
    await deletePlan(store, ours, id);
  });
});

describe('an intake that becomes a plan', () => {
  const made = (plan: Plan): MadeOfIntake => ({
    plan: packPlan(plan),
    edition: 'x.csv',
    kept: [{ name: 'Baseline in the source', plan: packPlan(museum.baseline) }],
    origin: { sources: [origin('x.csv')], placeOf: new Map([[plan.activities[0]!.ref, [0, 2] as const]]) },
    exhibit: { name: 'Overview', brief: { kind: 'timeline' } },
    maps: [{ headings: ['only here'], map: { kept: true } }],
  });
  const begin = async () => (await createIntake(store, ours, [{ name: 'x.csv', content: Uint8Array.of(1) }])).intake;

  test('asked for three times at once is one plan', async () => {
    const id = await begin();
    const before = (await listPlans(store, ours)).length;
    const ids = await Promise.all([1, 2, 3].map(() => keepPlan(store, ours, id, made(museum.current))));
    expect(new Set(ids).size).toBe(1);
    expect((await listPlans(store, ours)).length).toBe(before + 1);
    expect((await listExhibits(store, ours, ids[0]!)).length).toBe(1);
    expect(await readIntake(store, ours, id)).toMatchObject({ planId: ids[0] });
  });

  test('leaves nothing behind when any part of it fails', async () => {
    const id = await begin();
    const before = await listPlans(store, ours);
    // A brief that the database cannot hold comes last.
    const wrong = { ...made(museum.current), exhibit: { name: 'x', brief: { title: 'a\u0000b' } } };
    wrong.maps = [{ headings: ['never'], map: { never: true } }];
    await expect(keepPlan(store, ours, id, wrong)).rejects.toThrow();
    expect(await listPlans(store, ours)).toEqual(before);
    expect(await knownMaps(store, ours)).not.toContainEqual({ never: true });
    expect(await readIntake(store, ours, id)).toMatchObject({ planId: null });
  });

  test('by a job that was cancelled meanwhile becomes none; one that was not ends with it', async () => {
    const id = await begin();
    const wish = { name: 'x', strict: false, start: null };
    const job = await askFor(store, ours, { kind: 'makePlan', intake: id, wish });
    await takeJob(store, job, 'worker');
    expect(await cancelJob(store, ours, job)).toBe(true);
    const before = await listPlans(store, ours);
    await expect(keepPlan(store, ours, id, made(museum.current), job)).rejects.toThrow(JobCancelled);
    expect(await listPlans(store, ours)).toEqual(before);
    expect(await readIntake(store, ours, id)).toMatchObject({ planId: null });

    const again = await askFor(store, ours, { kind: 'makePlan', intake: id, wish });
    await takeJob(store, again, 'worker');
    const planId = await keepPlan(store, ours, id, made(museum.current), again);
    expect(await readJob(store, ours, again)).toMatchObject({ state: 'done', result: { planId } });
  });

  test('whose reading is cancelled goes with it', async () => {
    const { intake, job } = await createIntake(store, ours, [{ name: 'x.csv', content: Uint8Array.of(1) }]);
    expect(await cancelJob(store, theirs, job)).toBe(false);
    expect(await readIntake(store, ours, intake)).not.toBeNull();
    expect(await cancelJob(store, ours, job)).toBe(true);
    expect(await readIntake(store, ours, intake)).toBeNull();
  });

  test('of another workspace, or one that was let go, becomes none', async () => {
    const id = await begin();
    await expect(keepPlan(store, theirs, id, made(museum.current))).rejects.toThrow(IntakeGone);
    await deleteIntake(store, ours, id);
    await expect(keepPlan(store, ours, id, made(museum.current))).rejects.toThrow(IntakeGone);
  });
});

describe('jobs', () => {
  const NOBODY = '00000000-0000-4000-8000-000000000000';
  const page: JobInput = { kind: 'writePages', exhibits: [NOBODY], format: 'pdf' };

  test('are taken up, report, and end once', async () => {
    const id = await askFor(store, ours, page);
    expect(await takeJob(store, id, 'worker one')).toMatchObject({ input: page, access: ours });
    await reportJob(store, id, 'Composing the page', 0.3);
    expect(await readJob(store, ours, id)).toMatchObject({ state: 'running', step: 'Composing the page' });
    await endJob(store.db, id, { result: { file: 'a.pdf' }, file: Uint8Array.of(1, 2) });
    await endJob(store.db, id, { error: 'too late' });
    expect(await readJob(store, ours, id)).toMatchObject({ state: 'done', error: null });
    expect(await readJobFile(store, ours, id)).toEqual(Uint8Array.of(1, 2));
    expect(await readJobFile(store, theirs, id)).toBeNull();
    expect(await cancelJob(store, ours, id)).toBe(false);
    expect(await takeJob(store, id, 'worker two')).toBeNull();
  });

  test('that were asked for in a way that is no more end in words', async () => {
    const id = await askFor(store, ours, page);
    await store.db.execute(sql`update job set input = '{"kind":"writePage","exhibit":"x"}' where id = ${id}`);
    expect(await takeJob(store, id, 'worker one')).toBeNull();
    expect(await readJob(store, ours, id)).toMatchObject({
      state: 'failed',
      error: expect.stringContaining('updated'),
    });
  });

  test('that were cancelled are not done, whatever comes of them', async () => {
    const id = await askFor(store, ours, page);
    expect(await cancelJob(store, theirs, id)).toBe(false);
    expect(await cancelJob(store, ours, id)).toBe(true);
    expect(await takeJob(store, id, 'worker')).toBeNull();
    await endJob(store.db, id, { result: 1 });
    expect(await readJob(store, ours, id)).toMatchObject({ state: 'cancelled', result: null });
    expect(await cancelledOf(store, [id])).toEqual([id]);
  });

  test('tell those who wait of every change', async () => {
    const watch = new JobWatch(url);
    const id = await askFor(store, ours, page);
    // The first wait opens the connection.
    await watch.changed(id, 2000);
    const began = Date.now();
    const changed = watch.changed(id, 60_000);
    await takeJob(store, id, 'worker');
    await changed;
    expect(Date.now() - began).toBeLessThan(10_000);
    await watch.end();
  });

  test('of a process that is gone go back to the queue, and fail in words when that goes on', async () => {
    const id = await askFor(store, ours, page);
    const lose = async (isSpent = false) => {
      await store.pool.query(
        `update graphile_worker._private_jobs set locked_at = now() - interval '1 minute', locked_by = 'gone',
           attempts = attempts + 1 where key = $1`,
        [id],
      );
      await takeJob(store, id, 'gone');
      await store.pool.query(`update job set seen_at = now() - interval '1 minute' where id = $1`, [id]);
      const { revived, spent } = await reviveJobs(store);
      expect([revived, spent.map((j) => j.id)]).toEqual(isSpent ? [0, [id]] : [1, []]);
    };
    await lose();
    expect(await readJob(store, ours, id)).toMatchObject({ state: 'waiting' });
    const { rows } = await store.pool.query('select locked_by from graphile_worker.jobs where key = $1', [id]);
    expect(rows).toEqual([{ locked_by: null }]);
    await lose();
    await lose(true);
    expect(await readJob(store, ours, id)).toMatchObject({ state: 'failed' });
    expect((await readJob(store, ours, id))!.error).toContain('begun 3 times');
    expect(await reviveJobs(store)).toEqual({ revived: 0, spent: [] });
  });

  test('may not be asked for by a reader where they change something', async () => {
    const reader: Access = { ...ours, role: 'viewer' };
    await expect(askFor(store, reader, { kind: 'correctIntake', intake: NOBODY, change: {} })).rejects.toThrow(
      AccessRefused,
    );
    await expect(askFor(store, reader, page)).resolves.toMatch(/-/);
  });
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
    const reader: Access = { ...ours, role: 'viewer' };
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
  const placeOf = new Map(museum.current.activities.map((a, i) => [a.ref, [i % 2, i + 2] as const]));
  const sources = [origin('move.xlsx', 'Plan'), origin('move.xlsx', 'More')];
  const id = await createPlan(store, ours, museum.current, 'From move.xlsx', [], { sources, placeOf });
  const read = (await readPlan(store, ours, id))!;
  expect(read.sources.map((s) => [s.no, s.name, s.sheet])).toEqual([
    [2, 'move.xlsx', 'More'],
    [1, 'move.xlsx', 'Plan'],
  ]);
  expect(read.rows[museum.current.activities[4]!.ref]).toEqual([1, 6]);
  expect(read.rows[museum.current.activities[5]!.ref]).toEqual([2, 7]);
  expect((await readSource(store, ours, id, 2))!.sheet).toBe('More');
  expect(await readSource(store, theirs, id, 2)).toBeNull();
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
    insert into calendar (edition_id, key, position, spec)
      values ('00000000-0000-4000-8000-000000000003', 'five-day', 0, '${JSON.stringify(FIVE_DAY)}');
    insert into link (edition_id, position, from_ref, to_ref, type, lag, lag_calendar)
      values ('00000000-0000-4000-8000-000000000003', 0, 'A1', 'A3', 'FS', 480, 'successor');
    insert into code_field (plan_id, key, name, position)
      values ('00000000-0000-4000-8000-000000000002', 'zone', 'Zone', 0);
    insert into code_value (plan_id, field, position, code, title)
      values ('00000000-0000-4000-8000-000000000002', 'zone', 0, 'N', 'North');
    update activity set codes = '{"zone": "N"}' where ref = 'A3';
  `);
  const parts = files.findIndex((f) => f.includes('parts_of_plans'));
  await run(files.slice(3, parts));
  const pictures = ['b', 'a'].map((id) => ({
    id,
    name: id,
    data: `data:image/png;base64,${id}AAA`,
    width: 1,
    height: 2,
  }));
  await old.pool.query(
    'update plan set pictures = $1, matches = $2, element_codes = $3',
    [
      pictures,
      [
        { activity: 'A1', effect: 'builds', elements: ['m/2', 'm/1'] },
        { activity: 'A0', effect: 'builds', elements: ['m/3'] },
        { activity: 'A1', effect: 'builds', elements: ['m/2', 'm/B'] },
      ],
      [{ field: 'zone', code: 'N', elements: ['m/9'] }],
    ].map((value) => JSON.stringify(value)),
  );
  await run(files.slice(parts));
  const rows = await old.pool.query('select ref from activity order by order_key');
  expect(rows.rows.map((r) => r.ref)).toEqual(['A0', 'A1', 'A0 (2)', 'A3']);
  const [planId, workspace] = ['00000000-0000-4000-8000-000000000002', '00000000-0000-4000-8000-000000000001'];
  const { plan } = (await readPlan(old, accessTo(workspace), planId))!;
  expect(plan.activities.map((a) => [a.ref, a.codes])).toEqual([
    ['A0', {}],
    ['A1', {}],
    ['A0 (2)', {}],
    ['A3', { zone: 'N' }],
  ]);
  expect(plan).toMatchObject({
    calendars: [FIVE_DAY],
    links: [{ from: 'A1', to: 'A3', lag: 480 }],
    codeFields: [{ id: 'zone', values: [{ code: 'N', title: 'North' }] }],
    pictures,
    matches: [
      { activity: 'A0', effect: 'builds', elements: ['m/3'] },
      { activity: 'A1', effect: 'builds', elements: ['m/1', 'm/2', 'm/B'] },
    ],
    elementCodes: [{ field: 'zone', code: 'N', elements: ['m/9'] }],
  });
  // And it goes on.
  const written = await changePlan(old, accessTo(workspace), planId, 1, { do: 'removeActivity', ref: 'A1' });
  const after = (await readPlan(old, accessTo(workspace), planId))!.plan;
  expect([written!.version, after.links, after.matches.map((m) => m.activity)]).toEqual([2, [], ['A0']]);
  await old.pool.end();
});

describe('exhibits in their order', () => {
  const brief = { kind: 'timeline' };

  test('stand as they were put, those that were not named behind; only in a plan of one’s own', async () => {
    const plan = await createPlan(store, ours, { ...museum.current, name: 'In order' }, 'First');
    const ids: string[] = [];
    for (const name of ['a', 'b', 'c', 'd']) ids.push((await createExhibit(store, ours, plan, name, brief))!);
    const names = async () => (await listExhibits(store, ours, plan)).map((e) => e.name);
    expect(await orderExhibits(store, ours, plan, [ids[2]!, ids[0]!])).toBe(true);
    expect(await names()).toEqual(['c', 'a', 'b', 'd']);
    expect(await orderExhibits(store, theirs, plan, [ids[3]!])).toBe(false);
    expect(await names()).toEqual(['c', 'a', 'b', 'd']);
    // A new one comes last, whatever the order was.
    await createExhibit(store, ours, plan, 'e', brief);
    expect((await names()).at(-1)).toBe('e');
    const reader: Access = { ...ours, role: 'viewer' };
    await expect(orderExhibits(store, reader, plan, ids)).rejects.toThrow(AccessRefused);
  });
});

describe('kept briefs', () => {
  test('are one of a name, those of the workspace alone, and can be let go of by it alone', async () => {
    const fields = { zone: 'Zone' };
    await keepBrief(store, ours, { name: 'Board', brief: { kind: 'timeline', level: 1 }, fields });
    await keepBrief(store, ours, { name: 'Board', brief: { kind: 'timeline', level: 2 }, fields });
    const [kept, ...others] = (await listKeptBriefs(store, ours)).filter((b) => b.name === 'Board');
    expect([kept!.brief, kept!.fields, others]).toEqual([{ kind: 'timeline', level: 2 }, fields, []]);
    expect((await listKeptBriefs(store, theirs)).map((b) => b.id)).not.toContain(kept!.id);
    expect(await dropBrief(store, theirs, kept!.id)).toBe(false);
    expect(await dropBrief(store, ours, kept!.id)).toBe(true);
    expect(await dropBrief(store, ours, kept!.id)).toBe(false);
    const reader: Access = { ...ours, role: 'viewer' };
    await expect(keepBrief(store, reader, { name: 'No', brief: {}, fields })).rejects.toThrow(AccessRefused);
  });
});
