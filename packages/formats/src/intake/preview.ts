import {
  type Activity,
  AS_PROMISED,
  EXPECTED,
  isComplete,
  NONE,
  type Plan,
  scheduleDates,
  UNKNOWN,
} from '@clembo/core';
import type { Table } from '../table/table';
import { readDate } from '../values/dates';
import { CellReader, type ColumnTally } from './cells';
import type { ColumnMap } from './columnMap';
import { fieldById } from './fields';
import { findHeader, findStatusDate } from './header';
import { groupProblems, type ProblemGroup } from './problemGroups';
import { type JointIntake, readParts, titlesOf } from './readParts';
import type { Intake } from './readPlan';
import type { RowKind } from './rows';
import { type IntakePart, type IntakeState, shownPart, usedParts } from './state';

/** What a person sees of an intake while correcting its column maps. */
export interface IntakePreview {
  /** A name for the plan, after the source. */
  name: string;
  tables: { source: string; sheet: string | null; title: string; rows: number; hidden: boolean; used: boolean }[];
  /** The state that this shows: which tables are used, which one is looked at, and by which maps they are read. */
  state: IntakeState;
  part: IntakePart;
  /** The first rows as written, to choose the headings from. */
  top: { position: number; row: number; cells: string[] }[];
  /** Rows below the headings as written; for dates the day that they are read as, or null where they are none. */
  samples: { row: number; cells: { text: string; day?: number | null }[] }[];
  tallies: ColumnTally[];
  /** Values of columns that have few, for choosing rows by them. */
  values: (string[] | null)[];
  left: { kind: Exclude<RowKind, 'work' | 'section'>; rows: number[]; text: string }[];
  hiddenRows: number;
  /** Where the status date was found. */
  statusFrom: { row: number; text: string } | null;
  /** Of all tables that are taken in. */
  rowsRead: number;
  rowsTaken: number;
  counts: {
    activities: number;
    milestones: number;
    summaries: number;
    links: number;
    baseline: number;
    undated: number;
    /** Of those without dates, how many have promised ones, and how many are under way with only a promised length. */
    onlyPromised: number;
    underWay: number;
    vague: number;
  };
  calendar: string;
  dates: Intake['dates'];
  /** First and last moment of what has dates. */
  span: [number, number] | null;
  /** Some of what would come of it, to be drawn: from all over the plan. */
  bars: Bar[];
  groups: ProblemGroup[];
  problemCount: number;
}

/** An activity as it would be drawn. */
export interface Bar {
  name: string;
  start: number | null;
  finish: number | null;
  kind: Activity['kind'];
  isSoft: boolean;
  level: number;
}

/** What a pasted table is called. */
export const PASTED = 'pasted table';

/** What a plan is called after the file that it comes from. */
const planName = (source: string): string =>
  source === PASTED ? 'Pasted plan' : source.replace(/\.[^.]+$/, '').replace(/[_-]+/g, ' ');

/** False for a table of headings only. */
export function hasRows(table: Table): boolean {
  const header = findHeader(table)?.row ?? null;
  return table.rows.some((row, r) => (header === null || r > header) && row.some((cell) => cell.trim() !== ''));
}

const SAMPLE_ROWS = 8;
const TOP_ROWS = 25;
/** Of a longer cell only the beginning is shown. */
const SAMPLE_TEXT = 200;
const MOST_BARS = 60;
const MOST_VALUES = 60;

type Reader = (parts: readonly IntakePart[], name: string) => JointIntake;

/** What comes of all that is taken in, and of the table that is looked at. */
function readShown(
  tables: readonly Table[],
  state: IntakeState,
  read: Reader = (parts, name) => readParts(tables, parts, { name }),
): { name: string; joint: JointIntake; own: Intake } {
  const part = shownPart(state);
  const used = usedParts(state);
  const name = planName(tables[used[0]!.table]!.source);
  const joint = read(used, name);
  const at = used.findIndex((p) => p.table === part.table);
  const own = at >= 0 ? joint.intakes[at]! : readParts(tables, [part], { name }).intakes[0]!;
  return { name, joint, own };
}

/** What would come of the tables of an intake as it stands. */
export function previewIntake(tables: readonly Table[], state: IntakeState, read?: Reader): IntakePreview {
  const part = shownPart(state);
  const table = tables[part.table]!;
  const { map } = part;
  const { name, joint, own } = readShown(tables, state, read);
  const { activities } = joint.plan;
  const kinds = activities.map((a) => a.kind);
  const header = map.headerRow === null ? null : { row: map.headerRow, rows: map.headerRows };
  const status = findStatusDate(table, header);
  const titles = titlesOf(tables);
  const body = table.rows
    .map((cells, r) => ({ cells, row: table.firstRow + r }))
    .slice(map.headerRow === null ? 0 : map.headerRow + 1)
    .filter(({ cells }) => cells.some((c) => c.trim() !== ''));
  const reader = new CellReader(table, map);
  const shown = shownDates(joint);
  const dated = shown.flatMap(({ start, finish }) => [start, finish].filter((m) => m !== null));
  return {
    name,
    tables: tables.map((t, k) => ({
      source: t.source,
      sheet: t.sheet,
      title: titles[k]!,
      rows: t.rows.length,
      hidden: t.hidden === true,
      used: state.used.includes(k),
    })),
    state,
    part,
    top: table.rows.slice(0, TOP_ROWS).map((cells, position) => ({
      position,
      row: table.firstRow + position,
      cells: cells.map((c) => c.trim().slice(0, 40)),
    })),
    samples: body.slice(0, SAMPLE_ROWS).map(({ cells, row }) => ({
      row,
      cells: sampleRow(reader.line(cells), map),
    })),
    tallies: own.tallies,
    values: map.columns.map((_, c) => fewValues(body.map(({ cells }) => (reader.line(cells)[c] ?? '').trim()))),
    left: leftRows(own),
    hiddenRows: table.hiddenRows?.length ?? 0,
    statusFrom: status && { row: table.firstRow + status.row, text: status.text },
    rowsRead: joint.rowsRead,
    rowsTaken: joint.rowsTaken,
    counts: {
      activities: kinds.filter((k) => k === 'activity' || k === 'levelOfEffort').length,
      milestones: kinds.filter((k) => k === 'startMilestone' || k === 'finishMilestone').length,
      summaries: kinds.filter((k) => k === 'summary').length,
      links: joint.plan.links.length,
      baseline: joint.baseline.length,
      undated:
        joint.dates === 'computed'
          ? 0
          : activities.filter((a, i) => a.kind !== 'summary' && shown[i]!.start === null && shown[i]!.finish === null)
              .length,
      onlyPromised: activities.filter((a) => isUndated(a) && a.promised !== null).length,
      underWay: activities.filter(
        (a) =>
          a.actualStart !== null && !isComplete(a) && a.finish === null && a.duration === null && a.promised !== null,
      ).length,
      vague: activities.filter((a) => a.said !== null && !isUndated(a)).length,
    },
    calendar: joint.plan.calendars.find((c) => c.id === joint.plan.calendar)?.name ?? '',
    dates: joint.dates,
    span: dated.length === 0 ? null : [dated.reduce((a, b) => Math.min(a, b)), dated.reduce((a, b) => Math.max(a, b))],
    bars: barsOf(activities, shown),
    groups: groupProblems(own.problems),
    problemCount: joint.problems.length,
  };
}

const isUndated = (a: Activity): boolean =>
  a.start === null && a.finish === null && a.actualStart === null && a.actualFinish === null;

interface ShownDates {
  start: number | null;
  finish: number | null;
  /** Whether nobody stated one of them: it is worked out, or taken from the promise. */
  isSoft: boolean;
}

/** When each activity would be shown; in a plan that is to be computed, when it is said to be. */
function shownDates({ plan, dates }: { plan: Plan; dates: Intake['dates'] }): ShownDates[] {
  if (dates === 'computed') return plan.activities.map(({ start, finish }) => ({ start, finish, isSoft: false }));
  const s = scheduleDates(plan);
  const isSoft = (from: number) => from === EXPECTED || from === AS_PROMISED;
  return plan.activities.map(({ kind }, i) => {
    const known = (moment: number, from: number) =>
      moment === NONE || (from === UNKNOWN && kind !== 'summary') ? null : moment;
    const [startFrom, finishFrom] = [s.startFrom[i]!, s.finishFrom[i]!];
    return {
      start: known(s.start[i]!, startFrom),
      finish: known(s.finish[i]!, finishFrom),
      isSoft: isSoft(startFrom) || isSoft(finishFrom),
    };
  });
}

/** Some activities from all over the plan, in their order. */
function barsOf(activities: readonly Activity[], shown: readonly ShownDates[]): Bar[] {
  const level = new Map<string, number>();
  const all = activities.map((a, i): Bar => {
    const { isSoft, ...dates } = shown[i]!;
    const own = a.parent === null ? 0 : (level.get(a.parent) ?? 0) + 1;
    level.set(a.ref, own);
    return {
      name: a.name.slice(0, 60),
      ...dates,
      kind: a.kind,
      isSoft: a.said !== null || isSoft,
      level: own,
    };
  });
  const step = Math.max(1, all.length / MOST_BARS);
  return Array.from({ length: Math.min(all.length, MOST_BARS) }, (_, k) => all[Math.floor(k * step)]!);
}

/** Rows that could be taken, by their number, with what they are called. */
export interface RowsToPick {
  rows: number[];
  refs: string[];
  names: string[];
}

/** All rows of the table that is looked at that could be taken, for choosing them by hand. */
export function rowsToPick(tables: readonly Table[], state: IntakeState, read?: Reader): RowsToPick {
  const { plan, rowOf, left } = readShown(tables, state, read).own;
  const all = [
    ...plan.activities.map((a) => ({ row: rowOf.get(a.ref) ?? 0, ref: a.ref, name: a.name.slice(0, 100) })),
    ...left
      .filter((l) => l.kind === 'notPicked' && l.ref !== undefined)
      .map((l) => ({ row: l.row, ref: l.ref!, name: l.text })),
  ].sort((a, b) => a.row - b.row);
  return { rows: all.map((r) => r.row), refs: all.map((r) => r.ref), names: all.map((r) => r.name) };
}

function leftRows({ left }: Intake): IntakePreview['left'] {
  const kinds = new Map<string, IntakePreview['left'][number]>();
  for (const { kind, row, text } of left) {
    const known = kinds.get(kind);
    if (known) {
      if (known.rows.length < 50) known.rows.push(row);
    } else kinds.set(kind, { kind, rows: [row], text });
  }
  return [...kinds.values()];
}

function fewValues(column: string[]): string[] | null {
  const seen = new Set<string>();
  for (const value of column) {
    if (seen.add(value.slice(0, 100)).size > MOST_VALUES) return null;
  }
  return seen.size > 1 && seen.size < column.length ? [...seen].sort() : null;
}

const sampleRow = (line: string[], map: ColumnMap): IntakePreview['samples'][number]['cells'] =>
  map.columns.map((_, c) => sampleCell((line[c] ?? '').trim().slice(0, SAMPLE_TEXT), map, c));

/** A cell as written, and for dates what it is read as. */
function sampleCell(text: string, map: ColumnMap, column: number): { text: string; day?: number | null } {
  const meaning = map.columns[column]!;
  const order = map.styles[column]?.order ?? map.dateOrder;
  if (text === '' || meaning.as !== 'field' || fieldById(meaning.field)?.type !== 'date' || order === null)
    return { text };
  return { text, day: readDate(text, { order, year: map.year })?.day ?? null };
}
