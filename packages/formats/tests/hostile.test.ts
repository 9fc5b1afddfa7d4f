import { describe, expect, test } from '@jest/globals';
import { makePlan, Plan } from '@clembo/core';
import {
  beginState,
  guessColumnMap,
  hasRows,
  previewIntake,
  readDelimited,
  readPlan,
  readPlanJson,
  readTables,
  UnreadableFile,
  writeCsv,
  writePlanJson,
} from '../src/index';

/** What once took minutes takes a fraction of a second; the bound leaves room for a busy machine. */
const SECONDS = 6;
const timed = <T>(work: () => T): T => {
  const began = Date.now();
  const result = work();
  expect((Date.now() - began) / 1000).toBeLessThan(SECONDS);
  return result;
};
const rows = (heading: string, count: number, row: (i: number) => string): string =>
  `${heading}\n${Array.from({ length: count }, (_, i) => row(i)).join('\n')}\n`;
const take = (text: string) => {
  const table = readDelimited(text, 'x.csv');
  return readPlan(table, { ...guessColumnMap(table), dateOrder: 'dmy' }, { name: 'x' });
};

describe('tables that made readers crawl are read at once', () => {
  test('the same reference in 50,000 rows: each gets one of its own', () => {
    const text = rows('ID,Name,Start', 50_000, (i) => `A1,Step ${i},2026-01-05`);
    const table = readDelimited(text, 'x.csv');
    const guess = guessColumnMap(table);
    // A column that mostly repeats itself names no rows.
    expect(guess.columns[0]).not.toEqual({ as: 'field', field: 'ref' });
    const map = { ...guess, columns: [{ as: 'field', field: 'ref' } as const, ...guess.columns.slice(1)] };
    const { plan, problems } = timed(() => readPlan(table, map, { name: 'x' }));
    expect(plan.activities.slice(0, 3).map((a) => a.ref)).toEqual(['A1', 'A1 (2)', 'A1 (3)']);
    expect(new Set(plan.activities.map((a) => a.ref)).size).toBe(50_000);
    expect(problems.length).toBe(49_999);
  });

  test('thousands of predecessors in a cell: two thousand are read, and the rest is said', () => {
    const list = Array.from({ length: 5000 }, (_, i) => `A${i % 40}`).join(' ;');
    const text = `ID,Name,Start,Predecessors\n${Array.from({ length: 41 }, (_, i) => `A${i},S,2026-01-05,${i === 40 ? list : ''}`).join('\n')}\n`;
    const { plan, problems } = timed(() => take(text));
    expect(plan.links.length).toBe(2000);
    expect(problems.map((p) => p.code)).toEqual(['tooMany']);
  });

  test('blanks before names that mean nothing, in 40,000 rows', () => {
    const text = rows(
      'Name,Start,Finish',
      40_000,
      (i) => `${' '.repeat(i % 3)}Step ${i},2026-01-05,2026-01-0${6 + (i % 3)}`,
    );
    const { plan, problems } = timed(() => take(text));
    expect(plan.activities.length).toBe(40_000);
    expect(problems.every((p) => p.code === 'indentIgnored')).toBe(true);
  });

  test.each([
    ['blanks', ' '.repeat(30_000)],
    ['signs', '+-'.repeat(15_000)],
    ['points', '1.'.repeat(15_000)],
    ['digits', '1'.repeat(30_000)],
  ])('a cell of 30,000 %s in every column', (_, cell) => {
    const heading = 'ID,Name,Start,Finish,Duration,Predecessors,Percent,Outline,Level,Parent,Cost,Calendar,Milestone';
    const line = (i: number) => [`A${i}`, 'S', '2026-01-05', ...Array(10).fill('')].join(',');
    const text = `${rows(heading, 30, line)}${heading
      .split(',')
      .map(() => `"x${cell}x"`)
      .join(',')}\n`;
    const { plan } = timed(() => take(text));
    expect(Plan.safeParse(plan).success).toBe(true);
  });

  test('a cell that no spreadsheet could hold is refused with its place', () => {
    const text = `Name,Start\nA,2026-01-05\n"${'x'.repeat(40_000)}",2026-01-05\n`;
    expect(() => readDelimited(text, 'x.csv')).toThrow(
      'x.csv row 3, column A holds 40000 characters; a cell may hold 32767',
    );
  });

  test('more cells than can be taken in are refused before any is made', () => {
    expect(() => timed(() => readDelimited(','.repeat(11_000_000), 'x.csv'))).toThrow(/about 11000001 cells/);
  });
});

describe('ordinary values on which programs stumble', () => {
  const words = ['constructor', '__proto__', 'toString', 'hasOwnProperty', 'valueOf'];

  test('words that every object answers to are words, as headings and as values', () => {
    const text = `ID,Name,Start,Duration,Kind,Milestone,Calendar,${words.join(',')}\n${words
      .map((w) => `${w},${w},2026-01-05,5 ${w},${w},${w},${w},${words.join(',')}`)
      .join('\n')}\n`;
    const table = readDelimited(text, 'x.csv');
    const columns = guessColumnMap(table).columns.map((m, c) =>
      c > 6 ? ({ as: 'code', name: words[c - 7]! } as const) : m,
    );
    const { plan } = readPlan(table, { ...guessColumnMap(table), columns, dateOrder: 'dmy' }, { name: 'x' });
    expect(Plan.safeParse(plan).success).toBe(true);
    expect(plan.activities.map((a) => a.ref)).toEqual(words);
    expect(plan.codeFields.map((f) => f.name)).toEqual(words);
    for (const f of plan.codeFields) expect(f.values.map((v) => v.code)).toEqual([f.name]);
    // None of the words is a unit.
    expect(plan.activities.every((a) => !a.duration)).toBe(true);
  });

  test('amounts beyond what can be kept are listed with their place, and the rest is taken in', () => {
    const text =
      'ID,Name,Start,Duration,Predecessors,Cost,Chainage from,Chainage to\n' +
      'A,One,2026-01-05,5,,10,0,100\n' +
      'B,Two,2026-01-05,99999999999,A FS+99999999999d,1e308,1,2\n' +
      'C,Three,2026-01-05,5,,99999999999999999999,99999999999,5\n';
    const { plan, problems } = take(text);
    expect(Plan.safeParse(plan).success).toBe(true);
    expect(problems.map((p) => [p.row, p.heading, p.code])).toEqual([
      [3, 'Duration', 'tooLarge'],
      [3, 'Predecessors', 'tooLarge'],
      [3, 'Cost', 'notANumber'],
      [4, 'Cost', 'tooLarge'],
      [4, 'Chainage from', 'tooLarge'],
    ]);
  });

  test('characters that nothing can hold are marked, not dropped', () => {
    const table = readDelimited('Name,Start\na\u0000b\ud800c\udc00d\ud83d\ude00,2026-01-05\n', 'x.csv');
    expect(table.rows[1]![0]).toBe('a\ufffdb\ufffdc\ufffdd\ud83d\ude00');
  });

  test('text that only looks like such a character is kept as it is', () => {
    const table = readDelimited('Name,Start\n\\u0000 and \\ud800,2026-01-05\n', 'x.csv');
    expect(table.rows[1]![0]).toBe('\\u0000 and \\ud800');
  });

  test('JSON: deep nesting, lost halves of characters, and names that no field may have', () => {
    const deep = `{"format":"clembo-plan","version":1,"plan":${'['.repeat(100_000)}${']'.repeat(100_000)}}`;
    expect(() => timed(() => readPlanJson(deep, 'x.json'))).toThrow(/nested more than 60 deep/);
    const plan = makePlan({
      name: 'x',
      activities: [],
      codeFields: [{ id: 'constructor', name: 'Constructor', values: [] }],
    } as never);
    expect(() => readPlanJson(writePlanJson(plan), 'x.json')).toThrow(UnreadableFile);
    const lost = writePlanJson(makePlan({ name: 'a\ud800' } as never));
    expect(() => readPlanJson(lost, 'x.json')).toThrow('x.json, plan.name: the text holds a character');
  });

  test('a preview says so too, and stays small', () => {
    const text = `Name,Start\n"${'long '.repeat(6000)}",never\n`;
    const table = readDelimited(text, 'x.csv');
    const view = previewIntake([table], beginState([table], []));
    expect(JSON.stringify(view).length).toBeLessThan(6000);
  });
});

describe('what is written for others', () => {
  test('text that a spreadsheet would take for a formula is text, and nothing steers a terminal', () => {
    const text = writeCsv(
      ['ref', 'n', 'done'],
      [
        { ref: '=cmd|" /C calc"!A0', n: -3, done: true },
        { ref: '@SUM(1)', n: null, done: false },
        { ref: '+1', n: 0.5, done: null },
        { ref: 'plain, "quoted" \u001b[2J\r\nnext', n: 1, done: null },
      ],
    );
    expect(text).toBe(
      'ref,n,done\r\n' +
        `"'=cmd|"" /C calc""!A0",-3,true\r\n` +
        `"'@SUM(1)",,false\r\n` +
        `"'+1",0.5,\r\n` +
        '"plain, ""quoted""  [2J next",1,\r\n',
    );
  });

  test('a table of headings only has no rows', () => {
    for (const text of [
      'Name,Start,Finish\n',
      'Activity ID;Activity name\n\n',
      'Report of March\n\nName,Start,Finish\n',
    ])
      expect(hasRows(readDelimited(text, 'x.csv'))).toBe(false);
    for (const text of ['Name,Start\nA,2026-01-05\n', 'Piling,2026-01-05,2026-01-09\n', 'Name\nName\n'])
      expect(hasRows(readDelimited(text, 'x.csv'))).toBe(true);
  });
});

test('a calendar entry that comes back after millions of years is one row, at once', async () => {
  const lines = ['BEGIN:VCALENDAR', 'BEGIN:VEVENT', 'UID:a', 'SUMMARY:Long', 'DTSTART:20260105T080000'];
  const text = [...lines, 'RRULE:FREQ=DAILY;INTERVAL=4294967296;COUNT=4', 'END:VEVENT', 'END:VCALENDAR'].join('\r\n');
  const began = Date.now();
  const [table] = await readTables(new TextEncoder().encode(text), 'x.ics');
  expect((Date.now() - began) / 1000).toBeLessThan(SECONDS);
  // Its headings and the entry.
  expect(table!.rows.length).toBe(2);
});

test.each(['P299999999999999999999D', 'P2X'])('a duration of %s is not read: it is no end', async (duration) => {
  const lines = ['BEGIN:VCALENDAR', 'BEGIN:VEVENT', 'UID:a', 'SUMMARY:Long', 'DTSTART;VALUE=DATE:20260105'];
  const text = [...lines, `DURATION:${duration}`, 'END:VEVENT', 'END:VCALENDAR'].join('\r\n');
  const began = Date.now();
  const [table] = await readTables(new TextEncoder().encode(text), 'x.ics');
  expect((Date.now() - began) / 1000).toBeLessThan(SECONDS);
  const [heads, row] = table!.rows as [string[], string[]];
  expect(row[heads.indexOf('Start')]).toBe('2026-01-05');
  expect(row[heads.indexOf('Finish')]).not.toMatch(/^\d{4}-/);
  expect(row[heads.indexOf('Finish')]).not.toBe('');
});
