import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { exhibitOfFile, PLAN_OF_FILE } from '@clembo/core';
import { readBundle, writeBundle } from '@clembo/formats';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';

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

describe('clembo says what is known, and where it comes from', () => {
  // Baseline and actual dates without a forecast: one done, one under way, two to come.
  const DEPOT = [
    'ID,Task,Baseline start,Baseline finish,Actual start,Actual finish,% complete',
    'D1,Close the depot,2026-03-02,2026-03-06,2026-03-02,2026-03-06,100',
    'D2,Remove old pits,2026-03-09,2026-03-20,2026-03-11,,40',
    'D3,Lay the track,2026-03-23,2026-04-03,,,',
    'D4,Open the depot,2026-04-06,2026-04-06,,,',
    '',
  ].join('\n');
  const rowsOf = async (...more: string[]) =>
    (await clembo('schedule', file('depot.csv', DEPOT), ...more)).out
      .trim()
      .split('\r\n')
      .slice(1)
      .map((l) => l.split(','))
      .map((c) => [c[0], c[3], c[4], ...c.slice(-2)].join(' '));

  test('each end with its origin; what is not known is empty', async () => {
    // Ten promised days from Wednesday 11 March.
    expect(await rowsOf()).toEqual([
      'D1 2026-03-02 2026-03-06 actual actual',
      'D2 2026-03-11 2026-03-24 actual expected',
      'D3   unknown unknown',
      'D4   unknown unknown',
    ]);
    expect((await rowsOf('--as-promised')).slice(2)).toEqual([
      'D3 2026-03-23 2026-04-03 asPromised asPromised',
      'D4 2026-04-06 2026-04-06 asPromised asPromised',
    ]);
  });

  test('nothing is said of an end that is not known, on the page nor in the standing', async () => {
    const table = file('depot.csv', DEPOT);
    const page = join(folder, 'depot.svg');
    const title = async (...more: string[]) => {
      await clembo('compose', table, '--out', page, ...more);
      return /<title>([^<]*)/.exec(readFileSync(page, 'utf8'))![1];
    };
    expect(await title()).toBe('depot is known to 24 March 2026; 2 of 4 have no dates');
    expect(await title('--as-promised')).toBe('depot is expected to run to 6 April 2026, as promised');
    expect(readFileSync(page, 'utf8')).toContain('depot.csv · dates as drawn');
    const standing = async (...more: string[]) =>
      (await clembo('standing', table, '--status-date', '2026-03-16', ...more)).out.split('\n').slice(0, 2);
    // Five days and four of ten, of five, ten, ten and one.
    expect(await standing()).toEqual([
      'known to 2026-03-24; 2 of 4 without dates',
      expect.stringMatching(/^35 % by time/),
    ]);
    expect((await standing('--as-promised'))[0]).toBe('expected finish 2026-04-06, as promised');
  });

  test('one file carries the names of its editions, and the answer that was given', async () => {
    const kept = join(folder, 'depot.clembo');
    await clembo('intake', file('depot.csv', DEPOT), '--as-promised', '--out', kept);
    const pages = join(folder, 'depot-pages');
    await clembo('compose', kept, '--exhibits', '--out', pages, '--formats', 'svg');
    const [page] = readdirSync(pages);
    const svg = readFileSync(join(pages, page!), 'utf8');
    expect(svg).toContain('depot.csv · dates as drawn');
    expect(svg).toContain('Baseline in the source');
    expect(svg).toContain('depot is expected to run to 6 April 2026, as promised');
    const contents = unzipSync(readFileSync(kept));
    const named = strFromU8(contents['clembo.json']!).replaceAll('Baseline in the source', 'Contract of May');
    const renamed = join(folder, 'renamed.clembo');
    writeFileSync(renamed, zipSync({ ...contents, 'clembo.json': strToU8(named) }));
    await clembo('compose', renamed, '--exhibits', '--out', pages, '--formats', 'svg');
    expect(readFileSync(join(pages, page!), 'utf8')).toContain('Contract of May');
  });

  test('dates that lengths and links give, on demand', async () => {
    const linked = file('linked.csv', TABLE);
    const starts = async (...more: string[]) =>
      JSON.parse((await clembo('schedule', linked, '--start', '2026-03-02', '--json', ...more)).out) as {
        finish: string;
        without: number;
        activities: { ref: string; start: string; startFrom: string }[];
      };
    const { finish, without, activities } = await starts('--source', 'computed');
    // Ten days of digging and five of filling, from Monday 2 March.
    expect([finish, without]).toEqual(['2026-03-20', 0]);
    expect(new Set(activities.map((a) => a.startFrom))).toEqual(new Set(['computed']));
  });
});

describe('clembo intake and refresh', () => {
  const HEAD = 'ID,Name,Start,Finish,Trade\n';
  const FIRST = `${HEAD}A,Dig,2026-03-02,2026-03-06,Ground\nB,Fill,2026-03-09,2026-03-13,Ground\nC,Pave,2026-03-16,soon,Surface\n`;
  const SECOND = `${HEAD}A,Dig,2026-03-04,2026-03-10,Ground\nB,Fill and roll,2026-03-09,2026-03-13,Ground\nD,Open,2026-04-01,2026-04-01,Surface\n`;

  test('an intake says what each column was read as, and what was not read', async () => {
    const { code, out } = await clembo('intake', file('week1.csv', FIRST));
    expect([code, out.split('\n').slice(0, 6)]).toEqual([
      0,
      [
        '3 of 3 rows: 3 activities, 0 links',
        'ID                       ref                  3 read',
        'Name                     name                 3 read',
        'Start                    start                3 read',
        'Finish                   finish               2 read, 1 not read',
        'Trade                    code Trade           3 read',
      ],
    ]);
    expect(out).toMatch(/not read {2}1 {2}.*“soon”/);
    const strict = await clembo('intake', file('week1.csv', FIRST), '--strict', '--out', join(folder, 'no.clembo'));
    expect([strict.code, strict.err]).toEqual([
      2,
      expect.stringContaining('1 cells cannot be read; with --strict nothing is taken in'),
    ]);
    expect((await clembo('intake', file('week1.csv', FIRST), '--out', join(folder, 'no.xlsx'))).err).toContain(
      '--out PLAN.clembo',
    );
  });

  test('the next file is listed, some of it accepted, and what was refused is not listed again', async () => {
    const plan = join(folder, 'quay.clembo');
    expect((await clembo('intake', file('week1.csv', FIRST), '--out', plan)).code).toBe(0);
    const week2 = file('week2.csv', SECOND);
    const listed = await clembo('refresh', plan, week2);
    expect([listed.code, listed.out.trim().split('\n').sort()]).toEqual([
      0,
      [
        'added       D  Open',
        'moved       A  Dig, start +2, finish +2 working days',
        'removed     C  Pave',
        'renamed     B  Fill',
      ],
    ]);
    const some = await clembo('refresh', plan, week2, '--accept', 'added,moved');
    expect(some.out).toContain(`2 accepted, 2 refused, written to ${plan}`);
    const rows = async (path: string) =>
      JSON.parse((await clembo('schedule', path, '--json')).out).activities.map(
        (a: { ref: string; name: string; start: string }) => `${a.ref} ${a.name} ${a.start}`,
      );
    expect(await rows(plan)).toEqual([
      'A Dig 2026-03-04',
      'B Fill 2026-03-09',
      'D Open 2026-04-01',
      'C Pave 2026-03-16',
    ]);
    expect((await clembo('refresh', plan, week2)).out).toBe('no changes\n');
    // The state before is kept, and so are both files.
    const contents = JSON.parse(Buffer.from(unzipSync(readFileSync(plan))['clembo.json']!).toString());
    expect(contents.editions.map((e: { name: string; working: boolean }) => [e.name, e.working])).toEqual([
      ['week2.csv', true],
      ['week1.csv', false],
    ]);
    expect(contents.sources.map((s: { name: string; reading: number }) => [s.name, s.reading])).toEqual([
      ['week1.csv', 1],
      ['week2.csv', 2],
    ]);
    // It changed again: now it is said again.
    const week3 = file('week3.csv', SECOND.replace('Fill and roll', 'Fill and pave'));
    expect(
      (await clembo('refresh', plan, week3, '--accept', 'all', '--out', join(folder, 'next.clembo'))).out,
    ).toContain('renamed     B  Fill');
    expect((await rows(join(folder, 'next.clembo')))[1]).toBe('B Fill and pave 2026-03-09');
  });

  test('a plan alone is refreshed against itself; what is no plan, and kinds that are none, are refused', async () => {
    const plan = join(folder, 'alone.json');
    await clembo('convert', file('week1.csv', FIRST), '--out', plan);
    const { out } = await clembo('refresh', plan, file('week2.csv', SECOND), '--accept', 'moved');
    expect(out).toContain('renamed     B  Fill  (refused)');
    expect((await clembo('refresh', file('week1.csv', FIRST), file('week2.csv', SECOND))).err).toContain(
      'clembo intake',
    );
    expect((await clembo('refresh', plan, file('week2.csv', SECOND), '--accept', 'moves')).err).toContain(
      'not “moves”',
    );
  });
});

describe('clembo convert', () => {
  test('from a table to every form and back to the same dates', async () => {
    const dated = file(
      'dated.csv',
      'ID;Tâche;Début;Fin;Après\nA;Études;02/03/2026;13/03/2026;\nB;Réception;16/03/2026;27/03/2026;A\n',
    );
    const dates = async (path: string) => {
      const { out } = await clembo('schedule', path, '--json');
      return JSON.parse(out).activities.map((a: { ref: string; name: string; start: string; finish: string }) => [
        a.ref,
        a.name,
        a.start,
        a.finish,
      ]);
    };
    const expected = [
      ['A', 'Études', '2026-03-02', '2026-03-13'],
      ['B', 'Réception', '2026-03-16', '2026-03-27'],
    ];
    for (const ending of ['csv', 'xlsx', 'ics', 'ifc', 'json', 'clembo']) {
      const to = join(folder, `out.${ending}`);
      const { code, out } = await clembo('convert', dated, '--out', to);
      expect([code, out]).toEqual([0, `${to}: 2 activities, 1 link\n`]);
      expect(await dates(to)).toEqual(expected);
    }
    expect((await clembo('convert', dated, '--out', join(folder, 'x.doc'))).err).toContain('--out PLAN.csv');
  }, 60_000);

  test('dates without a year are read with the one that is said', async () => {
    const plan = file('yearless.csv', 'Name,Start,Finish\nRig,2 March,6 March\nSail,9 March,13 March\n');
    const { out } = await clembo('schedule', plan, '--year', '2026', '--json');
    expect(JSON.parse(out).activities[1]).toMatchObject({ start: '2026-03-09', finish: '2026-03-13' });
    expect((await clembo('schedule', plan, '--year', 'soon')).err).toContain('--year takes a year');
  });
});

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
      'A,Dig,activity,2025-01-06,2025-01-15,2025-01-06,2025-01-15,2025-01-06,2025-01-15,0,0,true,computed,computed',
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

describe('plans in our own JSON', () => {
  const plan = (part: object) => ({
    format: 'clembo-plan',
    version: 1,
    plan: {
      name: 'Own',
      start: Date.UTC(2025, 0, 6) / 60_000,
      source: 'computed',
      calendars: [{ id: 'w', name: 'Week', week: [...Array(5).fill([[480, 960]]), [], []], minutesPerDay: 480 }],
      calendar: 'w',
      activities: [
        { ref: 'A', duration: 960 },
        { ref: 'B', duration: 480 },
      ],
      links: [{ from: 'A', to: 'B' }],
      ...part,
    },
  });
  const run = async (document: object, command = 'schedule') =>
    JSON.parse((await clembo(command, file('own.json', JSON.stringify(document)), '--json')).out);

  test('are read and computed', async () => {
    const { activities, findings } = await run(plan({}));
    expect(activities.map((a: { ref: string; start: string; finish: string }) => [a.ref, a.start, a.finish])).toEqual([
      ['A', '2025-01-06', '2025-01-07'],
      ['B', '2025-01-08', '2025-01-08'],
    ]);
    expect(findings).toEqual([]);
  });
  test('values that cannot be used are findings with their rows; the rest is computed', async () => {
    const { activities, findings } = await run(
      plan({
        activities: [
          { ref: 'A', duration: -5 },
          { ref: 'B', duration: 480, start: 1e12 },
          { ref: 'C', duration: 480 },
        ],
        links: [
          { from: 'B', to: 'C' },
          { from: 'A', to: 'C', type: 'XY' },
          { from: 'A', to: 'Z' },
        ],
      }),
    );
    expect(
      findings.slice(0, 4).map((f: { code: string; refs: string[]; row: number }) => [f.code, f.refs, f.row]),
    ).toEqual([
      ['negativeDuration', ['A'], 1],
      ['notUsable', ['B'], 2],
      ['notUsable', ['A', 'C'], 2],
      ['linkToNothing', ['A'], undefined],
    ]);
    expect(findings[2].place).toContain('plan.links.1.type');
    expect(activities[2]).toMatchObject({ ref: 'C', start: '2025-01-07' });
  });
  test('a document that is no plan is refused with the places', async () => {
    const out = await clembo('schedule', file('own.json', JSON.stringify(plan({ calendars: [] }))));
    expect([out.code, out.err]).toEqual([2, expect.stringContaining('plan.calendars')]);
  });
});

describe('clembo check, changes, variance, linear', () => {
  const old = () =>
    file(
      'old.csv',
      'ID,Name,Start,Finish,Duration,Predecessors,Cost\nA,Dig,2025-01-06,2025-01-10,5,,1000\nB,Fill,2025-01-13,2025-01-17,5,A,500\nC,Gone,2025-01-13,2025-01-14,2,A,\n',
    );
  const now = () =>
    file(
      'now.csv',
      'ID,Name,Start,Finish,Duration,Predecessors,Cost,% complete,Actual cost\nA,Dig,2025-01-06,2025-01-14,7,,1000,100,1200\nB,Refill,2025-01-15,2025-01-21,5,,500,0,\nD,New,2025-01-22,2025-01-22,1,B,,0,\n',
    );

  test('check lists findings with rows, and the fourteen points', async () => {
    const { findings, assessment } = JSON.parse((await clembo('check', old(), '--json')).out);
    expect(findings).toContainEqual(expect.objectContaining({ code: 'noSuccessor', refs: ['B', 'C'] }));
    expect(assessment.length).toBe(14);
    const bad = JSON.parse(
      (
        await clembo(
          'check',
          file(
            'bad.csv',
            'ID,Name,Start,Finish,Duration\nA,Dig,1850-01-01,2025-01-10,-5\nB,Fill,2025-01-13,2025-01-17,5\n',
          ),
          '--json',
        )
      ).out,
    );
    expect(
      bad.findings.map((f: { code: string; refs: string[]; row: number }) => [f.code, f.refs, f.row]).slice(0, 2),
    ).toEqual([
      ['notADate', ['A'], 2],
      ['negativeDuration', ['A'], 2],
    ]);
  });

  test('changes tells added, removed, renamed, moved by working days, relinked', async () => {
    const c = JSON.parse((await clembo('changes', old(), now(), '--json')).out);
    expect([c.added[0].ref, c.removed[0].ref]).toEqual(['D', 'C']);
    const b = c.changed.find((x: { ref: string }) => x.ref === 'B');
    expect(b).toMatchObject({ startMoved: 2, finishMoved: 2 });
    expect(b.kinds).toEqual(expect.arrayContaining(['renamed', 'moved']));
    expect(b.fields).toContainEqual({ field: 'finish', from: '2025-01-17', to: '2025-01-21' });
    expect(c.linksRemoved.map((l: { from: string; to: string }) => l.from + l.to)).toEqual(['AB', 'AC']);
    expect((await clembo('changes', old(), old())).out).toBe('no changes\n');
  });

  test('changes by a key of one’s own, where the references of the files say nothing', async () => {
    const a = file(
      'a.csv',
      'Name,Start,Finish,Zone\nDig,2025-01-06,2025-01-10,N\nFill,2025-01-13,2025-01-17,N\nFill,2025-01-13,2025-01-17,S\n',
    );
    const b = file(
      'b.csv',
      'Name,Start,Finish,Zone\nClear,2025-01-06,2025-01-06,N\nDig,2025-01-07,2025-01-13,N\nFill,2025-01-13,2025-01-17,N\nFill,2025-01-13,2025-01-17,S\n',
    );
    const byName = JSON.parse((await clembo('changes', a, b, '--match', 'name', '--json')).out);
    expect(byName.doubtful.map((d: { key: string }) => d.key)).toEqual(['Fill']);
    const both = JSON.parse((await clembo('changes', a, b, '--match', 'name, zone', '--json')).out);
    expect([both.doubtful, both.removed, both.added.map((x: { name: string }) => x.name)]).toEqual([[], [], ['Clear']]);
    expect(both.changed).toEqual([expect.objectContaining({ kinds: ['moved'], startMoved: 1, finishMoved: 1 })]);
    expect((await clembo('changes', a, b, '--match', 'colour')).err).toContain('The fields are: name, Zone');
  });

  test('variance in working days and earned value in units of money', async () => {
    const v = JSON.parse((await clembo('variance', old(), now(), '--status-date', '2025-01-15', '--json')).out);
    expect(v.activities.find((a: { ref: string }) => a.ref === 'A')).toMatchObject({
      startDays: 0,
      finishDays: 2,
      durationDays: 2,
      costRatio: 1.2,
    });
    // By hand: A planned whole (1000), B three of five days by the evening of the 15th (300); A earned whole.
    expect(v.earnedValue).toMatchObject({ pv: 1300, ev: 1000, ac: 1200, bac: 1500, cv: -200, sv: -300 });
  });

  test('standing: late, earned, what slipped and the snapshot, against another file', async () => {
    const ask = ['standing', now(), '--against', old(), '--status-date', '2025-01-15'];
    const v = JSON.parse((await clembo(...ask, '--json')).out);
    // C is not in the plan any more; D is not in the promise: the last promised day of what is there is B's.
    expect(v.finish).toMatchObject({ now: '2025-01-22', promised: '2025-01-17', late: 3 });
    expect(v.earned.cost).toMatchObject({ pv: 1300, ev: 1000, ac: 1200, bac: 1500 });
    expect(v.slips.map((r: { ref: string; late: number }) => [r.ref, r.late])).toEqual([
      ['A', 2],
      ['B', 2],
    ]);
    expect(v.status).toMatchObject({ complete: 1 });
    const { out } = await clembo(...ask);
    expect(out).toContain('finish 2025-01-22, 3 working days late');
    expect(out).toMatch(/Cost\s+1,700\s+1,500\s+1,200/);
    expect((await clembo('standing', now())).err).toContain('--against');
    expect((await clembo('standing', now(), '--against', old())).err).toContain('--status-date');
  });

  test('pages about variance by their kind, in the notation that is asked for', async () => {
    const out = join(folder, 'variance.svg');
    const ask = (kind: string, ...more: string[]) =>
      clembo(
        'compose',
        now(),
        '--baseline',
        old(),
        '--status-date',
        '2025-01-15',
        '--kind',
        kind,
        '--out',
        out,
        ...more,
      );
    expect((await ask('slips')).code).toBe(0);
    expect(readFileSync(out, 'utf8')).toContain('2 d late');
    expect((await ask('snapshot', '--locale', 'de-DE')).code).toBe(0);
    expect(readFileSync(out, 'utf8')).toContain('1.700');
    expect((await clembo('compose', now(), '--kind', 'slips', '--out', out)).err).toContain('--baseline');
    expect((await ask('wheel')).err).toContain('--kind takes timeline, slips');
  });

  test('a sentence says what is other than in the brief, and what is not understood', async () => {
    const out = join(folder, 'said.svg');
    const done = await clembo(
      'compose',
      now(),
      '--out',
      out,
      '--say',
      'rows each, on A3 portrait, where name contains Dig',
    );
    expect([done.code, done.err]).toEqual([0, '']);
    const svg = readFileSync(out, 'utf8');
    expect(svg).toContain('viewBox="0 0 841.89 1190.55"');
    expect(svg).toContain('Dig');
    expect(svg).not.toContain('>Refill');
    const wrong = await clembo('compose', now(), '--out', out, '--say', 'rows each, with sparkles');
    expect([wrong.code, wrong.err.includes('“sparkles” is not understood')]).toEqual([2, true]);
  });

  // Common practice: see packages/core/tests/linear.test.ts
  test('linear finds crossing lines and starts that keep a buffer', async () => {
    const plan = file(
      'line.csv',
      'ID,Name,Start,From place,To place,Rate per day\nA,Trade A,2025-01-06,0,300,15\nB,Trade B,2025-01-08,0,300,20\n',
    );
    const r = JSON.parse((await clembo('linear', plan, '--calendar', 'seven-day', '--buffer', '4', '--json')).out);
    expect(r.activities.map((a: { workingDays: number }) => a.workingDays)).toEqual([20, 15]);
    // By hand: 15 t = 20 (t - 2) on the eighth day, at 120.
    expect(r.clashes).toEqual([
      { refs: ['A', 'B'], kind: 'crossing', place: 120, date: '2025-01-14', gap: null, measure: null },
    ]);
    expect(r.withBuffer.map((p: { startDay: number; finishDay: number }) => [p.startDay, p.finishDay])).toEqual([
      [0, 20],
      [9, 24],
    ]);
  });

  // Common practice: rates that give 9, 20, 15, 30, 43 and 20 whole weeks one after the other, four weeks between them.
  test('balance moves each trade behind the one before it, and says when all is done', async () => {
    const rates = [4300, 1935, 2580, 1290, 900, 1935];
    const rows = rates.map((r, k) => `T${k},Trade ${k},2025-01-06,0,270900,${r}`);
    const plan = file('balance.csv', `ID,Name,Start,From place,To place,Rate per day\n${rows.join('\n')}\n`);
    const r = JSON.parse((await clembo('balance', plan, '--calendar', 'seven-day', '--buffer', '4w', '--json')).out);
    expect(r.changes.map((c: { movedDays: number }) => c.movedDays / 7)).toEqual([0, 4, 13, 17, 21, 48]);
    const week = (date: string) => (Date.parse(date) - Date.parse('2025-01-06')) / 604_800_000;
    expect(r.changes.map((c: { newStart: string }) => week(c.newStart))).toEqual([0, 4, 13, 17, 21, 48]);
    // Sixty-eight weeks from a Monday on end on a Sunday.
    expect(r.finish).toBe('2026-04-26');
    expect((await clembo('balance', plan, '--calendar', 'seven-day', '--buffer', '4w')).out).toContain(
      'all done on 2026-04-26',
    );
    expect((await clembo('balance', plan, '--buffer', 'soon')).err).toContain('--buffer takes days or weeks');
  });

  test('public holidays are days off', async () => {
    const plan = file('xmas.csv', 'ID,Name,Duration\nA,Dig,10\n');
    const finish = async (...more: string[]) =>
      JSON.parse((await clembo('schedule', plan, '--start', '2025-12-22', '--json', ...more)).out).finish;
    expect(await finish()).toBe('2026-01-02');
    expect(await finish('--holidays', 'GB')).toBe('2026-01-07');
    expect((await clembo('schedule', plan, '--holidays', 'Mars')).err).toContain('--holidays takes a country');
  });
});

describe('the weekly run', () => {
  const briefs = () => {
    const path = join(folder, 'briefs');
    mkdirSync(path, { recursive: true });
    const put = (name: string, brief: object) => writeFileSync(join(path, name), JSON.stringify(brief));
    put('02-strung.json', { kind: 'timeline', rows: 'strand', include: 'milestones' });
    put('01-all.json', { kind: 'timeline', title: 'All of it', looks: [{ ref: 'A', text: 'The big dig' }] });
    writeFileSync(join(path, 'notes.txt'), 'not a brief');
    return path;
  };
  const TWO = 'ID,Name,Start,Finish,Days\nA,Dig,2026-03-02,2026-03-06,5\nM,Open,2026-03-09,2026-03-09,0\n';

  test('a folder of briefs becomes one file, in the order of the briefs, with what is set by hand', async () => {
    const out = join(folder, 'week.pptx');
    const { code, out: said } = await clembo('compose', file('two.csv', TWO), '--briefs', briefs(), '--out', out);
    expect([code, said.split('\n').filter((l) => !l.startsWith('  '))]).toEqual([
      0,
      [
        `${out}, 01-all: 2 of 2 activities shown`,
        `${out}, 02-strung: 1 of 2 activities shown · not shown: 1 left out by the brief`,
        '',
      ],
    ]);
    const files = unzipSync(readFileSync(out));
    expect(strFromU8(files['ppt/slides/slide1.xml']!)).toContain('>The big dig<');
    expect(strFromU8(files['ppt/slides/slide2.xml']!)).not.toContain('Dig');
  });

  test('or a file for each in each format that is wanted', async () => {
    const out = join(folder, 'pages');
    const args = ['compose', file('two.csv', TWO), '--briefs', briefs(), '--out', out, '--formats', 'pdf,svg,xlsx'];
    expect((await clembo(...args)).code).toBe(0);
    expect(readdirSync(out).sort()).toEqual([
      '01-all.pdf',
      '01-all.svg',
      '01-all.xlsx',
      '02-strung.pdf',
      '02-strung.svg',
      '02-strung.xlsx',
    ]);
    expect(readFileSync(join(out, '01-all.svg'), 'utf8')).toContain('>All of it</text>');
    // The same again gives the same bytes.
    const first = readFileSync(join(out, '01-all.pdf'));
    const again = ['--date', '2026-03-01'];
    await clembo(...args, ...again);
    const second = readFileSync(join(out, '01-all.pdf'));
    await clembo(...args, ...again);
    expect(readFileSync(join(out, '01-all.pdf')).equals(second)).toBe(true);
    expect(first.length).toBeGreaterThan(1000);
  });

  test('the exhibits that a plan holds are written after its refresh', async () => {
    const plan = join(folder, 'held.clembo');
    await clembo('intake', file('held.csv', TWO), '--out', plan);
    await clembo(
      'refresh',
      plan,
      file('held2.csv', TWO.replace('2026-03-06,5', '2026-03-20,15')),
      '--accept',
      'all',
      '--out',
      plan,
    );
    const out = join(folder, 'held.html');
    const { code } = await clembo('compose', plan, '--exhibits', '--out', out);
    expect(code).toBe(0);
    expect(readFileSync(out, 'utf8')).toContain('20 March 2026');
  });

  test('a folio that the file holds is written as it was put together, and refused where it holds none of that name', async () => {
    const plan = join(folder, 'bound.clembo');
    await clembo('intake', file('bound.csv', TWO), '--out', plan);
    // As the application writes it: a folio of the one exhibit, with an overview of its own blocks.
    const whole = readBundle(readFileSync(plan), 'bound.clembo');
    const place = { x: 0, y: 0, width: 1, height: 0.4 };
    const content = {
      name: 'Board of May',
      overview: true,
      pages: [{ id: 'p1', exhibit: exhibitOfFile(0), notes: 'Begin here.' }],
      blocks: [
        { id: 'a', what: 'text', text: 'The tide decides.', place },
        { id: 'b', what: 'facts', plan: PLAN_OF_FILE, place: { ...place, y: 0.5 } },
      ],
    };
    writeFileSync(plan, writeBundle({ ...whole, folios: [{ name: 'Board of May', content }] }));
    const out = join(folder, 'board.html');
    expect((await clembo('folio', plan, '--folio', 'board of may', '--out', out)).out).toContain('3 pages');
    const html = readFileSync(out, 'utf8');
    for (const said of ['Board of May', 'The tide decides.', 'Ends']) expect(html).toContain(said);
    expect((await clembo('folio', plan, '--folio', 'Other', '--out', out)).err).toContain('it holds “Board of May”');
    const bare = file('bare.csv', TWO);
    expect((await clembo('folio', bare, '--folio', 'Other', '--out', out)).err).toContain('holds no folios');
  });

  test('what is wrong is said', async () => {
    const plan = file('two.csv', TWO);
    const wrong = async (...more: string[]) => (await clembo('compose', plan, ...more)).err;
    const empty = join(folder, 'empty');
    mkdirSync(empty, { recursive: true });
    expect(await wrong('--briefs', empty, '--out', 'x.pdf')).toContain('holds no briefs');
    expect(await wrong('--briefs', briefs(), '--out', 'x.svg')).toContain('holds one page');
    expect(await wrong('--briefs', briefs(), '--out', folder, '--formats', 'pdf,gif')).toContain('gif is none of');
    expect(await wrong('--exhibits', '--out', 'x.pdf')).toContain('holds no exhibits');
    expect(await wrong('--exhibits', '--briefs', briefs(), '--out', 'x.pdf')).toContain('only one');
    expect(await wrong('--briefs', briefs())).toContain('--out FOLDER --formats');
    writeFileSync(join(empty, 'bad.json'), '{"kind":"timeline","rows":"heaps"}');
    expect(await wrong('--briefs', empty, '--out', 'x.pdf')).toMatch(/bad\.json: not a brief: rows/);
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
    expect(result).toMatchObject({ code: 0, out: `${out}: 4 of 4 activities shown\n  smallest type 11 pt\n` });
    const svg = readFileSync(out, 'utf8');
    for (const text of ['>Dug by spring</text>', '>Dig<', '17 Jan', '>Done<', '24 Jan']) expect(svg).toContain(text);
  });

  test('what was promised, what has no dates, and what would make a page fit, are said', async () => {
    const rows = Array.from({ length: 300 }, (_, i) => `R${i},Section number ${i},2026-03-0${1 + (i % 9)},2026-04-01`);
    const plan = file('crowd.csv', `ID,Name,Start,Finish\n${rows.join('\n')}\nX,Permits,,\n`);
    const out = join(folder, 'crowd.svg');
    const brief = file('crowd.json', JSON.stringify({ kind: 'timeline', rows: 'each' }));
    const { out: said } = await clembo('compose', plan, '--brief', brief, '--out', out);
    expect(said).toContain('300 of 301 activities shown · not shown: 1 without dates');
    expect(said).toContain('too much to be read on this page');
    expect(said).toContain('fit advice: pack the rows, or use A3 landscape');

    const old = file('old.csv', 'ID,Name,Start,Finish\nA,Dig,2026-03-02,2026-03-06\n');
    const now = file('now.csv', 'ID,Name,Start,Finish\nA,Dig,2026-03-02,2026-03-10\n');
    expect((await clembo('compose', now, '--baseline', old, '--out', out)).code).toBe(0);
    expect(readFileSync(out, 'utf8')).toContain('2 d late');
  });

  test('the same plan and date give the same PDF', async () => {
    const [a, b] = [join(folder, 'a.pdf'), join(folder, 'b.pdf')];
    for (const out of [a, b])
      expect(
        (
          await clembo(
            'compose',
            file('plan.csv', TABLE),
            '--start',
            '2025-01-06',
            '--date',
            '2026-09-14',
            '--out',
            out,
          )
        ).code,
      ).toBe(0);
    expect(readFileSync(a).equals(readFileSync(b))).toBe(true);
    expect(readFileSync(a).toString('latin1')).toContain('D:20260914');
  });

  test('a plan that says nowhere when it begins makes no page, and one without dates none either', async () => {
    const open = await clembo('compose', file('plan.csv', TABLE), '--out', join(folder, 'x.svg'));
    expect([open.code, open.err]).toEqual([2, expect.stringContaining('Say the start of the plan with --start')]);
    const list = await clembo('compose', file('list.csv', 'ID,Name\nA,Dig\n'), '--out', join(folder, 'x.svg'));
    expect(list.code).toBe(2);
  });

  test('baseline columns of the file are what it promised', async () => {
    const table =
      'ID,Name,Start,Finish,Baseline start,Baseline finish\nA,Dig,2026-03-02,2026-03-10,2026-03-02,2026-03-06\n';
    const out = join(folder, 'own.svg');
    expect((await clembo('compose', file('own.csv', table), '--out', out)).code).toBe(0);
    expect(readFileSync(out, 'utf8')).toContain('2 d late');
  });

  test.each(['pdf', 'png'])('writes %s', async (format) => {
    const out = join(folder, `page.${format}`);
    const args = ['compose', file('plan.csv', TABLE), '--start', '2025-01-06', '--out', out];
    expect((await clembo(...args)).code).toBe(0);
    expect(readFileSync(out).subarray(0, 8).toString('latin1')).toMatch(format === 'pdf' ? /^%PDF-1.7/ : /PNG/);
  });
});

describe('what is wrong is said in a line, with exit code 2', () => {
  test.each([
    [['schedule', 'nowhere.csv'], 'There is no file nowhere.csv.'],
    [['frobnicate'], 'there is no command “frobnicate”'],
    [['schedule'], 'needs a file'],
    [['compose', 'PLAN'], '--out PAGE.pdf'],
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
