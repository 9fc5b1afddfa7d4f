import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  boxShape,
  type BuildElement,
  FIVE_DAY,
  makeActivity,
  makeElement,
  makeField,
  makePlan,
  packGeometry,
  type Plan,
  STAYS,
} from '@clembo/core';
import {
  type Access,
  AccessRefused,
  changePlan,
  createPlan,
  createWorkspace,
  deleteModel,
  type KeptModel,
  keepModel,
  listModels,
  PlanGone,
  PlanRefused,
  putModel,
  readElements,
  readGeometry,
  readModelFile,
  readPlan,
  readWholePlan,
  refuseModel,
  type Store,
  takeModel,
} from '../src/index';
import { freshStore } from './freshStore';

let store: Store;
let access: Access;
let other: Access;
let planId: string;
const plan: Plan = makePlan({
  name: 'Station',
  calendars: [FIVE_DAY],
  calendar: FIVE_DAY.id,
  activities: [makeActivity({ ref: 'A', name: 'Walls' }), makeActivity({ ref: 'B', name: 'Roof' })],
});
const content = new TextEncoder().encode('the file');
const shape = boxShape([0, 0, 0], [1, 2, 3]);
const readOf = (elements: BuildElement[], more: Partial<KeptModel> = {}): KeptModel => ({
  elements,
  geometry: packGeometry({
    origin: [0, 0, 0],
    shapes: [shape],
    parts: elements.map((_, element) => ({ element, shape: 0, place: STAYS() })),
  }),
  assigned: [],
  notes: [],
  changes: null,
  ...more,
});
const elements = (key: string, n: number) =>
  Array.from({ length: n }, (_, k) =>
    makeElement({
      ref: `${key}/G${k}$`,
      name: `Wall ${k}\twith a tab, “quotes” and \\`,
      class: 'Wall',
      properties: { 'Work: Code': 'A', 'Set: Text': 'a "quoted"\nline' },
      classifications: ['B2010 Exterior Walls'],
      volume: k + 0.25,
    }),
  );

beforeAll(async () => {
  store = await freshStore('clembo_models');
  const workspace = async (name: string): Promise<Access> => ({
    workspace: await createWorkspace(store, name),
    person: null,
    role: 'owner',
  });
  access = await workspace('Ours');
  other = await workspace('Others');
  planId = await createPlan(store, access, plan, 'First');
});
afterAll(() => store.pool.end());

describe('models of a plan', () => {
  let model: string;

  test('a file waits to be read, and belongs to the plan from then on, as it was', async () => {
    const put = await putModel(store, access, planId, { file: 'Station.ifc', key: 'station', content });
    model = put.model;
    expect(await listModels(store, access, planId)).toEqual([]);
    expect(await readModelFile(store, access, model)).toEqual({
      file: 'Station.ifc',
      key: 'station',
      content,
      replaces: null,
    });
    const read = readOf(elements('station', 3), {
      assigned: [{ activity: 'A', name: 'Walls', elements: ['station/G0$'] }],
      notes: ['one note'],
    });
    await keepModel(store, access, model, read);
    expect(await readElements(store, access, model)).toEqual(read.elements);
    expect(Buffer.compare((await readGeometry(store, access, model))!, read.geometry)).toBe(0);
    expect(await readModelFile(store, access, model)).toBeNull();
    expect(await listModels(store, access, planId)).toMatchObject([
      { key: 'station', file: 'Station.ifc', elements: 3, taken: true, notes: ['one note'], assigned: read.assigned },
    ]);
  });

  test('nobody else sees or changes it', async () => {
    expect(await listModels(store, other, planId)).toBeNull();
    expect(await readElements(store, other, model)).toBeNull();
    expect(await readGeometry(store, other, model)).toBeNull();
    expect(await deleteModel(store, other, model)).toBe(false);
    await expect(takeModel(store, other, model)).rejects.toThrow(PlanGone);
    await expect(putModel(store, other, planId, { file: 'x', key: 'x', content })).rejects.toThrow(PlanGone);
    await expect(
      putModel(store, { ...access, role: 'viewer' }, planId, { file: 'x', key: 'x', content }),
    ).rejects.toThrow(AccessRefused);
  });

  test('another with the same name gets a key of its own; one that cannot be read leaves nothing', async () => {
    const { model: second } = await putModel(store, access, planId, { file: 'Station.ifc', key: 'station', content });
    expect((await readModelFile(store, access, second))!.key).toBe('station-2');
    await refuseModel(store, access, second);
    expect(await readModelFile(store, access, second)).toBeNull();
    // One that is read is not let go by that.
    await refuseModel(store, access, model);
    expect(await listModels(store, access, planId)).toHaveLength(1);
  });

  test('matches and codes are kept with the plan, and survive a newer model', async () => {
    const before = (await readPlan(store, access, planId))!;
    const match = { activity: 'A', effect: 'builds' as const, elements: ['station/G0$', 'station/G2$'] };
    const written = await changePlan(store, access, planId, before.version, { do: 'matchElements', match });
    expect((await readPlan(store, access, planId))!.plan.matches).toEqual([match]);
    const { model: newer } = await putModel(store, access, planId, { file: 'Newer.ifc', key: 'newer', content }, model);
    const held = (await readModelFile(store, access, newer))!;
    // It is the same model: identifiers stay behind the same key.
    expect([held.key, held.replaces]).toEqual(['station', model]);
    const changes = { added: [], changed: [], gone: [], same: 2 };
    await keepModel(store, access, newer, readOf(elements('station', 2), { changes }));
    expect((await listModels(store, access, planId))!.map((m) => [m.file, m.taken, m.changes?.same ?? null])).toEqual([
      ['Station.ifc', true, null],
      ['Newer.ifc', false, 2],
    ]);
    await takeModel(store, access, newer);
    await takeModel(store, access, newer);
    expect((await listModels(store, access, planId))!.map((m) => [m.file, m.taken, m.elements])).toEqual([
      ['Newer.ifc', true, 2],
    ]);
    // What no model has any more is remembered: it finds its work again when it is there again.
    expect((await readPlan(store, access, planId))!.plan.matches).toEqual([match]);
    await changePlan(store, access, planId, written!.version, written!.inverse);
    expect((await readPlan(store, access, planId))!.plan.matches).toEqual([]);
    model = newer;
  });

  test('what is no element, or a body of none, does not enter', async () => {
    const { model: odd } = await putModel(store, access, planId, { file: 'Odd.ifc', key: 'odd', content });
    const [one] = elements('odd', 1);
    await expect(keepModel(store, access, odd, readOf([{ ...one!, volume: -1 }]))).rejects.toThrow(
      'Element 1 cannot be kept (volume',
    );
    await expect(keepModel(store, access, odd, { ...readOf(elements('odd', 2)), elements: [one!] })).rejects.toThrow(
      PlanRefused,
    );
    await expect(keepModel(store, access, odd, { ...readOf([one!]), geometry: new Uint8Array(9) })).rejects.toThrow();
    await refuseModel(store, access, odd);
  });

  test('it goes into the one file with the plan, and out of the plan when it is removed', async () => {
    const whole = (await readWholePlan(store, access, planId))!;
    expect(whole.models.map((m) => [m.key, m.file, m.elements.length])).toEqual([['station', 'Newer.ifc', 2]]);
    expect(await deleteModel(store, access, model)).toBe(true);
    expect(await listModels(store, access, planId)).toEqual([]);
    const { rows } = await store.pool.query('select count(*)::int as n from build_element');
    expect(rows[0].n).toBe(0);
  });

  test('a plan with match rules and views is as it was', async () => {
    const { plan: ruled } = applyCommand(plan, {
      do: 'setPlan',
      settings: {
        matchRules: [
          { id: 'r', name: 'Walls', where: { match: 'all', tests: [] }, effect: 'removes', to: 'A', same: null },
        ],
        buildViews: [
          {
            id: 'v',
            name: 'Corner',
            look: { turn: 35, height: 30, perspective: true, middle: [1, 2, 3], span: 20, lift: 2, cut: 4 },
            where: { match: 'all', tests: [] },
            day: 20_000,
          },
        ],
      },
    });
    const id = await createPlan(
      store,
      access,
      {
        ...ruled,
        codeFields: [makeField({ id: 'z', name: 'Zone' })],
        elementCodes: [{ field: 'z', code: 'n', elements: ['m/1'] }],
      },
      'E',
    );
    const back = (await readPlan(store, access, id))!.plan;
    expect([back.matchRules, back.buildViews, back.elementCodes]).toEqual([
      ruled.matchRules,
      ruled.buildViews,
      [{ field: 'z', code: 'n', elements: ['m/1'] }],
    ]);
  });
});
