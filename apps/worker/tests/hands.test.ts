import { beforeEach, describe, expect, test } from '@jest/globals';
import { gzipSync } from 'node:zlib';
import { unpackPlan } from '@clembo/core';
import {
  beginState,
  type IntakePart,
  packTables,
  readDelimited,
  type Table,
  tablesText,
  unpackTables,
  usedParts,
} from '@clembo/formats';
import type { Handles, Scene } from '@clembo/scene';
import type { OpenComment } from '@clembo/store';
import { forget, intakeOf, preparedOf, prepareNext, rememberTables, tablesOf } from '../src/hands/lately';
import { saidOn } from '../src/hands/saidOn';

describe('what a hand read last', () => {
  const table = (name: string): Table =>
    readDelimited(`ID,Name,Start,Finish\nA,${name},2026-01-05,2026-01-09\n`, 'plan.csv');
  const partsOf = (tables: readonly Table[]): IntakePart[] => usedParts(beginState(tables, []));
  const names = (packed: Uint8Array, title = 'Plan') => {
    const tables = tablesOf(packed);
    const { plan } = intakeOf(tables, partsOf(tables), title);
    return [plan.name, ...plan.activities.map((a) => a.name)];
  };
  // By way of text, as they come to the hand.
  const copied = (parts: IntakePart[]) => JSON.parse(JSON.stringify(parts)) as IntakePart[];
  beforeEach(forget);

  test('is read once, and given under whichever name is asked for', () => {
    const packed = packTables([table('Dig')]);
    const parts = partsOf(tablesOf(packed));
    const first = intakeOf(tablesOf(packed), parts, 'Plan');
    const again = intakeOf(tablesOf(Uint8Array.from(packed)), copied(parts), 'Harbour');
    expect(again.plan.activities).toBe(first.plan.activities);
    expect([first.plan.name, again.plan.name]).toEqual(['Plan', 'Harbour']);
  });

  test('is never taken for other tables, nor for other choices', () => {
    const [one, other] = [packTables([table('Dig')]), packTables([table('Lay')])];
    expect(names(one)).toEqual(['Plan', 'Dig']);
    expect(names(other)).toEqual(['Plan', 'Lay']);
    expect(names(one, 'Again')).toEqual(['Again', 'Dig']);
    const parts = partsOf(tablesOf(one));
    const without = copied(parts);
    const start = without[0]!.map.columns.findIndex((c) => c.as === 'field' && c.field === 'start');
    without[0]!.map.columns[start] = { as: 'skip' };
    expect(intakeOf(tablesOf(one), parts, 'Plan').plan.activities[0]!.start).not.toBeNull();
    expect(intakeOf(tablesOf(one), without, 'Plan').plan.activities[0]!.start).toBeNull();
  });

  test('is got ready for whoever asks next, and only where it is still what is asked for', () => {
    const tables = [table('Dig')];
    const parts = partsOf(tables);
    const shown = intakeOf(tables, parts, 'Plan');
    const fresh = preparedOf(shown);
    prepareNext();
    const again = preparedOf(intakeOf(tables, copied(parts), 'Harbour'));
    expect(again.schedule).not.toBe(fresh.schedule);
    expect(preparedOf(intakeOf(tables, parts, 'Quay')).schedule).toBe(again.schedule);
    expect([again.packed.name, unpackPlan(again.packed).activities]).toEqual(['Harbour', shown.plan.activities]);
    const without = copied(parts);
    without[0]!.map.columns[1] = { as: 'note', name: 'Name' } as (typeof without)[0]['map']['columns'][number];
    const other = preparedOf(intakeOf(tables, without, 'Plan'));
    expect(other.schedule).not.toBe(again.schedule);
    expect(unpackPlan(other.packed).activities[0]!.name).not.toBe('Dig');
    expect(preparedOf(shown).schedule).not.toBe(again.schedule);
  });

  test('is packed by whichever way, and stays what was read', () => {
    const tables = [table('Dig')];
    const parts = partsOf(tables);
    const { plan } = intakeOf(tables, parts, 'Plan');
    const packed = new Uint8Array(gzipSync(tablesText(tables)));
    rememberTables(packed, tables);
    expect(intakeOf(tablesOf(packed), parts, 'Plan').plan.activities).toBe(plan.activities);
    expect(unpackTables(packed)).toEqual(tables);
    expect(unpackTables(packTables(tables))).toEqual(tables);
  });

  test('is what was packed, whether it was remembered or not', () => {
    const tables = [table('Dig')];
    const packed = packTables(tables);
    rememberTables(packed, tables);
    expect(tablesOf(packed)).toBe(tables);
    forget();
    expect(tablesOf(packed)).not.toBe(tables);
    expect(tablesOf(packed)).toEqual(tables);
  });
});

describe('what was said, on the pages that it is about', () => {
  /** A page whose one row has a reference, and which nothing else is known of. */
  const page = (ref: string): Scene => {
    const handles: Handles = {
      size: 10,
      left: 0,
      right: 600,
      from: 0,
      to: 1440,
      items: [{ ref, x0: 100, x1: 200, y: 40 }],
      lanes: [],
      unplaced: [],
    };
    return { language: 'en', handles } as unknown as Scene;
  };
  const thread = (text: string, place: unknown, answers: string[] = []): OpenComment => {
    const at = new Date('2026-11-27T23:30:00Z');
    return { place, text, person: 'Ada', at, answers: answers.map((a) => ({ text: a, person: null, at })) };
  };
  const on = (ref: string) => ({ ref, at: 'start', dx: 0, dy: 1 });

  test('numbers run through all pages; a thread stands where its place is', () => {
    const said = saidOn(
      [page('A'), page('B')],
      [thread('Late?', on('B'), ['Yes']), thread('All of it', null), thread('Here', on('A'))],
    );
    expect(said.map((p) => p.map((t) => [t.number, t.text, t.at]))).toEqual([
      [
        [2, 'All of it', null],
        [3, 'Here', { x: 100, y: 50 }],
      ],
      [[1, 'Late?', { x: 100, y: 50 }]],
    ]);
    expect(said[1]![0]).toMatchObject({ by: 'Ada', day: '27 Nov 26', answers: [{ by: null, text: 'Yes' }] });
  });

  test('what is about something that is on no page stands with the first, without a place', () => {
    expect(saidOn([page('A'), page('B')], [thread('Gone', on('C'))])).toMatchObject([[{ number: 1, at: null }], []]);
    expect(saidOn([page('A')], [thread('Odd', { somewhere: true })])).toMatchObject([[{ at: null }]]);
    expect(saidOn([], [thread('Nowhere', null)])).toEqual([]);
  });
});
