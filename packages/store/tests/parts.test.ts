import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { type Command, FIVE_DAY, makeActivity, makeField, makeLink, makePlan, type Plan } from '@clembo/core';
import { HeldEditions } from '../src/held';
import { type Access, changePlan, createPlan, firstWorkspace, readPlan, type Store, turnChange } from '../src/index';
import { freshStore } from './freshStore';

let store: Store;
let ada: Access;

beforeAll(async () => {
  store = await freshStore('clembo_parts');
  ada = { workspace: (await firstWorkspace(store)).id, person: 'Ada', role: 'owner' };
});
afterAll(() => store.pool.end());

/** The smallest picture there is. */
const PIXEL =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
const picture = (id: string) => ({ id, name: id, data: PIXEL, width: 1, height: 1 });
const plan = (): Plan =>
  makePlan({
    name: 'Parts',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    codeFields: [makeField({ id: 'zone', name: 'Zone' })],
    activities: ['A', 'B', 'C'].map((ref) => makeActivity({ ref })),
    links: [makeLink({ from: 'A', to: 'B' }), makeLink({ from: 'A', to: 'B' }), makeLink({ from: 'B', to: 'C' })],
    pictures: ['p1', 'p2', 'p3'].map(picture),
    matches: [{ activity: 'A', effect: 'builds', elements: ['m/1', 'm/2'] }],
    elementCodes: [{ field: 'zone', code: 'N', elements: ['m/1'] }],
  });

/** Transactions that wrote a row, by its table: what was left alone has the mark of its first one. */
async function marks(id: string): Promise<Record<string, string>> {
  const { rows } = await store.pool.query<{ of: string; mark: string }>(
    `select 'picture ' || key as of, xmin::text as mark from plan_picture where plan_id = $1
     union all select 'match ' || activity || ' ' || effect, xmin::text from element_match where plan_id = $1`,
    [id],
  );
  return Object.fromEntries(rows.map(({ of, mark }) => [of, mark]));
}

describe('what is large of a plan', () => {
  test('is kept row by row: in its order, and what nobody changed is not written again', async () => {
    const id = await createPlan(store, ada, plan(), 'x');
    const before = await marks(id);
    const commands: Command[] = [
      { do: 'changeActivity', ref: 'B', part: { name: 'Bank' } },
      { do: 'matchElements', match: { activity: 'B', effect: 'removes', elements: ['m/3'] } },
      { do: 'setPicture', picture: { ...picture('p3'), name: 'third' }, before: 'p1' },
      { do: 'removePicture', id: 'p2' },
      { do: 'codeElements', field: 'zone', codes: [['m/1', 'S']] },
      { do: 'removeLink', link: makeLink({ from: 'A', to: 'B' }) },
    ];
    for (const [k, command] of commands.entries()) await changePlan(store, ada, id, k + 1, command);
    const { plan: now } = (await readPlan(store, ada, id))!;
    expect(now.pictures.map((p) => [p.id, p.name])).toEqual([
      ['p3', 'third'],
      ['p1', 'p1'],
    ]);
    expect(now.matches).toEqual([
      { activity: 'A', effect: 'builds', elements: ['m/1', 'm/2'] },
      { activity: 'B', effect: 'removes', elements: ['m/3'] },
    ]);
    expect(now.elementCodes).toEqual([{ field: 'zone', code: 'S', elements: ['m/1'] }]);
    expect(now.links).toEqual([makeLink({ from: 'A', to: 'B' }), makeLink({ from: 'B', to: 'C' })]);
    const after = await marks(id);
    expect(after['match A builds']).toBe(before['match A builds']);
    expect(Object.keys(after).sort()).toEqual(['match A builds', 'match B removes', 'picture p1', 'picture p3']);
    // All of it is taken back.
    for (let version = commands.length + 1; version <= 2 * commands.length; version++)
      await turnChange(store, ada, id, version, true);
    const { plan: back } = (await readPlan(store, ada, id))!;
    expect(back.pictures).toEqual(plan().pictures);
    expect([back.matches, back.elementCodes]).toEqual([plan().matches, plan().elementCodes]);
    expect(back.links).toHaveLength(3);
  });

  test('a rename writes none of it', async () => {
    const id = await createPlan(store, ada, plan(), 'x');
    const before = await marks(id);
    await changePlan(store, ada, id, 1, { do: 'setPlan', settings: { name: 'Other' } });
    await changePlan(store, ada, id, 2, { do: 'changeActivity', ref: 'A', part: { name: 'Other' } });
    expect(await marks(id)).toEqual(before);
  });

  test('that came in several groups of one key is one group', async () => {
    const matches = [
      { activity: 'B', effect: 'builds' as const, elements: ['m/9', 'm/1'] },
      { activity: 'A', effect: 'builds' as const, elements: ['m/1'] },
      { activity: 'B', effect: 'builds' as const, elements: ['m/1', 'm/2'] },
    ];
    const id = await createPlan(store, ada, { ...plan(), matches }, 'x');
    expect((await readPlan(store, ada, id))!.plan.matches).toEqual([
      { activity: 'A', effect: 'builds', elements: ['m/1'] },
      { activity: 'B', effect: 'builds', elements: ['m/1', 'm/2', 'm/9'] },
    ]);
  });
});

test('what a process holds is bounded by bytes: pictures count, and what was used longest ago goes first', () => {
  const held = new HeldEditions(4_000_000);
  const large = { ...plan(), pictures: [{ ...picture('p'), data: 'x'.repeat(1_500_000) }] };
  for (const id of ['a', 'b']) held.put(id, 1, large);
  expect(held.get('a', 1)).toBe(large);
  held.put('c', 1, large);
  expect([held.get('a', 1), held.get('b', 1), held.get('c', 1), held.get('c', 2)]).toEqual([large, null, large, null]);
  held.put('c', 2, plan());
  held.put('d', 1, large);
  expect(['a', 'd'].map((id) => held.get(id, 1))).toEqual([large, large]);
});
