import type { Finding } from '../findings/finding';
import { lineClashes } from '../linear/clashes';
import type { Block } from '../linear/buffers';
import { closedPieces } from '../linear/closed';
import type { ClosedWindow, FlowPoint } from '../linear/flowline';
import { hasBegun } from '../linear/moves';
import { placeOn, workedOutPlace } from '../linear/placeWords';
import { linearBlocks, linearWorks, type PlannedWork, windowsOf } from '../linear/works';
import type { Line, Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
import type { Schedule } from '../schedule/model';
import { finishDayOf, isoDate, MINUTES_PER_DAY } from '../time/civil';

/** What the checks of lines look at. */
interface Looked {
  plan: Plan;
  s: Schedule;
}

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
      const [place, date] = [placeOn(line, workedOutPlace(line, c.place)), isoDate(Math.floor(c.time + 1e-9))];
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

/** Where and when work is in a closed window: the places and days between which it is. */
type Within = Omit<Block, 'ref'>;

function withinOf(pieces: readonly FlowPoint[][]): Within {
  const all = pieces.flat();
  const places = all.map((p) => p.place);
  const times = all.map((p) => p.time);
  return { from: Math.min(...places), to: Math.max(...places), start: Math.min(...times), finish: Math.max(...times) };
}

/** What of a block lies in a closed window; null for nothing. */
function blockWithin(b: Block, w: ClosedWindow): Within | null {
  const within = {
    from: Math.max(w.from, b.from),
    to: Math.min(w.to, b.to),
    start: Math.max(w.start, b.start),
    finish: Math.min(w.finish, b.finish),
  };
  return within.from < within.to && within.start < within.finish ? within : null;
}

/** Work that the plan puts where and when a line is closed. */
function inWindows({ plan, s }: Looked): Finding[] {
  return openWorkByLine({ plan, s }).flatMap(({ line, flows, blocks }) => {
    const found = (ref: string, w: ClosedWindow, { from, to, start }: Within): Finding => ({
      code: 'inClosedWindow',
      severity: 'warning',
      refs: [ref],
      facts: {
        line: lineName(line),
        window: w.name,
        place: `${placeOn(line, from)} to ${placeOn(line, to)}`,
        date: isoDate(Math.floor(start + 1e-9)),
        until: isoDate(Math.ceil(w.finish) - 1),
        mark: `${w.name} ${Math.round(w.start * MINUTES_PER_DAY)}`,
      },
    });
    return windowsOf(line).flatMap((w) => [
      ...flows.flatMap((f) => {
        const pieces = closedPieces(f.points, w);
        return pieces.length === 0 ? [] : [found(f.work.ref, w, withinOf(pieces))];
      }),
      ...blocks.flatMap((b) => {
        const within = blockWithin(b, w);
        return within ? [found(b.ref, w, within)] : [];
      }),
    ]);
  });
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
    ? [...linearWorks(c.plan, c.s).findings, ...clashes(c), ...inWindows(c), ...againstDates(c)]
    : [];
