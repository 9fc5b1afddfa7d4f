import type { Activity, Link } from '@clembo/core';
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
  ['effort', (a) => a.effort],
  ['actual_effort', (a) => a.actualEffort],
  ['cost', (a) => a.cost],
  ['actual_cost', (a) => a.actualCost],
  ['from_place', (a) => a.from],
  ['to_place', (a) => a.to],
  ['quantity', (a) => a.quantity],
  ['rate', (a) => a.rate],
  ['crews', (a) => a.crews],
  ['line', (a) => a.line],
  ['occupies', (a) => a.occupies],
  ['rates', (a) => (a.rates.length > 0 ? a.rates : null)],
  ['notes', (a) => a.notes],
];
const VALUES = ACTIVITY_FIELDS.map(([, value]) => value);

export const ACTIVITY_COLUMNS = ['edition_id', 'order_key', 'source_row', ...ACTIVITY_FIELDS.map(([column]) => column)];

/** The row of one activity. */
export const activityRow = (editionId: string, orderKey: number, row: number | null, a: Activity): CopyValue[] => [
  editionId,
  orderKey,
  row,
  ...VALUES.map((value) => value(a)),
];

/** The rows of the activities of an edition, with the rows of the source that they were read from where it is known. */
export function* activityRows(
  editionId: string,
  activities: readonly Activity[],
  rowOf: ReadonlyMap<string, number> | null,
): Generator<CopyValue[]> {
  for (let i = 0; i < activities.length; i++) {
    const a = activities[i]!;
    yield activityRow(editionId, (i + 1) * KEY_STEP, rowOf?.get(a.ref) ?? null, a);
  }
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
