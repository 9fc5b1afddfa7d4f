import { afterAll, beforeAll, expect, test } from '@jest/globals';
import {
  type Access,
  AccessRefused,
  changeFolio,
  createFolio,
  createWorkspace,
  deleteFolio,
  FolioPassed,
  listFolios,
  noteWritten,
  readFolio,
  restoreFolio,
  type Store,
} from '../src/index';
import { freshStore } from './freshStore';

let store: Store;
let ours: Access;
let theirs: Access;
beforeAll(async () => {
  store = await freshStore('clembo_folios');
  const access = async (name: string): Promise<Access> => ({
    workspace: await createWorkspace(store, name),
    person: null,
    role: 'owner',
  });
  [ours, theirs] = [await access('Ours'), await access('Theirs')];
});
afterAll(() => store.pool.end());

test('a folio is kept, changed by whoever saw its last state, and put away for a while', async () => {
  const id = await createFolio(store, ours, 'Board', { pages: [] });
  expect(await readFolio(store, ours, id)).toMatchObject({
    name: 'Board',
    content: { pages: [] },
    version: 1,
    written: null,
  });
  expect(await changeFolio(store, ours, id, 1, 'Board, May', { pages: ['x'] })).toBe(2);
  // Whoever still looks at the first state is told, with how it stands.
  const passed = changeFolio(store, ours, id, 1, 'Mine', { pages: ['y'] });
  await expect(passed).rejects.toThrow(FolioPassed);
  await passed.catch((e: FolioPassed) => expect(e.now).toMatchObject({ name: 'Board, May', version: 2 }));
  await noteWritten(store, ours, id, { p: 7 });
  expect((await readFolio(store, ours, id))!.written).toMatchObject({ versions: { p: 7 } });
  expect(await deleteFolio(store, ours, id)).toBe(true);
  expect(await readFolio(store, ours, id)).toBeNull();
  expect(await restoreFolio(store, ours, id)).toBe(true);
  expect((await listFolios(store, ours)).map((f) => f.name)).toEqual(['Board, May']);
});

test('it belongs to its workspace, and a reader leaves it as it is', async () => {
  const { id } = (await listFolios(store, ours))[0]!;
  expect(await listFolios(store, theirs)).toEqual([]);
  expect(await readFolio(store, theirs, id)).toBeNull();
  expect(await changeFolio(store, theirs, id, 2, 'Taken', {})).toBeNull();
  expect(await deleteFolio(store, theirs, id)).toBe(false);
  expect(await restoreFolio(store, theirs, id)).toBe(false);
  await expect(createFolio(store, { ...ours, role: 'viewer' }, 'X', {})).rejects.toThrow(AccessRefused);
  await expect(deleteFolio(store, { ...ours, role: 'viewer' }, id)).rejects.toThrow(AccessRefused);
});
