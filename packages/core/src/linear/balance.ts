import type { Command } from '../commands/command';
import { sameValue } from '../compare/changes';
import type { Line, Plan } from '../plan/schema';
import { MINUTES_PER_DAY } from '../time/civil';
import { hasBegun, runningAs } from './moves';
import { type Buffer, earliestOfAll, leastGap } from './buffers';
import { flowline, type FlowPoint } from './flowline';
import type { PlannedWork } from './works';

/** Where a work along a line would run, to keep the buffer from those before it. Times are fractions of a day number. */
export interface Balanced {
  position: number;
  ref: string;
  line: Line | null;
  /** When it starts and finishes now, and then. */
  start: number;
  finish: number;
  newStart: number;
  newFinish: number;
}

/** What is asked of works that follow each other along a line. */
export interface BalanceAsked {
  /** Between each trade and all that come before it. */
  buffer: Buffer;
  /** Between a trade and the one just before it, where that is another one; by the number of the trade. */
  own?: ReadonlyMap<number, Buffer>;
  /** Whether a trade may wait between its works; otherwise they go on one behind the other as they do now. */
  waits: boolean;
  /**
   * Whether a trade has to be done with its whole stretch before the next one comes in, as in a floor or a house;
   * otherwise the next one may follow it within the stretch.
   */
  whole?: boolean;
  /** Whether work may begin within a day, with any minute of it, as in plans of hours. */
  inHours?: boolean;
  held?: (work: PlannedWork) => boolean;
}

interface Run {
  start: number;
  finish: number;
  points: FlowPoint[];
}

/** The whole stretch at one time. */
const allAt = (points: readonly FlowPoint[], time: number): FlowPoint[] => [
  { time, place: points[0]!.place },
  { time, place: points.at(-1)!.place },
];

/** A work as those that come behind it see it. */
function runOf(points: FlowPoint[], whole: boolean): Run {
  const [start, finish] = [points[0]!.time, points.at(-1)!.time];
  return { start, finish, points: whole ? allAt(points, finish) : points };
}

/** The next moment with which work may begin: that of a day or of a minute, by how many of them a day has. */
const upToStep = (at: number, steps: number): number => Math.ceil(at * steps - 1e-6) / steps;

/** Works without a rest between them: each begins when the one before it ends, in whole days on the next day. */
function unbroken(works: readonly PlannedWork[], at: number, steps: number): FlowPoint[][] {
  let next = at;
  return works.map((w) => {
    const points = flowline(w.work, next, w.time, w.windows);
    next = upToStep(points.at(-1)!.time, steps);
    return points;
  });
}

/** The start at which works without a rest between them begin no earlier than they do now. */
function notEarlier(works: readonly PlannedWork[], start: number, steps: number): number {
  let at = start;
  for (let k = 0; k < works.length; k++) {
    const behind = works[k]!.points[0]!.time - unbroken(works, at, steps)[k]![0]!.time;
    // Days off make the way back longer or shorter than the way there: it is gone until it fits.
    if (behind > 1e-9) {
      at += upToStep(behind, steps);
      k--;
    }
  }
  return at;
}

/**
 * Starts at which each trade keeps the buffer from all that come before it in the list, at every place that they
 * share: nothing moves to an earlier day. A trade is one work or several, that a crew does one behind the other (the
 * same work in several units). Where it may wait, each of its works goes as early as the others allow; where it may
 * not, they stay together, and the first begins so late that none of them has to wait: the rule of the line of
 * balance. What is held stays where it is.
 *
 * @param trades in the order in which they follow each other; works of one trade in the order in which they are done
 */
export function balance(trades: readonly (readonly PlannedWork[])[], asked: BalanceAsked): Balanced[] {
  const lines = [...new Set(trades.flat().map((w) => w.line))];
  const isHeld = asked.held ?? (() => false);
  const steps = asked.inHours ? MINUTES_PER_DAY : 1;
  return lines.flatMap((line) => {
    const placed: { trade: number; run: Run }[] = [];
    return trades.flatMap((trade, number) => {
      const works = trade.filter((w) => w.line === line);
      if (works.length === 0) return [];
      const before = Math.max(-1, ...placed.map((p) => p.trade));
      const own = asked.own?.get(number);
      /** The least that is asked for, of all that share a place with it. */
      const laterThan = (startAt: (at: number) => FlowPoint[][], first: number): number => {
        const runs = asked.whole
          ? (at: number) => startAt(at).map((points) => allAt(points, points[0]!.time))
          : startAt;
        const meets = runs(first);
        const leaders = placed.filter((p) => meets.some((m) => leastGap(p.run.points, m) !== null));
        const apart = (of: typeof leaders, buffer: Buffer, from: number) =>
          of.length === 0
            ? from
            : earliestOfAll(
                of.map((l) => l.run),
                runs,
                buffer,
                from,
              );
        const near = leaders.filter((l) => own && l.trade === before);
        const far = leaders.filter((l) => !own || l.trade !== before);
        const at = apart(near, own ?? asked.buffer, apart(far, asked.buffer, first));
        return at > first + 1e-9 ? upToStep(at, steps) : first;
      };
      const loose = works.filter((w) => !isHeld(w));
      const together = new Map<PlannedWork, FlowPoint[]>();
      if (!asked.waits && loose.length > 1) {
        // The crew comes from what has begun.
        const busy = works.filter(isHeld).map((w) => upToStep(w.points.at(-1)!.time, steps));
        const first = notEarlier(loose, Math.max(loose[0]!.points[0]!.time, ...busy), steps);
        const at = laterThan((t) => unbroken(loose, t, steps), first);
        unbroken(loose, at, steps).forEach((points, k) => together.set(loose[k]!, points));
      }
      let free = Number.NEGATIVE_INFINITY;
      const runs = works.map((w) => {
        if (isHeld(w)) return w.points;
        const own = together.get(w);
        if (own) return own;
        const earliest = Math.max(w.points[0]!.time, free);
        const at = laterThan((t) => [flowline(w.work, t, w.time, w.windows)], earliest);
        const points = at > w.points[0]!.time + 1e-9 ? flowline(w.work, at, w.time, w.windows) : w.points;
        if (works.length > 1) free = upToStep(points.at(-1)!.time, steps);
        return points;
      });
      for (const points of runs) placed.push({ trade: number, run: runOf(points, asked.whole ?? false) });
      return works.map(
        (w, k): Balanced => ({
          position: w.position,
          ref: w.work.ref,
          line,
          start: w.points[0]!.time,
          finish: w.points.at(-1)!.time,
          newStart: runs[k]![0]!.time,
          newFinish: runs[k]!.at(-1)!.time,
        }),
      );
    });
  });
}

/**
 * The commands that put works where they are balanced: their dates where the plan's are given, else a start that is not
 * earlier. What has begun has its dates from what happened, and stays.
 */
export function balanceCommands(plan: Plan, list: readonly Balanced[]): Command[] {
  return list.flatMap((b): Command[] => {
    const a = plan.activities[b.position]!;
    const dated = (...times: number[]) =>
      runningAs(
        plan,
        a,
        times.map((time) => ({ time, place: 0 })),
      );
    const part = dated(b.newStart, b.newFinish);
    if (hasBegun(a) || sameValue(part, dated(b.start, b.finish))) return [];
    return [{ do: 'changeActivity', ref: a.ref, part }];
  });
}
