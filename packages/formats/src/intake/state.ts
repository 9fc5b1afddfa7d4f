import { z } from 'zod';
import type { Table } from '../table/table';
import { ColumnMap, type ColumnMeaning } from './columnMap';
import { guessBelow, guessWithReasons } from './guess';
import { headerAt, headingsOf } from './header';
import { mainTable } from './likeness';
import { recallMap } from './recall';
import { settle } from './settle';

/** A table of an intake with the map by which it is read. */
export const IntakePart = z.object({
  /** Position among the tables that were read. */
  table: z.int().min(0),
  map: ColumnMap,
  /** Guessed; as it was for such a table last time; or corrected or confirmed by a person. */
  from: z.enum(['guess', 'last', 'said']),
  /** Columns that were found by their values, not by their headings. */
  reasons: z.array(z.object({ column: z.int(), fit: z.int(), of: z.int() })).default([]),
});
export type IntakePart = z.infer<typeof IntakePart>;

/** How an intake stands: which of its tables are taken in, by which maps, and which one is being looked at. */
export const IntakeState = z.object({
  shown: z.int().min(0),
  /** Positions of the tables that are taken in, each a project where there are several. */
  used: z.array(z.int().min(0)).max(200),
  parts: z.array(IntakePart).max(200),
});
export type IntakeState = z.infer<typeof IntakeState>;

/** What a person changes about an intake. */
export const IntakeChange = z.union([
  z.object({ show: z.int().min(0) }),
  z.object({ use: z.int().min(0), on: z.boolean() }),
  /** The map of the table that is shown, corrected. */
  z.object({ map: ColumnMap }),
  /** The headings of the table that is shown stand in another row, or nowhere: its columns are guessed anew. */
  z.object({ headings: z.int().min(0).nullable() }),
  /** Guess the map of the table that is shown anew, or read it as last time. */
  z.object({ again: z.enum(['guess', 'last']) }),
  /** The whole state, as it was before. */
  z.object({ state: IntakeState }),
]);
export type IntakeChange = z.infer<typeof IntakeChange>;

function partOf(tables: readonly Table[], at: number, known: readonly ColumnMap[]): IntakePart {
  const table = tables[at]!;
  const { map: guess, reasons } = guessWithReasons(table);
  const last = recallMap(table, guess, known);
  return last ? { table: at, map: last, from: 'last', reasons: [] } : { table: at, map: guess, from: 'guess', reasons };
}

/**
 * How an intake begins: of each file the table that is most like a plan.
 *
 * @param known maps that a person corrected or confirmed earlier, the last used first
 */
export function beginState(tables: readonly Table[], known: readonly ColumnMap[]): IntakeState {
  const files = [...new Set(tables.map((t) => t.source))];
  const used = files.map((file) => tables.indexOf(mainTable(tables.filter((t) => t.source === file))));
  return { shown: used[0]!, used, parts: used.map((at) => partOf(tables, at, known)) };
}

/** The part that is being looked at. */
export const shownPart = (state: IntakeState): IntakePart => state.parts.find((p) => p.table === state.shown)!;

/** The parts that are taken in, in the order of the tables. */
export const usedParts = (state: IntakeState): IntakePart[] =>
  state.parts.filter((p) => state.used.includes(p.table)).sort((a, b) => a.table - b.table);

const withPart = (state: IntakeState, part: IntakePart): IntakeState => ({
  ...state,
  parts: [...state.parts.filter((p) => p.table !== part.table), part],
});

/** The state after a change. A table that is not there is passed over. */
export function changeState(
  tables: readonly Table[],
  state: IntakeState,
  change: IntakeChange,
  known: readonly ColumnMap[],
): IntakeState {
  const opened = (at: number): IntakeState =>
    state.parts.some((p) => p.table === at) ? state : withPart(state, partOf(tables, at, known));
  if ('show' in change) {
    if (!tables[change.show]) return state;
    const next = { ...opened(change.show), shown: change.show };
    // While one table is taken in, looking at another takes that one.
    return state.used.length === 1 ? { ...next, used: [change.show] } : next;
  }
  if ('use' in change) {
    if (!tables[change.use]) return state;
    const others = state.used.filter((at) => at !== change.use);
    const used = change.on ? [...others, change.use].sort((a, b) => a - b) : others;
    return used.length === 0 ? state : { ...opened(change.use), used, shown: change.on ? change.use : used[0]! };
  }
  if ('state' in change) return change.state.parts.every((p) => tables[p.table]) ? change.state : state;
  const table = tables[state.shown]!;
  if ('map' in change)
    return withPart(state, { table: state.shown, map: fitted(table, change.map), from: 'said', reasons: [] });
  if ('headings' in change) {
    const { map, reasons } = guessBelow(table, change.headings);
    return withPart(state, { table: state.shown, map, from: 'said', reasons });
  }
  if (change.again === 'last') return withPart(state, partOf(tables, state.shown, known));
  const { map, reasons } = guessWithReasons(table);
  return withPart(state, { table: state.shown, map, from: 'guess', reasons });
}

/** A corrected map as the table needs it: with its headings, one meaning for every column, and what newly said columns settle. */
export function fitted(table: Table, map: ColumnMap): ColumnMap {
  const width = table.rows.reduce((max, row) => Math.max(max, row.length), 0);
  const header = map.headerRow === null ? null : { ...headerAt(table, map.headerRow), rows: map.headerRows };
  const own = map.columns.length - map.derived.length;
  const columns: ColumnMeaning[] = [
    ...Array.from({ length: width }, (_, c): ColumnMeaning => (c < own ? map.columns[c]! : { as: 'skip' })),
    ...map.columns.slice(own),
  ];
  const headings = headingsOf(table, header, width);
  const settled = settle(table, map.headerRow, headings, columns.slice(0, width));
  return {
    ...map,
    headings,
    columns,
    // What a person says goes before what the values say.
    styles: settled.styles.map((style, c) => ({ ...style, ...said(map.styles[c]) })),
    dateOrder: map.dateOrder ?? settled.dateOrder,
    year: map.year ?? settled.year,
    shortM: map.shortM ?? settled.shortM,
  };
}

const said = (style: object | undefined): object =>
  Object.fromEntries(Object.entries(style ?? {}).filter(([, value]) => value !== null && value !== undefined));
