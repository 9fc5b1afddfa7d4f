import {
  type Apart,
  apartReader,
  dayOf,
  type Extent,
  extentOf,
  promisedExtent,
  shownDays,
  conditionHolds,
  varianceReader,
  addDone,
  type Done,
  doneReader,
  firstDayOf,
  isComplete,
  isMilestone,
  lastDayOf,
  NONE,
  type Plan,
  nothingDone,
  percentOf,
  type Schedule,
  stretchesAt,
  UNKNOWN,
} from '@clembo/core';
import type { Look } from '../../brief/hand';
import type { TimelineBrief } from '../../brief/timeline';
import { laneKey } from './laneKey';
import type { Shown } from '../../graph/scene';
import { LANGUAGES } from '../../text/languages/index';
import { NOTHING_SHOWN } from '../../graph/shown';
import type { Promised } from '../composed';
import { type Fate, isFolded, type Item, type ItemForm, type Selection } from './item';
import type { LaneLevel } from '../../page/lanes';
import { type Coded, type CodeLook, codeLooks, codeTitles, SEVERAL, type ShapeLook, shapeLooks } from './codes';
import { goneItems } from './gone';
import { asPhases } from './phases';
import { stateReader } from './states';

export type { Fate, Item, ItemForm, Selection } from './item';

/** What the activities of a plan are to a brief. */
interface Reader {
  plan: Plan;
  schedule: Schedule;
  brief: TimelineBrief;
  apart: Apart;
  done: (i: number) => Done;
  coded: Coded;
  looks: (codes: string[]) => CodeLook;
  /** Shapes by another field; null where the field of the colour gives them. */
  shapes: ((code: string) => ShapeLook) | null;
  rowTitles: LaneLevel | null;
  /** Values whose work is one bar each. */
  sums: LaneLevel | null;
  promised: Promised | null;
  /** What is set by hand, by reference. */
  own: Map<string, Look>;
}

/**
 * Chooses what the brief asks for.
 *
 *   activities → those that the filter passes → groups at the level → those within the dates of the page
 *
 * A group stands for those of its activities that pass, in each lane for those of the lane. What has no dates has no
 * place on a time axis; it is listed instead.
 */
export function selectItems(
  plan: Plan,
  schedule: Schedule,
  brief: TimelineBrief,
  promised: Promised | null = null,
): Selection {
  const { outline } = schedule;
  const coded = codeReaderOf(plan, schedule, brief.colour, promised);
  const titlesOf = (field: string | null): LaneLevel | null =>
    field === null ? null : codeTitles(plan, field, outline.roots, LANGUAGES[brief.language]);
  const reader: Reader = {
    plan,
    schedule,
    brief,
    apart: apartReader(plan),
    done: doneReader(plan, schedule, plan.percentShown),
    coded,
    looks: codeLooks(plan, brief.colour, brief, LANGUAGES[brief.language]),
    shapes:
      brief.shape === null || brief.shape === brief.colour
        ? null
        : shapeLooks(plan, brief.shape, LANGUAGES[brief.language]),
    rowTitles: titlesOf(brief.packBy),
    sums: titlesOf(brief.together),
    promised,
    own: new Map(brief.looks.map((l) => [l.ref, l])),
  };
  const passes = passesOf(reader);
  const counts: Shown = { ...NOTHING_SHOWN };
  const undated: number[] = [];
  const fates = new Array<Fate>(plan.activities.length).fill('');
  const units = new Map<string, Unit>();
  for (const i of outline.order) {
    if (outline.isSummary[i]) continue;
    counts.of++;
    const point = isMilestone(plan.activities[i]!.kind);
    const wanted = brief.include === 'both' || (brief.include === 'milestones') === point;
    const value = brief.together === null || point ? null : coded(brief.together, i);
    const unit = brief.together === null ? unitOf(outline, i, brief.level) : i;
    if (!wanted || !passes(i) || (unit !== i && brief.include === 'milestones')) {
      counts.leftOut++;
      fates[i] = 'leftOut';
    } else {
      const isUndated = schedule.start[i] === NONE;
      if (isUndated) {
        undated.push(i);
        fates[i] = 'undated';
      }
      const lane = brief.lanes.map((field) => laneCode(reader, field, i, unit));
      if (!isUndated && !brief.strays && lane.includes('')) {
        counts.leftOut++;
        fates[i] = 'leftOut';
        continue;
      }
      const whole = value === null ? String(unit) : `\u0001${value}`;
      const key = value === null && unit === i ? whole : [whole, ...lane].join('\u0000');
      const known = units.get(key) ?? { index: unit, value, lane, members: [], without: 0 };
      units.set(key, known);
      if (!isUndated) known.members.push(i);
      if (isOpenEnded(plan, schedule, i)) known.without++;
    }
  }
  counts.undated = undated.length;

  const each = [
    ...inBookOrder(
      reader,
      [...units.values()].filter((u) => u.members.length > 0),
    ).map((u) => itemOf(reader, u)),
    ...(brief.gone && promised && brief.together === null ? goneItems(plan, promised, brief) : []),
  ];
  const all = brief.points === 'phases' ? asPhases(each) : each;
  const range = rangeOf(all, brief, plan);
  const items = all.filter((item) => {
    const inside = isInside(item, range);
    if (item.gone) return inside;
    const size = item.members.length;
    for (const i of item.members) fates[i] = !inside ? 'outside' : item.form === 'group' ? 'grouped' : 'shown';
    if (!inside) counts.outside += size;
    else if (item.form === 'group') {
      counts.groups++;
      counts.inGroups += size;
      counts.milestonesInGroups += item.members.filter((i) => isMilestone(plan.activities[i]!.kind)).length;
    } else counts.shown++;
    return inside;
  });
  const days = daysOf(items);
  const rows = withSummaries(brief) ? addSummaries(reader, items) : items;
  sayWhose(reader, rows);
  return { items: rows, undated, counts, fates, ...range, ...days };
}

/** What becomes one thing on the page: an activity, the group that stands for some, or all work of a value. */
interface Unit {
  index: number;
  /** The value whose work it is; null for activities and their groups. */
  value: string | null;
  lane: string[];
  members: number[];
  /** How many open activities it stands for have no finish that is known. */
  without: number;
}

/** Work of values in the order of their book, before all else; the rest stays as it stands. */
function inBookOrder({ sums }: Reader, units: Unit[]): Unit[] {
  if (!sums) return units;
  const rank = ({ value }: Unit): number => (value === null ? Number.POSITIVE_INFINITY : sums.rank(value));
  return units
    .map((u, k) => ({ u, k, r: rank(u) }))
    .sort((a, b) => (a.r === b.r ? a.k - b.k : a.r - b.r))
    .map(({ u }) => u);
}

/** The position of what stands for an activity on the page: itself, or the summary above it at the level. */
function unitOf(outline: Schedule['outline'], i: number, level: number | null): number {
  if (level === null) return i;
  let at = i;
  while (outline.level[at]! > level) at = outline.parent[at]!;
  return at;
}

/** Rows of one each in the order of the outline show its summaries too. */
const withSummaries = (brief: TimelineBrief): boolean =>
  brief.rows === 'each' &&
  brief.together === null &&
  brief.summaries !== 'none' &&
  brief.lanes.every((l) => l === 'outline');

function codeReaderOf(plan: Plan, schedule: Schedule, colour: string | null, promised: Promised | null): Coded {
  const { outline } = schedule;
  const state = colour === null ? null : stateReader(colour, plan, schedule, promised);
  return (field, i) => {
    if (state && field === colour) return outline.isSummary[i] ? '' : state(i);
    if (field !== 'outline') return plan.activities[i]!.codes[field] ?? '';
    let top = i;
    while (outline.parent[top]! !== -1) top = outline.parent[top]!;
    return outline.isSummary[top] ? plan.activities[top]!.ref : '';
  };
}

/** The lane of an activity; one that has no value of its own takes that of the group that stands for it. */
const laneCode = ({ coded }: Reader, field: string, i: number, unit: number): string =>
  coded(field, i) || (unit === i ? '' : coded(field, unit));

/** Whether an activity is open and has no finish that is known. */
const isOpenEnded = (plan: Plan, s: Schedule, i: number): boolean =>
  s.finishFrom[i] === UNKNOWN && !isComplete(plan.activities[i]!) && plan.activities[i]!.kind !== 'levelOfEffort';

/** Whether an activity is asked for: by the condition, and by how it stands. */
function passesOf({ plan, schedule: s, brief, promised }: Reader): (i: number) => boolean {
  const holds = brief.where.tests.length === 0 ? null : conditionHolds(plan, s, brief.where, promised);
  const stands = standsOf(plan, s, brief, promised);
  return (i) => (holds === null || holds(i)) && (stands === null || stands(i));
}

function standsOf(
  plan: Plan,
  s: Schedule,
  { only, weeks }: TimelineBrief,
  promised: Promised | null,
): ((i: number) => boolean) | null {
  const today = plan.statusDate === null ? null : dayOf(plan.statusDate);
  const open = (i: number) => !isComplete(plan.activities[i]!);
  switch (only) {
    case 'all':
      return null;
    case 'open':
      return open;
    case 'critical':
      return (i) => plan.links.length > 0 && s.critical[i] === 1 && open(i);
    case 'next':
      // Without a status date nobody knows which weeks are the next.
      return (i) => {
        const shown = today === null || !open(i) ? null : shownDays(s, i);
        return shown !== null && shown.first <= today! + weeks * 7 && shown.last > today!;
      };
    default: {
      if (!promised) return () => false;
      const variance = varianceReader(plan, s, promised.plan, promised.schedule);
      return (i) => {
        const v = variance(i);
        if (only === 'changed') return v === null || v.startDays !== 0 || v.finishDays !== 0;
        if (v === null) return false;
        if (only === 'late') return (v.finishDays ?? 0) > 0;
        return only === 'ahead' ? (v.finishDays ?? 0) < 0 : v.band === 'watch' || v.band === 'breach';
      };
    }
  }
}

function itemOf(reader: Reader, { index, value, lane, members, without }: Unit): Item {
  const { plan, schedule: s, brief, coded } = reader;
  const a = plan.activities[index]!;
  const form = value === null ? formOf(reader, index) : 'group';
  const group = value !== null || s.outline.isSummary[index]!;
  const { start, finish } = group ? spanOf(reader, members) : { start: s.start[index]!, finish: s.finish[index]! };
  const sum = nothingDone();
  for (const i of members) addDone(sum, reader.done(i));
  const percent = percentOf(sum);
  const open = members.filter((i) => !isComplete(plan.activities[i]!));
  const isCritical = (i: number) => s.critical[i] === 1;
  const critical = plan.links.length > 0 && open.some(isCritical);
  const colourCodes =
    brief.colour === null
      ? []
      : group && value === null && coded(brief.colour, index) !== ''
        ? [coded(brief.colour, index)]
        : [...new Set(members.map((i) => coded(brief.colour!, i)))];
  const item: Item = {
    index,
    ref: value === null ? a.ref : sumRef(brief.together!, value),
    name: value === null ? a.name || a.ref : reader.sums!.title(value),
    form,
    start,
    finish: Math.max(start, finish),
    atFinish: form !== 'milestone' || s.atFinish[index] === 1,
    members,
    without,
    from: group ? originsOf(s, extentOf(s, members)!) : { start: s.startFrom[index]!, finish: s.finishFrom[index]! },
    stretches: form === 'bar' && a.stretches.length > 1 ? stretchesAt(plan, s, index) : null,
    lane,
    row: rowOf(reader, value === null ? index : null, members),
    phase: false,
    progress: (Number.isNaN(percent) ? (a.percent ?? 0) : percent) / 100,
    measured: group ? !Number.isNaN(percent) : form !== 'support' || a.percent !== null,
    critical,
    criticalWork: group ? workOf(s, critical ? open.filter(isCritical) : []) : null,
    deadline: group ? null : a.deadline,
    complete: open.length === 0,
    promised: null,
    off: null,
    fresh: false,
    gone: false,
    // Computed dates are days, whatever the source says.
    said: plan.source === 'given' && !group ? a.said : null,
    own: reader.own.get(value === null ? a.ref : sumRef(brief.together!, value)) ?? null,
    folded: isFolded(brief.folded, lane),
    shaped: null,
    ...reader.looks(colourCodes.length > 1 ? [SEVERAL] : colourCodes),
  };
  if (reader.promised) comparePromise(reader, reader.promised, item);
  if (brief.doneGrey && item.complete) Object.assign(item, GREYED);
  // A colour of its own says nothing of a category.
  if (item.own?.colour) Object.assign(item, { colour: item.own.colour, category: null, pattern: 0 });
  if (reader.shapes && form === 'milestone') {
    const { shape, ...shaped } = reader.shapes(coded(brief.shape!, index));
    Object.assign(item, { shape, shaped });
  }
  // A shape of its own says nothing of a value.
  if (item.own?.shape) Object.assign(item, { shape: item.own.shape, shaped: null });
  if (item.off !== null && Math.abs(item.off) < brief.threshold) [item.promised, item.off] = [null, null];
  return item;
}

/** The times of several activities; those that touch or overlap are one. */
function workOf(s: Schedule, members: readonly number[]): NonNullable<Item['criticalWork']> {
  const spans: { start: number; finish: number }[] = [];
  for (const i of [...members].sort((a, b) => s.start[a]! - s.start[b]!)) {
    const last = spans.at(-1);
    if (last && s.start[i]! <= last.finish) last.finish = Math.max(last.finish, s.finish[i]!);
    else spans.push({ start: s.start[i]!, finish: s.finish[i]! });
  }
  return { spans, count: members.length };
}

/** What the work of a value is known by on its page, where no activity stands for it. */
export const sumRef = (field: string, value: string): string => `${field}=${value}`;

const originsOf = (s: Schedule, { firstOf, lastOf }: Pick<Extent, 'firstOf' | 'lastOf'>): Item['from'] => ({
  start: s.startFrom[firstOf]!,
  finish: s.finishFrom[lastOf]!,
});

/** The value by which the row of a thing is chosen: its own, or one that all its members share. */
function rowOf({ brief, coded, rowTitles }: Reader, index: number | null, members: number[]): Item['row'] {
  if (brief.packBy === null || rowTitles === null) return null;
  const own = index === null ? '' : coded(brief.packBy, index);
  const values = own === '' ? [...new Set(members.map((i) => coded(brief.packBy!, i)))] : [own];
  const code = values.length === 1 ? values[0]! : '';
  return { title: rowTitles.title(code), rank: rowTitles.rank(code) };
}

/** What is done where it is drawn in grey. */
const GREYED = { colour: '#8C969C', category: null, pattern: 0 };

/** From the first to the last of several activities; at least a day, in plans by the hour an hour. */
function spanOf({ plan, schedule: s }: Reader, members: number[]): { start: number; finish: number } {
  const { start, finish } = extentOf(s, members)!;
  return { start, finish: Math.max(finish, start + (plan.inHours ? 60 : 1440)) };
}

function formOf({ plan, schedule }: Reader, i: number): ItemForm {
  if (schedule.outline.isSummary[i]) return 'group';
  const { kind } = plan.activities[i]!;
  return isMilestone(kind) ? 'milestone' : kind === 'levelOfEffort' ? 'support' : 'bar';
}

function comparePromise({ plan, schedule: s, apart }: Reader, promised: Promised, item: Item): void {
  const { schedule: b } = promised;
  const then = promisedExtent(plan, promised, item.members);
  const now = extentOf(s, item.members);
  if (then === null || now === null) {
    item.fresh = item.members.every((i) => !b.outline.indexOf.has(plan.activities[i]!.ref));
    return;
  }
  const single = item.members.length === 1 && item.members[0] === item.index;
  const j = single ? b.outline.indexOf.get(plan.activities[item.index]!.ref)! : -1;
  // A single point is drawn on its own side of its day.
  item.promised = single ? { start: b.start[j]!, finish: b.finish[j]! } : { start: then.start, finish: then.finish };
  item.off = item.without > 0 ? null : apart.finishes(single ? item.index : null, then, now);
}

/** The dates of the page: those of the brief, else those of all that it asks for. */
function rangeOf(items: Item[], brief: TimelineBrief, plan: Plan): { from: number; to: number } {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const item of items) {
    // A point takes the day that it lies on.
    const start = item.start === item.finish && item.atFinish ? item.start - 1440 : item.start;
    first = Math.min(first, start, item.promised?.start ?? start);
    last = Math.max(last, item.atFinish ? item.finish : item.finish + 1440, item.promised?.finish ?? item.finish);
  }
  for (const d of brief.dates) {
    first = Math.min(first, d.start);
    last = Math.max(last, d.finish ?? d.start + 1440);
  }
  if (first > last) [first, last] = [plan.statusDate ?? 0, (plan.statusDate ?? 0) + 43_200];
  const from = brief.from ?? Math.min(first, (brief.to ?? first + 1440) - 1440);
  return { from, to: Math.max(brief.to ?? last, from + 1440) };
}

/** What ended before the page begins, or begins where it ends, is not on it. */
function isInside({ start, finish, atFinish, form }: Item, { from, to }: { from: number; to: number }): boolean {
  if (form === 'milestone' || start === finish)
    return atFinish ? finish > from && finish <= to : start >= from && start < to;
  return finish > from && start < to;
}

function daysOf(items: Item[]): { firstDay: number | null; lastDay: number | null } {
  if (items.length === 0) return { firstDay: null, lastDay: null };
  return {
    firstDay: items.reduce((least, i) => Math.min(least, firstDayOf(i)), Number.POSITIVE_INFINITY),
    lastDay: items.reduce((most, i) => Math.max(most, lastDayOf(i)), Number.NEGATIVE_INFINITY),
  };
}

/** Summaries stand above what of them is on the page, and span that. */
function addSummaries(reader: Reader, all: Item[]): Item[] {
  const items = all.filter((i) => !i.gone);
  const { outline } = reader.schedule;
  const held = new Map<number, Item[]>();
  for (const item of items) {
    for (let p = outline.parent[item.index]!; p !== -1; p = outline.parent[p]!) {
      const list = held.get(p);
      if (list) list.push(item);
      else held.set(p, [item]);
    }
  }
  const summaries = [...held].map(([index, list]): Item => {
    const members = [...new Set(list.flatMap((x) => x.members))];
    const without = list.reduce((n, x) => n + x.without, 0);
    const item = itemOf(reader, { index, value: null, lane: list[0]!.lane, members, without });
    return reader.brief.summaries === 'blocks'
      ? item
      : { ...item, form: 'summary', critical: false, criticalWork: null };
  });
  const place = new Int32Array(reader.plan.activities.length);
  outline.order.forEach((i, k) => {
    place[i] = k;
  });
  const inOrder = [...items, ...summaries].sort((a, b) => place[a.index]! - place[b.index]!);
  return [...inOrder, ...all.filter((i) => i.gone)];
}

/** Where several things in a lane have the same name, each says what it belongs to. */
function sayWhose({ plan, schedule }: Reader, items: Item[]): void {
  const parentOf = (item: Item) => {
    if (item.gone) return '';
    const p = schedule.outline.parent[item.index]!;
    return p === -1 ? '' : plan.activities[p]!.name;
  };
  for (const named of grouped(items, (i) => i.name)) {
    if (named.length < 2) continue;
    for (const list of grouped(named, (i) => laneKey(i.lane))) {
      if (list.length < 2 || new Set(list.map(parentOf)).size < 2) continue;
      for (const item of list) if (parentOf(item) !== '') item.name = `${item.name} (${parentOf(item)})`;
    }
  }
}

function grouped(items: readonly Item[], keyOf: (item: Item) => string): Iterable<Item[]> {
  const groups = new Map<string, Item[]>();
  for (const item of items) {
    const key = keyOf(item);
    const list = groups.get(key);
    if (list) list.push(item);
    else groups.set(key, [item]);
  }
  return groups.values();
}
