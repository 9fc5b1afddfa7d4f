import { toldApart } from '../codes/names';
import { constraintWords } from '../plan/constraints';
import { apartReader, computedDates, extentOf } from '../compare/behind';
import { type Variance, varianceReader } from '../compare/variance';
import { daysReader } from '../facts/days';
import { linearDuration } from '../linear/flowline';
import { placeWords } from '../linear/placeWords';
import { linearWorks } from '../linear/works';
import { daysDoneReader } from '../measure/daysDone';
import { isMilestone, type PercentMeasure, type Plan } from '../plan/schema';
import type { Band } from '../plan/tolerance';
import { percentReader } from '../schedule/percent';
import { isComplete, type Origin, ORIGINS, UNKNOWN } from '../schedule/given';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import { stretchesAt } from '../schedule/stretches';
import { activityTime } from '../schedule/workingDays';
import { dayOf, finishDayOf, isoDate } from '../time/civil';
import { firstDayOf, lastDayOf } from '../time/days';

/** What a field holds: a text, several texts, a number, or a day (a day number). */
export type FieldType = 'text' | 'number' | 'day';

/** A field that conditions, rules and required cells may speak of. */
export interface SelectField {
  id: string;
  /** What it is called. */
  name: string;
  type: FieldType;
}

export type FieldValue = string | string[] | number | null;

/** Reads one field of the activity at a position; an empty text or list, or null, where there is nothing. */
export type FieldReader = (position: number) => FieldValue;

/** Ids of code fields in conditions begin with this; ids of the fields that every plan has hold no point. */
const CODE = 'code.';
export const codeFieldId = (id: string): string => CODE + id;
/** The code field that an id of a condition means, or null. */
export const codeOfFieldId = (id: string): string | null => (id.startsWith(CODE) ? id.slice(CODE.length) : null);

/** The edition that fields about the promise compare with. */
export interface Promised {
  plan: Plan;
  schedule: Schedule;
}

interface PlanField extends SelectField {
  /** Whether it can be asked for in every activity. */
  fillable: boolean;
  read: (plan: Plan, s: Schedule, promised: Promised | null) => FieldReader;
}

const field = (id: string, name: string, type: FieldType, fillable: boolean, read: PlanField['read']): PlanField => ({
  id,
  name,
  type,
  fillable,
  read,
});

/** The line that an activity is on: its own, or the first. */
const lineAt = (p: Plan, i: number) => {
  const { line } = p.activities[i]!;
  return line === null ? p.lines[0] : p.lines.find((l) => l.id === line);
};
const placeOf = (p: Plan, i: number, end: 'from' | 'to'): string => {
  const place = p.activities[i]![end];
  return place === null ? '' : placeWords(place, lineAt(p, i)?.unit ?? '');
};

const day = (of: 'first' | 'last') => (_: Plan, s: Schedule) => (i: number) => {
  // An end that is not known is drawn where the other is, and told nowhere.
  const from = of === 'first' ? s.startFrom : s.finishFrom;
  if (s.start[i] === NONE || (from[i] === UNKNOWN && !s.outline.isSummary[i])) return null;
  const span = { start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 };
  return of === 'first' ? firstDayOf(span) : lastDayOf(span);
};

const PLAN_FIELDS: PlanField[] = [
  field('ref', 'reference', 'text', false, (p) => (i) => p.activities[i]!.ref),
  field('name', 'name', 'text', true, (p) => (i) => p.activities[i]!.name),
  field('kind', 'kind', 'text', false, (p, s) => (i) => kindWords(p, s, i)),
  field('status', 'status', 'text', false, (p) => (i) => statusWords(p, i)),
  field('group', 'group above it', 'text', false, (p, s) => (i) => {
    const up = s.outline.parent[i]!;
    return up === -1 ? '' : p.activities[up]!.name;
  }),
  field('level', 'outline level', 'number', false, (_, s) => (i) => s.outline.level[i]!),
  field('start', 'start', 'day', true, day('first')),
  field('finish', 'finish', 'day', true, day('last')),
  field('days', 'working days', 'number', true, (p, s) => daysReader(p, s)),
  field('calendarDays', 'calendar days', 'number', false, (_, s) => (i) => {
    const at = extentOf(s, [i]);
    return at && at.last - at.first + 1;
  }),
  field('float', 'float', 'number', false, (p, s) => {
    const time = activityTime(p, s);
    return (i) => (s.totalFloat[i] === NONE ? null : s.totalFloat[i]! / time.minutesPerDay(i));
  }),
  field('percent', 'percent complete', 'number', true, (p) => (i) => p.activities[i]!.percent),
  field('responsible', 'responsible', 'text', true, (p) => (i) => p.activities[i]!.responsible),
  field('effort', 'effort', 'number', true, (p) => (i) => effortIn(p, p.activities[i]!.effort)),
  field('cost', 'cost', 'number', true, (p) => (i) => hundredths(p.activities[i]!.cost)),
  field('quantity', 'quantity', 'number', true, (p) => (i) => p.activities[i]!.quantity),
  field('output', 'quantity a day of one crew', 'number', false, (p) => (i) => p.activities[i]!.output),
  field('placeFrom', 'from place', 'text', true, (p) => (i) => placeOf(p, i, 'from')),
  field('placeTo', 'to place', 'text', true, (p) => (i) => placeOf(p, i, 'to')),
  field('line', 'line', 'text', false, (p) => (i) => {
    const { from, to } = p.activities[i]!;
    return from === null && to === null ? '' : (lineAt(p, i)?.name ?? '');
  }),
  field('rate', 'distance a day of one crew', 'number', false, (p) => (i) => p.activities[i]!.rate),
  field('crews', 'crews', 'number', false, (p) => (i) => p.activities[i]!.crews),
  field('occupies', 'holds its stretch', 'text', false, (p) => (i) => (p.activities[i]!.occupies ? 'yes' : '')),
  field('dailyDistance', 'distance a day', 'number', false, (p, s) => {
    const found = new Map(
      linearWorks(p, s).works.map((w) => [w.position, Math.abs(w.work.to - w.work.from) / linearDuration(w.work)]),
    );
    return (i) => {
      const rate = found.get(i);
      return rate === undefined ? null : Math.round(rate * 100) / 100;
    };
  }),
  field('elements', 'elements', 'number', false, (p) => {
    const counts = new Map<string, number>();
    for (const m of p.matches) counts.set(m.activity, (counts.get(m.activity) ?? 0) + m.elements.length);
    return (i) => counts.get(p.activities[i]!.ref) ?? null;
  }),
  field('calendar', 'calendar', 'text', false, (p) => {
    const names = new Map(p.calendars.map((c) => [c.id, c.name]));
    return (i) => names.get(p.activities[i]!.calendar ?? p.calendar) ?? '';
  }),
  field('notes', 'notes', 'text', true, (p) => (i) => p.activities[i]!.notes),
  field('predecessors', 'predecessors', 'text', false, (p) => linkReader(p, 'from')),
  field('successors', 'successors', 'text', false, (p) => linkReader(p, 'to')),
  field('free', 'free float', 'number', false, (p, s) => {
    const time = activityTime(p, s);
    return (i) => (s.freeFloat[i] === NONE ? null : s.freeFloat[i]! / time.minutesPerDay(i));
  }),
  field('critical', 'critical', 'text', false, (_, s) => (i) => (s.critical[i] === 1 ? 'yes' : 'no')),
  field('off', 'computed against given', 'number', false, (p, s) => {
    const apart = apartReader(p);
    const computed = computedDates(s);
    return (i) => {
      if (s.outline.isSummary[i] || p.links.length === 0) return null;
      const [given, would] = [extentOf(s.given, [i]), extentOf(computed, [i])];
      return given && would && apart.finishes(i, given, would);
    };
  }),
  field('actualStart', 'actual start', 'day', false, (p) => (i) => startDay(p.activities[i]!.actualStart)),
  field('actualFinish', 'actual finish', 'day', false, (p) => (i) => {
    const a = p.activities[i]!;
    // A milestone that begins a day has both at its beginning.
    return a.kind === 'startMilestone' && a.actualStart === a.actualFinish
      ? startDay(a.actualStart)
      : finishDay(a.actualFinish);
  }),
  field('startOrigin', 'origin of start', 'text', false, (_, s) => (i) => originWords(s.start[i]!, s.startFrom[i]!)),
  field('finishOrigin', 'origin of finish', 'text', false, (_, s) => (i) => originWords(s.start[i]!, s.finishFrom[i]!)),
  field('deadline', 'deadline', 'day', false, (p) => (i) => finishDay(p.activities[i]!.deadline)),
  field('constraint', 'constraint', 'text', false, (p) => (i) => constraintWords(p.activities[i]!.constraint)),
  field('stretches', 'stretches', 'text', false, (p, s) => (i) => {
    if (p.activities[i]!.stretches.length < 2) return '';
    const said = stretchesAt(p, s, i).map((x) => `${isoDate(dayOf(x.start))} to ${isoDate(finishDayOf(x.finish))}`);
    return said.join('; ');
  }),
  field('resources', 'resources', 'text', false, (p) => {
    const names = new Map(p.resources.map((r) => [r.id, r.name]));
    return (i) => p.activities[i]!.assignments.map((x) => names.get(x.resource) ?? x.resource);
  }),
  field('remaining', 'remaining days', 'number', false, (p, s) => {
    const time = activityTime(p, s);
    return (i) => {
      const { remaining } = p.activities[i]!;
      return remaining === null ? null : remaining / time.minutesPerDay(i);
    };
  }),
  field('actualEffort', 'actual effort', 'number', false, (p) => (i) => effortIn(p, p.activities[i]!.actualEffort)),
  field('actualCost', 'actual cost', 'number', false, (p) => (i) => hundredths(p.activities[i]!.actualCost)),
  field('percentTime', 'percent by time', 'number', false, (p, s) => percentField(p, s, 'time')),
  field('percentEffort', 'percent by effort', 'number', false, (p, s) => percentField(p, s, 'effort')),
  field('daysDone', 'days done', 'number', false, (p, s) => {
    const read = daysDoneReader(p, s);
    return (i) => read(i)?.done ?? null;
  }),
  field('daysToGo', 'days to go', 'number', false, (p, s) => {
    const read = daysDoneReader(p, s);
    return (i) => read(i)?.toGo ?? null;
  }),
  field('promisedStart', 'promised start', 'day', false, (p, _, promised) => promisedDay(p, promised, 'first')),
  field('promisedFinish', 'promised finish', 'day', false, (p, _, promised) => promisedDay(p, promised, 'last')),
  field('late', 'days late', 'number', false, (p, s, promised) => ofPromise(p, s, promised, (v) => v.finishDays)),
  field('effortOff', 'effort against budget in percent', 'number', false, (p, s, promised) =>
    ofPromise(p, s, promised, (v) => (v.effortRatio === null ? null : 100 * v.effortRatio)),
  ),
  field('costOff', 'cost against budget in percent', 'number', false, (p, s, promised) =>
    ofPromise(p, s, promised, (v) => (v.costRatio === null ? null : 100 * v.costRatio)),
  ),
  field('band', 'against the promise', 'text', false, (p, s, promised) =>
    ofPromise(p, s, promised, (v) => (v.band === null ? '' : BAND_WORDS[v.band])),
  ),
];
const BY_ID = new Map(PLAN_FIELDS.map((f) => [f.id, f]));

/** How something stands against its promise, in words. */
export const BAND_WORDS: Record<Band, string> = {
  ahead: 'ahead',
  inTolerance: 'within what is normal',
  watch: 'to be watched',
  breach: 'far off',
};

/** Where a shown date comes from, in words; empty where there is none. */
export const originWords = (date: number, from: number): string => (date === NONE ? '' : ORIGIN_WORDS[ORIGINS[from]!]);

const ORIGIN_WORDS: Record<Origin, string> = {
  unknown: 'not known',
  actual: 'actual',
  stated: 'stated',
  computed: 'computed',
  expected: 'expected',
  asPromised: 'as promised',
};

function percentField(plan: Plan, s: Schedule, measure: PercentMeasure): FieldReader {
  const percent = percentReader(plan, s, measure);
  return (i) => {
    const value = percent(i);
    return Number.isFinite(value) ? value : null;
  };
}

function promisedDay(plan: Plan, promised: Promised | null, of: 'first' | 'last'): FieldReader {
  if (!promised) return () => null;
  const read = day(of)(promised.plan, promised.schedule);
  return (i) => {
    const j = promised.schedule.outline.indexOf.get(plan.activities[i]!.ref);
    return j === undefined ? null : read(j);
  };
}

function ofPromise(
  plan: Plan,
  s: Schedule,
  promised: Promised | null,
  read: (v: Variance) => string | number | null,
): FieldReader {
  if (!promised) return () => null;
  const variance = varianceReader(plan, s, promised.plan, promised.schedule);
  return (i) => {
    const v = variance(i);
    return v && read(v);
  };
}

const startDay = (moment: number | null): number | null => (moment === null ? null : dayOf(moment));
const finishDay = (moment: number | null): number | null => (moment === null ? null : finishDayOf(moment));

/** References at the other end of an activity's links. */
function linkReader(plan: Plan, other: 'from' | 'to'): FieldReader {
  const own = other === 'from' ? 'to' : 'from';
  const lists = new Map<string, string[]>();
  for (const l of plan.links) {
    const list = lists.get(l[own]);
    if (list) list.push(l[other]);
    else lists.set(l[own], [l[other]]);
  }
  return (i) => lists.get(plan.activities[i]!.ref) ?? [];
}

/** Effort in hours, or in person-days where the plan tells it so. */
const effortIn = ({ effortDay }: Plan, minutes: number | null): number | null =>
  minutes === null ? null : minutes / (effortDay ?? 60);
const hundredths = (amount: number | null): number | null => (amount === null ? null : amount / 100);

function kindWords(plan: Plan, s: Schedule, i: number): string {
  if (s.outline.isSummary[i]) return 'summary';
  const { kind } = plan.activities[i]!;
  return isMilestone(kind) ? 'milestone' : kind === 'levelOfEffort' ? 'supporting work' : 'activity';
}

function statusWords(plan: Plan, i: number): string {
  const a = plan.activities[i]!;
  if (isComplete(a)) return 'complete';
  if (a.onHold) return 'on hold';
  return a.actualStart !== null || (a.percent ?? 0) > 0 ? 'in progress' : 'not started';
}

/** What fields are spoken of by: those of a plan, or `fields` of something else with the code fields of the plan. */
export type Fielded = Pick<Plan, 'codeFields' | 'effortDay'> & { fields?: readonly SelectField[] };
const EFFORTS = new Set(['effort', 'actualEffort']);

/** All fields of a plan, its code fields last; no two have one name. */
export function selectFields({ codeFields, effortDay, fields }: Fielded): SelectField[] {
  const own = (fields ?? PLAN_FIELDS).map(({ id, name, type }) => ({
    id,
    name: EFFORTS.has(id) ? `${name} in ${effortDay === null ? 'hours' : 'person-days'}` : name,
    type,
  }));
  const names = toldApart(
    codeFields.map((f) => f.name),
    own.map((f) => f.name),
  );
  return [
    ...own,
    ...codeFields.map(({ id }, k): SelectField => ({ id: codeFieldId(id), name: names[k]!, type: 'text' })),
  ];
}

/** Fields that a plan may require of every activity: those that a person fills, its code fields last. */
export const requirableFields = (plan: Fielded): SelectField[] =>
  selectFields(plan).filter((f) => BY_ID.get(f.id)?.fillable ?? true);

/**
 * Reads a field by its id; null where the plan has none by it.
 * @param promised what fields about the promise compare with; without one they hold nothing
 */
export function fieldReader(plan: Plan, s: Schedule, id: string, promised: Promised | null = null): FieldReader | null {
  const own = BY_ID.get(id);
  if (own) return own.read(plan, s, promised);
  const code = codeOfFieldId(id);
  if (code === null || !plan.codeFields.some((f) => f.id === code)) return null;
  return (i) => plan.activities[i]!.codes[code] ?? '';
}

/** Ids of fields that hold numbers and are no plan's begin with this. */
export const NUMBER_FIELD = 'number.';
export const fieldType = (id: string): FieldType =>
  id.startsWith(NUMBER_FIELD) ? 'number' : (BY_ID.get(id)?.type ?? 'text');

export const isEmptyValue = (value: FieldValue): boolean =>
  value === null || (typeof value !== 'number' && value.length === 0);

/** A value as text, for what compares texts: days as `2026-07-31`. */
export const valueText = (value: FieldValue, type: FieldType): string =>
  value === null
    ? ''
    : typeof value === 'number'
      ? type === 'day'
        ? isoDate(value)
        : String(value)
      : Array.isArray(value)
        ? value.join(', ')
        : value;
