import type { Activity, Link } from '@clembo/core';
import type pg from 'pg';
import type { CopyValue } from './copy';

/** Between the order keys of activities that are written together: room for what is put between them later. */
export const KEY_STEP = 1024;

/** Columns of an activity and what stands in them: one table for writing whole editions and single rows. */
const ACTIVITY_FIELDS: [column: string, value: (a: Activity) => CopyValue][] = [
  ['ref', (a) => a.ref],
  ['name', (a) => a.name],
  ['kind', (a) => a.kind],
  ['parent', (a) => a.parent],
  ['calendar', (a) => a.calendar],
  ['duration', (a) => a.duration],
  ['start', (a) => a.start],
  ['finish', (a) => a.finish],
  ['actual_start', (a) => a.actualStart],
  ['actual_finish', (a) => a.actualFinish],
  ['percent', (a) => a.percent],
  ['remaining', (a) => a.remaining],
  ['constraint', (a) => a.constraint],
  ['deadline', (a) => a.deadline],
  ['stretches', (a) => (a.stretches.length > 0 ? a.stretches : null)],
  ['on_hold', (a) => a.onHold],
  ['codes', (a) => a.codes],
  ['responsible', (a) => (a.responsible.length > 0 ? a.responsible : null)],
  ['assignments', (a) => (a.assignments.length > 0 ? a.assignments : null)],
  ['effort', (a) => a.effort],
  ['actual_effort', (a) => a.actualEffort],
  ['cost', (a) => a.cost],
  ['actual_cost', (a) => a.actualCost],
  ['from_place', (a) => a.from],
  ['to_place', (a) => a.to],
  ['quantity', (a) => a.quantity],
  ['output', (a) => a.output],
  ['rate', (a) => a.rate],
  ['crews', (a) => a.crews],
  ['line', (a) => a.line],
  ['occupies', (a) => a.occupies],
  ['rates', (a) => (a.rates.length > 0 ? a.rates : null)],
  ['notes', (a) => a.notes],
  ['said', (a) => a.said],
  ['promised', (a) => a.promised],
];
const VALUES = ACTIVITY_FIELDS.map(([, value]) => value);

export const ACTIVITY_COLUMNS = [
  'edition_id',
  'order_key',
  'source_no',
  'source_row',
  ...ACTIVITY_FIELDS.map(([column]) => column),
];

/** Where an activity was read: the number of the source in its plan, and the row there. */
export type SourcePlace = readonly [source: number, row: number];

/** The row of one activity. */
export const activityRow = (
  editionId: string,
  orderKey: number,
  place: SourcePlace | null,
  a: Activity,
): CopyValue[] => [editionId, orderKey, place?.[0] ?? null, place?.[1] ?? null, ...VALUES.map((value) => value(a))];

/** The rows of the activities of an edition, with the rows of the source that they were read from where it is known. */
export function* activityRows(
  editionId: string,
  activities: readonly Activity[],
  placeOf: ReadonlyMap<string, SourcePlace> | null,
): Generator<CopyValue[]> {
  for (let i = 0; i < activities.length; i++) {
    const a = activities[i]!;
    yield activityRow(editionId, (i + 1) * KEY_STEP, placeOf?.get(a.ref) ?? null, a);
  }
}

/** The field of an activity that a column holds. */
const fieldOf = (column: string): string =>
  column === 'from_place'
    ? 'from'
    : column === 'to_place'
      ? 'to'
      : column.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());
const FIELDS = ACTIVITY_FIELDS.map(([column]) => fieldOf(column));
/** Lists that are stored as nothing where they are empty, and amounts that come as text since they may be large. */
const LISTS = new Set(['stretches', 'responsible', 'assignments', 'rates'].map((f) => FIELDS.indexOf(f)));
const LARGE = new Set(['cost', 'actualCost'].map((f) => FIELDS.indexOf(f)));
const SELECT_ACTIVITIES = `select source_no, source_row, ${ACTIVITY_FIELDS.map(([column]) => `"${column}"`).join(', ')}
  from activity where edition_id = $1 order by order_key`;

/** The activities of an edition in their order, and the rows of the source that they were read from. */
export async function readActivities(
  client: pg.Pool | pg.PoolClient,
  editionId: string,
): Promise<{ activities: Activity[]; rows: Record<string, SourcePlace> }> {
  const { rows: found } = await client.query<unknown[]>({
    text: SELECT_ACTIVITIES,
    values: [editionId],
    rowMode: 'array',
  });
  const rows: [string, SourcePlace][] = [];
  const activities = found.map((values) => {
    const record: Record<string, unknown> = {};
    for (let k = 0; k < FIELDS.length; k++) {
      const value = values[k + 2];
      record[FIELDS[k]!] = LISTS.has(k) ? (value ?? []) : LARGE.has(k) && value !== null ? Number(value) : value;
    }
    if (values[1] !== null) rows.push([record.ref as string, [(values[0] as number | null) ?? 1, values[1] as number]]);
    // What is stored was checked when it was written.
    return record as Activity;
  });
  return { activities, rows: Object.fromEntries(rows) };
}

/** The links of an edition in the order in which they were made. */
export async function readLinks(client: pg.Pool | pg.PoolClient, editionId: string): Promise<Link[]> {
  const { rows } = await client.query<[string, string, Link['type'], number, Link['lagCalendar']]>({
    text: 'select from_ref, to_ref, type, lag, lag_calendar from link where edition_id = $1 order by id',
    values: [editionId],
    rowMode: 'array',
  });
  return rows.map(([from, to, type, lag, lagCalendar]) => ({ from, to, type, lag, lagCalendar }));
}

export const LINK_COLUMNS = ['edition_id', 'from_ref', 'to_ref', 'type', 'lag', 'lag_calendar'];

export const linkRow = (editionId: string, l: Link): CopyValue[] => [
  editionId,
  l.from,
  l.to,
  l.type,
  l.lag,
  l.lagCalendar,
];

export function* linkRows(editionId: string, links: readonly Link[]): Generator<CopyValue[]> {
  for (const l of links) yield linkRow(editionId, l);
}
