import { describe, expect, test } from '@jest/globals';
import { acceptSourceChanges, type Plan, sourceChanges } from '@clembo/core';
import { beginState, type Reading, readAgain, readDelimited, readParts, type Table, usedParts } from '../src/index';

/** A source over some weeks, as files that follow one another. */
const source = (...lines: string[]): Table => readDelimited(`${lines.join('\n')}\n`, 'week.csv');
const parts = (table: Table) => usedParts(beginState([table], []));
const first = (table: Table): { plan: Plan; reading: Reading } => {
  const tables = [table];
  return {
    plan: readParts(tables, parts(table), { name: 'x' }).plan,
    reading: { tables, parts: parts(table), aliases: new Map() },
  };
};
/** The next week: what has changed, and the plan with all of it. */
function next(plan: Plan, last: Reading, table: Table, same: { was: string; is: string }[] = []) {
  const read = readAgain(plan, last, { tables: [table], parts: parts(table) }, same);
  const changes = sourceChanges(read.base, read.incoming, plan);
  const reading: Reading = { tables: [table], parts: parts(table), aliases: read.aliases };
  return { ...read, changes, reading, plan: acceptSourceChanges(plan, read.incoming, changes) };
}
const said = (list: { kind: string; ref: string }[]) => list.map((c) => `${c.kind} ${c.ref}`);

describe('a source that is read again', () => {
  test('rows without references are told by their names, also when one comes between', () => {
    const one = first(source('Task,Start,Finish', 'Dig,2026-03-02,2026-03-06', 'Pour,2026-03-09,2026-03-13'));
    expect(one.plan.activities.map((a) => a.ref)).toEqual(['1', '2']);
    const two = next(
      one.plan,
      one.reading,
      source(
        'Task,Start,Finish',
        'Dig,2026-03-02,2026-03-06',
        'Shore,2026-03-04,2026-03-05',
        'Pour,2026-03-10,2026-03-16',
      ),
    );
    expect(said(two.changes)).toEqual(['added 2 (2)', 'moved 2']);
    expect(two.plan.activities.map((a) => [a.ref, a.name])).toEqual([
      ['1', 'Dig'],
      ['2 (2)', 'Shore'],
      ['2', 'Pour'],
    ]);
    // The week after, the names of the plan are still known.
    const three = next(
      two.plan,
      two.reading,
      source(
        'Task,Start,Finish',
        'Shore,2026-03-04,2026-03-05',
        'Dig,2026-03-02,2026-03-06',
        'Pour,2026-03-10,2026-03-16',
      ),
    );
    expect(said(three.changes)).toEqual([]);
    expect(three.placeOf.get('2')).toEqual([0, 4]);
  });

  test('names that several rows share are said to be doubtful', () => {
    const one = first(source('Task,Start,Finish', 'Test,2026-03-02,2026-03-06', 'Test,2026-03-09,2026-03-13'));
    const two = next(
      one.plan,
      one.reading,
      source('Task,Start,Finish', 'Test,2026-03-02,2026-03-06', 'Test,2026-03-10,2026-03-13'),
    );
    expect(two.doubtful).toEqual(['Test']);
  });

  test('what its columns do not speak of this time is as it was', () => {
    const one = first(
      source(
        'ID,Activity,Start,Finish,% complete,Predecessors,Zone',
        'A,Dig,2026-03-02,2026-03-06,50,,N',
        'B,Pour,2026-03-09,2026-03-13,0,A,N',
      ),
    );
    const two = next(
      one.plan,
      one.reading,
      source('ID,Activity,Start,Finish', 'A,Dig,2026-03-02,2026-03-09', 'B,Pour,2026-03-10,2026-03-16'),
    );
    expect(said(two.changes)).toEqual(['moved A', 'moved B']);
    expect(two.plan.activities[0]).toMatchObject({ percent: 50, codes: { zone: 'N' } });
    expect(two.plan.links).toHaveLength(1);
  });

  test('a row under another reference is the same once a person says so, and stays so', () => {
    const one = first(
      source('ID,Activity,Start,Finish', 'A,Dig,2026-03-02,2026-03-06', 'B,Pour,2026-03-09,2026-03-13'),
    );
    const renamed = source('ID,Activity,Start,Finish', 'A,Dig,2026-03-02,2026-03-06', 'Z9,Pour,2026-03-09,2026-03-16');
    const asked = next(one.plan, one.reading, renamed);
    expect(asked.alike).toEqual([{ was: 'B', is: 'Z9', wasName: 'Pour', name: 'Pour' }]);
    const two = next(one.plan, one.reading, renamed, [{ was: 'B', is: 'Z9' }]);
    expect(said(two.changes)).toEqual(['moved B']);
    expect(two.alike).toEqual([]);
    const three = next(
      two.plan,
      two.reading,
      source('ID,Activity,Start,Finish', 'A,Dig,2026-03-02,2026-03-06', 'Z9,Pour slab,2026-03-09,2026-03-16'),
    );
    expect(said(three.changes)).toEqual(['renamed B']);
  });

  test('a plan that was read from no table is compared as it stands, as far as the file speaks', () => {
    const { plan } = first(
      source('ID,Activity,Start,Finish,% complete', 'A,Dig,2026-03-02,2026-03-06,30', 'B,Pour,2026-03-09,2026-03-13,0'),
    );
    const table = source('ID,Activity,Start,Finish', 'A,Dig,2026-03-02,2026-03-06', 'C,Cure,2026-03-16,2026-03-20');
    const read = readAgain(plan, null, { tables: [table], parts: parts(table) }, []);
    expect(said(sourceChanges(read.base, read.incoming, plan))).toEqual(['added C', 'removed B']);
  });
});
