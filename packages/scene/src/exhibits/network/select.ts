import {
  conditionHolds,
  dayOf,
  daysReader,
  drivingPath,
  finishDayOf,
  firstDayOf,
  isComplete,
  isMilestone,
  lastDayOf,
  longestPath,
  type Link,
  NONE,
  type Plan,
  type Schedule,
} from '@clembo/core';
import type { NetworkBrief } from '../../brief/network';
import { NOTHING_SHOWN } from '../../graph/shown';
import type { Shown } from '../../graph/scene';
import { laneCodes } from '../lanesOf';
import type { Fate } from '../timeline/select';
import { type CodeLook, codeLooks, SEVERAL } from '../timeline/codes';

/** What a card stands for. */
export interface Card extends CodeLook {
  ref: string;
  name: string;
  form: 'activity' | 'milestone' | 'group';
  /** Position of what it is named after, and of all that it stands for. */
  index: number;
  members: number[];
  /** Days; null where there is none. */
  start: number | null;
  finish: number | null;
  early: { start: number; finish: number } | null;
  late: { start: number; finish: number } | null;
  /** Working days; null where nothing says. */
  duration: number | null;
  float: number | null;
  critical: boolean;
  complete: boolean;
  /** 0 to 1 */
  progress: number;
  /** The lanes that it belongs to, those of the book in its order. */
  lanes: string[];
  /** Links to what is not on the page. */
  before: number;
  after: number;
}

/** A link between two cards. */
export interface Line {
  from: number;
  to: number;
  critical: boolean;
  /** What kind of link it is, where it is not finish to start without lag. */
  words: string;
}

/** A card of a group spans so many lanes at most. */
const MOST_LANES = 3;

export interface NetworkSelection {
  cards: Card[];
  lines: Line[];
  counts: Shown;
}

/** The cards of a network and the links between them; links that leave the page are counted on their cards. */
export function selectNetwork(plan: Plan, s: Schedule, brief: NetworkBrief): NetworkSelection {
  const { outline } = s;
  const counts: Shown = { ...NOTHING_SHOWN };
  const holds = brief.where.tests.length === 0 ? null : conditionHolds(plan, s, brief.where, null);
  const near = brief.around === null ? null : around(plan, s, brief);
  const looks = codeLooks(plan, brief.colour, brief);
  const path = brief.only === 'longest' ? longest(s, brief.around) : null;
  const units = new Map<number, number[]>();
  for (const i of outline.order) {
    if (outline.isSummary[i]) continue;
    counts.of++;
    const a = plan.activities[i]!;
    const wanted =
      a.kind !== 'levelOfEffort' &&
      (near === null || near.has(i)) &&
      (holds === null || holds(i)) &&
      (path === null || path.has(i)) &&
      (brief.only !== 'critical' || (s.critical[i] === 1 && !isComplete(a))) &&
      (brief.only !== 'open' || !isComplete(a));
    if (!wanted) {
      counts.leftOut++;
      continue;
    }
    let unit = i;
    while (brief.level !== null && outline.level[unit]! > brief.level) unit = outline.parent[unit]!;
    const list = units.get(unit);
    if (list) list.push(i);
    else units.set(unit, [i]);
  }
  const daysOf = daysReader(plan, s);
  const cards = [...units].map(([index, members]) => cardOf(plan, s, brief, looks, daysOf, index, members));
  for (const c of cards) {
    if (c.form !== 'group') counts.shown++;
    else {
      counts.groups++;
      counts.inGroups += c.members.length;
      counts.milestonesInGroups += c.members.filter((i) => isMilestone(plan.activities[i]!.kind)).length;
    }
  }
  return { cards, lines: linesOf(plan, s, cards), counts };
}

/** The longest path of the plan, or the one to an activity. */
function longest(s: Schedule, to: string | null): Set<number> {
  const at = to === null ? undefined : s.outline.indexOf.get(to);
  return new Set(at === undefined ? longestPath(s) : drivingPath(s, at));
}

/** What becomes of every activity of the plan on a page of cards. */
export function fatesOf(plan: Plan, { outline }: Schedule, { cards }: NetworkSelection): Fate[] {
  const fates: Fate[] = plan.activities.map((_, i) => (outline.isSummary[i] ? '' : 'leftOut'));
  for (const c of cards) for (const i of c.members) fates[i] = c.form === 'group' ? 'grouped' : 'shown';
  return fates;
}

/** What leads to an activity, or what it leads to, within so many links; it is among them. */
function around(plan: Plan, { outline }: Schedule, { around: ref, way, steps }: NetworkBrief): Set<number> {
  const first = outline.indexOf.get(ref!);
  const found = new Set<number>();
  if (first === undefined) return found;
  const inside = (i: number): number[] =>
    outline.isSummary[i] ? Array.from(outline.order).filter((j) => !outline.isSummary[j] && isWithin(j, i)) : [i];
  const isWithin = (j: number, i: number) => {
    for (let at = j; at !== -1; at = outline.parent[at]!) if (at === i) return true;
    return false;
  };
  for (const i of inside(first)) found.add(i);
  const walk = (next: (l: Link) => [at: string, to: string]) => {
    const by = new Map<string, string[]>();
    for (const l of plan.links) {
      const [at, to] = next(l);
      const list = by.get(at);
      if (list) list.push(to);
      else by.set(at, [to]);
    }
    const seen = new Set(inside(first));
    let edge = [...seen];
    for (let step = 0; edge.length > 0 && (steps === null || step < steps); step++) {
      const further: number[] = [];
      for (const i of edge)
        for (const to of by.get(plan.activities[i]!.ref) ?? []) {
          const at = outline.indexOf.get(to);
          for (const j of at === undefined ? [] : inside(at))
            if (!seen.has(j)) {
              seen.add(j);
              found.add(j);
              further.push(j);
            }
        }
      edge = further;
    }
  };
  if (way !== 'after') walk((l) => [l.to, l.from]);
  if (way !== 'before') walk((l) => [l.from, l.to]);
  return found;
}

function cardOf(
  plan: Plan,
  s: Schedule,
  brief: NetworkBrief,
  looks: (codes: string[]) => CodeLook,
  daysOf: (position: number) => number | null,
  index: number,
  members: number[],
): Card {
  const a = plan.activities[index]!;
  const group = s.outline.isSummary[index] === true;
  const perDay = plan.calendars.find((c) => c.id === (a.calendar ?? plan.calendar))?.minutesPerDay ?? 480;
  const dated = members.filter((i) => s.start[i] !== NONE);
  const days = (of: (i: number) => number) => dated.map(of);
  const span = (i: number) => ({ start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 });
  const codes = (field: string) => {
    const own = a.codes[field] ?? '';
    return own !== '' ? [own] : [...new Set(members.map((i) => plan.activities[i]!.codes[field] ?? ''))];
  };
  const colours = brief.colour === null ? [] : codes(brief.colour);
  const bounds = (from: Int32Array, to: Int32Array) =>
    group || from[index] === NONE || to[index] === NONE
      ? null
      : isMilestone(a.kind)
        ? { start: pointDay(s, from, index), finish: pointDay(s, to, index) }
        : { start: dayOf(from[index]!), finish: finishDayOf(to[index]!) };
  const complete = members.every((i) => isComplete(plan.activities[i]!));
  const lanes = brief.lanes === null ? [''] : lanesOf(plan, brief.lanes, index, members);
  const floats = members.filter((i) => s.totalFloat[i] !== NONE).map((i) => s.totalFloat[i]! / perDay);
  return {
    ref: a.ref,
    name: a.name || a.ref,
    form: group ? 'group' : isMilestone(a.kind) ? 'milestone' : 'activity',
    index,
    members,
    start: dated.length === 0 ? null : least(days((i) => firstDayOf(span(i)))),
    finish: dated.length === 0 ? null : most(days((i) => lastDayOf(span(i)))),
    early: bounds(s.start, s.finish),
    late: bounds(s.lateStart, s.lateFinish),
    duration: group ? null : daysOf(index),
    float: floats.length === 0 ? null : least(floats),
    critical: members.some((i) => s.critical[i] === 1 && !isComplete(plan.activities[i]!)) && plan.links.length > 0,
    complete,
    progress: complete
      ? 1
      : group
        ? members.filter((i) => isComplete(plan.activities[i]!)).length / members.length
        : (a.percent ?? 0) / 100,
    lanes,
    before: 0,
    after: 0,
    ...looks(colours.length > 1 ? [SEVERAL] : colours),
  };
}

/** The lanes of a card; a group of more than a few has none of its own. */
function lanesOf(plan: Plan, field: string, index: number, members: readonly number[]): string[] {
  const own = laneCodes(plan, index, field);
  if (own.some((code) => code !== '')) return own;
  const all = [...new Set(members.flatMap((i) => laneCodes(plan, i, field)))];
  return all.length <= MOST_LANES ? all : [''];
}

/** The least and the most of many; a group may hold more than a call can be given. */
export const least = (list: readonly number[]): number => list.reduce((a, b) => Math.min(a, b));
export const most = (list: readonly number[]): number => list.reduce((a, b) => Math.max(a, b));

/** The day that a point lies on: that which ends where it stands, or begins. */
const pointDay = (s: Schedule, moments: Int32Array, i: number): number =>
  s.atFinish[i] === 1 ? finishDayOf(moments[i]!) : dayOf(moments[i]!);

function linesOf(plan: Plan, s: Schedule, cards: Card[]): Line[] {
  const at = new Map<number, number>();
  cards.forEach((c, k) => {
    for (const i of c.members) at.set(i, k);
    if (c.form === 'group') at.set(c.index, k);
  });
  const seen = new Map<string, Line>();
  for (const l of plan.links) {
    const [a, b] = [s.outline.indexOf.get(l.from), s.outline.indexOf.get(l.to)];
    if (a === undefined || b === undefined) continue;
    const [from, to] = [at.get(a), at.get(b)];
    if (from === undefined && to === undefined) continue;
    if (from === undefined) {
      cards[to!]!.before++;
      continue;
    }
    if (to === undefined) {
      cards[from]!.after++;
      continue;
    }
    if (from === to) continue;
    const open = (i: number) => s.critical[i] === 1 && !isComplete(plan.activities[i]!);
    const critical = open(a) && open(b);
    const key = `${from} ${to}`;
    const known = seen.get(key);
    const words = linkWords(plan, l);
    if (known) {
      known.critical ||= critical;
      if (words !== '' && !known.words.split(', ').includes(words))
        known.words = [known.words, words].filter(Boolean).join(', ');
    } else seen.set(key, { from, to, critical, words });
  }
  return [...seen.values()];
}

/** `SS +10 d`; nothing for a link from finish to start without lag. */
function linkWords(plan: Plan, { type, lag, lagCalendar }: Link): string {
  const perDay = plan.calendars.find((c) => c.id === plan.calendar)?.minutesPerDay ?? 480;
  const days = Math.round((lag / (lagCalendar === 'elapsed' ? 1440 : perDay)) * 10) / 10;
  const more = days === 0 ? '' : `${days > 0 ? '+' : '−'}${Math.abs(days)} d`;
  return type === 'FS' ? more : [type, more].filter(Boolean).join(' ');
}
