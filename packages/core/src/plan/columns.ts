import { Activity, Link, type Plan } from './schema';

/** A list of records with the same fields as one list a field; a field that is the same everywhere stands once. */
export interface Columns {
  count: number;
  /** Fields with one value for all. */
  same: Record<string, unknown>;
  each: Record<string, unknown[]>;
}

function toColumns(list: readonly object[], fields: readonly string[]): Columns {
  const columns: Columns = { count: list.length, same: {}, each: {} };
  for (const field of fields) {
    const values = list.map((record) => (record as Record<string, unknown>)[field]);
    const first = JSON.stringify(values[0]);
    const isPlain = typeof values[0] !== 'object' || values[0] === null;
    const alike = isPlain ? values.every((v) => v === values[0]) : values.every((v) => JSON.stringify(v) === first);
    if (alike) columns.same[field] = values[0];
    else columns.each[field] = values;
  }
  return columns;
}

function fromColumns<T>({ count, same, each }: Columns, fields: readonly string[]): T[] {
  return Array.from({ length: count }, (_, i) => {
    const record: Record<string, unknown> = {};
    for (const field of fields) record[field] = field in each ? each[field]![i] : same[field];
    return record as T;
  });
}

const ACTIVITY_FIELDS = Object.keys(Activity.shape);
const LINK_FIELDS = Object.keys(Link.shape);

/** Activities as columns, a fraction of their size, and back: `unpackActivities(packActivities(list))` equals the list. */
export const packActivities = (list: readonly Activity[]): Columns => toColumns(list, ACTIVITY_FIELDS);
export const unpackActivities = (columns: Columns): Activity[] => fromColumns<Activity>(columns, ACTIVITY_FIELDS);

/** Links as columns, and back. */
export const packLinks = (list: readonly Link[]): Columns => toColumns(list, LINK_FIELDS);
export const unpackLinks = (columns: Columns): Link[] => fromColumns<Link>(columns, LINK_FIELDS);

/** A plan whose activities and links are columns, as it is sent from one process to another. */
export type PackedPlan = Omit<Plan, 'activities' | 'links'> & { activities: Columns; links: Columns };

export const packPlan = ({ activities, links, ...head }: Plan): PackedPlan => ({
  ...head,
  activities: packActivities(activities),
  links: packLinks(links),
});
export const unpackPlan = ({ activities, links, ...head }: PackedPlan): Plan => ({
  ...head,
  activities: unpackActivities(activities),
  links: unpackLinks(links),
});
