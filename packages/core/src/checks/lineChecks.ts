import type { Finding } from '../findings/finding';
import { lineClashes } from '../linear/clashes';
import { THOUSANDTHS } from '../linear/length';
import { type Block, meetsBlock } from '../linear/buffers';
import { type ClosedWindow, type FlowPoint, placeAt } from '../linear/flowline';
import { hasBegun } from '../linear/moves';
import { isChainage, isFloors, placeWords } from '../linear/placeWords';
import { linearBlocks, linearWorks, type PlannedWork } from '../linear/works';
import type { Line, Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
import type { Schedule } from '../schedule/model';
import { finishDayOf, isoDate, MINUTES_PER_DAY } from '../time/civil';

/** What the checks of lines look at. */
interface Looked {
  plan: Plan;
  s: Schedule;
}

/** A place in the unit of a line, in words. */
export const placeOn = (line: Line | null, place: number): string => {
  const unit = line?.unit ?? '';
  const words = placeWords(Math.round(place * THOUSANDTHS), unit);
  return unit === '' || isChainage(unit) ? words : isFloors(unit) ? `floor ${words}` : `${words} ${unit}`;
};

const lineName = (line: Line | null): string => (line?.name ? `“${line.name}”` : 'the line');

/** The line that an activity is on, as its works are. */
export const lineOf = (plan: Plan, ref: string | null): Line | null =>
  (ref === null ? plan.lines[0] : plan.lines.find((l) => l.id === ref)) ?? null;

/** What is not yet done of the flowlines and blocks of a plan, by the line that they are on. */
export function openWorkByLine({ plan, s }: Looked) {
  const isOpen = (position: number) => !isComplete(plan.activities[position]!);
  const flows = linearWorks(plan, s).works.filter((w) => isOpen(w.position));
  const blocks = linearBlocks(plan, s).flatMap((block) => {
    const position = s.outline.indexOf.get(block.ref)!;
    return isOpen(position) ? [{ ...block, line: lineOf(plan, plan.activities[position]!.line) }] : [];
  });
  const lines = [...new Set([...flows.map((f) => f.line), ...blocks.map((b) => b.line)])];
  return lines.map((line) => ({
    line,
    flows: flows.filter((f) => f.line === line),
    blocks: blocks.filter((b) => b.line === line),
  }));
}

/** Works on a line that run into each other, or into what the other holds. */
function clashes({ plan, s }: Looked): Finding[] {
  return openWorkByLine({ plan, s }).flatMap(({ line, flows, blocks }) =>
    lineClashes(
      flows.map((f) => ({ ref: f.work.ref, points: f.points })),
      blocks,
      { days: 0, distance: 0 },
    ).map((c): Finding => {
      const [place, date] = [placeOn(line, c.place), isoDate(Math.floor(c.time + 1e-9))];
      return {
        code: 'lineClash',
        severity: 'warning',
        refs: c.refs,
        facts: {
          kind: c.kind,
          line: lineName(line),
          place,
          date,
        },
      };
    }),
  );
}

/** Where and when a flowline is within a stretch that is closed, first to last; null where it is not. */
export function withinWindow(points: readonly FlowPoint[], w: ClosedWindow): Block | null {
  const first = meetsBlock(points, { ref: '', ...w });
  if (!first) return null;
  let [low, high, until] = [first.place, first.place, first.time];
  for (let k = 1; k < points.length; k++) {
    const [a, b] = [points[k - 1]!, points[k]!];
    const [from, to] = [Math.max(a.time, w.start), Math.min(b.time, w.finish)];
    if (to <= from) continue;
    for (const t of [from, to]) {
      const place = Math.min(w.to, Math.max(w.from, placeAt(points, t)!));
      const inside = Math.min(a.place, b.place) < w.to && Math.max(a.place, b.place) > w.from;
      if (!inside) continue;
      [low, high] = [Math.min(low, place), Math.max(high, place)];
      until = Math.max(until, t);
    }
  }
  return { ref: '', from: low, to: high, start: first.time, finish: until };
}

/** Closed windows of a line in its unit and in days. */
const windowsOf = (line: Line | null) =>
  (line?.windows ?? []).map((w) => ({
    window: w,
    closed: {
      name: w.name,
      from: Math.min(w.from, w.to) / THOUSANDTHS,
      to: Math.max(w.from, w.to) / THOUSANDTHS,
      start: w.start / MINUTES_PER_DAY,
      finish: w.finish / MINUTES_PER_DAY,
    },
  }));

/** Flowlines that the plan puts where and when the line is closed. */
function flowsInWindows({ plan, s }: Looked): Finding[] {
  return openWorkByLine({ plan, s }).flatMap(({ line, flows }) =>
    windowsOf(line).flatMap(({ window: w, closed }) =>
      flows.flatMap((f): Finding[] => {
        const within = withinWindow(f.points, closed);
        if (!within) return [];
        return [
          {
            code: 'inClosedWindow',
            severity: 'warning',
            refs: [f.work.ref],
            facts: {
              line: lineName(line),
              window: w.name,
              place: `${placeOn(line, within.from)} to ${placeOn(line, within.to)}`,
              date: isoDate(Math.floor(within.start + 1e-9)),
              until: isoDate(finishDayOf(w.finish)),
              mark: `${w.name} ${w.start}`,
            },
          },
        ];
      }),
    ),
  );
}

/** What holds a stretch while it is closed. */
function inWindows({ plan, s }: Looked): Finding[] {
  return openWorkByLine({ plan, s }).flatMap(({ line, blocks }) =>
    blocks.flatMap((b) =>
      (line?.windows ?? []).flatMap((w): Finding[] => {
        const [low, high] = [Math.min(w.from, w.to) / THOUSANDTHS, Math.max(w.from, w.to) / THOUSANDTHS];
        const [from, to] = [Math.max(low, b.from), Math.min(high, b.to)];
        const [start, finish] = [
          Math.max(w.start / MINUTES_PER_DAY, b.start),
          Math.min(w.finish / MINUTES_PER_DAY, b.finish),
        ];
        if (from >= to || start >= finish) return [];
        return [
          {
            code: 'inClosedWindow',
            severity: 'warning',
            refs: [b.ref],
            facts: {
              line: lineName(line),
              window: w.name,
              place: `${placeOn(line, from)} to ${placeOn(line, to)}`,
              date: isoDate(Math.floor(start + 1e-9)),
              until: isoDate(finishDayOf(w.finish)),
              mark: `${w.name} ${w.start}`,
            },
          },
        ];
      }),
    ),
  );
}

/** By how many days the end that the rate of a work leads to lies behind the one that the plan shows. */
const offItsDates = ({ s }: Pick<Looked, 's'>, w: PlannedWork): number =>
  w.rated === null ? 0 : w.rated - finishDayOf(s.finish[w.position]!);

/** Works whose rate leads to another end than their dates. What has begun is paced by what happened. */
function againstDates({ plan, s }: Looked): Finding[] {
  const off = linearWorks(plan, s).works.filter(
    (w) => !hasBegun(plan.activities[w.position]!) && offItsDates({ s }, w) !== 0,
  );
  if (off.length === 0) return [];
  const days = Math.max(...off.map((w) => Math.abs(offItsDates({ s }, w))));
  return [{ code: 'rateAgainstDates', severity: 'note', refs: off.map((w) => w.work.ref), facts: { days } }];
}

/** What a planner would want to know of the work along the lines of a plan. */
export const lineFindings = (c: Looked): Finding[] =>
  c.plan.activities.some((a) => a.from !== null && a.to !== null)
    ? [...linearWorks(c.plan, c.s).findings, ...clashes(c), ...flowsInWindows(c), ...inWindows(c), ...againstDates(c)]
    : [];
