import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { saltmere } from '../../../demo/saltmere';
import {
  type Access,
  changePlan,
  createPlan,
  firstWorkspace,
  keepEdition,
  readPlan,
  readPlanAsColumns,
  type Store,
  StoreDamaged,
} from '../src/index';
import { LARGE, rowsOfColumns } from '../src/columns';
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
/** What is read without columns. */
async function fromRows(id: string) {
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
  await changePlan(store, ours, id, 1, { do: 'changeActivity', ref, part: { name: 'Otherwise' } }, null);
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
  await store.pool.query(`update edition_columns set content = '\\x00' where edition_id = $1`, [editionId]);
  expect((await readPlan(store, ours, id))!.plan).toEqual(plan);
  const again = await createPlan(store, ours, large(), 'Lost', []);
  const lost = (await readPlan(store, ours, again))!.editionId;
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
