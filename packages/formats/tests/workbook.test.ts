import { describe, expect, test } from '@jest/globals';
import { zipSync } from 'fflate';
import writeXlsx from 'write-excel-file/node';
import { guessColumnMap, readPlan, readTables, readXlsx, UnreadableFile } from '../src/index';
import { ArchiveDamaged, readDirectory, unpackEntry } from '../src/zip/archive';

type Cell = { value: unknown; type?: unknown; format?: string } | null;
const cell = (value: unknown): Cell => ({ value });
const date = (text: string, format = 'yyyy-mm-dd'): Cell => ({ value: new Date(`${text}Z`), type: Date, format });
const workbook = async (...sheets: { sheet: string; data: Cell[][] }[]): Promise<Uint8Array> =>
  new Uint8Array(await writeXlsx(sheets as never).toBuffer());

describe('workbooks', () => {
  test('dates come as ISO text, with the time where there is one; numbers and truths in plain notation', async () => {
    const bytes = await workbook({
      sheet: 'All kinds',
      data: [
        [cell('Text'), cell('Number'), cell('Truth'), cell('Day'), cell('Moment'), cell('Nothing')],
        [
          cell('Ärmelkanal, “quoted”'),
          cell(0.25),
          cell(true),
          date('2026-03-02T00:00:00'),
          date('2026-03-02T13:30:00', 'yyyy-mm-dd hh:mm'),
          null,
        ],
        [cell(' spaced '), cell(1234567), cell(false), null, null, null],
      ],
    });
    const [table] = await readXlsx(bytes, 'kinds.xlsx');
    expect(table).toMatchObject({ source: 'kinds.xlsx', sheet: 'All kinds', firstRow: 1 });
    expect(table!.rows[1]!.slice(0, 5)).toEqual([
      'Ärmelkanal, “quoted”',
      '0.25',
      'true',
      '2026-03-02',
      '2026-03-02T13:30',
    ]);
    expect(table!.rows[2]!.slice(1, 3)).toEqual(['1234567', 'false']);
  });

  test('sheets without anything are passed over; a workbook of nothing is refused', async () => {
    const two = await workbook({ sheet: 'Empty', data: [[]] }, { sheet: 'Full', data: [[cell('a')], [cell('b')]] });
    expect((await readXlsx(two, 'two.xlsx')).map((t) => t.sheet)).toEqual(['Full']);
    const none = await workbook({ sheet: 'Empty', data: [[]] });
    await expect(readXlsx(none, 'none.xlsx')).rejects.toThrow('none.xlsx has no sheet with anything in it');
  });

  test('a plan of a workbook: rows and sheet of what cannot be read', async () => {
    const bytes = await workbook({
      sheet: 'Plan',
      data: [
        [cell('ID'), cell('Name'), cell('Start'), cell('Finish'), cell('Days')],
        [cell('A'), cell('Dig'), date('2026-03-02T00:00:00'), date('2026-03-06T00:00:00'), cell(5)],
        [cell('B'), cell('Pour'), cell('next week'), date('2026-03-13T00:00:00'), cell(-2)],
      ],
    });
    const [table] = await readTables(bytes, 'plan.xlsx');
    const { plan, problems } = readPlan(table!, guessColumnMap(table!), { name: 'Plan' });
    expect(plan.activities.map((a) => [a.ref, a.duration])).toEqual([
      ['A', 2400],
      ['B', null],
    ]);
    expect(problems.map((p) => [p.code, p.sheet, p.row, p.heading, p.value])).toEqual([
      ['notADate', 'Plan', 3, 'Start', 'next week'],
      ['negativeDuration', 'Plan', 3, 'Days', '-2'],
    ]);
  });

  test('what is no workbook, or is damaged, is refused with what to do', async () => {
    const other = zipSync({ 'readme.txt': new TextEncoder().encode('hello') });
    await expect(readXlsx(other, 'other.zip')).rejects.toThrow(UnreadableFile);
    const whole = await workbook({ sheet: 'One', data: [[cell('a')]] });
    await expect(readXlsx(whole.slice(0, whole.length - 40), 'cut.xlsx')).rejects.toThrow(/damaged|could not be read/);
  });

  test('a bit that was turned over is noticed, wherever it is in what is read', async () => {
    const whole = await workbook({ sheet: 'One', data: [[cell('Name')], [cell('Piling')]] });
    const right = await readXlsx(whole, 'x.xlsx');
    let noticed = 0;
    for (let at = 0; at < whole.length; at++) {
      const damaged = whole.slice();
      damaged[at] = damaged[at]! ^ 16;
      const read = await readXlsx(damaged, 'x.xlsx').catch((error) => {
        expect(error).toBeInstanceOf(UnreadableFile);
        noticed++;
        return right;
      });
      // What is read all the same is what was written: the bit was in a part that nobody reads.
      expect(read).toEqual(right);
    }
    expect(noticed).toBeGreaterThan(whole.length / 3);
  });

  test('what comes out of an archive is counted, whatever it declares', () => {
    const packed = zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(5_000_000) });
    const [entry] = readDirectory(packed);
    expect(packed.length).toBeLessThan(10_000);
    expect(unpackEntry(packed, entry!, 5_000_000)!.length).toBe(5_000_000);
    expect(unpackEntry(packed, entry!, 4_999_999)).toBeNull();
    expect(unpackEntry(packed, { ...entry!, size: 10 }, 1_000_000)).toBeNull();
    expect(() => unpackEntry(packed, { ...entry!, size: 2_000_000_000 }, 9_000_000)).toThrow(ArchiveDamaged);
  });

  test('blanks before a name stay: they may be its place in the outline', async () => {
    const [table] = await readXlsx(
      await workbook({ sheet: 'One', data: [[cell('Name')], [cell('  Piling')]] }),
      'x.xlsx',
    );
    expect(table!.rows).toEqual([['Name'], ['  Piling']]);
  });
});
