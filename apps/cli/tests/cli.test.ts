import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const bin = join(dirname(fileURLToPath(import.meta.url)), '../bin/clembo.mjs');
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'clembo-cli-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const file = (name: string, text: string) => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};
/** Runs the real command in a process of its own. */
const clembo = (...args: string[]): Promise<{ code: number; out: string; err: string }> =>
  new Promise((resolve) => {
    const { NODE_OPTIONS: _, ...env } = process.env;
    execFile(process.execPath, [bin, ...args], { env, cwd: folder }, (error, out, err) =>
      resolve({ code: (error?.code as number | undefined) ?? 0, out, err }),
    );
  });

const TABLE = 'ID,Name,Duration,Predecessors\nA,Dig,10,\nB,Fill,5,A\nC,Test,3,A SS+2d\nD,Done,0,"B; C FF-1d"\n';

describe('clembo schedule', () => {
  test('computes dates and float from durations and links, as JSON', async () => {
    const { out, code } = await clembo('schedule', file('plan.csv', TABLE), '--start', '2025-01-06', '--json');
    expect(code).toBe(0);
    const result = JSON.parse(out);
    expect(result.finish).toBe('2025-01-24');
    const by = Object.fromEntries(result.activities.map((a: { ref: string }) => [a.ref, a]));
    expect(by.A).toMatchObject({ start: '2025-01-06', finish: '2025-01-17', totalFloat: 0, critical: true });
    expect(by.B).toMatchObject({ start: '2025-01-20', finish: '2025-01-24', totalFloat: 0 });
    expect(by.C).toMatchObject({
      earlyStart: '2025-01-08',
      earlyFinish: '2025-01-10',
      lateFinish: '2025-01-24',
      totalFloat: 10,
      critical: false,
    });
    expect(by.D).toMatchObject({ kind: 'finishMilestone', start: '2025-01-24', finish: '2025-01-24' });
  });

  test('as CSV, on another calendar', async () => {
    const { out } = await clembo(
      'schedule',
      file('plan.csv', TABLE),
      '--start',
      '2025-01-06',
      '--calendar',
      'seven-day',
    );
    expect(out.split('\r\n')[1]).toBe(
      'A,Dig,activity,2025-01-06,2025-01-15,2025-01-06,2025-01-15,2025-01-06,2025-01-15,0,0,true',
    );
  });

  test('findings name loops and cells that cannot be read', async () => {
    const { out, code } = await clembo(
      'schedule',
      file('loop.csv', 'ID,Name,Duration,Predecessors\nA,Dig,5,C\nB,Fill,5,A\nC,Test,x,B\nD,Other,4,\n'),
      '--start',
      '2025-01-06',
      '--json',
    );
    expect(code).toBe(0);
    const { findings, activities } = JSON.parse(out);
    expect(findings.map((f: { code: string }) => f.code)).toEqual(expect.arrayContaining(['notADuration', 'loop']));
    expect(findings.find((f: { code: string }) => f.code === 'loop').refs.sort()).toEqual(['A', 'B', 'C']);
    expect(activities.find((a: { ref: string }) => a.ref === 'D')).toMatchObject({
      start: '2025-01-06',
      finish: '2025-01-09',
    });
    expect(activities.find((a: { ref: string }) => a.ref === 'A').earlyStart).toBeNull();
  });

  test('a map of one’s own goes before the guess', async () => {
    const plan = file('odd.csv', 'No.,What,Promised,Hoped\n1,Dig,2026-01-05,2026-02-02\n');
    const { out } = await clembo(
      'schedule',
      plan,
      '--map',
      file('map.json', '{"What":"name","Promised":"skip","Hoped":"start"}'),
    );
    expect(out).toContain('1,Dig,startMilestone,2026-02-02');
  });
});

describe('clembo compose and brief', () => {
  test('the default brief makes a page; names and dates stand in the SVG', async () => {
    const plan = file('plan.csv', TABLE);
    const brief = JSON.parse((await clembo('brief', '--kind', 'timeline')).out);
    const out = join(folder, 'page.svg');
    const result = await clembo(
      'compose',
      plan,
      '--brief',
      file('brief.json', JSON.stringify({ ...brief, title: 'Dug by spring' })),
      '--out',
      out,
      '--start',
      '2025-01-06',
    );
    expect(result).toMatchObject({ code: 0, out: `${out}: 4 of 4 activities, smallest type 7 pt\n` });
    const svg = readFileSync(out, 'utf8');
    for (const text of ['Dug by spring', 'Dig', '17 Jan', 'Done', '24 Jan']) expect(svg).toContain(`>${text}</text>`);
  });

  test.each(['pdf', 'png'])('writes %s', async (format) => {
    const out = join(folder, `page.${format}`);
    expect((await clembo('compose', file('plan.csv', TABLE), '--out', out)).code).toBe(0);
    expect(readFileSync(out).subarray(0, 8).toString('latin1')).toMatch(format === 'pdf' ? /^%PDF-1.7/ : /PNG/);
  });
});

describe('what is wrong is said in a line, with exit code 2', () => {
  test.each([
    [['schedule', 'nowhere.csv'], 'There is no file nowhere.csv.'],
    [['frobnicate'], 'there is no command “frobnicate”'],
    [['schedule'], 'needs a file'],
    [['compose', 'PLAN'], '--out PAGE.svg'],
    [['schedule', 'PLAN', '--start', 'soon'], '--start takes a date such as 2026-09-14'],
    [['schedule', 'PLAN', '--bogus'], '--bogus'],
    [['compose', 'PLAN', '--brief', 'BAD', '--out', 'x.svg'], 'rows'],
    [['schedule', 'OPEN'], '--date-order'],
  ])('%j', async (args, words) => {
    const names: Record<string, string> = {
      PLAN: file('plan.csv', TABLE),
      BAD: file('bad.json', '{"kind":"timeline","rows":"sideways"}'),
      OPEN: file('open.csv', 'Name,Start,Finish\nA,01/02/2026,03/04/2026\n'),
    };
    const { code, err, out } = await clembo(...args.map((a) => names[a] ?? a));
    expect([code, out]).toEqual([2, '']);
    expect(err).toContain(words);
    expect(err).not.toContain('    at ');
  });
});
