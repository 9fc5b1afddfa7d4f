import {
  blockClashes,
  flowline,
  isoDate,
  leastGap,
  type LinearWork,
  linearDuration,
  NONE,
  type Plan,
  schedulePlan,
  startsWithBuffer,
} from '@clembo/core';
import { UsageError } from '../fail';
import { findingRows, json } from '../findings';
import type { Loaded } from '../load';

/**
 * The linear work of a plan: activities with a place to start from and one to end at. The rate is stated, or
 * follows from length and duration; the line starts where and when the schedule says.
 */
export function linearCommand(loaded: Loaded, buffer: string | undefined, asJson: boolean): string {
  const { plan } = loaded;
  const days = buffer === undefined ? 0 : Number(buffer);
  if (!Number.isFinite(days) || days < 0)
    throw new UsageError(`--buffer takes a number of days from 0, not “${buffer}”.`);
  const s = schedulePlan(plan);
  const own =
    s.network.times[
      Math.max(
        0,
        plan.calendars.findIndex((c) => c.id === plan.calendar),
      )
    ]!;
  const timeOf = (i: number) =>
    s.network.times[plan.calendars.findIndex((c) => c.id === (plan.activities[i]!.calendar ?? plan.calendar))] ?? own;
  const works = linearWorks(
    plan,
    s.start,
    s.finish,
    (i, from, to) =>
      timeOf(i).between(Math.ceil(from / s.network.slotMinutes), Math.ceil(to / s.network.slotMinutes)) /
      (s.network.resolution === 'day' ? 1 : timeOf(i).spec.minutesPerDay),
  );
  const lines = works.map(({ i, work }) => ({
    i,
    ref: work.ref,
    points: flowline(work, s.start[i]! / 1440, timeOf(i)),
  }));
  const activities = works.map(({ i, work }, k) => ({
    ref: work.ref,
    name: plan.activities[i]!.name,
    from: work.from,
    to: work.to,
    ratePerDay: work.rates[0]!.perDay * work.crews,
    workingDays: round(linearDuration(work)),
    points: lines[k]!.points.map((p) => ({ date: dateOf(p.time), day: round(p.time), place: round(p.place) })),
  }));
  const clashes = lines.flatMap((a, x) => lines.slice(x + 1).flatMap((b) => clashOf(a, b, days)));
  const suggested = startsWithBuffer(
    works.map((w) => w.work),
    works.length > 0 ? s.start[works[0]!.i]! / 1440 : 0,
    days,
    own,
  );
  const result = {
    buffer: days,
    activities,
    clashes,
    blocks: blockClashes(
      works
        .filter(({ work }) => work.from === work.to)
        .map(({ i, work }) => ({
          ref: work.ref,
          from: work.from,
          to: work.to,
          start: s.start[i]! / 1440,
          finish: s.finish[i]! / 1440,
        })),
    ),
    withBuffer: suggested.map((p) => ({
      ref: p.ref,
      start: dateOf(p.start),
      finish: dateOf(p.finish - 1e-6),
      startDay: round(p.start - (suggested[0]?.start ?? 0)),
      finishDay: round(p.finish - (suggested[0]?.start ?? 0)),
    })),
    findings: findingRows(loaded, s.findings),
  };
  if (asJson) return json(result);
  const rows = result.withBuffer.map((p) => `${p.ref.padEnd(12)}${p.start}  ${p.finish}`);
  const met = clashes.map((c) => `clash     ${c.refs.join(' and ')} at ${c.place} on ${c.date}: ${c.gap} days apart`);
  return `${[...met, `starts that keep ${days} days:`, ...rows].join('\n')}\n`;
}

const round = (n: number): number => Math.round(n * 1e4) / 1e4 + 0;
const dateOf = (day: number): string => isoDate(Math.floor(day + 1e-9));

function linearWorks(
  plan: Plan,
  start: Int32Array,
  finish: Int32Array,
  workingDays: (i: number, from: number, to: number) => number,
): { i: number; work: LinearWork }[] {
  return plan.activities.flatMap((a, i) => {
    if (a.from === null || a.to === null || a.from === a.to || start[i] === NONE) return [];
    const [from, to] = [a.from / 1000, a.to / 1000];
    const length = Math.abs(to - from);
    const days = workingDays(i, start[i]!, finish[i]!);
    const perDay = a.rate ?? (days > 0 ? length / days : 0);
    if (perDay <= 0) return [];
    return [
      {
        i,
        work: {
          ref: a.ref,
          from,
          to,
          crews: a.rate === null ? 1 : (a.crews ?? 1),
          rates: [{ from: Math.min(from, to), to: Math.max(from, to), perDay }],
        },
      },
    ];
  });
}

/** Two lines that cross, or come closer than the buffer. The one that is first at their first common place leads. */
function clashOf(
  a: { ref: string; points: ReturnType<typeof flowline> },
  b: { ref: string; points: ReturnType<typeof flowline> },
  buffer: number,
) {
  const [leader, follower] = a.points[0]!.time <= b.points[0]!.time ? [a, b] : [b, a];
  const least = leastGap(leader.points, follower.points);
  if (!least || least.gap >= buffer - 1e-9) return [];
  return [
    { refs: [leader.ref, follower.ref], place: round(least.place), date: dateOf(least.time), gap: round(least.gap) },
  ];
}
