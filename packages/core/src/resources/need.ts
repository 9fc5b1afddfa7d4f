import { type SpreadShape, spreadExactly } from '../compare/spread';
import { calendarOf } from '../plan/calendars';
import type { Plan, Resource } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import { stretchesAt } from '../schedule/stretches';
import { activityTime } from '../schedule/workingDays';
import { type WorkingTime, workingTimeOf } from '../calendar/workingTime';
import { type Day, endOfDay, startOfDay } from '../time/civil';

/** How a resource is needed over time. Amounts are minutes of effort. */
export interface ResourceNeed {
  resource: Resource;
  /** Effort in each step. */
  need: number[];
  /** What there is of it in each step; null where that is not limited. */
  most: number[] | null;
  /** All effort that is assigned, dated or not. */
  total: number;
  /** Effort of activities without dates, which is in no step. */
  undated: number;
  /** Positions of the activities that it is assigned to. */
  activities: number[];
}

/**
 * The need of every resource of a plan over steps of time: each assignment's effort lies over the working time of its
 * activity (of its stretches, where it is interrupted) in the shape that the assignment says, uniform unless it says
 * otherwise. What the steps hold of an assignment adds up to its effort exactly, as long as they cover the activity.
 *
 * @param bounds first days of the steps, rising, and the day behind the last one
 */
export function resourceNeed(plan: Plan, s: Schedule, bounds: readonly Day[]): ResourceNeed[] {
  const steps = Math.max(0, bounds.length - 1);
  const time = activityTime(plan, s);
  const needs = new Map(
    plan.resources.map((resource): [string, ResourceNeed] => [
      resource.id,
      {
        resource,
        need: new Array<number>(steps).fill(0),
        most: capacity(plan, resource, bounds),
        total: 0,
        undated: 0,
        activities: [],
      },
    ]),
  );
  plan.activities.forEach((a, i) => {
    if (a.assignments.length === 0) return;
    const weights = s.start[i] === NONE ? null : workIn(time.timeOf(i), stretchesAt(plan, s, i), bounds);
    for (const { resource, effort, shape } of a.assignments) {
      const own = needs.get(resource);
      if (!own) continue;
      const whole = Math.round(effort);
      own.total += whole;
      if (own.activities.at(-1) !== i) own.activities.push(i);
      if (!weights) {
        own.undated += whole;
        continue;
      }
      spread(own.need, whole, weights, shape ?? 'uniform');
    }
  });
  return [...needs.values()];
}

interface Weights {
  /** The first step that holds any of it. */
  from: number;
  work: number[];
}

function spread(into: number[], whole: number, { from, work }: Weights, shape: SpreadShape): void {
  spreadExactly(whole, work, shape).forEach((part, k) => {
    into[from + k]! += part;
  });
}

/** Working minutes of stretches in each step that they touch. */
function workIn(
  time: WorkingTime,
  stretches: readonly { start: number; finish: number }[],
  bounds: readonly Day[],
): Weights {
  const first = stretches[0]!.start;
  const last = stretches.at(-1)!.finish;
  let from = 0;
  while (from < bounds.length - 2 && startOfDay(bounds[from + 1]!) <= first) from++;
  const work: number[] = [];
  for (let k = from; k < bounds.length - 1; k++) {
    const [a, b] = [startOfDay(bounds[k]!), endOfDay(bounds[k + 1]! - 1)];
    if (k > from && a >= last) break;
    work.push(stretches.reduce((sum, x) => sum + minutesIn(time, Math.max(a, x.start), Math.min(b, x.finish)), 0));
  }
  return { from, work };
}

function minutesIn(time: WorkingTime, from: number, to: number): number {
  if (to <= from) return 0;
  const minutes = workingTimeOf(time.spec, 'minute', Math.floor(from / 1440));
  return minutes.between(from, to);
}

/** What there is of a resource in each step, in minutes of effort. */
function capacity(plan: Plan, { limit, calendar }: Resource, bounds: readonly Day[]): number[] | null {
  if (limit === null) return null;
  const time = workingTimeOf(calendarOf(plan, calendar), 'minute', bounds[0] ?? 0);
  return bounds.slice(1).map((end, k) => Math.round(limit * time.between(startOfDay(bounds[k]!), endOfDay(end - 1))));
}
