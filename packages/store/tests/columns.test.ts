import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type PackedPlan, packPlan } from '@clembo/core';
import { saltmere } from '../../../demo/saltmere';
import {
  type Access,
  changePlan,
  createPlan,
  firstWorkspace,
  keepEdition,
  listComments,
  listPlans,
  readPlan,
  readPlanAsColumns,
  sayComment,
  settleOwed,
  type Store,
  StoreDamaged,
} from '../src/index';
import { acceptPacked } from '../src/accept';
import { columnsText, LARGE, rowsOfColumns } from '../src/columns';
import { freshStore } from './freshStore';

/** A large edition is kept once more as columns: what is read from them is what its rows hold, or they are not used. */

let store: Store;
let ours: Access;
beforeAll(async () => {
  store = await freshStore('clembo_columns');
  ours = { workspace: (await firstWorkspace(store)).id, person: 'Ann', role: 'owner' };
});
afterAll(() => store.pool.end());

/** The demo plan many times over, with all that its activities have. */
function large() {
  const plan = saltmere().current('2026-01-12', '2026-09-14');
  const times = Math.ceil(LARGE / plan.activities.length);
  const named = (ref: string | null, k: number) => ref && `${k}.${ref}`;
  return {
    ...plan,
    activities: Array.from({ length: times }, (_, k) =>
      plan.activities.map((a) => ({ ...a, ref: named(a.ref, k)!, parent: named(a.parent, k) })),
    ).flat(),
    links: Array.from({ length: times }, (_, k) =>
      plan.links.map((l) => ({ ...l, from: named(l.from, k)!, to: named(l.to, k)! })),
    ).flat(),
    matches: [],
  };
}

const versionsKept = async (): Promise<number[]> =>
  (await store.pool.query('select version from edition_columns order by version')).rows.map((r) => r.version);
const later = () => new Date(Date.now() + 60_000);
const rowsOf = async (plan: string): Promise<number> =>
  (
    await store.pool.query(
      'select count(*)::int as n from activity a join edition e on e.id = a.edition_id where plan_id = $1',
      [plan],
    )
  ).rows[0].n;
/** What is read without columns. */
async function fromRows(id: string) {
  await settleOwed(store, later());
  await store.pool.query('delete from edition_columns');
  return (await readPlan(store, ours, id))!;
}

test('what is read from columns is what the rows hold, also after a change and in an edition that is kept', async () => {
  const plan = large();
  const id = await createPlan(store, ours, plan, 'First', []);
  expect(await versionsKept()).toEqual([1]);
  const read = (await readPlan(store, ours, id))!;
  const asColumns = (await readPlanAsColumns(store, ours, id))!;
  const rows = await fromRows(id);
  expect(read).toEqual(rows);
  expect(read.plan).toEqual(plan);
  expect({ ...asColumns.plan, ...rowsOfColumns(asColumns.columns) }).toEqual({ ...rows.plan, rows: rows.rows });

  // Whoever reads rows for a screen leaves them as columns for the next one.
  await readPlanAsColumns(store, ours, id);
  while ((await versionsKept()).length === 0) await new Promise((r) => setTimeout(r, 20));
  const { ref } = plan.activities[5]!;
  await changePlan(store, ours, id, 1, { do: 'changeActivity', ref, part: { name: 'Otherwise' } });
  expect(await versionsKept()).toEqual([1]);
  const changed = (await readPlan(store, ours, id))!;
  expect(changed.plan.activities[5]!.name).toBe('Otherwise');
  expect((await readPlanAsColumns(store, ours, id))!.columns).toContain('Otherwise');
  while ((await versionsKept())[0] !== 2) await new Promise((r) => setTimeout(r, 20));
  expect(await readPlan(store, ours, id)).toEqual(changed);

  await keepEdition(store, ours, id, 'As promised', '');
  const kept = (await readPlan(store, ours, id))!.editions.find((e) => e.name === 'As promised')!;
  expect((await readPlan(store, ours, id, kept.id))!.plan).toEqual(changed.plan);
}, 60_000);

test('columns that are damaged are not used, and rows that are gone are noticed behind whole columns', async () => {
  const id = await createPlan(store, ours, large(), 'Damaged', []);
  const { editionId, plan } = (await readPlan(store, ours, id))!;
  await settleOwed(store, later());
  await store.pool.query(`update edition_columns set content = '\\x00' where edition_id = $1`, [editionId]);
  expect((await readPlan(store, ours, id))!.plan).toEqual(plan);
  const again = await createPlan(store, ours, large(), 'Lost', []);
  const lost = (await readPlan(store, ours, again))!.editionId;
  await settleOwed(store, later());
  await store.pool.query('delete from activity where edition_id = $1 and ref = $2', [lost, plan.activities[7]!.ref]);
  await expect(readPlan(store, ours, again)).rejects.toThrow(StoreDamaged);
  await expect(readPlanAsColumns(store, ours, again)).rejects.toThrow(StoreDamaged);
}, 60_000);

test('a plan that is not large has none', async () => {
  const before = await versionsKept();
  const plan = saltmere().current('2026-01-12', '2026-09-14');
  const id = await createPlan(store, ours, plan, 'Small', []);
  const { columns } = (await readPlanAsColumns(store, ours, id))!;
  expect(rowsOfColumns(columns)).toEqual({ activities: plan.activities, links: plan.links, rows: {} });
  expect(await versionsKept()).toEqual(before);
});

test('rows are owed at first: what was just made is left alone, then they are written once, by whoever comes', async () => {
  const plan = large();
  const promised = { ...plan, activities: plan.activities.slice(0, LARGE), links: [] };
  const id = await createPlan(store, ours, plan, 'Owing', [{ name: 'Promised', plan: promised }]);
  const summary = async () => {
    const { updatedAt: _, ...rest } = (await listPlans(store, ours)).find((p) => p.id === id)!;
    return rest;
  };
  const owing = await summary();
  expect(owing.activities).toBe(plan.activities.filter((a) => a.kind !== 'summary').length);
  expect(await settleOwed(store, new Date())).toBe(0);
  expect(await rowsOf(id)).toBe(0);

  // Two at once, and both editions.
  const counts = await Promise.all([settleOwed(store, later()), settleOwed(store, later())]);
  expect(Math.max(...counts)).toBe(2);
  expect(await rowsOf(id)).toBe(plan.activities.length + LARGE);
  expect(await summary()).toEqual(owing);
  expect(await settleOwed(store, later())).toBe(0);
  const { editionId, editions } = (await readPlan(store, ours, id))!;
  await store.pool.query('delete from edition_columns');
  expect((await readPlan(store, ours, id, editionId))!.plan).toEqual(plan);
  const kept = editions.find((e) => !e.working)!;
  expect((await readPlan(store, ours, id, kept.id))!.plan).toEqual(promised);
}, 60_000);

test('the first change and the first comment find the rows that they need, and where they come from', async () => {
  const plan = large();
  const [first, second] = plan.activities;
  const source = { name: 'works.csv', sheet: null, map: null, content: null, aliases: {}, problems: [] };
  const placeOf = new Map([[second!.ref, [0, 17] as const]]);
  const id = await createPlan(store, ours, plan, 'Changed', [], { sources: [source], placeOf });
  expect((await readPlan(store, ours, id))!.rows).toEqual({ [second!.ref]: [1, 17] });
  const said = { exhibitId: null, answers: null, text: 'Why?', named: [] };
  await expect(sayComment(store, ours, id, { ...said, ref: 'nowhere' })).rejects.toThrow('no activity nowhere');
  expect(await rowsOf(id)).toBe(0);
  await changePlan(store, ours, id, 1, { do: 'changeActivity', ref: first!.ref, part: { name: 'Otherwise' } });
  expect(await rowsOf(id)).toBe(plan.activities.length);
  expect((await fromRows(id)).rows).toEqual({ [second!.ref]: [1, 17] });
  expect((await readPlan(store, ours, id))!.plan.activities[0]!.name).toBe('Otherwise');

  const other = await createPlan(store, ours, plan, 'Spoken of', []);
  await sayComment(store, ours, other, { ...said, ref: first!.ref });
  expect((await listComments(store, ours, other))!.map((c) => c.activity)).toEqual([first!.name]);
}, 60_000);

test('an edition that owes its rows and has lost its columns is said to be damaged', async () => {
  const id = await createPlan(store, ours, large(), 'Lost', []);
  const { editionId } = (await readPlan(store, ours, id))!;
  await store.pool.query(`update edition_columns set content = '\\x00' where edition_id = $1`, [editionId]);
  for (const work of [
    () => readPlan(store, ours, id),
    () => changePlan(store, ours, id, 1, { do: 'setPlan', settings: { name: 'Other' } }),
    () => settleOwed(store, later()),
  ])
    await expect(work()).rejects.toThrow(StoreDamaged);
}, 60_000);

test('a plan as columns is refused in words, with its places, and nothing of it is kept', () => {
  const plan = packPlan(large());
  const { activities } = plan;
  const broken = (change: object): unknown => ({ ...plan, activities: { ...activities, ...change } });
  const names = activities.each.name as string[];
  const ref = activities.each.ref![3];
  for (const [data, words] of [
    [broken({ count: -1 }), 'activities, count'],
    [broken({ count: activities.count + 1 }), `is given for ${activities.count} of ${activities.count + 1}`],
    [broken({ same: null }), 'activities, same'],
    [broken({ each: { ...activities.each, name: 'all' } }), 'activities, each, name'],
    [broken({ each: { ...activities.each, name: names.map((n, k) => (k === 3 ? 5 : n)) } }), `activity “${ref}”, name`],
    [broken({ each: { ...activities.each, name: names.map((n, k) => (k === 3 ? 'a\0' : n)) } }), `“${ref}”, name`],
    [broken({ same: { ...activities.same, onHold: 'perhaps' } }), 'onHold'],
    [
      broken({ each: { ...activities.each, ref: activities.each.ref!.map((r, k) => (k === 3 ? names[0] : r)) } }),
      'needs activity',
    ],
    [broken({ each: { ...activities.each, ref: activities.each.ref!.map(() => 'A') } }), 'Activities 1 and 2 have'],
    [{ ...plan, name: '' }, 'name'],
  ] as const) {
    expect(() => acceptPacked(data as PackedPlan)).toThrow(words);
  }
  expect(acceptPacked(broken({ each: { ...activities.each, extra: [1] } }) as PackedPlan)).toEqual(plan);
});

test('a reference may be a word that every object answers to', () => {
  const [first] = saltmere().current('2026-01-12', '2026-09-14').activities;
  const activities = ['__proto__', 'constructor', 'A'].map((ref) => ({ ...first!, ref, parent: null }));
  const rows = Object.fromEntries(activities.map(({ ref }, k) => [ref, [1, k + 2] as const]));
  const read = rowsOfColumns(columnsText({ activities, links: [], rows }));
  expect(Object.entries(read.rows)).toEqual(Object.entries(rows));
});
