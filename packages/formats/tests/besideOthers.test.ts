import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { guessDelimiter, readCsv, readTables, readXlsx } from '../src/index';
import { decodeText } from '../src/csv/decode';

/** Each format beside a reader that is not ours: openpyxl, Python's csv, python3-icalendar, and a second reading of STEP. */
const folder = join(import.meta.dirname, 'tables');
const files = (ending: RegExp) => readdirSync(folder).filter((f) => ending.test(f) && !f.endsWith('.read.txt'));
const bytesOf = (name: string) => new Uint8Array(readFileSync(join(folder, name)));
const other = <T>(kind: string, name: string, ...more: string[]): T =>
  JSON.parse(
    execFileSync('/usr/bin/python3', [join(import.meta.dirname, 'readers.py'), kind, join(folder, name), ...more], {
      encoding: 'utf8',
    }),
  ) as T;

interface OtherSheet {
  sheet: string;
  hidden: boolean;
  cells: (string | number | boolean | null | { date: string })[][];
  percent: boolean[][];
  indents: number[][];
  hiddenRows: number[];
}

describe('workbooks beside openpyxl', () => {
  test.each(files(/\.xlsx$/))('%s', async (name) => {
    const ours = await readXlsx(bytesOf(name), name);
    const theirs = other<OtherSheet[]>('xlsx', name);
    expect(ours.map((t) => [t.sheet, t.hidden ?? false])).toEqual(theirs.map((t) => [t.sheet, t.hidden]));
    ours.forEach((table, k) => {
      const sheet = theirs[k]!;
      expect(table.hiddenRows ?? []).toEqual(sheet.hiddenRows);
      const joined = new Set(
        (table.merges ?? []).flatMap(([top, left, bottom]) =>
          Array.from({ length: bottom - top }, (_, i) => `${top + 1 + i} ${left}`),
        ),
      );
      sheet.cells.forEach((row, r) =>
        row.forEach((value, c) => {
          const text = table.rows[r]?.[c] ?? '';
          if (value === null) {
            // What a joined cell says stands in all its rows.
            if (!joined.has(`${r} ${c}`)) expect([r, c, text]).toEqual([r, c, '']);
          } else if (typeof value === 'number') {
            const scale = sheet.percent[r]![c] ? 100 : 1;
            expect(Number(text.replace('%', '')) / scale).toBeCloseTo(value, 9);
          } else if (typeof value === 'object') expect(text).toBe(value.date);
          else expect(text).toBe(`${'  '.repeat(sheet.indents[r]![c]!)}${value}`);
        }),
      );
    });
  });
});

describe('delimited text beside Python’s csv', () => {
  test.each(files(/\.(csv|txt)$/))('%s', (name) => {
    const bytes = bytesOf(name);
    const encoding = /1252|messe/.test(name) ? 'cp1252' : /utf16/.test(name) ? 'utf-16' : 'utf-8';
    const theirs = other<string[][]>('csv', name, encoding, guessDelimiter(decodeText(bytes)));
    const filled = (rows: string[][]) =>
      rows.map((row) =>
        row
          .map((c) => c.replace(/\r\n/g, '\n').trim())
          .join('|')
          .replace(/\|+$/, ''),
      );
    const end = (rows: string[]) => rows.slice(0, rows.findLastIndex((r) => r !== '') + 1);
    expect(end(filled(readCsv(bytes, name).rows))).toEqual(end(filled(theirs)));
  });
});

interface OtherEvent {
  uid: string;
  summary: string;
  start: { date: string } | null;
  end: { date: string } | null;
  due: { date: string } | null;
  comesBack: boolean;
  notes: string;
}

const before = (day: string) => new Date(Date.parse(day) - 86_400_000).toISOString().slice(0, 10);

test('a calendar beside icalendar', async () => {
  const [table] = await readTables(bytesOf('regatta.ics'), 'regatta.ics');
  const [head, ...rows] = table!.rows;
  const at = (row: string[], heading: string) => row[head!.indexOf(heading)] ?? '';
  const theirs = other<OtherEvent[]>('ics', 'regatta.ics').filter((e) => !e.comesBack);
  expect(theirs.length).toBeGreaterThan(4);
  for (const e of theirs) {
    const row = rows.find((r) => at(r, 'Reference') === e.uid)!;
    expect(at(row, 'Name')).toBe(e.summary);
    expect(at(row, 'Notes')).toBe(e.notes);
    if (e.start) expect(at(row, 'Start')).toBe(e.start.date);
    // RFC 5545, 3.6.1: the end of an event is not part of it; of an all-day one, the day before is the last.
    if (e.end) expect(at(row, 'Finish')).toBe(e.end.date.length === 10 ? before(e.end.date) : e.end.date);
    if (e.due) expect(at(row, 'Finish')).toBe(e.due.date);
  }
});

test('a building model beside a second reading of its text', async () => {
  const [table] = await readTables(bytesOf('boathouse.ifc'), 'boathouse.ifc');
  const [head, ...rows] = table!.rows;
  const ours = rows.map((row) =>
    ['Reference', 'Name', 'Start', 'Finish', 'Milestone'].map((h) => row[head!.indexOf(h)] ?? ''),
  );
  const theirs = other<{ ref: string; name: string; start: string; finish: string; milestone: boolean }[]>(
    'ifc',
    'boathouse.ifc',
  );
  expect(ours).toEqual(
    theirs.map((t) => [t.ref, t.name, t.start.slice(0, 16), t.finish.slice(0, 16), t.milestone ? 'yes' : 'no']),
  );
});
