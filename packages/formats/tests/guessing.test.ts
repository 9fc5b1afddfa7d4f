import { describe, expect, test } from '@jest/globals';
import { type ColumnMap, guessColumnMap, readDelimited, readPlan } from '../src/index';

/** What columns are taken for where their headings do not say it, and where that would be too much. */

const guess = (text: string): ColumnMap => guessColumnMap(readDelimited(text, 'x.csv'));
const meanings = (map: ColumnMap) => map.columns.map((c) => (c.as === 'field' ? c.field : c.as));

describe('references', () => {
  test('are what predecessors name, under whatever heading', () => {
    const map = guess(
      'Lot,Work,Start,Pred\nL1,Dig,2026-03-02,\nL2,Lay,2026-03-09,L1SS+2d\nL3,Test,2026-03-16,"L1,L2"\n',
    );
    expect(meanings(map)).toEqual(['ref', 'name', 'start', 'predecessors']);
  });

  test('are not a list of places, nor a column that repeats itself or is not named', () => {
    const by = (lots: string[], preds: string[]) =>
      meanings(
        guess(
          `Lot,Work,Start,Pred\n${lots.map((l, k) => `${l},Work ${k},2026-03-0${k + 2},${preds[k]}`).join('\n')}\n`,
        ),
      )[0];
    expect(by(['1', '2', '3'], ['', '1', '2'])).not.toBe('ref');
    expect(by(['A', 'A', 'B'], ['', 'A', 'A'])).not.toBe('ref');
    expect(by(['P', 'Q', 'R'], ['', '1', '2'])).not.toBe('ref');
  });

  test('are found with zeros before them or without, where that leaves one', () => {
    const links = (text: string) =>
      readPlan(readDelimited(text, 'x.csv'), guess(text), { name: 'x' }).plan.links.map((l) => `${l.from}>${l.to}`);
    expect(links('ID,Name,Start,Pred\n01,Dig,2026-03-02,\n02,Lay,2026-03-09,1\n03,Test,2026-03-16,02FS\n')).toEqual([
      '01>02',
      '02>03',
    ]);
    expect(links('ID,Name,Start,Pred\n1,Dig,2026-03-02,\n01,Lay,2026-03-09,\n7,Test,2026-03-16,001\n')).toEqual([]);
  });

  test('a cell of thirty thousand signs does not hold the guess up', () => {
    const long = 'A '.repeat(15_000);
    const rows = Array.from({ length: 200 }, (_, k) => `L${k},Dig,2026-03-02,${long}`);
    expect(meanings(guess(`Lot,Work,Start,Pred\n${rows.join('\n')}\n`))[0]).not.toBe('ref');
  });
});

describe('names, lengths and dates', () => {
  test('words under “Item” are names where nothing else is called one', () => {
    expect(meanings(guess('#,Item,Start\n1,Fence,2026-03-02\n2,Divers,2026-03-09\n'))).toEqual([
      'ref',
      'name',
      'start',
    ]);
    expect(meanings(guess('Item,Work,Start\nA1,Fence,2026-03-02\nA2,Divers,2026-03-09\n'))).toEqual([
      'ref',
      'name',
      'start',
    ]);
  });

  test('hours beside one date are lengths; beside two they are effort', () => {
    const one = guess('Task,Start,Hours\nWire,2026-03-02,6\nTest,2026-03-03,4\n');
    expect([meanings(one), one.durationUnit]).toEqual([['name', 'start', 'duration'], 'hour']);
    expect(meanings(guess('Task,Start,Finish,Hours\nWire,2026-03-02,2026-03-03,6\n'))).toContain('effort');
  });

  test('of two columns of dates the earlier in the same rows is the start, however many cells are empty', () => {
    const rows = [
      'Dig,13/03/2026,02/03/2026',
      'Opening,20/03/2026,',
      'Lay,10/04/2026,23/03/2026',
      'Test,17/04/2026,13/04/2026',
    ];
    expect(meanings(guess(`Task,One,Other\n${rows.join('\n')}\n`))).toEqual(['name', 'finish', 'start']);
  });

  test.each([
    ['Baseline from', 'baselineStart'],
    ['Ist bis', 'actualFinish'],
    ['Geplant von', 'start'],
    ['Contract to', 'baselineFinish'],
    ['Durée (j)', 'duration'],
    ['Montant HT', 'cost'],
    ['Presupuesto (miles €)', 'cost'],
  ])('the heading “%s” is that of %s', (heading, field) => {
    const value = field === 'cost' ? '1200' : field === 'duration' ? '5' : '2026-03-02';
    expect(meanings(guess(`Name,${heading}\nDig,${value}\nLay,${value}\n`))[1]).toBe(field);
  });

  test('a row of data below an empty heading is no second row of headings', () => {
    const map = guess('Ref,Work,Start,\nA,Start,2026-03-02,Finish\nB,Lay,2026-03-09,to\n');
    expect([map.headerRow, map.headerRows]).toEqual([0, 1]);
  });

  test('what is vaguer than a day does not make a week of six days', () => {
    const rows = ['Dig,2026-03-02,2026-03-06', 'Lay,mid-April 2026,', 'Test,Q3 2026,', 'Open,,by 18 July 2026'];
    const text = `Task,Start,Finish\n${rows.join('\n')}\n`;
    expect(readPlan(readDelimited(text, 'x.csv'), guess(text), { name: 'x' }).plan.calendar).toBe('five-day');
  });
});
