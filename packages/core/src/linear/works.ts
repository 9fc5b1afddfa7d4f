import type { WorkingTime } from '../calendar/workingTime';
import type { Finding } from '../findings/finding';
import { isMilestone, type Line, type Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import { activityTime } from '../schedule/workingDays';
import { MINUTES_PER_DAY } from '../time/civil';
import type { Block } from './buffers';
import { type ClosedWindow, type FlowPoint, type LinearWork, linearDuration } from './flowline';
import { goesAlong, paceIsOfDates, statedRates, THOUSANDTHS } from './length';
import { MOST_DAYS } from './pace';
import { plannedFlow } from './planned';

/** Linear work of a plan with all that its flowline depends on. */
export interface PlannedWork {
  position: number;
  /** The work at the pace that its dates ask for, and at its own rate. */
  work: LinearWork;
  stated: LinearWork;
  /** The line that it is on; null where the plan describes none. */
  line: Line | null;
  time: WorkingTime;
  windows: ClosedWindow[];
  /** Where and when the work is: from the start to the finish that the plan shows. */
  points: FlowPoint[];
  /** The last day that its own rate leads to from its start; null where its dates give its rate. */
  rated: number | null;
}

const NO_LINE: { line: Line | null; windows: ClosedWindow[] } = { line: null, windows: [] };

/** Closed windows of a line in its unit and in days. */
export const windowsOf = (line: Line | null): ClosedWindow[] =>
  (line?.windows ?? []).map((w) => ({
    name: w.name,
    from: Math.min(w.from, w.to) / THOUSANDTHS,
    to: Math.max(w.from, w.to) / THOUSANDTHS,
    start: w.start / MINUTES_PER_DAY,
    finish: w.finish / MINUTES_PER_DAY,
  }));

/**
 * The linear work of a plan: activities that go from one place to another. Their rates are stated, by section or for
 * the whole way, or follow from the length and from the working days between the dates that the plan shows.
 */
export function linearWorks(plan: Plan, s: Schedule): { works: PlannedWork[]; findings: Finding[] } {
  const days = activityTime(plan, s);
  const lines = new Map(plan.lines.map((l) => [l.id, { line: l, windows: windowsOf(l) }]));
  const first = plan.lines[0] ? lines.get(plan.lines[0].id)! : { line: null, windows: [] };
  const without: string[] = [];
  const slow: string[] = [];
  const works = plan.activities.flatMap((a, position): PlannedWork[] => {
    // A milestone is a point, also where two places are said of it.
    if (!goesAlong(a) || isMilestone(a.kind) || s.start[position] === NONE) return [];
    const [from, to] = [a.from! / THOUSANDTHS, a.to! / THOUSANDTHS];
    const crews = a.crews || 1;
    const rates = statedRates(a);
    // What the dates give is the rate of all crews together; sections with a rate of their own go before it.
    const ofDates = paceIsOfDates(a);
    if (ofDates) {
      const taken = days.daysBetween(position, s.start[position]!, s.finish[position]!);
      const [low, high] = [Math.min(from, to), Math.max(from, to)];
      // Work on days off alone has no working days: it goes by the days of the calendar.
      const all = taken > 0 ? taken : (s.finish[position]! - s.start[position]!) / MINUTES_PER_DAY;
      if (all > 0) rates.unshift({ from: low, to: high, perDay: (high - low) / all / crews });
    }
    if (rates.length === a.rates.length) {
      without.push(a.ref);
      return [];
    }
    const work = { ref: a.ref, from, to, rates, crews };
    if (linearDuration(work) > MOST_DAYS) {
      slow.push(a.ref);
      return [];
    }
    // What names a line that is gone is on none, and not on the first.
    const { line, windows } = a.line === null ? first : (lines.get(a.line) ?? NO_LINE);
    const time = days.timeOf(position);
    const [start, finish] = [s.start[position]! / MINUTES_PER_DAY, s.finish[position]! / MINUTES_PER_DAY];
    return [
      {
        position,
        line,
        time,
        windows,
        stated: work,
        ...plannedFlow(work, { start, finish }, time, windows, plan.inHours, ofDates),
      },
    ];
  });
  const findings: Finding[] =
    without.length === 0 ? [] : [{ code: 'linearWithoutRate', severity: 'warning', refs: without }];
  if (slow.length > 0)
    findings.push({ code: 'linearTooSlow', severity: 'warning', refs: slow, facts: { days: MOST_DAYS } });
  return { works, findings };
}

/** Activities that hold their section of a line for as long as they last. */
export function linearBlocks(plan: Plan, s: Schedule): Block[] {
  return plan.activities.flatMap((a, position) => {
    if (a.from === null || a.to === null || a.from === a.to || !a.occupies) return [];
    if (isMilestone(a.kind) || s.start[position] === NONE) return [];
    return [
      {
        ref: a.ref,
        from: Math.min(a.from, a.to) / THOUSANDTHS,
        to: Math.max(a.from, a.to) / THOUSANDTHS,
        start: s.start[position]! / MINUTES_PER_DAY,
        finish: s.finish[position]! / MINUTES_PER_DAY,
      },
    ];
  });
}
