import type { Command } from '../commands/command';
import { datedOn } from '../commands/dating';
import { NOT_BEGUN } from '../plan/notBegun';
import { type Activity, makeLink, type Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
import { timesAt } from './flowline';
import { THOUSANDTHS } from './length';
import type { PlannedWork } from './works';

/** A part of an amount, in whole units where the amount is one. */
const share = (amount: number | null, part: number): number | null =>
  amount === null ? null : Number.isInteger(amount) ? Math.round(amount * part) : amount * part;

const rest = (amount: number | null, first: number | null): number | null =>
  amount === null || first === null ? null : amount - first;

/**
 * Makes two works of one, divided at a place between its ends: the second goes on where and when the first stops. Its
 * length, quantity, effort and cost are divided by the time that each takes; what is linked to its finish is linked to
 * that of the second. Null where the place does not lie between its ends, or where the work is done.
 *
 * @param place in thousandths of the line's unit
 * @param ref the reference of the second work, not used yet
 * @param name of the second work
 */
export function splitWork(plan: Plan, w: PlannedWork, place: number, ref: string, name: string): Command | null {
  const a = plan.activities[w.position]!;
  const at = place / THOUSANDTHS;
  const between = (at - w.work.from) * (at - w.work.to) < 0;
  const passed = timesAt(w.points, at);
  if (!between || !passed || isComplete(a)) return null;
  const [start, finish] = [w.points[0]!.time, w.points.at(-1)!.time];
  const part = (passed.first - start) / (finish - start);
  const days = a.duration === null ? null : Math.round(a.duration / w.time.spec.minutesPerDay);
  const firstDays = days === null ? null : Math.min(days - 1, Math.max(1, Math.round(days * part)));
  const minutes = (d: number | null) => (d === null ? null : d * w.time.spec.minutesPerDay);
  // How far along the way it has come.
  const done = ((a.percent ?? 0) / 100) * Math.abs(w.work.to - w.work.from);
  const [way1, way2] = [Math.abs(at - w.work.from), Math.abs(w.work.to - at)];
  const percent = (of: number, way: number) => (a.percent === null ? null : Math.round((100 * of) / way));
  const ahead = Math.max(0, done - way1);
  const dated = (from: number, to: number): Partial<Activity> =>
    plan.source === 'computed' || (a.start === null && a.finish === null)
      ? {}
      : datedOn(plan, a, Math.floor(from + 1e-9), Math.ceil(to - 1e-9) - 1);
  const amounts = ['quantity', 'effort', 'cost'] as const;
  const first: Partial<Omit<Activity, 'ref'>> = {
    to: place,
    duration: minutes(firstDays),
    percent: percent(Math.min(done, way1), way1),
    remaining: null,
    stretches: [],
    ...Object.fromEntries(amounts.map((key) => [key, share(a[key], part)])),
    assignments: a.assignments.map((x) => ({ ...x, effort: x.effort * part })),
    ...dated(start, passed.first),
  };
  const second: Activity = {
    ...a,
    ref,
    name,
    from: place,
    duration: minutes(days === null ? null : days - firstDays!),
    ...NOT_BEGUN,
    percent: percent(ahead, way2),
    constraint: null,
    stretches: [],
    ...Object.fromEntries(amounts.map((key) => [key, rest(a[key], share(a[key], part))])),
    assignments: a.assignments.map((x) => ({ ...x, effort: x.effort * (1 - part) })),
    ...dated(passed.last, finish),
  };
  const behind = plan.activities.slice(w.position + 1).find((x) => x.parent === a.parent);
  // What hung on its finish hangs on that of the second.
  const moved = plan.links.flatMap((link): Command[] => {
    const leaves = link.from === a.ref && (link.type === 'FS' || link.type === 'FF');
    const ends = link.to === a.ref && (link.type === 'FF' || link.type === 'SF');
    if (!leaves && !ends) return [];
    return [
      { do: 'removeLink', link },
      { do: 'addLink', link: { ...link, ...(leaves && { from: ref }), ...(ends && { to: ref }) } },
    ];
  });
  return {
    do: 'all',
    commands: [
      { do: 'changeActivity', ref: a.ref, part: first },
      { do: 'addActivity', activity: second, before: behind?.ref ?? null },
      ...moved,
      { do: 'addLink', link: makeLink({ from: a.ref, to: ref }) },
    ],
  };
}
