import {
  type Activity,
  type Assignment,
  type CalendarSpec,
  type Constraint,
  type Day,
  endOfDay,
  isMilestone,
  ofFinish,
  type Plan,
  startOfDay,
  type Stretch,
} from '@clembo/core';
import { readDuration, toMinutes } from '../values/amounts';

/** What was read, or why it cannot be used. */
export type Reading<T> = { value: T } | { error: string };

/** Reads a day as it is typed; null where it is none. */
export type ReadDay = (text: string) => Day | null;

const KINDS: [pattern: RegExp, start: Constraint['kind'], finish: Constraint['kind']][] = [
  [/^(?:not\s+before|no\s+earlier\s+than|not\s+earlier\s+than|from)\b/i, 'startNotEarlier', 'finishNotEarlier'],
  [/^(?:not\s+after|no\s+later\s+than|not\s+later\s+than|by)\b/i, 'startNotLater', 'finishNotLater'],
  [/^(?:fixed\s+on|on|must\s+be\s+on)\b/i, 'fixedStart', 'fixedFinish'],
];

/**
 * A constraint in words: `starts not before 14 Sep 2026`, `finishes by 3 March`, `on 3 March`, `as late as possible`.
 * A day alone fixes it: the finish of a milestone, the start of anything else. `by` alone speaks of the finish.
 */
export function readConstraint(text: string, kind: Activity['kind'], readDay: ReadDay): Reading<Constraint | null> {
  if (text === '') return { value: null };
  if (/^as\s+late\s+as\s+possible$/i.test(text)) return { value: { kind: 'asLateAsPossible', moment: null } };
  const said = /^(starts?|finish(?:es)?|ends?)\s+/i.exec(text);
  const rest = said ? text.slice(said[0].length) : text;
  const found = KINDS.find(([pattern]) => pattern.test(rest)) ?? KINDS[2]!;
  const day = readDay(rest.replace(found[0], '').trim());
  if (day === null)
    return {
      error: `“${text}” is no constraint. Type one as in “starts not before 14 Sep 2026”, “finishes by 3 March”, “on 3 March”, “as late as possible”.`,
    };
  const finish = said
    ? !/^s/i.test(said[1]!)
    : kind === 'finishMilestone' || (found === KINDS[1] && kind !== 'startMilestone');
  const which = finish ? found[2] : found[1];
  return { value: { kind: which, moment: ofFinish(which) ? endOfDay(day) : startOfDay(day) } };
}

const SPAN = /\s*(?:–|—|\bto\b|\buntil\b|\.\.)\s*|\s+-\s+/i;

/** From one day to another, `10 Mar to 14 Mar`; null where it is none. */
export function readSpan(text: string, readDay: ReadDay): [Day, Day] | null {
  const ends = text.split(SPAN);
  if (ends.length > 2) return null;
  const [from, to] = [readDay(ends[0]!.trim()), readDay((ends[1] ?? ends[0]!).trim())];
  return from === null || to === null || to < from ? null : [from, to];
}

/** Stretches of interrupted work, `3 Mar to 7 Mar; 17 Mar to 21 Mar`, in the order of time. */
export function readStretches(text: string, a: Pick<Activity, 'kind'>, readDay: ReadDay): Reading<Stretch[]> {
  if (text === '') return { value: [] };
  if (isMilestone(a.kind)) return { error: 'A milestone cannot be interrupted.' };
  const spans = text.split(/\s*;\s*/).filter(Boolean);
  const read: [Day, Day][] = [];
  for (const span of spans) {
    const days = readSpan(span, readDay);
    if (!days) return { error: `“${span}” is no stretch of days. Type them as in 3 Mar to 7 Mar; 17 Mar to 21 Mar.` };
    read.push(days);
  }
  read.sort((x, y) => x[0] - y[0]);
  const at = read.findIndex(([from], k) => k > 0 && from <= read[k - 1]![1]);
  if (at > 0) return { error: 'Two of the stretches lie over each other.' };
  return { value: read.map(([from, to]) => ({ start: startOfDay(from), finish: endOfDay(to) })) };
}

/**
 * Who and what works on it, `Crane crew 40 h, Divers 2 days`: a number alone is hours; a name alone takes the whole
 * length.
 */
export function readAssignments(
  text: string,
  a: Pick<Activity, 'duration' | 'assignments'>,
  plan: Pick<Plan, 'resources'>,
  calendar: CalendarSpec,
): Reading<Assignment[]> {
  const list: Assignment[] = [];
  for (const part of text.split(/\s*[;,]\s*(?!\d+\s*h)/).filter(Boolean)) {
    const plain = part.toLowerCase();
    const resource = plan.resources
      .filter((r) => plain === r.name.toLowerCase() || plain.startsWith(`${r.name.toLowerCase()} `))
      .sort((x, y) => y.name.length - x.name.length)[0];
    if (!resource)
      return {
        error: `There is no resource “${part}”. ${
          plan.resources.length === 0
            ? 'This plan has none yet: add it under Resources.'
            : `Add it under Resources, or type one of ${plan.resources
                .slice(0, 6)
                .map((r) => r.name)
                .join(', ')}.`
        }`,
      };
    const amount = part.slice(resource.name.length).replace(/^[\s:=×x]+/, '');
    const read = amount === '' ? null : readDuration(amount, { unit: 'hour', m: 'minute' });
    if (amount !== '' && (!read || read.amount < 0))
      return { error: `“${amount}” is no effort. Type hours, as in 40 h.` };
    const effort = read ? toMinutes(read, calendar) : (a.duration ?? 0);
    if (list.some((x) => x.resource === resource.id)) return { error: `${resource.name} stands twice.` };
    const shape = a.assignments.find((x) => x.resource === resource.id)?.shape;
    list.push({ resource: resource.id, effort, ...(shape && { shape }) });
  }
  return { value: list };
}

/** Who and what works on an activity, as it would be typed. */
export const assignmentWords = (list: readonly Assignment[], plan: Pick<Plan, 'resources'>): string =>
  list
    .map(({ resource, effort }) => {
      const name = plan.resources.find((r) => r.id === resource)?.name ?? resource;
      return `${name} ${Math.round((100 * effort) / 60) / 100} h`;
    })
    .join(', ');
