import { describe, expect, test } from '@jest/globals';
import { isoDate } from '@clembo/core';
import {
  beginState,
  changeState,
  type ColumnMap,
  guessColumnMap,
  groupProblems,
  type IntakeState,
  previewIntake,
  readDelimited,
  readParts,
  readPlan,
  recallMap,
  rowsToPick,
  shownPart,
  type Table,
  usedParts,
} from '../src/index';

const table = (text: string, source = 'x.csv', sheet: string | null = null): Table => ({
  ...readDelimited(text, source),
  sheet,
});
const meanings = (map: ColumnMap) =>
  map.columns.map((c) => (c.as === 'field' ? c.field : c.as === 'code' ? `code ${c.name}` : c.as));

describe('a map that is known from before', () => {
  const first = table('Key;Was;Von;Bis;Truppe\n1;Sand;02.03.2026;13.03.2026;Blue\n');
  const known: ColumnMap = {
    ...guessColumnMap(first),
    columns: [
      { as: 'field', field: 'ref' },
      { as: 'field', field: 'name' },
      { as: 'field', field: 'start' },
      { as: 'field', field: 'finish' },
      { as: 'note', name: 'Truppe' },
    ],
    mends: [{ column: 3, text: 'bald', to: '20.03.2026' }],
    year: 2026,
  };
  const recalled = (text: string) => {
    const t = table(text);
    return recallMap(t, guessColumnMap(t), [known]);
  };

  test('fits the same headings in another order, and a column more or less', () => {
    expect(meanings(recalled('Bis;Von;Was;Key;Truppe\n13.03.2026;02.03.2026;Sand;1;Blue\n')!)).toEqual([
      'finish',
      'start',
      'name',
      'ref',
      'note',
    ]);
    const more = recalled(
      'Key;Neu;Was;Von;Bis;Truppe\n1;x;Sand;02.03.2026;bald;Blue\n2;x;Kies;02.03.2026;20.03.2026;Blue\n',
    )!;
    expect(meanings(more)).toEqual(['ref', 'code Neu', 'name', 'start', 'finish', 'note']);
    expect(more.mends).toEqual([{ column: 4, text: 'bald', to: '20.03.2026' }]);
    // Where what named the work is gone, another column does.
    expect(meanings(recalled('Key;Name;Von;Bis;Truppe\n1;Sand;02.03.2026;13.03.2026;Blue\n')!)).toContain('name');
    expect(meanings(recalled('Key;Was;Von;Bis\n1;Sand;02.03.2026;13.03.2026\n')!)).toEqual([
      'ref',
      'name',
      'start',
      'finish',
    ]);
  });

  test('is not taken for another table, and brings no year along', () => {
    expect(recalled('ID;Name;Start;Finish;Cost\n1;Sand;02.03.2026;13.03.2026;5\n')).toBeNull();
    // Three headings that any table has are not enough.
    expect(recalled('Key;Von;Bis;Wer;Wo\n1;02.03.2026;13.03.2026;A;B\n')).toBeNull();
    expect(recalled('Key;Was;Von;Bis;Truppe\n1;Sand;2 March;13 March;Blue\n')!.year).toBeNull();
  });

  test('an unclear file is asked about, whatever order an earlier clear one had', () => {
    const open = recallMap(
      table('Key;Was;Von;Bis;Truppe\n1;Sand;02.03.2026;05.03.2026;Blue\n'),
      guessColumnMap(table('Key;Was;Von;Bis;Truppe\n1;Sand;02.03.2026;05.03.2026;Blue\n')),
      [{ ...known, dateOrder: null }],
    );
    expect(open!.dateOrder).toBeNull();
  });
});

describe('an intake of several tables', () => {
  const east = table(
    'ID,Activity,Start,Finish,Team\n1,Piles,2026-03-02,2026-03-13,A\n2,Cap,2026-03-16,2026-03-27,A\n',
    'works.xlsx',
    'East',
  );
  const west = table(
    'ID,Activity,Start,Finish,Predecessors\n1,Dredge,2026-04-06,2026-04-17,\n2,Fill,2026-04-20,2026-04-24,1\n',
    'works.xlsx',
    'West',
  );
  const notes = table('Notes\nissued for comment\n', 'works.xlsx', 'Cover');
  const all = [notes, east, west];
  const change = (state: IntakeState, c: Parameters<typeof changeState>[2]) => changeState(all, state, c, []);

  test('begins with the one that is most like a plan; others are taken in beside it, each a project', () => {
    const begun = beginState(all, []);
    expect([begun.shown, begun.used]).toEqual([2, [2]]);
    // Looking at another one takes that one, as long as it is one.
    expect(change(begun, { show: 1 }).used).toEqual([1]);
    const both = change(begun, { use: 1, on: true });
    expect([both.shown, both.used]).toEqual([1, [1, 2]]);
    const { plan, placeOf } = readParts(all, usedParts(both), { name: 'Quays' });
    expect(plan.activities.map((a) => [a.ref, a.codes.project])).toEqual([
      ['1', 'East'],
      ['2', 'East'],
      ['West: 1', 'West'],
      ['West: 2', 'West'],
    ]);
    expect(plan.links).toEqual([expect.objectContaining({ from: 'West: 1', to: 'West: 2' })]);
    expect([...placeOf].at(-1)).toEqual(['West: 2', [1, 3]]);
    // The last one cannot be left out.
    const one = change(change(both, { use: 1, on: false }), { use: 2, on: false });
    expect(one.used).toEqual([2]);
  });

  test('another row of headings guesses anew; a whole state brings back what was', () => {
    const begun = beginState([west], []);
    const none = changeState([west], begun, { headings: null }, []);
    expect(meanings(shownPart(none).map)).not.toEqual(meanings(shownPart(begun).map));
    expect(changeState([west], none, { state: begun }, [])).toEqual(begun);
    expect(shownPart(changeState([west], none, { again: 'guess' }, [])).from).toBe('guess');
  });

  test('all rows of the one that is seen can be picked, however many, and those that were left out too', () => {
    const many = Array.from({ length: 12_000 }, (_, k) => `R${k},Work ${k},2026-03-02,2026-03-06\n`).join('');
    const large = [table(`ID,Name,Start,Finish\n${many}`)];
    const begun = beginState(large, []);
    const { map } = shownPart(begun);
    const without = changeState(
      large,
      begun,
      { map: { ...map, pick: { ...map.pick, without: ['R7', 'R11999'] } } },
      [],
    );
    expect(previewIntake(large, without).rowsTaken).toBe(11_998);
    const { rows, refs, names } = rowsToPick(large, without);
    expect(rows).toEqual(refs.map((_, k) => k + 2));
    expect(refs).toEqual(refs.map((_, k) => `R${k}`));
    expect([refs.length, names[7], names[11_999]]).toEqual([12_000, 'Work 7', 'Work 11999']);
  });

  test('the preview shows what would come of all, and of the one that is seen', () => {
    const view = previewIntake(all, change(beginState(all, []), { use: 1, on: true }));
    expect(view.counts).toMatchObject({ activities: 4, links: 1, undated: 0 });
    expect(view.tables.map((t) => [t.title, t.used])).toEqual([
      ['Cover', false],
      ['East', true],
      ['West', true],
    ]);
    expect(view.bars).toHaveLength(4);
    expect(view.tallies.map((t) => t.read)).toEqual([2, 2, 2, 2, 2]);
  });
});

describe('made columns, chosen rows, mended cells', () => {
  const source = table(
    'Code,Activity,Start,Finish,Area [x]\nMA-10,Dig,2026-03-02,2026-03-06,North [wet]\nMA-20,Fill,2026-03-09,2026-03-13,South [dry]\nSU-10,Survey,2026-04-06,2026-04-08,North [dry]\n',
  );
  const guess = guessColumnMap(source);
  const read = (change: Partial<ColumnMap>) => readPlan(source, { ...guess, ...change }, { name: 'x' });

  test.each([
    ['the first letters', { from: 0, take: { kind: 'first', count: 2 } }, ['MA', 'MA', 'SU']],
    ['a part', { from: 0, take: { kind: 'part', separator: '-', part: 2 } }, ['10', '20', '10']],
    [
      'what stands between two marks',
      { from: 4, take: { kind: 'between', after: '[', before: ']' } },
      ['wet', 'dry', 'dry'],
    ],
    [
      'two joined',
      { from: 0, take: { kind: 'join', other: 1, mark: ' ' } },
      ['MA-10 Dig', 'MA-20 Fill', 'SU-10 Survey'],
    ],
  ] as const)('%s', (_, derived, values) => {
    const { plan } = read({ derived: [derived as never], columns: [...guess.columns, { as: 'code', name: 'Made' }] });
    expect(plan.activities.map((a) => a.codes.made)).toEqual([...values]);
  });

  test('rows by value, by days and by hand; the others are counted, not lost', () => {
    const pick = { only: [], from: null, to: null, without: [] };
    const names = (p: object) => read({ pick: { ...pick, ...p } }).plan.activities.map((a) => a.name);
    expect(names({ only: [{ column: 4, values: ['North [wet]', 'North [dry]'] }] })).toEqual(['Dig', 'Survey']);
    expect(names({ from: Date.UTC(2026, 2, 7) / 864e5, to: Date.UTC(2026, 2, 31) / 864e5 })).toEqual(['Fill']);
    const { plan, left } = read({ pick: { ...pick, without: ['MA-20'] } });
    expect(plan.activities.map((a) => a.ref)).toEqual(['MA-10', 'SU-10']);
    expect(left).toEqual([{ row: 3, kind: 'notPicked', text: 'Fill', ref: 'MA-20' }]);
  });

  test('what a text stands for is said once for all cells that hold it', () => {
    const late = table('Name,Start,Finish\nA,2026-03-02,asap\nB,2026-03-02,asap\nC,2026-03-02,2026-03-06\n');
    const map = guessColumnMap(late);
    const [group] = groupProblems(readPlan(late, map, { name: 'x' }).problems);
    expect(group).toMatchObject({ count: 2, mend: 'texts', texts: [{ text: 'asap', rows: [2, 3], count: 2 }] });
    const mended = readPlan(late, { ...map, mends: [{ column: 2, text: 'asap', to: '2026-03-20' }] }, { name: 'x' });
    expect(mended.problems).toEqual([]);
    expect(mended.plan.activities.map((a) => isoDate(a.finish! / 1440 - 1))).toEqual([
      '2026-03-20',
      '2026-03-20',
      '2026-03-06',
    ]);
  });

  test('one of several predecessors is mended where it stands among others', () => {
    const source = table(
      'ID,Name,Start,Finish,Predecessors\nA,Dig,2026-03-02,2026-03-06,\nB,Pour,2026-03-09,2026-03-13,A\nC,Cure,2026-03-16,2026-03-20,"A; B9 SS+1d; old"\n',
    );
    const map = guessColumnMap(source);
    expect(groupProblems(readPlan(source, map, { name: 'x' }).problems).map((g) => [g.mend, g.texts[0]!.text])).toEqual(
      [
        ['texts', 'B9 SS+1d'],
        ['texts', 'old'],
      ],
    );
    const mends = [
      { column: 4, text: 'B9 SS+1d', to: 'B SS+1d' },
      { column: 4, text: 'old', to: '' },
    ];
    const mended = readPlan(source, { ...map, mends }, { name: 'x' });
    expect(mended.problems).toEqual([]);
    expect(mended.plan.links.map((l) => `${l.from} ${l.to} ${l.type}`)).toEqual(['A B FS', 'A C FS', 'B C SS']);
  });
});
