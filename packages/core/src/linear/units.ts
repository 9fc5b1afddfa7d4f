import { workingTimeOf } from '../calendar/workingTime';
import type { Command } from '../commands/command';
import { datedOn } from '../commands/dating';
import { NOT_BEGUN } from '../plan/notBegun';
import { calendarOf } from '../plan/calendars';
import { type Activity, isMilestone, makeActivity, makeLink, type Plan } from '../plan/schema';
import { dayOf, MINUTES_PER_DAY } from '../time/civil';

/** One of the units in which the same work is done: a floor, a house, a bay. Places in thousandths. */
export interface Unit {
  name: string;
  from: number;
  to: number;
}

export interface RepeatAsked {
  /** The line that the units lie on; null for the plan's first. */
  line: string | null;
  /** What groups are made for: each unit, or each of the works. */
  group: 'unit' | 'work';
  /** Whether a work goes on in the next unit when it is done in one. */
  follow: boolean;
  /** The group that holds what is made; that of the chosen activities where nothing is said. */
  parent?: string | null;
}

/** Given dates of an activity in the unit of a number: it goes there when it is done in those before. */
function datesIn(plan: Plan, a: Activity, k: number): Partial<Activity> {
  if (plan.source === 'computed' || a.start === null || a.finish === null || isMilestone(a.kind)) return {};
  const time = workingTimeOf(calendarOf(plan, a.calendar), 'day', 0);
  const [first, end] = [dayOf(a.start), Math.ceil(a.finish / MINUTES_PER_DAY)];
  const length = Math.max(1, time.between(first, end));
  const start = time.select(time.rank(time.firstStart(first)) + k * length);
  return datedOn(plan, a, start, time.finishOf(start, length) - 1);
}

/**
 * The same work in each of several units: the chosen activities become those of the first one, and are copied for the
 * others with the links between them. Links to the rest of the plan stay with the first unit where they come in, and
 * leave from the last where they go out.
 *
 * @param refs activities that are no groups, in their order
 * @throws RangeError when no unit or no activity is given, or one that is not in the plan
 */
export function repeatedInUnits(
  plan: Plan,
  refs: readonly string[],
  units: readonly Unit[],
  asked: RepeatAsked,
): Command {
  if (units.length === 0 || refs.length === 0) throw new RangeError('there is nothing to repeat, or nowhere');
  const byRef = new Map(plan.activities.map((a) => [a.ref, a]));
  const chosen = refs.map((ref) => {
    const a = byRef.get(ref);
    if (!a) throw new RangeError(`there is no activity ${ref}`);
    return a;
  });
  const inSet = new Set(refs);
  const commands: Command[] = [];
  const taken = new Set(byRef.keys());
  /** A reference that is free, and taken from now on. */
  const take = (wanted: string): string => {
    let ref = wanted.slice(0, 180);
    for (let k = 2; taken.has(ref); k++) ref = `${wanted.slice(0, 180)}.${k}`;
    taken.add(ref);
    return ref;
  };
  const parents = new Set(chosen.map((a) => a.parent));
  const parent = asked.parent !== undefined ? asked.parent : parents.size === 1 ? chosen[0]!.parent : null;
  const copyRef = new Map(
    units.map((_, k) => [k, new Map(refs.map((ref) => [ref, k === 0 ? ref : take(`${ref}-${k + 1}`)]))]),
  );
  const group = (name: string, wanted: string): string => {
    const ref = take(wanted);
    commands.push({ do: 'addActivity', activity: makeActivity({ ref, name, kind: 'summary', parent }), before: null });
    return ref;
  };
  const place = (a: Activity, k: number, under: string): void => {
    const { from, to, name } = units[k]!;
    const [own, title] = [copyRef.get(k)!.get(a.ref)!, asked.group === 'work' ? `${a.name}, ${name}` : a.name];
    const part = {
      // The direction is that of the first one where it has one.
      ...(a.from !== null && a.to !== null && a.to < a.from ? { from: to, to: from } : { from, to }),
      line: asked.line,
      parent: under,
      name: title.slice(0, 1000),
    };
    if (k === 0) {
      commands.push({ do: 'changeActivity', ref: own, part }, { do: 'moveActivity', ref: own, before: null });
      return;
    }
    const fresh: Activity = {
      ...a,
      ...part,
      ref: own,
      ...(asked.follow ? datesIn(plan, a, k) : {}),
      ...NOT_BEGUN,
      percent: a.percent === null ? null : 0,
      constraint: null,
    };
    commands.push({ do: 'addActivity', activity: fresh, before: null });
  };
  if (asked.group === 'unit')
    units.forEach((unit, k) => {
      const under = group(unit.name, `${refs[0]}-unit-${k + 1}`);
      for (const a of chosen) place(a, k, under);
    });
  else
    for (const a of chosen) {
      const under = group(a.name || a.ref, `${a.ref}-all`);
      units.forEach((_, k) => place(a, k, under));
    }
  const last = units.length - 1;
  for (const link of plan.links) {
    const [from, to] = [inSet.has(link.from), inSet.has(link.to)];
    if (from && to)
      for (let k = 1; k <= last; k++)
        commands.push({
          do: 'addLink',
          link: { ...link, from: copyRef.get(k)!.get(link.from)!, to: copyRef.get(k)!.get(link.to)! },
        });
    else if (from && last > 0)
      commands.push(
        { do: 'removeLink', link },
        { do: 'addLink', link: { ...link, from: copyRef.get(last)!.get(link.from)! } },
      );
  }
  if (asked.follow)
    for (const ref of refs)
      for (let k = 1; k <= last; k++)
        commands.push({
          do: 'addLink',
          link: makeLink({ from: copyRef.get(k - 1)!.get(ref)!, to: copyRef.get(k)!.get(ref)! }),
        });
  return { do: 'all', commands };
}
