import {
  againstPromise,
  behindReader,
  type BuildElement,
  type BuildTimes,
  buildTimes,
  countStages,
  type Day,
  dayOf,
  elementsHold,
  GOING,
  type Plan,
  quantityBuilt,
  type Schedule,
  shareBuilt,
  shownDays,
  stageAt,
  THERE,
  UNDER_WAY,
} from '@clembo/core';
import type { BuildBrief } from '../../brief/build';
import type { BuiltModel, ComposeInput } from '../composed';
import { codeLooks } from '../timeline/codes';
import { datesOf, type ShownDate } from './dates';
import { type ElementLook, elementLook } from './look';

type Input = ComposeInput<BuildBrief>;

/** A work that is going on on a date, with the elements that are meant. */
export interface WorkOn {
  position: number;
  ref: string;
  name: string;
  colour: string;
  elements: number;
  /** How much of its elements is there, 0 to 1. */
  share: number;
  /** How many of its elements are not as far as was promised. */
  behind: number;
  /** Working days by which it will finish later than promised; null where that is not known. */
  late: number | null;
}

/** The model on one date. */
export interface DateStanding extends ShownDate {
  counts: ReturnType<typeof countStages>;
  behind: number;
  ahead: number;
  looks: ElementLook[];
  /** How much of each work's elements is there, 0 to 1, by its position. */
  shares: Map<number, number>;
  /** Works that are under way, and works that ought to be. */
  underWay: WorkOn[];
  behindWorks: WorkOn[];
  /** Works whose elements have come to stand since the date before. */
  finished: WorkOn[];
  /** Works that have not begun, with the days on which they begin, the next first. */
  next: (WorkOn & { first: Day })[];
  built: number;
  total: number;
}

export interface Standings {
  model: BuiltModel;
  times: BuildTimes;
  meant: Uint8Array;
  count: number;
  dates: DateStanding[];
  /** Activities with elements that are meant, in the order of the plan. */
  works: WorkOn[];
}

/** What of an input the standings are worked out from. */
export type StandingInput = Pick<Input, 'plan' | 'schedule' | 'promised'> & {
  brief: Omit<BuildBrief, 'page' | 'kind' | 'title'>;
};

/** Times by schedule, for as long as it and what was matched are the same: another day asks for the same ones. */
const known = new WeakMap<
  Schedule,
  { matches: Plan['matches']; elements: readonly BuildElement[]; times: BuildTimes & { dated: Plan } }
>();

/** When elements come and go by the dates of a plan and the matches of another (or the same). */
function timesOf(dated: Plan, { matches }: Plan, schedule: Schedule, elements: readonly BuildElement[]): BuildTimes {
  const held = known.get(schedule);
  if (held && held.matches === matches && held.elements === elements && held.times.dated === dated) return held.times;
  const times = { ...buildTimes({ ...dated, matches }, schedule, elements), dated };
  known.set(schedule, { matches, elements, times });
  return times;
}

/** How the elements that a brief means stand on its dates. */
export function standingsOf(input: StandingInput, model: BuiltModel): Standings {
  const { plan, schedule, brief, promised } = input;
  const { elements } = model;
  const holds = brief.where.tests.length === 0 ? () => true : elementsHold(elements, plan.elementCodes, brief.where);
  const meant = Uint8Array.from(elements, (_, e) => (holds(e) ? 1 : 0));
  const times = timesOf(plan, plan, schedule, elements);
  const then = promised && timesOf(promised.plan, plan, promised.schedule, elements);
  const looksOf = codeLooks(plan, brief.colour, brief);
  const colours = new Map<number, string>();
  const colourOf = (position: number | undefined): string => {
    if (position === undefined) return looksOf([]).colour;
    const known = colours.get(position);
    if (known !== undefined) return known;
    const a = plan.activities[position]!;
    const { colour } = looksOf([brief.colour === null ? '' : (a.codes[brief.colour] ?? '')]);
    colours.set(position, colour);
    return colour;
  };
  const byWork = new Map<number, number[]>();
  for (let e = 0; e < elements.length; e++)
    if (meant[e])
      for (const a of times.activities[e]!) {
        const own = byWork.get(a);
        if (own) own.push(e);
        else byWork.set(a, [e]);
      }
  const order = [...byWork.keys()].sort((a, b) => a - b);
  const behind = promised && behindReader(plan, schedule, promised);
  const lateOf = (position: number): number | null => {
    const j = promised?.schedule.outline.indexOf.get(plan.activities[position]!.ref);
    return (j === undefined ? null : behind!(position, j)?.finish) ?? null;
  };
  const workOn = (position: number, own: readonly number[], day: Day, against: Int8Array | null): WorkOn => ({
    position,
    ref: plan.activities[position]!.ref,
    name: plan.activities[position]!.name || plan.activities[position]!.ref,
    colour: colourOf(position),
    elements: own.length,
    share: own.reduce((sum, e) => sum + shareBuilt(times, e, day), 0) / Math.max(1, own.length),
    behind: against ? own.filter((e) => against[e]! < 0).length : 0,
    late: lateOf(position),
  });
  const chosen = datesOf(brief, plan, times);
  const amounts = quantityBuilt(
    times,
    elements,
    brief.measure,
    chosen.map((d) => d.day),
    meant,
  );
  let before: Uint8Array | null = null;
  const dates = chosen.map((date, k): DateStanding => {
    const { day } = date;
    const stages = Uint8Array.from(elements, (_, e) => stageAt(times, e, day));
    const against = then && againstPromise(times, then, day);
    if (against) for (let e = 0; e < meant.length; e++) if (!meant[e]) against[e] = 0;
    const looks = elements.map((_, e) =>
      elementLook(stages[e]!, shareBuilt(times, e, day), against ? against[e]! : 0, colourOf(at(times, e, day)), brief),
    );
    const isNow = (e: number) => stages[e] === UNDER_WAY || stages[e] === GOING;
    const underWay: WorkOn[] = [];
    const behindWorks: WorkOn[] = [];
    const finished: WorkOn[] = [];
    const next: DateStanding['next'] = [];
    const shares = new Map<number, number>();
    for (const position of order) {
      const own = byWork.get(position)!;
      const work = workOn(position, own, day, against);
      shares.set(position, work.share);
      const days = shownDays(input.schedule, position);
      if (days && days.first <= day && day < days.last && own.some(isNow)) underWay.push(work);
      else if (work.behind > 0) behindWorks.push(work);
      if (days && days.first > day) next.push({ ...work, first: days.first });
      const come = own.filter((e) => stages[e] === THERE && before !== null && before[e] !== THERE);
      if (come.length > 0) finished.push({ ...work, elements: come.length });
    }
    next.sort((a, b) => a.first - b.first);
    before = stages;
    const own = stages.filter((_, e) => meant[e] === 1);
    return {
      ...date,
      counts: countStages(own),
      behind: against ? against.filter((a) => a < 0).length : 0,
      ahead: against ? against.filter((a) => a > 0).length : 0,
      looks,
      shares,
      underWay,
      behindWorks,
      finished,
      next,
      built: amounts.built[k]!,
      total: amounts.total,
    };
  });
  const end = dates.at(-1)?.day ?? (plan.statusDate === null ? 0 : dayOf(plan.statusDate));
  return {
    model,
    times,
    meant,
    count: meant.reduce((n, m) => n + m, 0),
    dates,
    works: order.map((position) => workOn(position, byWork.get(position)!, end, null)),
  };
}

/** The work that an element is coloured by on a day: the one that goes on, else the first. */
function at(times: BuildTimes, e: number, day: Day): number | undefined {
  const going = [...times.builders[e]!, ...times.removers[e]!].find((w) => w.first <= day && day <= w.last);
  return going?.activity ?? times.activities[e]![0];
}

/** `214 stand, 6 under way, 192 to come`. */
export function countWords({ counts, behind, ahead }: DateStanding): string[] {
  const say = (n: number, words: string) => (n > 0 ? [`${n} ${words}`] : []);
  return [
    `${counts.there} ${counts.there === 1 ? 'stands' : 'stand'}`,
    ...say(counts.underWay, 'under way'),
    ...say(counts.going, 'being removed'),
    ...say(counts.notYet, 'to come'),
    ...say(counts.gone, 'gone'),
    ...say(behind, 'behind the promise'),
    ...say(ahead, 'ahead of it'),
    ...say(counts.loose, 'without work'),
    ...say(counts.undated, 'whose work has no dates'),
  ];
}
