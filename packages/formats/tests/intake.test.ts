import { describe, expect, test } from '@jest/globals';
import { finishDayOf, isoDate, dayOf } from '@clembo/core';
import {
  guessColumnMap,
  guessDelimiter,
  orderInTable,
  problemPlace,
  problemWords,
  promisedEdition,
  readCsv,
  readDelimited,
  readPlan,
  readTables,
  UnreadableFile,
} from '../src/index';

const utf8 = (text: string) => new TextEncoder().encode(text);
const take = (text: string) => {
  const table = readDelimited(text, 'plan.csv');
  const map = guessColumnMap(table);
  return { table, map, ...readPlan(table, map, { name: 'Plan' }) };
};
const meaning = (map: ReturnType<typeof guessColumnMap>) =>
  map.columns.map((c) => (c.as === 'field' ? c.field : c.as === 'code' ? `code ${c.name}` : '-'));

describe('delimited text', () => {
  // RFC 4180, section 2, items 5 to 7
  test('quotes hold delimiters, line ends and doubled quotes', () => {
    const table = readDelimited('Name,Start\r\n"Wall, north ""A""\nsecond line",2026-01-05\r\n', 'x.csv');
    expect(table.rows[1]).toEqual(['Wall, north "A"\nsecond line', '2026-01-05']);
  });

  test.each([',', ';', '\t', '|'])('delimiter %j is found', (d) => {
    expect(guessDelimiter(`Name${d}Start\n"a,b;c|d"${d}2026-01-05\nx, y${d}2026-01-06\n`)).toBe(d);
  });

  test('encodings: UTF-8 with and without mark, UTF-16 both ways, Windows-1252', () => {
    const text = 'Name,Start\nMôle – façade,2026-01-05\n';
    const utf16 = (big: boolean, mark: boolean) => {
      const b = Buffer.from((mark ? '\ufeff' : '') + text, 'utf16le');
      return big ? b.swap16() : b;
    };
    const latin = Uint8Array.from([...text].map((c) => (c === '–' ? 0x96 : c.charCodeAt(0))));
    for (const bytes of [
      utf8(text),
      utf8(`\ufeff${text}`),
      utf16(false, true),
      utf16(true, true),
      utf16(false, false),
      utf16(true, false),
      latin,
    ]) {
      expect(readCsv(bytes, 'x').rows).toEqual([
        ['Name', 'Start'],
        ['Môle – façade', '2026-01-05'],
      ]);
    }
  });

  test('an open quote and binary data are refused with a reason', async () => {
    expect(() => readDelimited('Name,Start\n"Wall,2026-01-05\n', 'x.csv')).toThrow(/row 2.*quotation mark/s);
    await expect(readTables(Uint8Array.from([1, 0, 2, 0, 0, 0, 9]), 'x.bin')).rejects.toThrow(UnreadableFile);
    await expect(readTables(new Uint8Array(), 'x.csv')).rejects.toThrow('x.csv is empty');
    await expect(readTables(Uint8Array.from([0x50, 0x4b, 3, 4, 1, 2, 3]), 'x.xlsx')).rejects.toThrow(/damaged/);
  });
});

describe('column map', () => {
  test('headings and values together decide; a column of names called Start is not taken for dates', () => {
    const { map } = take(
      'ID,Activity,Begin,End,Days,Contractor,Start\n1,Piling,05/01/2026,16/01/2026,10,Marine,north\n2,Capping,19/01/2026,23/01/2026,5,Civil,south\n3,Rails,26/01/2026,30/01/2026,5,Civil,south\n',
    );
    expect(meaning(map)).toEqual(['ref', 'name', 'start', 'finish', 'duration', 'code Contractor', 'code Start']);
    expect(map.dateOrder).toBe('dmy');
  });

  test('“From” and “To” alone are dates where they hold dates, and places where they hold those', () => {
    const dates = take('Name,From,To\nWall,2026-01-05,2026-01-09\nRoof,2026-01-12,2026-01-16\n').map;
    expect(meaning(dates)).toEqual(['name', 'start', 'finish']);
    const places = take(
      'Name,Start,Finish,From,To\nWall,2026-01-05,2026-01-09,0,325.5\nRoof,2026-01-12,2026-01-16,325.5,650\n',
    );
    expect(meaning(places.map)).toEqual(['name', 'start', 'finish', 'from', 'to']);
    expect(places.plan.activities.map((a) => [a.from, a.to])).toEqual([
      [0, 325_500],
      [325_500, 650_000],
    ]);
    const chainage = take('Name,Start,Finish,From,To\nWall,2026-01-05,2026-01-09,-0+050,0+325\n');
    expect(meaning(chainage.map)).toEqual(['name', 'start', 'finish', 'from', 'to']);
    expect(chainage.plan.activities.map((a) => [a.from, a.to])).toEqual([[-50_000, 325_000]]);
    // Words are neither.
    expect(meaning(take('Name,Start,Finish,From,To\nMove,2026-01-05,2026-01-09,Yard,Site\n').map)).not.toContain(
      'from',
    );
  });

  test('one date is a milestone, but work where a quantity and a daily output give its length', () => {
    const { map, plan } = take(
      'Name,Start,From place,To place,Quantity,Daily output\nColumns,2026-01-05,0,1,104,8.03\nHandover,2026-02-02,1,,,\nWaiting,2026-02-02,,,12,\n',
    );
    expect(meaning(map)).toEqual(['name', 'start', 'from', 'to', 'quantity', 'output']);
    expect(plan.activities.map((a) => [a.kind, a.quantity, a.output])).toEqual([
      ['activity', 104, 8.03],
      ['startMilestone', null, null],
      ['startMilestone', 12, null],
    ]);
    const { activities } = take('Name,Start,From place,To place,Rate\nPipe,2026-01-05,0,300,40\n').plan;
    expect(activities[0]!.kind).toBe('activity');
  });

  test('the row of headings is found below a title', () => {
    const { map, plan } = take(
      'Saltmere sea wall,,\nprinted 1 May,,\nActivity ID,Activity name,Start\nA1,Piling,2026-01-05\n',
    );
    expect(map.headerRow).toBe(2);
    expect(plan.activities.map((a) => a.ref)).toEqual(['A1']);
  });

  test('works without headings, from one column of dates', () => {
    const { map, plan } = take('Gate one\t2026-03-02\nGate two\t2026-04-06\n');
    expect(meaning(map)).toEqual(['name', 'start']);
    expect(plan.activities.map((a) => [a.name, a.kind])).toEqual([
      ['Gate one', 'startMilestone'],
      ['Gate two', 'startMilestone'],
    ]);
  });

  test('an order of day and month that stays open is asked', () => {
    expect(take('Name,Start,Finish\nA,01/02/2026,03/04/2026\n').map.dateOrder).toBeNull();
  });

  test.each<[string, string[], string, string | null]>([
    ['ISO dates leave nothing open', ['2026-03-02', '2026-04-05'], 'irrelevant', 'dmy'],
    ['one clear cell settles the whole', ['02/03/2026', '25/04/2026'], 'dmy', 'dmy'],
    ['no clear cell', ['02/03/2026', '05/04/2026'], 'open', null],
    ['cells against each other', ['13/03/2026', '04/25/2026'], 'mixed', null],
  ])('order of day and month: %s', (_, [start, finish], evidence, order) => {
    const { table, map } = take(`Name,Start,Finish\nA,${start},${finish}\n`);
    expect([orderInTable(table, map), map.dateOrder]).toEqual([evidence, order]);
  });
  test('percent written as fractions', () => {
    expect(
      take(
        'Name,Start,Finish,% complete\nA,2026-01-05,2026-01-09,0.25\nB,2026-01-05,2026-01-09,1\n',
      ).plan.activities.map((a) => a.percent),
    ).toEqual([25, 100]);
  });
});

describe('plan from a table', () => {
  test('one date or no duration is a milestone; a finish is the end of its day', () => {
    const { plan } = take(
      'ID,Name,Start,Finish,Duration,Predecessors\n1,Dig,2026-01-05,2026-01-16,10,\n2,Ready,2026-01-16,2026-01-16,0,1\n3,Permit,2026-01-05,,,\n4,Handover,,2026-02-02,,\n',
    );
    expect(plan.activities.map((a) => a.kind)).toEqual([
      'activity',
      'finishMilestone',
      'startMilestone',
      'finishMilestone',
    ]);
    expect(isoDate(finishDayOf(plan.activities[0]!.finish!))).toBe('2026-01-16');
    expect(isoDate(dayOf(plan.activities[0]!.start!))).toBe('2026-01-05');
    expect(plan.links).toEqual([{ from: '1', to: '2', type: 'FS', lag: 0, lagCalendar: 'successor' }]);
  });

  test.each([
    [
      'level',
      'Level,Name,Start,Finish\n1,Works,,\n2,Dig,2026-01-05,2026-01-09\n2,Fill,2026-01-12,2026-01-16\n1,Close,2026-02-02,2026-02-06\n',
    ],
    [
      'dotted code',
      'WBS,Name,Start,Finish\n1,Works,,\n1.1,Dig,2026-01-05,2026-01-09\n1.2,Fill,2026-01-12,2026-01-16\n2,Close,2026-02-02,2026-02-06\n',
    ],
    [
      'indentation',
      'Name,Start,Finish\nWorks,,\n  Dig,2026-01-05,2026-01-09\n  Fill,2026-01-12,2026-01-16\nClose,2026-02-02,2026-02-06\n',
    ],
  ])('summaries by %s', (_, text) => {
    const { plan } = take(text);
    const byName = new Map(plan.activities.map((a) => [a.name, a]));
    expect(byName.get('Works')!.kind).toBe('summary');
    expect(byName.get('Dig')!.parent).toBe(byName.get('Works')!.ref);
    expect(byName.get('Fill')!.parent).toBe(byName.get('Works')!.ref);
    expect(byName.get('Close')!).toMatchObject({ parent: null, kind: 'activity' });
  });

  test('summaries by a yes/no column', () => {
    const { plan } = take(
      'Name,Summary,Start,Finish\nWorks,yes,,\nDig,no,2026-01-05,2026-01-09\nEnd,yes,,\nFill,no,2026-01-12,2026-01-16\n',
    );
    expect(plan.activities.map((a) => a.parent)).toEqual([null, '1', null, '3']);
  });

  test('wrong cells are listed with their place and hold nothing back', () => {
    const { problems, plan, rowsTaken } = take(
      'ID,Name,Start,Finish,Duration,Predecessors\nA,Dig,2026-01-05,2026-01-16,10,\nB,Fill,soon,2026-01-23,five,A; C\nA,Again,2026-02-02,2026-01-02,3,\nD,Fine,2026-02-02,2026-02-06,5,A\n',
    );
    expect(problems.map((p) => [p.row, p.column, p.code])).toEqual([
      [3, 2, 'notADate'],
      [3, 4, 'notADuration'],
      [3, 5, 'unknownPredecessor'],
      [4, 0, 'duplicateReference'],
      [4, 3, 'finishBeforeStart'],
    ]);
    expect(problemPlace(problems[0]!)).toBe('plan.csv, row 3, column C “Start”');
    expect(problemWords(problems[0]!)).toContain('“soon” is not a date');
    expect(rowsTaken).toBe(4);
    expect(plan.activities.map((a) => a.ref)).toEqual(['A', 'B', 'A (2)', 'D']);
    expect(plan.links.map((l) => `${l.from}>${l.to}`)).toEqual(['A>B', 'A>D']);
  });

  test('the week is told from durations: eight days from Monday to the next Tuesday are a seven-day-week less none', () => {
    const rows = (days: number, finish: string) =>
      Array.from({ length: 5 }, (_, i) => `${i},W${i},2026-01-05,${finish},${days}`).join('\n');
    const head = 'ID,Name,Start,Finish,Duration\n';
    expect(take(head + rows(10, '2026-01-16')).plan.calendar).toBe('five-day');
    expect(take(head + rows(11, '2026-01-16')).plan.calendar).toBe('six-day');
    expect(take(head + rows(12, '2026-01-16')).plan.calendar).toBe('seven-day');
  });

  test('baseline columns are kept apart', () => {
    const { baseline } = take(
      'ID,Name,Start,Finish,Baseline start,Baseline finish\nA,Dig,2026-01-12,2026-01-23,2026-01-05,2026-01-16\n',
    );
    expect(baseline.map((b) => [b.ref, isoDate(dayOf(b.start!)), isoDate(finishDayOf(b.finish!))])).toEqual([
      ['A', '2026-01-05', '2026-01-16'],
    ]);
  });
});

describe('leading blanks', () => {
  const rows = (names: string[]) =>
    `ID,Name,Start,Finish\n${names.map((n, i) => `R${i},${n},2026-03-0${i + 1},2026-03-1${i}`).join('\n')}\n`;

  test('one stray blank makes no outline, and nothing becomes a summary by it', () => {
    const { plan, problems } = take(rows(['Survey', ' Permits', 'Dig', 'Wall']));
    expect(plan.activities.map((a) => [a.kind, a.parent])).toEqual(Array(4).fill(['activity', null]));
    expect(problems.map((p) => [p.code, p.row])).toEqual([['indentIgnored', 3]]);
    expect(problemWords(problems[0]!)).toContain('the row above it (R0) is work of its own');
  });

  test('headings without dates hold what stands further in below them', () => {
    const { plan, problems } = take(
      'ID,Name,Start,Finish\nA,North,,\nB,  Survey,2026-03-02,2026-03-06\nC,  Dig,2026-03-09,2026-03-13\nD,South,,\nE,  Survey,2026-03-16,2026-03-20\n',
    );
    expect(plan.activities.map((a) => [a.ref, a.kind, a.parent])).toEqual([
      ['A', 'summary', null],
      ['B', 'activity', 'A'],
      ['C', 'activity', 'A'],
      ['D', 'summary', null],
      ['E', 'activity', 'D'],
    ]);
    expect(problems).toEqual([]);
  });

  test('a row whose dates are those of the rows below it is their summary', () => {
    const { plan } = take(
      'ID,Name,Start,Finish\nA,North,2026-03-02,2026-03-13\nB,  Survey,2026-03-02,2026-03-06\nC,  Dig,2026-03-09,2026-03-13\n',
    );
    expect(plan.activities.map((a) => a.kind)).toEqual(['summary', 'activity', 'activity']);
  });

  test('without dates, a row that is as long as any of several below it is their summary', () => {
    const { plan } = take('ID,Name,Days\nA,All of it,30\nB,  Design,10\nC,  Build,20\n');
    expect(plan.activities.map((a) => [a.kind, a.parent])).toEqual([
      ['summary', null],
      ['activity', 'A'],
      ['activity', 'A'],
    ]);
  });

  test('no activity vanishes: work that would have become a summary stays work', () => {
    const { plan } = take('ID,Name,Days\nA,Survey,5\nB,  Permits,10\nC,  Dig,3\nD,Wall,8\n');
    expect(plan.activities.map((a) => [a.kind, a.duration])).toEqual([
      ['activity', 2400],
      ['activity', 4800],
      ['activity', 1440],
      ['activity', 3840],
    ]);
  });
});

describe('tables without dates', () => {
  test('lengths and links make a computed plan from a start that a person says; none is taken in its place', () => {
    const table = readDelimited('ID,Name,Days,Predecessors\nA,Survey,5,\nB,Dig,3,A\n', 'plan.csv');
    const map = guessColumnMap(table);
    const open = readPlan(table, map, { name: 'Plan' });
    expect([open.dates, open.plan.source, open.plan.start]).toEqual(['computed', 'computed', null]);
    const said = readPlan(table, map, { name: 'Plan', start: 20_000 * 1440 });
    expect(said.plan.start).toBe(20_000 * 1440);
  });

  test('neither dates nor lengths nor links: nothing to draw', () => {
    expect(take('ID,Name\nA,Survey\nB,Dig\n').dates).toBe('none');
    expect(take('ID,Name,Start\nA,Survey,2026-03-02\nB,Dig,\n').dates).toBe('given');
  });
});

test('baseline columns make an edition of their own; what they promise nothing about has no dates there', () => {
  const { plan, baseline } = take(
    'ID,Name,Start,Finish,Baseline start,Baseline finish,% complete\nA,Survey,2026-03-02,2026-03-06,2026-03-01,2026-03-05,50\nB,Dig,2026-03-09,2026-03-13,,,\n',
  );
  const promised = promisedEdition(plan, baseline)!;
  expect(promised.activities.map((a) => [a.start === null ? null : isoDate(dayOf(a.start)), a.percent])).toEqual([
    ['2026-03-01', null],
    [null, null],
  ]);
  expect(promisedEdition(plan, [])).toBe(null);
});
