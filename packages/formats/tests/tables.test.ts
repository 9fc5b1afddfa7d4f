import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { readingOf } from './readings';

/**
 * Tables as people send them, each with what a person reads in it, written by hand beside it (`.read.txt`). A question
 * or a cell that is listed as not read is right where the table leaves something open; a wrong reading is not.
 */
const folder = join(import.meta.dirname, 'tables');
const files = readdirSync(folder).filter((f) => /\.(csv|txt|tsv|xlsx|ics|ifc)$/.test(f) && !f.endsWith('.read.txt'));

describe('tables as people send them', () => {
  test.each(files)('%s', async (name) => {
    const expected = readFileSync(join(folder, name.replace(/\.[^.]+$/, '.read.txt')), 'utf8').trim();
    expect(await readingOf(name)).toBe(expected);
  });

  test('there are enough of them', () => expect(files.length).toBeGreaterThanOrEqual(36));
});
