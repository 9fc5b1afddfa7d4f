import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FIVE_DAY, makePlan } from '@clembo/core';
import {
  type Access,
  askDueRuns,
  createPlan,
  createWorkspace,
  deletePlan,
  dropWeekly,
  firstWorkspace,
  foldersBelow,
  keepWeekly,
  nextTime,
  readWeekly,
  reportWeekly,
  type Store,
  troubleOf,
  WeeklySaid,
} from '../src/index';
import { tellFault } from '../../../apps/worker/src/jobs/jobs';
import { freshStore } from './freshStore';

const bare = (name: string) => makePlan({ name, calendars: [FIVE_DAY], calendar: FIVE_DAY.id });

/** The weekly run: when it is due, who may set it, how it is remembered; and the folders that it may use. */

const said = (part: object = {}): WeeklySaid =>
  WeeklySaid.parse({ weekday: 4, minute: 960, zone: 'Europe/Lisbon', folder: 'planner', accept: 'all', ...part });

describe('a weekly run is due', () => {
  // Friday 13 March 2026; Lisbon has winter time, which is UTC, until 29 March.
  test.each([
    ['2026-03-11T10:00:00Z', '2026-03-13T16:00:00.000Z'],
    ['2026-03-13T15:59:00Z', '2026-03-13T16:00:00.000Z'],
    ['2026-03-13T16:00:00Z', '2026-03-20T16:00:00.000Z'],
    // After the clocks went forward 16:00 is 15:00 UTC.
    ['2026-03-28T00:00:00Z', '2026-04-03T15:00:00.000Z'],
  ])('after %s: %s', (after, wanted) => {
    expect(nextTime(said(), new Date(after)).toISOString()).toBe(wanted);
  });

  test('by the clocks of its zone, on its day there', () => {
    const auckland = said({ weekday: 0, minute: 60, zone: 'Pacific/Auckland' });
    // Monday 01:00 there is Sunday noon in UTC (in winter time, +12).
    expect(nextTime(auckland, new Date('2026-06-06T00:00:00Z')).toISOString()).toBe('2026-06-07T13:00:00.000Z');
  });

  test('also at a time that its day leaves out, or has twice', () => {
    const lisbon = said({ weekday: 6, minute: 90 });
    // On 29 March 2026 clocks go from 01:00 to 02:00; on 25 October from 02:00 back to 01:00.
    expect(nextTime(lisbon, new Date('2026-03-28T12:00:00Z')).toISOString()).toBe('2026-03-29T01:30:00.000Z');
    const twice = nextTime(lisbon, new Date('2026-10-24T12:00:00Z'));
    expect(nextTime(lisbon, twice) > twice).toBe(true);
  });

  test('only in a zone that there is', () => {
    expect(WeeklySaid.safeParse({ ...said(), zone: 'Atlantis/Centre' }).success).toBe(false);
  });
});

describe('kept for a plan', () => {
  let store: Store;
  let ours: Access;
  let theirs: Access;
  let planId = '';
  const before = new Date('2026-03-11T10:00:00Z');
  const due = new Date('2026-03-13T16:00:05Z');
  beforeAll(async () => {
    store = await freshStore('clembo_weekly');
    ours = { workspace: (await firstWorkspace(store)).id, person: null, role: 'owner' };
    theirs = { workspace: await createWorkspace(store, 'Another'), person: null, role: 'owner' };
    planId = await createPlan(store, ours, bare('Quay'), 'First');
  });
  afterAll(() => store.pool.end());
  const jobs = async () =>
    Number((await store.pool.query<{ n: string }>("select count(*) n from job where kind = 'weeklyRun'")).rows[0]!.n);

  test('only by its workspace, and by whoever may write', async () => {
    expect(await keepWeekly(store, theirs, planId, said(), before)).toBe(false);
    await expect(keepWeekly(store, { ...ours, role: 'viewer' }, planId, said(), before)).rejects.toThrow('look at');
    expect(await keepWeekly(store, ours, planId, said(), before)).toBe(true);
    expect(await readWeekly(store, theirs, planId)).toBeNull();
    expect((await readWeekly(store, ours, planId))!.nextAt!.toISOString()).toBe('2026-03-13T16:00:00.000Z');
  });

  test('asked for once when it is due, however many look, and not again before its next week', async () => {
    expect(await askDueRuns(store, before)).toBe(0);
    const asked = await Promise.all([1, 2, 3, 4].map(() => askDueRuns(store, due)));
    expect(asked.reduce((a, b) => a + b, 0)).toBe(1);
    expect(await jobs()).toBe(1);
    expect(await askDueRuns(store, new Date('2026-03-15T00:00:00Z'))).toBe(0);
    expect((await readWeekly(store, ours, planId))!.nextAt!.toISOString()).toBe('2026-03-20T16:00:00.000Z');
  });

  test('one that fails is tried again soon, three times, then in its week', async () => {
    const report = {
      state: 'failed',
      file: null,
      words: 'The folder is not there.',
      intakeId: null,
      written: [] as string[],
    } as const;
    const at = (minutes: number) => new Date(due.getTime() + minutes * 60_000);
    const again = [];
    for (const minutes of [0, 15, 30, 45]) {
      if (minutes > 0) expect(await askDueRuns(store, at(minutes))).toBe(1);
      again.push(await reportWeekly(store, ours, planId, { ...report, at: at(minutes) }, null));
    }
    expect(again).toEqual([at(15), at(30), at(45), null]);
    expect(await askDueRuns(store, at(61))).toBe(0);
    // What did well begins to count anew, and what was taken is remembered.
    await reportWeekly(store, ours, planId, { ...report, state: 'done', words: 'Done.', at: at(50) }, 'abc');
    const weekly = (await readWeekly(store, ours, planId))!;
    expect([weekly.tries, weekly.lastFile, weekly.reports.length]).toEqual([0, 'abc', 5]);
    expect(weekly.reports[0]!.words).toBe('Done.');
  });

  test('one that a fault of the program ended has its report as well, and nothing is told of other jobs', async () => {
    const room = { store, access: ours };
    const { reports } = (await readWeekly(store, ours, planId))!;
    await tellFault(room, { kind: 'writeFolio', folio: planId, format: 'pdf' });
    expect((await readWeekly(store, ours, planId))!.reports).toHaveLength(reports.length);
    await tellFault(room, { kind: 'weeklyRun', plan: planId });
    const [last] = (await readWeekly(store, ours, planId))!.reports;
    expect([last!.state, last!.words]).toEqual([
      'failed',
      expect.stringContaining('Something went wrong in Clembo itself'),
    ]);
  });

  test('one that rests, or whose plan is put away, is not asked for; it goes with its reports', async () => {
    await keepWeekly(store, ours, planId, said({ on: false }), before);
    expect(await askDueRuns(store, new Date('2027-01-01T00:00:00Z'))).toBe(0);
    await keepWeekly(store, ours, planId, said(), before);
    await deletePlan(store, ours, planId);
    expect(await askDueRuns(store, new Date('2027-01-01T00:00:00Z'))).toBe(0);
    const other = await createPlan(store, ours, bare('Pier'), 'First');
    await keepWeekly(store, ours, other, said(), before);
    expect(await dropWeekly(store, theirs, other)).toBe(false);
    expect(await dropWeekly(store, ours, other)).toBe(true);
    expect(await readWeekly(store, ours, other)).toBeNull();
  });
});

describe('folders', () => {
  const root = mkdtempSync(join(tmpdir(), 'clembo-folders-'));
  const outside = mkdtempSync(join(tmpdir(), 'clembo-outside-'));
  const folders = foldersBelow(root);
  beforeAll(() => {
    mkdirSync(join(root, 'planner/archive'), { recursive: true });
    for (const [name, minute] of [
      ['week 1.csv', 1],
      ['week 2.csv', 2],
      ['other.csv', 3],
      ['.hidden.csv', 4],
    ] as const) {
      writeFileSync(join(root, 'planner', name), name);
      utimesSync(join(root, 'planner', name), new Date(2026, 0, 1, 0, minute), new Date(2026, 0, 1, 0, minute));
    }
    writeFileSync(join(outside, 'secret.csv'), 'secret');
    symlinkSync(outside, join(root, 'way-out'));
  });
  afterAll(() => [root, outside].forEach((f) => rmSync(f, { recursive: true, force: true })));

  test('give the newest file that is called so', async () => {
    const found = (await folders.newest('planner', 'WEEK'))!;
    expect([found.name, new TextDecoder().decode(await found.bytes())]).toEqual(['week 2.csv', 'week 2.csv']);
    expect((await folders.newest('planner', ''))!.name).toBe('other.csv');
    expect(await folders.newest('planner', 'nothing like it')).toBeNull();
    expect(await folders.newest('planner/archive', '')).toBeNull();
    expect(await folders.list()).toEqual(['planner', 'planner/archive']);
  });

  test('do not lead out of the one that was given, by no path and no link', async () => {
    for (const way of ['..', '../..', '/etc', 'planner/../../x', 'way-out', 'way-out/deeper'])
      await expect(folders.newest(way, '')).rejects.toThrow(/leads out|is not there/);
    await expect(folders.write('../elsewhere', 'x.pdf', new Uint8Array([1]))).rejects.toThrow('leads out');
    await expect(folders.write('way-out', 'x.pdf', new Uint8Array([1]))).rejects.toThrow('leads out');
    expect(readdirSync(outside)).toEqual(['secret.csv']);
  });

  test('are written to whole or not at all', async () => {
    expect(await folders.write('out', 'Board.pdf', new Uint8Array([1, 2]))).toBe('out/Board.pdf');
    await folders.write('out', 'Board.pdf', new Uint8Array([3]));
    expect([...readFileSync(join(root, 'out/Board.pdf'))]).toEqual([3]);
    // A folder stands where the file would go: what was there stays, and nothing is left behind.
    mkdirSync(join(root, 'out/Week.pdf/kept'), { recursive: true });
    await expect(folders.write('out', 'Week.pdf', new Uint8Array([1]))).rejects.toThrow();
    expect(readdirSync(join(root, 'out')).sort()).toEqual(['Board.pdf', 'Week.pdf']);
  });

  test('what is wrong with them is said in words', async () => {
    await expect(folders.newest('gone', '')).rejects.toThrow('The folder “gone” is not there (any more).');
    await expect(folders.newest('planner/week 1.csv', '')).rejects.toThrow('is no folder');
    await expect(foldersBelow(undefined).newest('planner', '')).rejects.toThrow('CLEMBO_FOLDERS');
    const full = Object.assign(new Error('x'), { code: 'ENOSPC' });
    expect(String(troubleOf(full, 'The folder “out”'))).toContain('its disk is full');
  });
});
