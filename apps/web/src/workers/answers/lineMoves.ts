import {
  applyCommand,
  type Block,
  type Command,
  type FlowPoint,
  flowDays,
  freeRef,
  hasBegun,
  isChainage,
  isComplete,
  leastGap,
  lengthByRate,
  lineClashes,
  type LineMove,
  linearBlocks,
  linearWorks,
  movedHold,
  movedWork,
  paceIsOfDates,
  placeWords,
  type Plan,
  type PlannedWork,
  type RoundedTo,
  type Schedule,
  schedulePlan,
  shownDays,
  splitWork,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { withFollowers } from './dragging';
import type { Held } from './held';

/** What a person asks of a work along a line: a move, or to be divided at a place in thousandths. */
export type LineAsked = LineMove | { do: 'divide'; place: number };

/** A work along a line, to be taken hold of: places in the unit of the line, times as fractions of a day number. */
export interface LineWork {
  ref: string;
  name: string;
  points: FlowPoint[];
  /** It holds its stretch, from the first point to the last. */
  holds: boolean;
  begun: boolean;
  done: boolean;
  crews: number;
  unit: string;
  /** Stations between its ends, to be divided at. */
  stations: { name: string; place: number }[];
}

/** A work where it would run, while it is dragged. */
export interface LineMoving {
  points: FlowPoint[];
  words: string;
  /** How many works it would run into. */
  clashes: number;
}

/** What comes of a change to a work along a line. */
export interface LineProposal {
  words: string;
  command: Command;
  /** What is so now and what would be then. */
  facts: { label: string; now: string; then: string; worse: boolean }[];
  /** What else would move. */
  others: { ref: string; name: string; words: string }[];
}

interface OnLine {
  works: PlannedWork[];
  blocks: Block[];
}

/** Works and blocks of a plan; they are asked for at every step of a drag. */
const known = new WeakMap<Plan, OnLine>();
function onLine({ plan, schedule }: Held): OnLine {
  let found = known.get(plan);
  if (!found) {
    found = { works: linearWorks(plan, schedule).works, blocks: linearBlocks(plan, schedule) };
    known.set(plan, found);
  }
  return found;
}

/** A plan as a command makes it. */
export function applied({ plan }: Held, command: Command): Held {
  const then = applyCommand(plan, command).plan;
  return { plan: then, schedule: schedulePlan(then) };
}

const lineIdOf = (plan: Plan, i: number): string | null => plan.activities[i]!.line ?? plan.lines[0]?.id ?? null;

const cornersOf = (b: Block): FlowPoint[] => [
  { time: b.start, place: b.from },
  { time: b.finish, place: b.to },
];

export function lineWorkOf(held: Held, ref: string): LineWork | null {
  const { plan, schedule: s } = held;
  const i = s.outline.indexOf.get(ref);
  const { works, blocks } = onLine(held);
  const work = works.find((w) => w.work.ref === ref);
  const block = blocks.find((b) => b.ref === ref);
  if (i === undefined || (!work && !block)) return null;
  const a = plan.activities[i]!;
  const line = plan.lines.find((l) => l.id === lineIdOf(plan, i));
  const inside = (place: number) => (place - a.from!) * (place - a.to!) < 0;
  return {
    ref,
    name: a.name || ref,
    points: work ? work.points : cornersOf(block!),
    holds: block !== undefined,
    begun: hasBegun(a),
    done: isComplete(a),
    crews: a.crews ?? 1,
    unit: line?.unit ?? '',
    stations: (line?.stations ?? []).filter((x) => inside(x.at)).map((x) => ({ name: x.name, place: x.at })),
  };
}

/** The works that share the line of an activity, without itself. */
function othersOn(held: Held, ref: string): { flows: { ref: string; points: FlowPoint[] }[]; blocks: Block[] } {
  const { plan, schedule: s } = held;
  const { works, blocks } = onLine(held);
  const line = lineIdOf(plan, s.outline.indexOf.get(ref)!);
  const shares = (other: string) => {
    const i = s.outline.indexOf.get(other)!;
    return other !== ref && lineIdOf(plan, i) === line && !isComplete(plan.activities[i]!);
  };
  return {
    flows: works.filter((w) => shares(w.work.ref)).map((w) => ({ ref: w.work.ref, points: w.points })),
    blocks: blocks.filter((b) => shares(b.ref)),
  };
}

const AT_ALL = { days: 0, distance: 0 };

/** How many other works one meets: its own flowline or block with each of the others. */
function meeting(held: Held, ref: string, flow: FlowPoint[] | null, block: Block | null): number {
  const { flows, blocks } = othersOn(held, ref);
  if (block)
    return (
      flows.filter((f) => lineClashes([f], [block], AT_ALL).length > 0).length +
      blocks.filter((b) => lineClashes([], [b, block], AT_ALL).length > 0).length
    );
  const own = { ref, points: flow! };
  return (
    flows.filter((f) => lineClashes([own, f], [], AT_ALL).length > 0).length +
    blocks.filter((b) => lineClashes([own], [b], AT_ALL).length > 0).length
  );
}

const spanWords = (first: number, last: number): string =>
  `${formatDay(first, 'medium')} to ${formatDay(last, 'medium')}`;

/** Where a work is moved to, with the command that does it. */
function movedTo(
  held: Held,
  ref: string,
  move: LineMove,
): { points: FlowPoint[]; block: Block | null; command: Command; first: number; last: number } | null {
  const { works, blocks } = onLine(held);
  const work = works.find((w) => w.work.ref === ref);
  if (work) {
    const moved = movedWork(held.plan, work, move);
    return moved && { points: moved.points, block: null, command: moved.command, ...flowDays(moved.points) };
  }
  const block = blocks.find((b) => b.ref === ref);
  if (!block || (move.do !== 'start' && move.do !== 'finish')) return null;
  const moved = movedHold(held.plan, held.schedule, ref, move);
  if (!moved) return null;
  const then = { ...block, start: moved.first, finish: moved.last + 1 };
  return { points: cornersOf(then), block: then, command: moved.command, first: moved.first, last: moved.last };
}

export function lineMoving(held: Held, ref: string, move: LineMove): LineMoving | null {
  const moved = movedTo(held, ref, move);
  return (
    moved && {
      points: moved.points,
      words: spanWords(moved.first, moved.last),
      clashes: meeting(held, ref, moved.block ? null : moved.points, moved.block),
    }
  );
}

/** Two works of one, divided at a place. */
function divided(held: Held, ref: string, place: number): Command | null {
  const { plan, schedule: s } = held;
  const work = onLine(held).works.find((w) => w.work.ref === ref);
  if (!work) return null;
  const a = plan.activities[work.position]!;
  const line = plan.lines.find((l) => l.id === lineIdOf(plan, s.outline.indexOf.get(ref)!));
  const unit = line?.unit ?? '';
  const station = line?.stations.find((x) => x.at === place)?.name;
  const words = station ?? `${placeWords(place, unit)}${unit === '' || isChainage(unit) ? '' : ` ${unit}`}`;
  const fresh = freeRef(plan, `${ref.slice(0, 180)}-`);
  return splitWork(plan, work, place, fresh, `${a.name || ref}, from ${words}`.slice(0, 1000));
}

/** The last day of the works of the line that an activity is on. */
function lastOn({ plan, schedule: s }: Held, line: string | null): number {
  const days = plan.activities.flatMap((a, i) => {
    const shown = a.from !== null && lineIdOf(plan, i) === line && !s.outline.isSummary[i] ? shownDays(s, i) : null;
    return shown ? [shown.last] : [];
  });
  return Math.max(...days);
}

/** The least days between a work and any other that it does not run into. */
function leastBeside(held: Held, ref: string): number | null {
  const own = onLine(held).works.find((w) => w.work.ref === ref);
  if (!own) return null;
  const gaps = othersOn(held, ref).flows.flatMap(({ points }) => {
    const [a, b] = [leastGap(points, own.points), leastGap(own.points, points)];
    return a && b ? [Math.max(a.gap, b.gap)] : [];
  });
  const kept = gaps.filter((g) => g >= 0);
  return kept.length === 0 ? null : Math.min(...kept);
}

const clashesOn = (held: Held, line: string | null): number => {
  const { plan, schedule: s } = held;
  const { works, blocks } = onLine(held);
  const on = (ref: string) => {
    const i = s.outline.indexOf.get(ref)!;
    return lineIdOf(plan, i) === line && !isComplete(plan.activities[i]!);
  };
  return lineClashes(
    works.filter((w) => on(w.work.ref)).map((w) => ({ ref: w.work.ref, points: w.points })),
    blocks.filter((b) => on(b.ref)),
    AT_ALL,
  ).length;
};

const dayOr = (day: number): string => (Number.isFinite(day) ? formatDay(day, 'medium') : 'no date');
const gapWords = (days: number | null): string =>
  days === null ? 'none' : `${Math.round(days * 10) / 10} ${Math.round(days * 10) === 10 ? 'day' : 'days'}`;

/** What else is on other days than now. */
function movedOthers(before: Held, after: Held, except: ReadonlySet<string>): LineProposal['others'] {
  const now: Schedule = before.schedule;
  return after.plan.activities.flatMap((a, i) => {
    const k = now.outline.indexOf.get(a.ref);
    if (k === undefined || except.has(a.ref) || after.schedule.outline.isSummary[i]) return [];
    const [was, is] = [shownDays(now, k), shownDays(after.schedule, i)];
    if (!was || !is || (was.first === is.first && was.last === is.last)) return [];
    const by = is.last - was.last;
    const words =
      by === 0
        ? spanWords(is.first, is.last)
        : `${Math.abs(by)} d ${by > 0 ? 'later' : 'earlier'}, to ${formatDay(is.last, 'medium')}`;
    return [{ ref: a.ref, name: a.name || a.ref, words }];
  });
}

/** So many of what else moves are named. */
const NAMED = 50;

export function lineProposal(held: Held, ref: string, asked: LineAsked, follow: boolean): LineProposal | null {
  const { plan, schedule: s } = held;
  const i = s.outline.indexOf.get(ref);
  if (i === undefined) return null;
  const alone = asked.do === 'divide' ? divided(held, ref, asked.place) : (movedTo(held, ref, asked)?.command ?? null);
  if (!alone) return null;
  const command = follow ? withFollowers(held, alone) : alone;
  const then = applied(held, command);
  const line = lineIdOf(plan, i);
  const at = then.schedule.outline.indexOf.get(ref)!;
  const [was, is] = [shownDays(s, i)!, shownDays(then.schedule, at)!];
  const [clashesNow, clashesThen] = [clashesOn(held, line), clashesOn(then, line)];
  const [gapNow, gapThen] = [leastBeside(held, ref), leastBeside(then, ref)];
  const [endNow, endThen] = [lastOn(held, line), lastOn(then, line)];
  const rate = (h: Held) => {
    const w = onLine(h).works.find((x) => x.work.ref === ref);
    if (!w) return '';
    const days = w.work.rates.length === 1 ? w.work.rates[0]!.perDay * w.work.crews : null;
    return days === null ? 'by section' : `${Number(days.toPrecision(3))} a day`;
  };
  return {
    words:
      asked.do === 'divide'
        ? 'Two works of one'
        : was.first === is.first && was.last === is.last
          ? 'On the same days as now'
          : spanWords(is.first, is.last),
    command,
    facts: [
      { label: 'It begins', now: dayOr(was.first), then: dayOr(is.first), worse: is.first > was.first },
      ...(asked.do === 'divide'
        ? []
        : [{ label: 'It ends', now: dayOr(was.last), then: dayOr(is.last), worse: is.last > was.last }]),
      ...(rate(held) === '' ? [] : [{ label: 'Its rate', now: rate(held), then: rate(then), worse: false }]),
      { label: 'Clashes', now: String(clashesNow), then: String(clashesThen), worse: clashesThen > clashesNow },
      {
        label: 'Nearest work',
        now: gapWords(gapNow),
        then: gapWords(gapThen),
        worse: gapNow !== null && gapThen !== null && gapThen < gapNow - 1e-9,
      },
      { label: 'Line ends', now: dayOr(endNow), then: dayOr(endThen), worse: endThen > endNow },
    ],
    others: movedOthers(held, then, new Set([ref])).slice(0, NAMED),
  };
}

/** What is as it would be made. */
const isSo = (plan: Plan, command: Command): boolean =>
  command.do === 'changeActivity' &&
  Object.entries(command.part).every(
    ([key, value]) => plan.activities.find((a) => a.ref === command.ref)?.[key as 'duration'] === value,
  );

/** The lengths that their rates, or their outputs, give to all works of a line that have any and have not begun. */
export function lengthsByRates(held: Held, line: string, to: RoundedTo): Command | null {
  const { plan } = held;
  const commands = onLine(held).works.flatMap((w): Command[] => {
    const a = plan.activities[w.position]!;
    if (lineIdOf(plan, w.position) !== line || paceIsOfDates(a)) return [];
    const command = lengthByRate(plan, w, to);
    return command && !isSo(plan, command) ? [command] : [];
  });
  return commands.length === 0 ? null : { do: 'all', commands };
}
