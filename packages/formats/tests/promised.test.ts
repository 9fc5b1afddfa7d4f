import { describe, expect, test } from '@jest/globals';
import {
  allRows,
  dayOf,
  endsOf,
  finishDayOf,
  isoDate,
  NONE,
  ORIGINS,
  type Plan,
  schedulePlan,
  UNKNOWN,
} from '@clembo/core';
import {
  beginState,
  changeState,
  guessColumnMap,
  type IntakeState,
  previewIntake,
  promisedEdition,
  readDelimited,
  readPlan,
  readPlanJson,
  type Table,
  writePlanCsv,
  writePlanJson,
} from '../src/index';

// A depot is rebuilt: baseline and actual dates, and no forecast. Three works are done, two under way, eight to come.
// Worked out by hand on a week of five days; the last is promised for Monday 6 July 2026.
const ROWS = [
  'ID;Phase;Task;Baseline start;Baseline finish;Actual start;Actual finish;% complete',
  'D1;Strip-out;Close the depot;02.03.2026;02.03.2026;02.03.2026;02.03.2026;100',
  'D2;Strip-out;Remove old pits;03.03.2026;20.03.2026;04.03.2026;27.03.2026;100',
  'D3;Strip-out;Take out the overhead line;09.03.2026;18.03.2026;09.03.2026;20.03.2026;100',
  'D4;Pits;New pits, east;23.03.2026;24.04.2026;30.03.2026;;60',
  'D5;Pits;New pits, west;30.03.2026;01.05.2026;07.04.2026;;35',
  'D6;Pits;Drainage;06.04.2026;30.04.2026;;;0',
  'D7;Track;Rails in the hall;04.05.2026;29.05.2026;;;0',
  'D8;Track;Points at the gate;18.05.2026;05.06.2026;;;0',
  'D9;Track;Welding;01.06.2026;12.06.2026;;;0',
  'D10;Lines;Masts;11.05.2026;29.05.2026;;;0',
  'D11;Lines;New overhead line;01.06.2026;19.06.2026;;;0',
  'D12;Opening;Trial runs;22.06.2026;03.07.2026;;;0',
  'D13;Opening;Depot opens;06.07.2026;06.07.2026;;;0',
];
const tableOf = (rows: string[]): Table => readDelimited(`${rows.join('\n')}\n`, 'depot.csv');
const depot = tableOf(ROWS);

const taken = (table: Table, asPromised: boolean | null) => {
  const map = { ...guessColumnMap(table), asPromised };
  return readPlan(table, map, { name: 'Depot' });
};
/** What is shown of every activity: first and last day, and where these come from. */
function shown(plan: Plan): Record<string, string> {
  const s = schedulePlan(plan);
  const end = (day: number, from: number) => (from === UNKNOWN ? 'unknown' : `${isoDate(day)} ${ORIGINS[from]}`);
  const of = (i: number) =>
    s.start[i] === NONE
      ? 'unknown'
      : `${end(dayOf(s.start[i]!), s.startFrom[i]!)} – ${end(finishDayOf(s.finish[i]!), s.finishFrom[i]!)}`;
  return Object.fromEntries(plan.activities.map((a, i) => [a.ref, of(i)]));
}

describe('baseline and actual dates without a forecast', () => {
  test('what is done has happened, what is under way takes its promised length, the rest is not known', () => {
    const { plan } = taken(depot, null);
    expect(plan.source).toBe('given');
    const dates = shown(plan);
    expect(dates.D2).toBe('2026-03-04 actual – 2026-03-27 actual');
    // 25 promised days from Monday 30 March and from Tuesday 7 April.
    expect(dates.D4).toBe('2026-03-30 actual – 2026-05-01 expected');
    expect(dates.D5).toBe('2026-04-07 actual – 2026-05-11 expected');
    for (const ref of ['D6', 'D9', 'D13']) expect([ref, dates[ref]]).toEqual([ref, 'unknown']);
  });

  test('nothing is said of the end before somebody has said what counts', () => {
    const { plan, baseline } = taken(depot, null);
    const then = promisedEdition(plan, baseline)!;
    const s = schedulePlan(plan);
    const ends = endsOf(plan, s, { plan: then, schedule: schedulePlan(then) }, allRows(plan, s));
    expect(ends).toMatchObject({ of: 13, openWithout: 8, late: null });
    expect(isoDate(ends.last!)).toBe('2026-05-11');
  });

  test('taken as they stand, every row has dates, and the end is as promised', () => {
    const { plan, baseline } = taken(depot, true);
    const dates = shown(plan);
    expect(dates.D6).toBe('2026-04-06 asPromised – 2026-04-30 asPromised');
    expect(dates.D13).toBe('2026-07-06 asPromised – 2026-07-06 asPromised');
    expect(dates.D5).toBe('2026-04-07 actual – 2026-05-11 expected');
    const then = promisedEdition(plan, baseline)!;
    const s = schedulePlan(plan);
    expect(endsOf(plan, s, { plan: then, schedule: schedulePlan(then) }, allRows(plan, s))).toMatchObject({
      openWithout: 0,
      late: 0,
      expected: 'asPromised',
    });
  });

  test('the promised edition has the dates of the promise alone, and nothing of what happened since', () => {
    const { plan, baseline } = taken(depot, true);
    const then = promisedEdition(plan, baseline)!;
    expect(shown(then).D2).toBe('2026-03-03 stated – 2026-03-20 stated');
    for (const a of then.activities)
      expect([a.ref, a.percent, a.actualStart, a.actualFinish]).toEqual([a.ref, null, null, null]);
    expect([then.links, then.asPromised]).toEqual([[], false]);
  });
});

describe('before it is taken in', () => {
  const preview = (state: IntakeState = beginState([depot], [])) => previewIntake([depot], state);

  test('it is asked once, with its counts', () => {
    const { counts, rowsTaken } = preview();
    expect(rowsTaken).toBe(13);
    expect(counts).toMatchObject({ activities: 13, baseline: 13, undated: 8, onlyPromised: 8, underWay: 2 });
  });

  test('the picture shows what would be shown: actual and expected dates, and no others', () => {
    const { bars, span } = preview();
    expect(bars.map((b) => b.start !== null)).toEqual(ROWS.slice(1).map((_, k) => k < 5));
    expect(bars.map((b) => b.isSoft)).toEqual(ROWS.slice(1).map((_, k) => k === 3 || k === 4));
    expect(span!.map((m, k) => isoDate(k === 0 ? dayOf(m) : finishDayOf(m)))).toEqual(['2026-03-02', '2026-05-11']);
  });

  test('and all of them once the promise is taken as it stands', () => {
    const begun = beginState([depot], []);
    const state = changeState([depot], begun, { map: { ...begun.parts[0]!.map, asPromised: true } }, []);
    const { bars, span, counts } = preview(state);
    expect(counts.undated).toBe(0);
    expect(bars.every((b) => b.start !== null && b.finish !== null)).toBe(true);
    // Soft is what nobody stated: all but the three works that are done.
    expect(bars.map((b) => b.isSoft)).toEqual(ROWS.slice(1).map((_, k) => k >= 3));
    expect(isoDate(finishDayOf(span![1]))).toBe('2026-07-06');
  });

  test('a bar of which one end is known has no other', () => {
    const table = tableOf([
      'ID;Task;Start;Actual start;Baseline start;Baseline finish',
      'A;Dig;;02.03.2026;;',
      'B;Fill;;;09.03.2026;13.03.2026',
    ]);
    const [dig] = previewIntake([table], beginState([table], [])).bars;
    expect([dig!.start !== null, dig!.finish]).toEqual([true, null]);
  });

  test('what states its own dates is not asked about', () => {
    const table = tableOf([
      'ID;Task;Start;Finish;Baseline start;Baseline finish',
      'A;Dig;02.03.2026;06.03.2026;02.03.2026;04.03.2026',
    ]);
    expect(previewIntake([table], beginState([table], [])).counts).toMatchObject({
      onlyPromised: 0,
      underWay: 0,
      undated: 0,
      baseline: 1,
    });
  });
});

describe('taken out', () => {
  test('as a table, the dates that are shown are written with their origin, and read back as they were shown', () => {
    const { plan } = taken(depot, true);
    const text = writePlanCsv(plan);
    const head = text.split('\n')[0]!;
    expect(head).toContain('Origin of start,Origin of finish');
    const lines = text.split('\n').map((l) => l.split(','));
    const of = (ref: string) => lines.find((l) => l[0] === ref)!.join(',');
    expect(of('D4')).toContain('expected');
    expect(of('D6')).toContain('as promised');
    expect(of('D2')).not.toMatch(/expected|promised/);
    const back = readDelimited(text, 'out.csv');
    const again = readPlan(back, guessColumnMap(back), { name: 'Depot' }).plan;
    const days = (p: Plan) =>
      Object.fromEntries(Object.entries(shown(p)).map(([ref, said]) => [ref, said.match(/\d{4}-\d\d-\d\d/g)]));
    expect(days(again)).toEqual(days(plan));
  });

  test('as JSON, promise and answer travel too', () => {
    const { plan } = taken(depot, true);
    expect(readPlanJson(writePlanJson(plan), 'depot.json').plan).toEqual(plan);
    expect(plan.asPromised).toBe(true);
    expect(plan.activities[5]!.promised).not.toBeNull();
  });
});

describe('holes in the promise', () => {
  test.each([
    // Only one end is promised: a milestone, or the end of what is under way.
    ['E1;Only its finish;;15.05.2026;;;', 'unknown'],
    ['E2;Nothing at all;;;;;', 'unknown'],
    ['E3;Begun, with nothing promised;;;06.04.2026;;', '2026-04-06 actual – unknown'],
    // Five promised days, back from Thursday 7 May.
    ['E4;Done, with one date;04.05.2026;08.05.2026;;07.05.2026;100', '2026-05-01 expected – 2026-05-07 actual'],
  ])('%s', (row, said) => {
    const table = tableOf([
      'ID;Task;Baseline start;Baseline finish;Actual start;Actual finish;% complete',
      'A;Dig;02.03.2026;06.03.2026;02.03.2026;06.03.2026;100',
      row,
    ]);
    const { plan } = taken(table, null);
    const [ref] = row.split(';');
    expect(shown(plan)[ref!]).toBe(said);
  });
});
