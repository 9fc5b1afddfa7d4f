import {
  type CalendarSpec,
  type CodeField,
  type Line,
  type Link,
  makeActivity,
  makeField,
  makeLink,
  makePlan,
  makeValue,
  parseIsoDate,
  type Plan,
  type Resource,
  startOfDay,
} from '@clembo/core';

/** A kind of undertaking to begin from. */
export interface Starter {
  id: string;
  name: string;
  /** What it is for, in a sentence. */
  about: string;
  plan: Plan;
}

/** The day on which all of them begin; it is moved to the one that is wanted. A Monday. */
const ORIGIN = startOfDay(parseIsoDate('2024-01-08')!);

/**
 * One row of a starter: reference, name, working days, what it comes after (`A`, `A SS+3`, separated by commas), codes in
 * the order of the fields, and who works on it for how many hours. No days at all make a group, `0` a milestone.
 */
export type Row = [
  ref: string,
  name: string,
  days?: number | null,
  after?: string,
  codes?: string,
  work?: string,
  more?: { calendar?: string; from?: number; to?: number; perDay?: number; support?: boolean },
];

export interface Written {
  calendars: CalendarSpec[];
  fields: CodeField[];
  resources: Resource[];
  lines?: Line[];
  /** Rows below a group stand behind it; a dot in a reference puts a group below another. */
  rows: Row[];
}

export const book = (id: string, name: string, ...titles: string[]): CodeField =>
  makeField({ id, name, values: titles.map((code) => makeValue({ code })) });

/** `rate` is the cost of an hour, in whole units of the plan's currency. */
export const resource = (
  id: string,
  name: string,
  rate: number,
  limit: number | null = null,
  unit = 'hour',
): Resource => ({
  id,
  name,
  unit,
  rate: rate * 100,
  limit,
  calendar: null,
});

/** Makes the plan that the rows say. */
export function write(name: string, { calendars, fields, resources, lines = [], rows }: Written): Plan {
  const links: Link[] = [];
  const known = new Map(resources.map((r) => [r.id, r]));
  let group: string | null = null;
  const activities = rows.map(([ref, title, days, after = '', codes = '', work = '', more = {}]) => {
    const isGroup = days === undefined && !more.support;
    if (isGroup) group = ref;
    const spec = calendars.find((c) => c.id === (more.calendar ?? calendars[0]!.id))!;
    links.push(...linksOf(ref, after, spec.minutesPerDay));
    const assignments = work
      .split(',')
      .map((w) => w.trim())
      .filter(Boolean)
      .map((w) => {
        const [, id = '', hours = ''] = /^(\S+) (\d+)$/.exec(w) ?? [];
        if (!known.has(id)) throw new Error(`${ref}: there is no resource “${w}”`);
        return { resource: id, effort: Number(hours) * 60 };
      });
    const effort = assignments.reduce((sum, a) => sum + a.effort, 0);
    const cost = assignments.reduce((sum, a) => sum + Math.round((a.effort / 60) * known.get(a.resource)!.rate!), 0);
    const values = codes.split('|').map((v) => v.trim());
    return makeActivity({
      ref,
      name: title,
      parent: isGroup ? null : group,
      kind: isGroup
        ? 'summary'
        : more.support
          ? 'levelOfEffort'
          : days === 0
            ? after
              ? 'finishMilestone'
              : 'startMilestone'
            : 'activity',
      calendar: more.calendar ?? null,
      duration: isGroup || more.support ? null : (days ?? 0) * spec.minutesPerDay,
      codes: Object.fromEntries(fields.flatMap((f, k) => (values[k] ? [[f.id, values[k]!]] : []))),
      responsible: assignments.map((a) => known.get(a.resource)!.name),
      assignments,
      effort: effort > 0 ? effort : null,
      cost: cost > 0 ? cost : null,
      from: more.from === undefined ? null : more.from * 1000,
      to: more.to === undefined ? null : more.to * 1000,
      rate: more.perDay ?? null,
    });
  });
  return makePlan({
    name,
    start: ORIGIN,
    source: 'computed',
    calendars,
    calendar: calendars[0]!.id,
    codeFields: fields,
    resources,
    lines,
    activities,
    links,
  });
}

function linksOf(to: string, after: string, perDay: number): Link[] {
  return after
    .split(',')
    .map((p) => p.trim())
    .filter(Boolean)
    .map((part) => {
      const m = /^(\S+)(?: (FS|SS|FF|SF))?([+-]\d+)?$/.exec(part);
      if (!m) throw new Error(`${to}: predecessor “${part}” is not understood`);
      return makeLink({ from: m[1]!, to, type: (m[2] ?? 'FS') as Link['type'], lag: Number(m[3] ?? 0) * perDay });
    });
}

/** A week of so many eight-hour days, with the days off that come back every year. */
export function yearlyOff(
  calendar: CalendarSpec,
  id: string,
  name: string,
  off: [month: number, day: number, name: string][],
): CalendarSpec {
  return { ...calendar, id, name, yearly: off.map(([month, day, why]) => ({ month, day, pattern: [], name: why })) };
}
