import { Activity, Link, type Plan } from './schema';

/** A list of records with the same fields as one list a field; a field that is the same everywhere stands once. */
export interface Columns {
  count: number;
  /** Fields with one value for all. */
  same: Record<string, unknown>;
  each: Record<string, unknown[]>;
}

/** Whether a value is the same as another, known by what it is written as. */
function isSame(value: unknown, first: unknown, written: string | undefined): boolean {
  if (value === first) return true;
  if (typeof value !== 'object' || value === null || typeof first !== 'object' || first === null) return false;
  if (Array.isArray(value) && value.length === 0) return written === '[]';
  return JSON.stringify(value) === written;
}

function toColumns(list: readonly object[], fields: readonly string[]): Columns {
  const columns: Columns = { count: list.length, same: {}, each: {} };
  const records = list as readonly Record<string, unknown>[];
  for (const field of fields) {
    const first = records[0]?.[field];
    const written = JSON.stringify(first);
    if (records.every((record) => isSame(record[field], first, written))) columns.same[field] = first;
    else columns.each[field] = records.map((record) => record[field]);
  }
  return columns;
}

function fromColumns<T>({ count, same, each }: Columns, fields: readonly string[]): T[] {
  // A copy of what all have in common, in which the rest is written over, is made far faster than one field by field.
  const common = Object.fromEntries(fields.map((field) => [field, same[field]]));
  const own = Object.entries(each);
  return Array.from({ length: count }, (_, i) => {
    const record = { ...common };
    for (const [field, values] of own) record[field] = values[i];
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
