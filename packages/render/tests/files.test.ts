import { expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { strFromU8, unzipSync } from 'fflate';
import readXlsxFile from 'read-excel-file/node';
import { compose, fonts, randomPlan } from '../../scene/tests/fixtures';
import {
  archived,
  fontFolder,
  holdsSeveral,
  PAGE_FORMATS,
  writeHtml,
  writePages,
  writePdf,
  writeXlsxOf,
} from '../src/index';

const folder = fontFolder(join(dirname(fileURLToPath(import.meta.url)), '../fonts'), fonts);
const date = new Date('2026-09-14T00:00:00Z');
const plan = randomPlan(5, 30);
plan.activities[0]!.name = '=SUM(A1) <script>alert(1)</script>';
const scene = compose(plan, { lanes: ['lane'] });
const other = { ...scene, title: 'The second page' };

test('HTML: pages and tables in one file that asks for nothing and runs nothing', () => {
  const html = writeHtml([scene, other], { fonts, embed: folder.embedded(), names: ['One', 'Two'] });
  expect(html.match(/<svg /g)).toHaveLength(2);
  expect(html).toContain('<a href="#page-2">Two</a>');
  expect(html).toContain("default-src 'none'");
  expect(html).not.toContain('<script');
  expect(html).toContain('&lt;script&gt;');
  // Nothing is fetched: the only addresses are those of its parts and its own pages.
  expect([...html.matchAll(/(?:src|href)="(?!#)([^"]*)"/g)]).toEqual([]);
  expect([...html.matchAll(/url\((?!data:|#)/g)]).toEqual([]);
  expect(html.match(/<tbody>(.*?)<\/tbody>/s)![1]!.match(/<tr>/g)).toHaveLength(scene.content.rows.length);
});

test('XLSX: a sheet for each page, read back with dates as dates and no formulas', async () => {
  const bytes = Buffer.from(await writeXlsxOf([scene, other], date, ['What: is/it?', 'what  is it']));
  const sheets = await readXlsxFile(bytes);
  expect(sheets.map((s) => s.sheet)).toEqual(['What is it', 'what is it 2']);
  const rows = sheets[0]!.data;
  expect(rows[0]![0]).toBe(scene.title);
  expect(rows[2]).toEqual(['Reference', ...scene.content.heads]);
  const body = rows.slice(3, 3 + scene.content.rows.length);
  body.forEach((row, k) => {
    const { ref, cells, values } = scene.content.rows[k]!;
    expect([row[0], row[2]]).toEqual([ref, cells[1]]);
    const day = values![2] as { day: number };
    expect(row[3]).toEqual(new Date(day.day * 86_400_000));
  });
  expect(strFromU8(unzipSync(bytes)['xl/worksheets/sheet1.xml']!)).not.toContain('<f>');
});

test('XLSX: openpyxl finds the same rows and days', async () => {
  const path = join(mkdtempSync(join(tmpdir(), 'clembo-xlsx-')), 'page.xlsx');
  writeFileSync(path, await writeXlsxOf([scene], date, ['The page']));
  const reader = join(dirname(fileURLToPath(import.meta.url)), '../../formats/tests/readers.py');
  const [sheet] = JSON.parse(execFileSync('/usr/bin/python3', [reader, 'xlsx', path], { encoding: 'utf8' })) as {
    sheet: string;
    cells: unknown[][];
  }[];
  expect(sheet!.sheet).toBe('The page');
  expect(sheet!.cells[0]![0]).toBe(scene.title);
  const body = sheet!.cells.slice(3, 3 + scene.content.rows.length);
  expect(body.map((row) => [row[0], row[2]])).toEqual(scene.content.rows.map((r) => [r.ref, r.cells[1]]));
  expect(body.map((row) => row[3])).toEqual(
    scene.content.rows.map((r) => ({
      date: new Date((r.values![2] as { day: number }).day * 86_400_000).toISOString().slice(0, 10),
    })),
  );
});

test('PDF: the outline names the pages', async () => {
  const pdf = await writePdf([scene, other], { fonts, fontPath: folder.path, date, names: ['Gates', 'Wall'] });
  const text = Buffer.from(pdf).toString('latin1');
  expect(text).toContain('/Outlines');
  for (const name of ['Gates', 'Wall']) expect(text).toContain(`(${name})`);
});

// A process is written from a page of handoffs: see bpmn.test.ts.
test.each(PAGE_FORMATS.filter((f) => f !== 'bpmn'))('%s: the same pages give the same bytes', async (format) => {
  const write = () => writePages(format, holdsSeveral(format) ? [scene, other] : [scene], { fonts, folder, date });
  const [a, b] = [await write(), await write()];
  expect(Buffer.from(a).equals(Buffer.from(b))).toBe(true);
});

test('several drawings come in one archive, in their order', async () => {
  const pages = [
    { scene, name: 'Gates / all' },
    { scene: other, name: 'Wall' },
  ];
  const files = unzipSync(await archived('svg', pages, { fonts, folder, date }));
  expect(Object.keys(files)).toEqual(['01 Gates  all.svg', '02 Wall.svg']);
  expect(strFromU8(files['02 Wall.svg']!)).toContain('<title>The second page</title>');
});
