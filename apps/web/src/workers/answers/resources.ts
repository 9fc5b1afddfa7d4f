import {
  type Command,
  monthStart,
  type Resource,
  resourceNeed,
  SPREAD_SHAPES,
  type SpreadShape,
  weekdayOf,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import type { Held } from './held';
import { dateSpan } from './span';

/** What is said of a resource, beside what the plan says of it and of the others now. */
export const putResource = ({ plan }: Held, id: string, part: Partial<Omit<Resource, 'id'>>): Command => ({
  do: 'setPlan',
  settings: { resources: plan.resources.map((r) => (r.id === id ? { ...r, ...part } : r)) },
});

export type Step = 'week' | 'month' | 'quarter';

/** The need of a resource over time, as the page of resources shows it. Amounts in hours. */
export interface NeedShown {
  id: string;
  need: number[];
  most: (number | null)[];
  total: number;
  undated: number;
  /** Steps in which more is needed than there is. */
  over: number;
  activities: { ref: string; name: string; hours: number; shape: SpreadShape }[];
}

export interface NeedsShown {
  /** What the steps are called. */
  steps: string[];
  needs: NeedShown[];
}

function boundsOf(first: number, last: number, step: Step): number[] {
  const bounds: number[] = [];
  let at = step === 'week' ? first - weekdayOf(first) : monthStart(first, 0);
  if (step === 'quarter') {
    const month = new Date(at * 86_400_000).getUTCMonth();
    at = monthStart(at, -(month % 3));
  }
  for (; at <= last && bounds.length < 1500; ) {
    bounds.push(at);
    at = step === 'week' ? at + 7 : monthStart(at, step === 'month' ? 1 : 3);
  }
  return [...bounds, at];
}

const hours = (minutes: number): number => Math.round((100 * minutes) / 60) / 100;

function stepName(day: number, step: Step): string {
  const words = formatDay(day, 'medium');
  if (step === 'week') return words;
  const [, month, year] = words.split(' ') as [string, string, string];
  if (step === 'month') return `${month} ${year}`;
  return `Q${Math.floor(new Date(day * 86_400_000).getUTCMonth() / 3) + 1} ${year}`;
}

/** The need of all resources in steps of time over the whole plan. */
export function needsShown(held: Held, step: Step): NeedsShown {
  const { plan, schedule: s } = held;
  const span = dateSpan(s);
  const bounds = span ? boundsOf(span.first, span.last, step) : [];
  return {
    steps: bounds.slice(0, -1).map((day) => stepName(day, step)),
    needs: resourceNeed(plan, s, bounds).map(({ resource, need, most, total, undated, activities }) => ({
      id: resource.id,
      need: need.map(hours),
      most: need.map((_, k) => (most ? hours(most[k]!) : null)),
      total: hours(total),
      undated: hours(undated),
      over: most ? need.filter((n, k) => n > most[k]!).length : 0,
      activities: activities.map((i) => {
        const a = plan.activities[i]!;
        const own = a.assignments.find((x) => x.resource === resource.id)!;
        return { ref: a.ref, name: a.name || a.ref, hours: hours(own.effort), shape: own.shape ?? 'uniform' };
      }),
    })),
  };
}

/** Removes a resource, and takes it from everything that it is assigned to. */
export function withoutResource({ plan }: Held, id: string): Command {
  return {
    do: 'all',
    commands: [
      ...plan.activities
        .filter((a) => a.assignments.some((x) => x.resource === id))
        .map((a) => ({
          do: 'changeActivity' as const,
          ref: a.ref,
          part: { assignments: a.assignments.filter((x) => x.resource !== id) },
        })),
      { do: 'setPlan', settings: { resources: plan.resources.filter((r) => r.id !== id) } },
    ],
  };
}

/** How an assignment lies over time. */
export function shapedAssignment({ plan, schedule }: Held, ref: string, id: string, shape: string): Command | null {
  const a = plan.activities[schedule.outline.indexOf.get(ref) ?? -1];
  const wanted = SPREAD_SHAPES.find((x) => x === shape);
  if (!a || !wanted) return null;
  return {
    do: 'changeActivity',
    ref,
    part: { assignments: a.assignments.map((x) => (x.resource === id ? { ...x, shape: wanted } : x)) },
  };
}

/** Assigns a resource to an activity, with hours; none takes it away. */
export function assigned({ plan, schedule }: Held, ref: string, id: string, effort: number): Command | null {
  const a = plan.activities[schedule.outline.indexOf.get(ref) ?? -1];
  if (!a) return null;
  const others = a.assignments.filter((x) => x.resource !== id);
  const own = a.assignments.find((x) => x.resource === id);
  const assignments = effort > 0 ? [...others, { ...own, resource: id, effort: effort * 60 }] : others;
  return { do: 'changeActivity', ref, part: { assignments } };
}
