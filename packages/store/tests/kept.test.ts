import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { type Command, FIVE_DAY, makeActivity, makeLink, makePlan, type Plan, startOfDay } from '@clembo/core';
import {
  type Access,
  changePlan,
  createPlan,
  firstWorkspace,
  keepEdition,
  listEditions,
  listPlanChanges,
  readPlan,
  readPlanAsColumns,
  readPlanMark,
  readTurns,
  type Store,
  turnChange,
  TurnRefused,
  turnTo,
  VersionPassed,
  workOnEdition,
} from '../src/index';
import { freshStore } from './freshStore';

let store: Store;
let ada: Access;
let bob: Access;

beforeAll(async () => {
  store = await freshStore('clembo_kept');
  const { id: workspace } = await firstWorkspace(store);
  ada = { workspace, person: 'Ada', account: 'a', role: 'owner' };
  bob = { workspace, person: 'Bob', account: 'b', role: 'editor' };
});
afterAll(() => store.pool.end());

const DAY = 20_500;
/** A plan of so many rows; its status date says how many. */
const rowsOf = (count: number): Plan =>
  makePlan({
    name: 'Kept',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    statusDate: startOfDay(DAY + count),
    activities: Array.from({ length: count }, (_, k) => makeActivity({ ref: `R${k}`, name: `Row ${k}` })),
  });
const rename = (ref: string, name: string): Command => ({ do: 'changeActivity', ref, part: { name } });
/** One more row, and the status date that says so. */
const grow = (count: number): Command => ({
  do: 'all',
  commands: [
    { do: 'addActivity', activity: makeActivity({ ref: `R${count}`, name: `Row ${count}` }), before: null },
    { do: 'setPlan', settings: { statusDate: startOfDay(DAY + count + 1) } },
  ],
});
const isOfOneState = (plan: Plan) => plan.statusDate === startOfDay(DAY + plan.activities.length);

describe('what is read is of one state', () => {
  test.each([300, 2100])(
    '%i rows, read and kept while somebody adds to them',
    async (count) => {
      const id = await createPlan(store, ada, rowsOf(count), 'x');
      const until = Date.now() + 4000;
      let [version, reads, kept] = [1, 0, 0];
      const write = async () => {
        for (let n = count; Date.now() < until; n++)
          version = (await changePlan(store, ada, id, version, grow(n)))!.version;
      };
      const read = async () => {
        while (Date.now() < until) {
          const { plan } = (await readPlan(store, bob, id))!;
          expect(isOfOneState(plan)).toBe(true);
          reads++;
        }
      };
      const columns = async () => {
        while (Date.now() < until) {
          const found = (await readPlanAsColumns(store, bob, id))!;
          const { activities } = JSON.parse(found.columns) as { activities: { count: number } };
          expect(found.plan.statusDate).toBe(startOfDay(DAY + activities.count));
          reads++;
        }
      };
      const keep = async () => {
        for (; Date.now() < until; kept++) await keepEdition(store, bob, id, `Kept ${kept}`);
      };
      await Promise.all([write(), read(), columns(), keep()]);
      expect(Math.min(version, reads, kept)).toBeGreaterThan(1);
      for (const { id: edition, working } of (await listEditions(store, ada, id))!) {
        const { plan } = (await readPlan(store, ada, id, edition))!;
        expect([working, isOfOneState(plan)]).toEqual([working, true]);
      }
      // An edition says which version it is of: with each version a row was added.
      const { rows } = await store.pool.query<{ of: number; count: number }>(
        `select of_version as of, activity_count as count from edition where plan_id = $1 and not working`,
        [id],
      );
      for (const { of, count: held } of rows) expect(held).toBe(count + of - 1);
    },
    60_000,
  );

  test('what is read says of which state it is', async () => {
    const id = await createPlan(store, ada, rowsOf(3), 'x');
    const mark = await readPlanMark(store, ada, id);
    expect((await readPlan(store, ada, id))!.mark).toBe(mark);
    await changePlan(store, ada, id, 1, rename('R1', 'Other'));
    expect((await readPlan(store, ada, id))!.mark).not.toBe(mark);
  });

  test('an edition that is not whole is not kept', async () => {
    const id = await createPlan(store, ada, rowsOf(4), 'x');
    await store.pool.query(
      `delete from activity where ref = 'R2' and edition_id in (select id from edition where plan_id = $1)`,
      [id],
    );
    await expect(keepEdition(store, ada, id, 'Contract')).rejects.toThrow(
      'was kept with 4 activities, and 3 are found',
    );
    expect(await listEditions(store, ada, id)).toHaveLength(1);
  });
});

describe('taking back', () => {
  const names = async (id: string) => (await readPlan(store, ada, id))!.plan.activities.map((a) => a.name);

  test('is for what one did oneself; what others did stays', async () => {
    const id = await createPlan(store, ada, rowsOf(3), 'x');
    await changePlan(store, ada, id, 1, rename('R0', 'Ada'));
    await changePlan(store, bob, id, 2, rename('R1', 'Bob'));
    expect(await readTurns(store, bob, id)).toEqual({ undo: 'Rename R1', redo: null });
    expect((await turnChange(store, ada, id, 3, true))!.words).toBe('Rename R0');
    expect(await names(id)).toEqual(['Row 0', 'Bob', 'Row 2']);
    // What Bob does next takes nothing from what Ada can do again.
    await changePlan(store, bob, id, 4, rename('R2', 'Bob too'));
    expect(await readTurns(store, ada, id)).toEqual({ undo: null, redo: 'Rename R0' });
    await turnChange(store, ada, id, 5, false);
    expect(await names(id)).toEqual(['Ada', 'Bob', 'Bob too']);
    // A point of the history is one for all.
    await turnTo(store, bob, id, 6, 0);
    expect(await names(id)).toEqual(['Row 0', 'Row 1', 'Row 2']);
  });

  test('is refused where somebody else has changed the same since', async () => {
    const id = await createPlan(store, ada, rowsOf(2), 'x');
    await changePlan(store, ada, id, 1, rename('R0', 'Ada'));
    await changePlan(store, bob, id, 2, rename('R0', 'Bob'));
    await expect(turnChange(store, ada, id, 3, true)).rejects.toThrow(TurnRefused);
    await expect(turnChange(store, ada, id, 3, true)).rejects.toThrow('Bob has changed the same since (“Rename R0”)');
    await turnChange(store, bob, id, 3, true);
    await turnChange(store, ada, id, 4, true);
    expect(await names(id)).toEqual(['Row 0', 'Row 1']);
  });

  test('ends where another edition is worked on: its history is of something else', async () => {
    const id = await createPlan(store, ada, rowsOf(2), 'x');
    const kept = (await keepEdition(store, ada, id, 'Before'))!;
    await changePlan(store, ada, id, 1, rename('R0', 'Later'));
    await changePlan(store, ada, id, 2, rename('R1', 'Later'));
    await turnChange(store, ada, id, 3, true);
    await workOnEdition(store, ada, id, kept, 'What was worked on');
    expect(await readTurns(store, ada, id)).toEqual({ undo: null, redo: null });
    expect([await turnChange(store, ada, id, 5, true), await turnChange(store, ada, id, 5, false)]).toEqual([
      null,
      null,
    ]);
    expect(await turnTo(store, ada, id, 5, 0)).toBeNull();
    expect(await names(id)).toEqual(['Row 0', 'Row 1']);
    await changePlan(store, ada, id, 5, rename('R0', 'New'));
    expect((await listPlanChanges(store, ada, id)).map((c) => [c.words, c.reachable])).toEqual([
      ['Rename R0', true],
      ['Work goes on from “Before”', true],
      ['Rename R0', false],
    ]);
    expect((await turnChange(store, ada, id, 6, true))!.words).toBe('Rename R0');
    expect(await turnChange(store, ada, id, 7, true)).toBeNull();
  });
});

describe('changes that each fit, but not one another', () => {
  const put = (ref: string, part: object): Command => ({ do: 'changeActivity', ref, part });
  test('are refused to whoever comes later, in words', async () => {
    const id = await createPlan(store, ada, rowsOf(4), 'x');
    // Both are made on the first version, and are about different things.
    await changePlan(store, ada, id, 1, put('R0', { parent: 'R1' }));
    await expect(changePlan(store, bob, id, 1, put('R1', { parent: 'R0' }))).rejects.toThrow(
      'a group that is in itself',
    );
    await changePlan(store, ada, id, 2, { do: 'removeActivity', ref: 'R2' });
    await expect(changePlan(store, bob, id, 2, put('R3', { parent: 'R2' }))).rejects.toThrow(VersionPassed);
    await expect(changePlan(store, bob, id, 3, put('R3', { parent: 'R2' }))).rejects.toThrow(
      'The group “R2” of activity “R3” is not in the plan (any more).',
    );
    await expect(
      changePlan(store, bob, id, 3, { do: 'addLink', link: makeLink({ from: 'R3', to: 'nothing' }) }),
    ).rejects.toThrow('needs activity “nothing”');
    for (const part of [
      { calendar: 'no-such' },
      { codes: { crew: 'A' } },
      { assignments: [{ resource: 'rig', effort: 1 }] },
    ])
      await expect(changePlan(store, bob, id, 3, put('R3', part))).rejects.toThrow('is not in the plan (any more)');
    expect((await readPlan(store, ada, id))!.version).toBe(3);
  });
});

describe('a request that is sent again', () => {
  const request = '6f1b7a52-0c52-4b8e-9b0e-1d7b7e0c1a11';
  const another = '6f1b7a52-0c52-4b8e-9b0e-1d7b7e0c1a12';

  test('has one effect, and the same answer', async () => {
    const id = await createPlan(store, ada, rowsOf(2), 'x');
    const first = await changePlan(store, ada, id, 1, rename('R0', 'One'), { request });
    // Meanwhile others go on; it does not collide with itself.
    await changePlan(store, bob, id, 2, rename('R1', 'Bob'));
    expect(await changePlan(store, ada, id, 1, rename('R0', 'One'), { request })).toEqual(first);
    await changePlan(store, ada, id, 3, rename('R0', 'Two'));
    const back = await turnChange(store, ada, id, 4, true, another);
    expect(await turnChange(store, ada, id, 4, true, another)).toEqual(back);
    const { plan, version } = (await readPlan(store, ada, id))!;
    expect([version, plan.activities.map((a) => a.name)]).toEqual([5, ['One', 'Bob']]);
    // The same id in another plan is another request.
    const other = await createPlan(store, ada, rowsOf(2), 'y');
    expect((await changePlan(store, ada, other, 1, rename('R0', 'Three'), { request }))!.version).toBe(2);
  });
});
