import { lineOf, openWorkByLine } from '../checks/lineChecks';
import type { Command } from '../commands/command';
import type { Finding } from '../findings/finding';
import { type Block, meetsBlock } from '../linear/buffers';
import { lineClashes } from '../linear/clashes';
import { closedPieces } from '../linear/closed';
import { lengthByRate, type RoundedTo } from '../linear/lengthsByRate';
import { linearDuration, type FlowPoint } from '../linear/flowline';
import { flowDays, hasBegun, type LineMove, movedHold, movedWork } from '../linear/moves';
import { paceFor } from '../linear/pace';
import { linearWorks, type PlannedWork } from '../linear/works';
import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { shownDays } from '../commands/dating';
import { isoDate } from '../time/civil';

/** A way out of a clash, with what it would give. */
export interface LineMend {
  id: string;
  words: string;
  command: Command;
}

/** No work is put off by more days to get it out of the way of another. */
const FARTHEST = 3660;

/** More crews than these are not proposed. */
const MOST_CREWS = 3;

interface OnLine {
  flows: readonly { ref: string; points: FlowPoint[] }[];
  blocks: readonly Block[];
}

const clashCount = ({ flows, blocks }: OnLine): number => lineClashes(flows, blocks, { days: 0, distance: 0 }).length;

const meets = (a: readonly FlowPoint[], b: { points?: FlowPoint[]; block?: Block }): boolean => {
  const flow = { ref: 'a', points: [...a] };
  return b.block
    ? meetsBlock(a, b.block) !== null
    : lineClashes([flow, { ref: 'b', points: b.points! }], [], { days: 0, distance: 0 }).length > 0;
};

/** The first day on which a work keeps clear of another, tried by growing steps and then day by day. */
function clearFrom(clear: (day: number) => boolean, first: number): number | null {
  let [not, step] = [first, 1];
  while (!clear(not + step)) {
    not += step;
    step *= 2;
    if (not - first > FARTHEST) return null;
  }
  let at = not + step;
  while (at - not > 1) {
    const middle = Math.floor((not + at) / 2);
    if (clear(middle)) at = middle;
    else not = middle;
  }
  return at;
}

/**
 * Ways out of a clash of two works on a line: the second later, the other way round, at another rate, the first with
 * more crews. Only what clears the clash is proposed; each says when the work would end, and how many clashes the line
 * would have left.
 */
export function clashMends(plan: Plan, s: Schedule, finding: Finding): LineMend[] {
  const [leader, follower] = finding.refs as [string, string];
  const on = openWorkByLine({ plan, s }).find(({ flows, blocks }) =>
    [...flows.map((f) => f.work.ref), ...blocks.map((b) => b.ref)].includes(leader),
  );
  if (!on) return [];
  const work = (ref: string) => on.flows.find((f) => f.work.ref === ref);
  const block = (ref: string) => on.blocks.find((b) => b.ref === ref);
  const onLine: OnLine = { flows: on.flows.map((f) => ({ ref: f.work.ref, points: f.points })), blocks: on.blocks };
  const left = (ref: string, points: FlowPoint[]): string => {
    const n = clashCount({ ...onLine, flows: onLine.flows.map((f) => (f.ref === ref ? { ref, points } : f)) });
    return n === 0 ? 'no clash is left' : `${n} ${n === 1 ? 'clash is' : 'clashes are'} left`;
  };
  const found: LineMend[] = [];
  const other = (ref: string) => {
    const [w, b] = [work(ref), block(ref)];
    return w ? { points: w.points } : b ? { block: b } : null;
  };
  const tryMove = (
    id: string,
    w: PlannedWork,
    move: LineMove,
    words: (last: string) => string,
    against: string,
  ): void => {
    const moved = movedWork(plan, w, move);
    const there = other(against);
    if (!moved || !there || meets(moved.points, there)) return;
    const last = isoDate(flowDays(moved.points).last);
    found.push({ id, words: `${words(last)}: ${left(w.work.ref, moved.points)}`, command: moved.command });
  };
  const later = (w: PlannedWork, against: string): void => {
    const there = other(against);
    if (!there || hasBegun(plan.activities[w.position]!)) return;
    const first = Math.floor(w.points[0]!.time + 1e-9);
    const clear = (day: number) => {
      const moved = movedWork(plan, w, { do: 'start', day });
      return moved !== null && !meets(moved.points, there);
    };
    const day = clearFrom(clear, first);
    const moved = day === null ? null : movedWork(plan, w, { do: 'start', day });
    if (day === null || !moved) return;
    // Not on a day off.
    const begins = flowDays(moved.points).first;
    const words = (last: string) => `${w.work.ref} ${laterWords(begins - first)}, from ${isoDate(begins)} to ${last}`;
    tryMove(`later ${w.work.ref}`, w, { do: 'start', day }, words, against);
  };
  const [a, b] = [work(leader), work(follower)];
  if (b) later(b, leader);
  if (a && !b) later(a, follower);
  if (b) tryMove('turn', b, { do: 'turn' }, (last) => `${follower} the other way round, to ${last}`, leader);
  if (a && !b) tryMove('turn', a, { do: 'turn' }, (last) => `${leader} the other way round, to ${last}`, follower);
  if (a && b) {
    slower(
      plan,
      b,
      (points) => !meets(points, { points: a.points }),
      (factor) =>
        tryMove(
          'slower',
          b,
          { do: 'pace', factor },
          (last) => `${follower} at ${percent(factor)} of its rate, to ${last}`,
          leader,
        ),
    );
    for (let more = 1; more <= MOST_CREWS; more++) {
      const crews = (a.work.crews || 1) + more;
      const before = found.length;
      tryMove('crews', a, { do: 'crews', crews }, (last) => `${leader} with ${crews} crews, to ${last}`, follower);
      if (found.length > before) break;
    }
  }
  for (const ref of [follower, leader]) {
    const held = block(ref);
    if (!held || (a && b)) continue;
    const against = ref === follower ? leader : follower;
    const mend = blockLater(plan, s, held, (then) => {
      const w = work(against);
      const b2 = block(against);
      return w ? meetsBlock(w.points, then) === null : !b2 || then.start >= b2.finish || then.finish <= b2.start;
    });
    if (mend) found.push(mend);
  }
  return found;
}

const laterWords = (days: number): string => `${days} ${days === 1 ? 'day' : 'days'} later`;
const percent = (factor: number): string => `${Math.round(factor * 100)} %`;

/** The greatest share of its rate, in whole percents, at which a follower does not catch up. */
function slower(
  plan: Plan,
  w: PlannedWork,
  clear: (points: FlowPoint[]) => boolean,
  take: (factor: number) => void,
): void {
  const at = (hundredths: number) => {
    const moved = movedWork(plan, w, { do: 'pace', factor: hundredths / 100 });
    return moved !== null && clear(moved.points);
  };
  if (linearDuration(w.work) * 10 > 20_000 || !at(10)) return;
  let [kept, not] = [10, 100];
  while (not - kept > 1) {
    const middle = Math.floor((kept + not) / 2);
    if (at(middle)) kept = middle;
    else not = middle;
  }
  take(kept / 100);
}

/** What holds a stretch, moved to the first later day on which it is clear. */
function blockLater(plan: Plan, s: Schedule, block: Block, clear: (then: Block) => boolean): LineMend | null {
  const i = s.outline.indexOf.get(block.ref)!;
  const [a, shown] = [plan.activities[i]!, shownDays(s, i)];
  if (!shown || hasBegun(a)) return null;
  const at = (day: number) => movedHold(plan, s, block.ref, { do: 'start', day });
  const day = clearFrom((d) => {
    const then = at(d);
    return then !== null && clear({ ...block, start: then.first, finish: then.last + 1 });
  }, shown.first);
  const moved = day === null ? null : at(day);
  if (!moved) return null;
  return {
    id: `later ${block.ref}`,
    words: `${block.ref} ${laterWords(moved.first - shown.first)}, from ${isoDate(moved.first)}`,
    command: moved.command,
  };
}

/** What holds a stretch while it is closed, moved behind the windows that it meets. */
export function windowMends(plan: Plan, s: Schedule, finding: Finding): LineMend[] {
  const i = s.outline.indexOf.get(finding.refs[0]!) ?? -1;
  const a = plan.activities[i];
  const own =
    a &&
    openWorkByLine({ plan, s })
      .flatMap((o) => o.blocks)
      .find((b) => b.ref === a.ref);
  const line = a ? lineOf(plan, a.line) : null;
  const flow = a && !own ? workOf(plan, s, a.ref) : undefined;
  if (flow && a) return flowBehind(plan, flow);
  if (!own || !line) return [];
  const clear = (then: Block) =>
    line.windows.every((w) => {
      const [low, high] = [Math.min(w.from, w.to) / 1000, Math.max(w.from, w.to) / 1000];
      const apart = then.to <= low || then.from >= high;
      return apart || then.start >= w.finish / 1440 || then.finish <= w.start / 1440;
    });
  const mend = blockLater(plan, s, own, clear);
  return mend ? [mend] : [];
}

/** A work later, so that it lies in no closed window any more. */
function flowBehind(plan: Plan, w: PlannedWork): LineMend[] {
  if (hasBegun(plan.activities[w.position]!)) return [];
  const first = Math.floor(w.points[0]!.time + 1e-9);
  const clear = (day: number) => {
    const moved = movedWork(plan, w, { do: 'start', day });
    return moved !== null && w.windows.every((x) => closedPieces(moved.points, x).length === 0);
  };
  const latest = Math.max(...w.windows.map((x) => Math.ceil(x.finish)));
  for (let day = first + 1; day <= latest; day++) {
    if (!clear(day)) continue;
    const moved = movedWork(plan, w, { do: 'start', day })!;
    const { first: begins, last } = flowDays(moved.points);
    return [
      {
        id: 'behind',
        words: `Move it behind: from ${isoDate(begins)} to ${isoDate(last)}`,
        command: moved.command,
      },
    ];
  }
  return [];
}

const workOf = (plan: Plan, s: Schedule, ref: string): PlannedWork | undefined =>
  linearWorks(plan, s).works.find((w) => w.work.ref === ref);

/** The length that a work's rate gives it, up to whole days or weeks. */
export function lengthOfRate(plan: Plan, s: Schedule, ref: string, to: RoundedTo): Command[] {
  const w = workOf(plan, s, ref);
  const command = w ? lengthByRate(plan, w, to) : null;
  return command ? [command] : [];
}

/** The rate at which a work ends on the day that the plan shows. */
export function rateByDates(plan: Plan, s: Schedule, ref: string): Command[] {
  const w = workOf(plan, s, ref);
  const shown = w && shownDays(s, w.position);
  const factor = w && shown ? paceFor(w.stated, w.points[0]!.time, w.time, w.windows, shown.last + 1) : null;
  const moved = w && factor !== null ? movedWork(plan, w, { do: 'pace', factor }) : null;
  if (!w || !moved || moved.command.do !== 'changeActivity') return [];
  const { rate, output, rates } = moved.command.part;
  return [
    {
      do: 'changeActivity',
      ref,
      part: {
        ...(rate !== undefined && { rate }),
        ...(output !== undefined && { output }),
        ...(rates !== undefined && { rates }),
      },
    },
  ];
}
