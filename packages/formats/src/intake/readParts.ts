import { type CodeField, makeField, makeValue, MOST_ACTIVITIES, type Plan } from '@clembo/core';
import { type Table, UnreadableFile } from '../table/table';
import { type Intake, type IntakeOptions, readPlan } from './readPlan';
import type { Problem } from './problems';
import type { ColumnMap } from './columnMap';
import { isMoneyField } from './fields';
import type { IntakePart } from './state';

/** A row of a source: which table among those that were taken in, and its number there. */
export type SourcePlace = [part: number, row: number];

/** What comes of all the tables of an intake together. */
export interface JointIntake extends Omit<Intake, 'rowOf' | 'tallies' | 'left'> {
  /** By part. */
  intakes: Intake[];
  /** Where every reference comes from. */
  placeOf: Map<string, SourcePlace>;
}

/** The code field that tells the projects of several tables apart. */
const PROJECT = 'project';

/**
 * Makes one plan of several tables, each a project: a code field says which. A reference that several use gets the
 * project's name before it where it is not the first.
 *
 * @throws UnreadableFile
 */
export function readParts(tables: readonly Table[], parts: readonly IntakePart[], options: IntakeOptions): JointIntake {
  const intakes = parts.map((p) => readPlan(tables[p.table]!, p.map, options));
  const first = intakes[0]!;
  if (intakes.length === 1)
    return { ...first, intakes, placeOf: new Map([...first.rowOf].map(([ref, row]) => [ref, [0, row]])) };
  const titles = titlesOf(parts.map((p) => tables[p.table]!));
  const placeOf = new Map<string, SourcePlace>();
  const codeFields = new Map<string, CodeField>([
    [PROJECT, makeField({ id: PROJECT, name: 'Project', values: titles.map((code) => makeValue({ code })) })],
  ]);
  const calendars = new Map<string, Plan['calendars'][number]>();
  const joint: Pick<Plan, 'activities' | 'links'> = { activities: [], links: [] };
  const baseline: Intake['baseline'] = [];
  const currency = intakes.map((i) => i.plan.currency).find((c) => c !== null) ?? null;
  intakes.forEach(({ plan, rowOf, baseline: promised, problems }, k) => {
    // A plan has one currency: amounts in another are not added to it.
    const isOther = plan.currency !== null && plan.currency !== currency;
    if (isOther) problems.push(otherCurrency(tables[parts[k]!.table]!, parts[k]!.map, plan.currency!, currency!));
    const taken = new Set(placeOf.keys());
    const named = new Map<string, string>();
    for (const [ref, row] of rowOf) {
      let own = taken.has(ref) ? `${titles[k]}: ${ref}`.slice(-200) : ref;
      for (let n = 2; placeOf.has(own); n++) own = `${titles[k]}: ${ref} (${n})`.slice(-200);
      named.set(ref, own);
      placeOf.set(own, [k, row]);
    }
    const now = (ref: string) => named.get(ref) ?? ref;
    for (const c of plan.calendars) if (!calendars.has(c.id)) calendars.set(c.id, c);
    for (const f of plan.codeFields) mergeField(codeFields, f);
    for (const a of plan.activities)
      joint.activities.push({
        ...a,
        ...(isOther && { cost: null, actualCost: null }),
        ref: now(a.ref),
        parent: a.parent === null ? null : now(a.parent),
        // A part that was made with another week keeps it.
        calendar: a.calendar ?? (plan.calendar === first.plan.calendar ? null : plan.calendar),
        codes: { ...a.codes, [PROJECT]: titles[k]! },
      });
    for (const l of plan.links) joint.links.push({ ...l, from: now(l.from), to: now(l.to) });
    for (const b of promised) baseline.push({ ...b, ref: now(b.ref) });
  });
  if (joint.activities.length > MOST_ACTIVITIES)
    throw new UnreadableFile(
      `Together the tables hold ${joint.activities.length} activities; a plan can have ${MOST_ACTIVITIES}.`,
    );
  const dates = (['given', 'computed'] as const).find((d) => intakes.some((i) => i.dates === d)) ?? 'none';
  const plan: Plan = {
    ...first.plan,
    ...joint,
    source: dates === 'computed' ? 'computed' : 'given',
    asPromised: intakes.some((i) => i.plan.asPromised),
    start: dates === 'computed' ? (options.start ?? null) : null,
    inHours: intakes.some((i) => i.plan.inHours),
    currency,
    statusDate: intakes.map((i) => i.plan.statusDate).find((d) => d !== null) ?? null,
    calendars: [...calendars.values()],
    codeFields: [...codeFields.values()],
  };
  const sum = (of: (i: Intake) => number) => intakes.reduce((total, i) => total + of(i), 0);
  return {
    plan,
    baseline,
    dates,
    intakes,
    placeOf,
    problems: intakes.flatMap((i) => i.problems),
    rowsRead: sum((i) => i.rowsRead),
    rowsTaken: sum((i) => i.rowsTaken),
  };
}

/** What is said of the amounts of a table that are in another currency than the plan’s. */
function otherCurrency(table: Table, map: ColumnMap, own: string, currency: string): Problem {
  const column = map.columns.findIndex((m) => m.as === 'field' && isMoneyField(m.field));
  const row = table.firstRow + (map.headerRow ?? 0);
  const { source, sheet } = table;
  const heading = map.headings[column] ?? '';
  return { code: 'otherCurrency', source, sheet, row, column, heading, value: own, detail: currency };
}

function mergeField(fields: Map<string, CodeField>, f: CodeField): void {
  const had = fields.get(f.id);
  if (!had) {
    fields.set(f.id, f);
    return;
  }
  const known = new Set(had.values.map((v) => v.code));
  fields.set(f.id, { ...had, values: [...had.values, ...f.values.filter((v) => !known.has(v.code))] });
}

/** What each table is called as a project: its sheet where they are of one file, its file where each is of its own, else both. */
export function titlesOf(tables: readonly Table[]): string[] {
  const file = (t: Table) => t.source.replace(/\.[^.]+$/, '').replace(/[_-]+/g, ' ');
  const bySheet = tables.map((t) => t.sheet ?? file(t));
  const byFile = tables.map(file);
  const both = tables.map((t) => (t.sheet === null ? file(t) : `${file(t)} ${t.sheet}`));
  const differ = (list: string[]) => new Set(list).size === list.length;
  const best = new Set(tables.map((t) => t.source)).size === 1 ? bySheet : differ(byFile) ? byFile : both;
  return best.map((title, k) => (best.indexOf(title) === k ? title : `${title} (${k + 1})`).slice(0, 100));
}
