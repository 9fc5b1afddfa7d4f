import type { WorkingTime } from '../calendar/workingTime';
import { type ClosedWindow, type FlowPoint, flowline, type LinearWork } from './flowline';
import { paced, paceFor } from './pace';

/** Work along a line as its dates place it. */
export interface Planned {
  /** The work at the pace that its dates ask for. */
  work: LinearWork;
  points: FlowPoint[];
  /** The last day that its own rate leads to; null where its dates give its rate. */
  rated: number | null;
}

const HAIR = 1e-6;
const lastDay = (points: readonly FlowPoint[]): number => Math.ceil(points.at(-1)!.time - 1e-9) - 1;

/**
 * The flowline of work from where and when it starts to where and when it finishes, as the plan says. Its own rate
 * holds, with its waits before closed windows, where it leads to the same end; else it is as much faster or slower as
 * its dates ask, and goes through what is closed. Work on days off goes straight.
 *
 * @param dates days as fractions of a day number
 * @param ofDates whether it has no rate of its own for its whole way
 */
export function plannedFlow(
  work: LinearWork,
  { start, finish }: { start: number; finish: number },
  time: WorkingTime,
  windows: readonly ClosedWindow[],
  inHours: boolean,
  ofDates: boolean,
): Planned {
  const ends = (points: readonly FlowPoint[]) =>
    inHours ? Math.abs(points.at(-1)!.time - finish) < HAIR : lastDay(points) === Math.ceil(finish - 1e-9) - 1;
  const free = flowline(work, start, time, []);
  const waiting = windows.length === 0 ? free : flowline(work, start, time, windows);
  const rated = ofDates ? null : lastDay(waiting);
  // Nobody says that work without a rate of its own waits.
  for (const points of ofDates ? [free, waiting] : [waiting, free])
    if (ends(points)) return { work, rated, points: between(points, start, work) };
  const factor = free[0]!.time < finish ? paceFor(work, start, time, [], finish) : null;
  if (factor === null)
    return {
      work,
      rated,
      points: [
        { time: start, place: work.from },
        { time: finish, place: work.to },
      ],
    };
  const own = paced(work, factor);
  return { work: own, rated, points: until(between(flowline(own, start, time, []), start, work), finish, inHours) };
}

/** A start on a day off is where the plan says it is. */
const between = (points: FlowPoint[], start: number, { from }: LinearWork): FlowPoint[] =>
  points[0]!.time - start > HAIR ? [{ time: start, place: from }, ...points] : points;

/** So is a finish. */
function until(points: FlowPoint[], finish: number, inHours: boolean): FlowPoint[] {
  const last = points.at(-1)!;
  return finish - last.time > (inHours ? HAIR : 1 - HAIR) ? [...points, { time: finish, place: last.place }] : points;
}
