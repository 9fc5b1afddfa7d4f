import { constraintWords } from '../plan/constraints';
import { isMilestone, type Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
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

interface PlanField extends SelectField {
  /** Whether it can be asked for in every activity. */
  fillable: boolean;
  read: (plan: Plan, s: Schedule) => FieldReader;
}

const field = (id: string, name: string, type: FieldType, fillable: boolean, read: PlanField['read']): PlanField => ({
  id,
  name,
  type,
  fillable,
  read,
});

const day = (of: 'first' | 'last') => (_: Plan, s: Schedule) => (i: number) => {
  if (s.start[i] === NONE) return null;
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
  field('days', 'working days', 'number', true, (p, s) => {
    const time = activityTime(p, s);
    return (i) => {
      const { duration } = p.activities[i]!;
      return duration === null ? null : duration / time.minutesPerDay(i);
    };
  }),
  field('float', 'float', 'number', false, (p, s) => {
    const time = activityTime(p, s);
    return (i) => (s.totalFloat[i] === NONE ? null : s.totalFloat[i]! / time.minutesPerDay(i));
  }),
  field('percent', 'percent complete', 'number', true, (p) => (i) => p.activities[i]!.percent),
  field('responsible', 'responsible', 'text', true, (p) => (i) => p.activities[i]!.responsible),
  field('effort', 'effort in hours', 'number', true, (p) => (i) => hours(p.activities[i]!.effort)),
  field('cost', 'cost', 'number', true, (p) => (i) => hundredths(p.activities[i]!.cost)),
  field('quantity', 'quantity', 'number', true, (p) => (i) => p.activities[i]!.quantity),
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
    const time = activityTime(p, s);
    return (i) =>
      s.given.finish[i] === NONE || s.earlyFinish[i] === NONE || s.outline.isSummary[i] || p.links.length === 0
        ? null
        : time.daysBetween(i, s.given.finish[i]!, s.earlyFinish[i]!);
  }),
  field('actualStart', 'actual start', 'day', false, (p) => (i) => startDay(p.activities[i]!.actualStart)),
  field('actualFinish', 'actual finish', 'day', false, (p) => (i) => finishDay(p.activities[i]!.actualFinish)),
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
  field('actualEffort', 'actual effort in hours', 'number', false, (p) => (i) => hours(p.activities[i]!.actualEffort)),
  field('actualCost', 'actual cost', 'number', false, (p) => (i) => hundredths(p.activities[i]!.actualCost)),
];
const BY_ID = new Map(PLAN_FIELDS.map((f) => [f.id, f]));

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

const hours = (minutes: number | null): number | null => (minutes === null ? null : minutes / 60);
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

/** All fields of a plan, its code fields last. */
export const selectFields = ({ codeFields }: Pick<Plan, 'codeFields'>): SelectField[] => [
  ...PLAN_FIELDS.map(({ id, name, type }) => ({ id, name, type })),
  ...codeFields.map(({ id, name }): SelectField => ({ id: codeFieldId(id), name, type: 'text' })),
];

/** Fields that a plan may require of every activity: those that a person fills, its code fields last. */
export const requirableFields = ({ codeFields }: Pick<Plan, 'codeFields'>): SelectField[] =>
  selectFields({ codeFields }).filter((f) => BY_ID.get(f.id)?.fillable ?? true);

/** Reads a field by its id; null where the plan has none by it. */
export function fieldReader(plan: Plan, s: Schedule, id: string): FieldReader | null {
  const own = BY_ID.get(id);
  if (own) return own.read(plan, s);
  const code = codeOfFieldId(id);
  if (code === null || !plan.codeFields.some((f) => f.id === code)) return null;
  return (i) => plan.activities[i]!.codes[code] ?? '';
}

export const fieldType = (id: string): FieldType => BY_ID.get(id)?.type ?? 'text';

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
