import {
  activityTime,
  balance,
  balanceCommands,
  type Buffer,
  clockWords,
  type Command,
  flowDays,
  hasBegun,
  linearWorks,
  MINUTES_PER_DAY,
  type Plan,
  type PlannedWork,
} from '@clembo/core';
import { formatDay, type LinearBrief } from '@clembo/scene';
import type { Held } from './held';

/** What works along a line are to keep from each other, as a person asks for it. */
export interface Balancing {
  days: number;
  /** In the unit of the line. */
  distance: number;
  /** What makes a trade: each work by itself, works of one name, works of one code of a field. */
  by: 'each' | 'name' | `code.${string}`;
  /** Trades by their keys in the order in which they follow each other; those that are not named stand behind. */
  order: readonly string[];
  /** Days behind the trade before it, where they are not those of all. */
  own: Readonly<Record<string, number>>;
  /** Whether a trade may wait between its works. */
  waits: boolean;
  /** Whether a stretch is left before the next trade comes in. */
  whole: boolean;
}

export interface TradeShown {
  key: string;
  name: string;
  works: number;
}

/** What would have to move so that works along a line keep days between each other. */
export interface BalancedLine {
  trades: TradeShown[];
  changes: { ref: string; name: string; words: string }[];
  /** The last day of the works of the page, now and then. */
  finish: { now: string; then: string } | null;
  /** Working days of the plan from the first start to the last finish, now and then. */
  length: { now: number; then: number } | null;
  commands: Command[];
}

const tradeKey = (plan: Plan, by: Balancing['by'], w: PlannedWork): string => {
  const a = plan.activities[w.position]!;
  if (by === 'name') return a.name || a.ref;
  return by === 'each' ? a.ref : (a.codes[by.slice(5)] ?? '') || a.ref;
};

function tradeName(plan: Plan, by: Balancing['by'], key: string, first: PlannedWork): string {
  if (by === 'each') return plan.activities[first.position]!.name || key;
  if (by === 'name') return key;
  return plan.codeFields.find((f) => f.id === by.slice(5))?.values.find((v) => v.code === key)?.title ?? key;
}

/** A work, with its place where several are called alike. */
function titleOf(plan: Plan, a: Plan['activities'][number], by: Balancing['by']): string {
  const name = a.name || a.ref;
  if (by === 'each') return name;
  const line = plan.lines.find((l) => l.id === (a.line ?? plan.lines[0]?.id));
  const [low, high] = [Math.min(a.from!, a.to!), Math.max(a.from!, a.to!)];
  const zone = line?.zones.find((z) => Math.min(z.from, z.to) <= low && Math.max(z.from, z.to) >= high);
  return zone && !name.includes(zone.name) ? `${name}, ${zone.name}` : name;
}

/** Works of the line of a page, by trade, in the order asked for or else in that in which they start. */
function tradesOf(
  { plan, schedule, brief }: Held & { brief: LinearBrief },
  asked: Balancing,
): [string, PlannedWork[]][] {
  const [first] = plan.lines;
  const wanted = brief.line ?? first?.id;
  const byKey = new Map<string, PlannedWork[]>();
  const works = linearWorks(plan, schedule)
    .works.filter((w) => (plan.activities[w.position]!.line ?? first?.id) === wanted)
    .sort((a, b) => a.points[0]!.time - b.points[0]!.time || a.position - b.position);
  for (const w of works) {
    const key = tradeKey(plan, asked.by, w);
    byKey.set(key, [...(byKey.get(key) ?? []), w]);
  }
  const place = (key: string) => (asked.order.includes(key) ? asked.order.indexOf(key) : asked.order.length);
  return [...byKey].sort(([a], [b]) => place(a) - place(b));
}

/** The day that work begins on; where the plan is in hours, the time as well. */
function fromWords(plan: Plan, time: number): string {
  const minutes = Math.floor(time * MINUTES_PER_DAY + 1e-4);
  const day = formatDay(Math.floor(minutes / MINUTES_PER_DAY), 'medium');
  if (!plan.inHours) return day;
  const ofDay = minutes - Math.floor(minutes / MINUTES_PER_DAY) * MINUTES_PER_DAY;
  return `${day}, ${clockWords(ofDay)}`;
}

/** The works of the line of a page with days between them. What has begun stays. */
export function balancedLine(held: Held & { brief: LinearBrief }, asked: Balancing): BalancedLine {
  const { plan } = held;
  const trades = tradesOf(held, asked);
  const own = new Map(
    trades.flatMap(([key], k): [number, Buffer][] =>
      key in asked.own ? [[k, { days: asked.own[key]!, distance: asked.distance }]] : [],
    ),
  );
  const list = balance(
    trades.map(([, works]) => works),
    {
      buffer: { days: asked.days, distance: asked.distance },
      own,
      waits: asked.waits,
      whole: asked.whole,
      inHours: plan.inHours,
      held: (w) => hasBegun(plan.activities[w.position]!),
    },
  );
  const commands = balanceCommands(plan, list);
  const moved = new Set(commands.flatMap((c) => (c.do === 'changeActivity' ? [c.ref] : [])));
  const days = activityTime(plan, held.schedule);
  const moment = (time: number) => Math.round(time * MINUTES_PER_DAY);
  const ending = (end: (b: (typeof list)[number]) => number, start: (b: (typeof list)[number]) => number) => {
    const time = Math.max(...list.map(end));
    const from = Math.min(...list.map(start));
    return {
      day: formatDay(flowDays([{ time, place: 0 }]).last, 'long'),
      length: Math.round(100 * days.planDaysBetween(moment(from), moment(time))) / 100,
    };
  };
  const now = ending(
    (b) => b.finish,
    (b) => b.start,
  );
  const then = ending(
    (b) => b.newFinish,
    (b) => b.newStart,
  );
  return {
    trades: trades.map(([key, works]) => ({
      key,
      name: tradeName(plan, asked.by, key, works[0]!),
      works: works.length,
    })),
    commands,
    changes: list
      .filter((b) => moved.has(b.ref))
      .map((b) => {
        const by = Math.round((b.newStart - b.start) * 10) / 10;
        return {
          ref: b.ref,
          name: titleOf(plan, plan.activities[b.position]!, asked.by),
          words: `${by} ${by === 1 ? 'day' : 'days'} later, from ${fromWords(plan, b.newStart)}`,
        };
      }),
    finish: list.length === 0 ? null : { now: now.day, then: then.day },
    length: list.length === 0 ? null : { now: now.length, then: then.length },
  };
}
