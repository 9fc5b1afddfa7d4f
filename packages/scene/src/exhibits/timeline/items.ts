import {
  dayOf,
  finishDayOf,
  isMilestone,
  NONE,
  type Plan,
  percentComplete,
  type Schedule,
  stretchesAt,
} from '@clembo/core';
import type { Filter, TimelineBrief } from '../../brief/brief';
import { CATEGORIES, KELP, NEUTRAL } from '../../graph/ink';
import { formatDay } from '../../text/dates';

/** How a thing is drawn: work, a group of activities as one block, a summary line, supporting work, a point in time. */
export type ItemForm = 'bar' | 'group' | 'summary' | 'support' | 'milestone';

/** One thing on the page. */
export interface Item {
  index: number;
  ref: string;
  name: string;
  form: ItemForm;
  start: number;
  finish: number;
  /** Stretches of interrupted work; null for work in one piece. */
  stretches: { start: number; finish: number }[] | null;
  lane: string;
  colour: string;
  shape: string;
  /** 0 to 1 */
  progress: number;
  critical: boolean;
  complete: boolean;
  /** The label: what is said in ink, and what follows in soft ink. */
  label: string;
  detail: string;
  startText: string;
  finishText: string;
}

export interface Selection {
  items: Item[];
  lanes: { id: string; title: string }[];
  /** Values of the colour field that are on the page. */
  colours: { title: string; colour: string; shape: string }[];
  from: number;
  to: number;
  /** The last day that anything on the page runs to. */
  lastDay: number;
  /** How many activities and milestones the plan has. */
  of: number;
  /** The last day of the whole plan, whatever of it is on the page; null for one without dates. */
  planFinish: number | null;
  /** Percent complete of the whole plan. */
  percentDone: number;
}

/** Chooses what the brief asks for, in the order of lanes and of time. */
export function selectItems(plan: Plan, schedule: Schedule, brief: TimelineBrief): Selection {
  const { outline } = schedule;
  const { percent: percents, whole } = percentComplete(plan, schedule);
  const groups = collapsedAt(schedule, brief.level);
  const laneOf = laneReader(plan, schedule, brief.lanes, groups);
  const codeOf = (field: string) => codeReader(plan, field, groups);
  const filters = brief.where.map((f): [Filter, (i: number) => string] => [f, codeOf(f.field)]);
  const passes = (i: number) => filters.every(([f, code]) => f.values.includes(code(i)) === (f.keep === 'only'));
  const colourOf = colourReader(plan, brief.colour, brief.colour === null ? null : codeOf(brief.colour));
  const withSummaries = brief.rows === 'each' && (brief.lanes === null || brief.lanes === 'outline');

  const items: Item[] = [];
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  let lastDay = Number.NEGATIVE_INFINITY;
  for (const i of outline.order) {
    const form = formOf(plan, schedule, i, brief.level, withSummaries);
    if (form === null || schedule.start[i] === NONE || !passes(i)) continue;
    if (brief.include === 'activities' && form === 'milestone') continue;
    if (brief.include === 'milestones' && form !== 'milestone') continue;
    const [start, finish] = [schedule.start[i]!, Math.max(schedule.start[i]!, schedule.finish[i]!)];
    first = Math.min(first, start);
    last = Math.max(last, finish);
    // A point at the beginning of a day lies on that day.
    lastDay = Math.max(lastDay, schedule.atFinish[i] ? finishDayOf(finish) : dayOf(finish));
    if (brief.from !== null && finish < brief.from) continue;
    if (brief.to !== null && start > brief.to) continue;
    const a = plan.activities[i]!;
    const { colour, shape } = colourOf(i);
    items.push({
      index: i,
      ref: a.ref,
      name: a.name || a.ref,
      form,
      start,
      finish,
      stretches: form === 'bar' && a.stretches.length > 1 ? stretchesAt(plan, schedule, i) : null,
      lane: laneOf(i),
      colour,
      shape,
      progress: (percents[i]! || 0) / 100,
      critical: plan.links.length > 0 && isCritical(schedule, i),
      complete: a.actualFinish !== null || percents[i]! >= 100,
      label: '',
      detail: '',
      startText: '',
      finishText: '',
    });
  }
  if (items.length === 0 && first > last) [first, last] = [plan.statusDate ?? 0, (plan.statusDate ?? 0) + 43_200];
  const from = brief.from ?? Math.min(first, brief.to ?? first);
  const to = Math.max(brief.to ?? Math.max(last, brief.from ?? last), from + 1440);
  const longRange = to - from > 3 * 365 * 1440;
  for (const item of items) writeLabel(item, plan, schedule, brief, longRange);
  return {
    items,
    lanes: lanesInOrder(plan, schedule, brief.lanes, items),
    colours: coloursInOrder(plan, brief.colour, items, codeOf),
    from,
    to,
    lastDay: brief.to !== null || items.length === 0 ? finishDayOf(to) : lastDay,
    of: plan.activities.filter((_, i) => !outline.isSummary[i]).length,
    planFinish: lastDayOf(schedule),
    percentDone: whole || 0,
  };
}

/** The last day on which anything ends. A point at the beginning of a day lies on that day. */
function lastDayOf(s: Schedule): number | null {
  let last: number | null = null;
  for (let i = 0; i < s.finish.length; i++) {
    if (s.outline.isSummary[i] || s.finish[i] === NONE) continue;
    const day = s.atFinish[i] ? finishDayOf(s.finish[i]!) : dayOf(s.finish[i]!);
    if (last === null || day > last) last = day;
  }
  return last;
}

function formOf(
  plan: Plan,
  { outline }: Schedule,
  i: number,
  level: number | null,
  withSummaries: boolean,
): ItemForm | null {
  const at = outline.level[i]!;
  if (level !== null && at > level) return null;
  const { kind } = plan.activities[i]!;
  if (outline.isSummary[i]) {
    if (outline.children[i]!.length > 0 && at === level) return 'group';
    return withSummaries ? 'summary' : null;
  }
  if (isMilestone(kind)) return 'milestone';
  return kind === 'levelOfEffort' ? 'support' : 'bar';
}

/** A group is critical when anything in it is. */
function isCritical(schedule: Schedule, i: number): boolean {
  if (!schedule.outline.isSummary[i]) return schedule.critical[i] === 1;
  return schedule.outline.children[i]!.some((c) => isCritical(schedule, c));
}

/** For each summary at the given level, the activities that it stands for. */
function collapsedAt(schedule: Schedule, level: number | null): Map<number, number[]> {
  const groups = new Map<number, number[]>();
  const { outline } = schedule;
  const leaves = (i: number): number[] =>
    outline.children[i]!.length === 0 ? [i] : outline.children[i]!.flatMap(leaves);
  for (const i of outline.order) {
    if (outline.isSummary[i] && outline.level[i] === level && outline.children[i]!.length > 0) groups.set(i, leaves(i));
  }
  return groups;
}

/** The value of a field; a group that has none of its own takes the one that most of its activities have. */
function codeReader(plan: Plan, field: string, groups: Map<number, number[]>): (i: number) => string {
  const own = (i: number) => plan.activities[i]!.codes[field] ?? '';
  const known = new Map<number, string>();
  return (i) => {
    const members = groups.get(i);
    if (own(i) !== '' || !members) return own(i);
    let most = known.get(i);
    if (most === undefined) {
      const counts = new Map<string, number>();
      for (const m of members) counts.set(own(m), (counts.get(own(m)) ?? 0) + 1);
      most = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
      known.set(i, most);
    }
    return most;
  };
}

function laneReader(
  plan: Plan,
  schedule: Schedule,
  lanes: string | null,
  groups: Map<number, number[]>,
): (i: number) => string {
  if (lanes === null) return () => '';
  if (lanes !== 'outline') return codeReader(plan, lanes, groups);
  const { parent } = schedule.outline;
  return (i) => {
    let top = i;
    while (parent[top]! !== -1) top = parent[top]!;
    return schedule.outline.children[top]!.length > 0 ? plan.activities[top]!.ref : '';
  };
}

function lanesInOrder(plan: Plan, schedule: Schedule, lanes: string | null, items: Item[]): Selection['lanes'] {
  const present = new Set(items.map((i) => i.lane));
  if (lanes === null) return present.size > 0 ? [{ id: '', title: '' }] : [];
  const book =
    lanes === 'outline'
      ? schedule.outline.roots.map((i) => ({ code: plan.activities[i]!.ref, title: plan.activities[i]!.name }))
      : (plan.codeFields.find((f) => f.id === lanes)?.values ?? []);
  const known = new Set(book.map((v) => v.code));
  const strangers = [...present]
    .filter((code) => code !== '' && !known.has(code))
    .map((code) => ({ code, title: code }));
  return [...book, ...strangers, { code: '', title: lanes === 'outline' ? 'Whole plan' : 'Without' }]
    .filter((v) => present.has(v.code))
    .map((v) => ({ id: v.code, title: v.title }));
}

function colourReader(
  plan: Plan,
  field: string | null,
  codeOf: ((i: number) => string) | null,
): (i: number) => { colour: string; shape: string } {
  if (field === null || codeOf === null) return () => ({ colour: KELP, shape: 'diamond' });
  const colours = colourBook(plan, field);
  return (i) => colours.get(codeOf(i)) ?? { colour: NEUTRAL, shape: 'diamond' };
}

/** Colours of a code field: those of its book, and for the others the categories in the book's order. */
function colourBook(plan: Plan, field: string): Map<string, { colour: string; shape: string }> {
  const values = plan.codeFields.find((f) => f.id === field)?.values ?? [];
  return new Map(
    values.map((v, k) => [v.code, { colour: v.colour ?? CATEGORIES[k] ?? NEUTRAL, shape: v.shape ?? 'diamond' }]),
  );
}

function coloursInOrder(
  plan: Plan,
  field: string | null,
  items: Item[],
  codeOf: (field: string) => (i: number) => string,
): Selection['colours'] {
  if (field === null) return [];
  const code = codeOf(field);
  const present = new Set(items.filter((i) => i.form !== 'summary').map((i) => code(i.index)));
  const book = colourBook(plan, field);
  const list: Selection['colours'] = [];
  let others = false;
  for (const v of plan.codeFields.find((f) => f.id === field)?.values ?? []) {
    if (!present.has(v.code)) continue;
    const { colour, shape } = book.get(v.code)!;
    if (colour === NEUTRAL && v.colour === null) others = true;
    else list.push({ title: v.title, colour, shape });
  }
  const named = new Set(book.keys());
  if (others || [...present].some((c) => !named.has(c)))
    list.push({ title: 'Other', colour: NEUTRAL, shape: 'diamond' });
  return list;
}

function writeLabel(item: Item, plan: Plan, schedule: Schedule, brief: TimelineBrief, longRange: boolean): void {
  const style = longRange ? 'medium' : 'short';
  const i = item.index;
  const point = item.form === 'milestone';
  const startDay = point && schedule.atFinish[i] ? finishDayOf(item.start) : dayOf(item.start);
  const finishDay = point && !schedule.atFinish[i] ? dayOf(item.finish) : finishDayOf(item.finish);
  item.startText = formatDay(startDay, 'long');
  item.finishText = formatDay(finishDay, 'long');
  const parts = new Set(brief.labels);
  const a = plan.activities[i]!;
  item.label = [parts.has('reference') ? item.ref : '', parts.has('name') ? item.name : ''].filter(Boolean).join(' ');
  const dates = [
    parts.has('start') && !(point && parts.has('finish')) ? formatDay(startDay, style) : '',
    parts.has('finish') ? formatDay(finishDay, style) : '',
  ].filter(Boolean);
  const minutesPerDay = plan.calendars.find((c) => c.id === (a.calendar ?? plan.calendar))?.minutesPerDay ?? 480;
  const working = point ? null : (a.duration ?? null);
  item.detail = [
    dates.join('–'),
    parts.has('duration') && working !== null ? `${Math.round((working / minutesPerDay) * 10) / 10} d` : '',
    parts.has('percent') && !point ? `${Math.round(item.progress * 100)} %` : '',
  ]
    .filter(Boolean)
    .join(' · ');
  if (item.label === '') [item.label, item.detail] = [item.detail, ''];
}
