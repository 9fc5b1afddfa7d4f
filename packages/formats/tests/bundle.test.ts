import { describe, expect, test } from '@jest/globals';
import {
  boxShape,
  compareEditions,
  exhibitOfFile,
  isSame,
  makeElement,
  packGeometry,
  STAYS,
  type WholePlan,
} from '@clembo/core';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { demoPlans } from '../../../demo/index';
import { looksLikeBundle, readBundle, UnreadableFile, writeBundle } from '../src/index';

const [wall] = demoPlans() as [ReturnType<typeof demoPlans>[number]];
const WHOLE: WholePlan = {
  editions: [
    {
      id: 'id-1',
      name: 'Week 37',
      note: 'as sent',
      working: true,
      baseline: false,
      createdAt: 1_700_000_000_123,
      plan: wall.current,
      rows: { S100: [2, 14] },
    },
    {
      id: 'id-2',
      name: 'Contract',
      note: '',
      working: false,
      baseline: true,
      createdAt: 1_600_000_000_000,
      plan: wall.baseline,
      rows: {},
    },
  ],
  folios: [
    {
      name: 'Board',
      content: { name: 'Board', pages: [{ id: 'p1', exhibit: exhibitOfFile(0) }], blocks: null },
    },
  ],
  exhibits: [
    { name: 'One page', brief: { kind: 'timeline', compare: 'id-2', where: [{ field: 'area', values: ['id-2x'] }] } },
  ],
  sources: [
    {
      no: 2,
      reading: 1,
      name: 'wall.xlsx',
      sheet: 'Works',
      map: { columns: [] },
      aliases: { a: 'b' },
      problems: [],
      person: 'Ada',
      createdAt: 5,
      content: new Uint8Array([9, 8, 7]),
    },
  ],
  models: [
    {
      key: 'station',
      file: 'Station.ifc',
      elements: [makeElement({ ref: 'station/1', name: 'Wall', properties: { 'Work: Code': 'L1' }, volume: 2.5 })],
      geometry: packGeometry({
        origin: [0, 0, 0],
        shapes: [boxShape([0, 0, 0], [1, 2, 3])],
        parts: [{ element: 0, shape: 0, place: STAYS() }],
      }),
      assigned: [{ activity: 'L1', name: 'Walls', elements: ['station/1'] }],
      notes: ['Row 7: no body'],
    },
  ],
};

describe('a plan in one file', () => {
  test('read again it is the same, with editions under names of its own', () => {
    const bytes = writeBundle(WHOLE);
    expect(looksLikeBundle(bytes)).toBe(true);
    const read = readBundle(bytes, 'wall.clembo');
    WHOLE.editions.forEach((e, k) => {
      const { plan, id, ...about } = read.editions[k]!;
      const { plan: was, id: _, ...wasAbout } = e;
      expect(isSame(compareEditions(was, plan))).toBe(true);
      expect([id, about]).toEqual([`edition ${k + 1}`, wasAbout]);
    });
    expect(read.exhibits[0]!.brief).toEqual({
      kind: 'timeline',
      compare: 'edition 2',
      where: [{ field: 'area', values: ['id-2x'] }],
    });
    expect(read.folios).toEqual(WHOLE.folios);
    expect(read.sources).toEqual(WHOLE.sources);
    expect(read.models).toEqual(WHOLE.models);
    // The same plan, the same bytes: also when it has been somewhere else meanwhile.
    const once = writeBundle(read);
    expect(Buffer.compare(writeBundle(readBundle(once, 'x')), once)).toBe(0);
  });

  test('a reader that is not ours (unzip) finds whole entries, each JSON where it says so', () => {
    const folder = mkdtempSync(join(tmpdir(), 'clembo-bundle-'));
    writeFileSync(join(folder, 'wall.zip'), writeBundle(WHOLE));
    execFileSync('python3', ['-m', 'zipfile', '-t', join(folder, 'wall.zip')]);
    execFileSync('python3', ['-m', 'zipfile', '-e', join(folder, 'wall.zip'), folder]);
    const contents = JSON.parse(readFileSync(join(folder, 'clembo.json'), 'utf8'));
    expect(contents.editions.map((e: { file: string }) => e.file)).toEqual(
      readdirSync(join(folder, 'editions')).map((f) => `editions/${f}`),
    );
    const plan = JSON.parse(readFileSync(join(folder, 'editions/1.json'), 'utf8'));
    expect([plan.format, plan.plan.activities.length]).toEqual(['clembo-plan', wall.current.activities.length]);
    expect([...readFileSync(join(folder, 'sources/2.table'))]).toEqual([9, 8, 7]);
  });

  const changed = (change: (files: Record<string, Uint8Array>) => void): Uint8Array => {
    const files = unzipSync(writeBundle(WHOLE));
    change(files);
    return zipSync(files);
  };
  const contents = (
    files: Record<string, Uint8Array>,
    change: (c: { editions: Record<string, unknown>[] }) => void,
  ) => {
    const c = JSON.parse(new TextDecoder().decode(files['clembo.json']));
    change(c);
    files['clembo.json'] = strToU8(JSON.stringify(c));
  };
  test.each<[string, Uint8Array, string]>([
    ['an entry that is missing', changed((f) => void delete f['editions/2.json']), 'x does not hold editions/2.json'],
    [
      'contents of another version',
      changed((f) => contents(f, (c) => Object.assign(c, { version: 2 }))),
      'x, clembo.json: version',
    ],
    [
      'no working edition',
      changed((f) => contents(f, (c) => c.editions.forEach((e) => (e.working = false)))),
      'exactly one edition is the working one',
    ],
    [
      'an edition that is no plan',
      changed((f) => void (f['editions/1.json'] = strToU8('{"format":"clembo-plan"}'))),
      'x, editions/1.json is not a plan of Clembo',
    ],
    [
      'contents that are no JSON',
      changed((f) => void (f['clembo.json'] = strToU8('{'))),
      'x, clembo.json: it is not JSON',
    ],
    [
      'a value that cannot be used',
      changed((f) => {
        const plan = JSON.parse(new TextDecoder().decode(f['editions/1.json']));
        plan.plan.activities[3].duration = -5;
        f['editions/1.json'] = strToU8(JSON.stringify(plan));
      }),
      'editions/1.json, plan.activities.3.duration: “-5” cannot be used',
    ],
    ['half a file', writeBundle(WHOLE).subarray(0, 4000), 'x is damaged'],
  ])('%s is refused with its place', (_, bytes, words) => {
    expect(() => readBundle(bytes, 'x')).toThrow(words);
    expect(() => readBundle(bytes, 'x')).toThrow(UnreadableFile);
  });

  test('damaged at random it is read or refused, never anything else', () => {
    const bytes = writeBundle(WHOLE);
    let state = 7;
    for (let k = 0; k < 60; k++) {
      const copy = bytes.slice();
      for (let j = 0; j < 4; j++) {
        state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
        copy[state % copy.length] = state >> 8;
      }
      try {
        readBundle(copy, 'x');
      } catch (error) {
        expect(error).toBeInstanceOf(UnreadableFile);
      }
    }
  });
});
