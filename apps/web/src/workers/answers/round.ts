import {
  activityTime,
  type Activity,
  applyCommand,
  type AskedRow,
  askedAt,
  type Day,
  finishDayOf,
  isComplete,
  isMilestone,
  NONE,
  type Plan,
  type Reason,
  REASONS,
  type Schedule,
  schedulePlan,
  shownDays,
} from '@clembo/core';
import { typedInto } from '@clembo/formats/typed';
import { formatDay } from '@clembo/scene/dates';
import { consequencesOf } from './consequences';
import type { Held } from './held';
import { cellReader, editText } from './ledger';

/** What is asked of an activity in a round. */
export const ROUND_FIELDS = [
  'actualStart',
  'actualFinish',
  'percent',
  'remaining',
  'actualEffort',
  'actualCost',
  'notes',
] as const;
export type RoundField = (typeof ROUND_FIELDS)[number];
type Said = Record<RoundField, string>;

/** An activity that the status date asks about. */
export interface RoundRow {
  ref: string;
  name: string;
  group: string;
  responsible: string;
  /** What is asked of it, in order. */
  asksFor: RoundField[];
  milestone: boolean;
  why: Reason;
  /** The reason in words: `should have finished 4 Sep`. */
  asks: string;
  /** The days of the plan, to be taken over where that is what happened. */
  planned: { first: Day; last: Day } | null;
  complete: boolean;
  onHold: boolean;
  /** `not started`, `in progress`, `complete` or `on hold`. */
  status: string;
  /** What is known now, as it is typed. */
  now: Said;
  /** What the last edition said, and whether anything is another since. */
  last: Said | null;
  changed: boolean;
  /** What was promised, and where the plan has it now. */
  facts: [label: string, value: string][];
}

export interface RoundShown {
  rows: RoundRow[];
  last: string | null;
  counts: Record<Reason, number>;
  changed: number;
}

type Kept = { plan: Plan; schedule: Schedule; name: string };

const WORDS: Record<Reason, (day: string) => string> = {
  shouldHaveFinished: (day) => `should have finished ${day}`,
  shouldHaveStarted: (day) => `should have started ${day}`,
  inProgress: (day) => `in progress, to finish ${day}`,
  due: (day) => `due ${day}`,
};

const PROGRESS = [...ROUND_FIELDS, 'onHold'] as const;
const differs = (a: Activity, b: Activity): boolean => PROGRESS.some((k) => a[k] !== b[k]);

/**
 * What a status date asks, with what was promised and what was said last. What the last edition was asked stays in the
 * list when it is answered.
 */
export function roundShown(held: Held, last: Kept | null, moment: number, days: number): RoundShown {
  const { plan, schedule: s, promised = null } = held;
  const now = askedAt(plan, s, moment, days, last);
  const found = new Map<string, AskedRow>();
  if (last)
    for (const row of askedAt(last.plan, last.schedule, moment, days)) {
      const ref = last.plan.activities[row.position]!.ref;
      const position = s.outline.indexOf.get(ref);
      if (position !== undefined && !s.outline.isSummary[position]) found.set(ref, { ...row, position });
    }
  for (const row of now) {
    const { ref } = plan.activities[row.position]!;
    if (!found.has(ref)) found.set(ref, row);
  }
  const asked = [...found.values()].sort(
    (x, y) => REASONS.indexOf(x.why) - REASONS.indexOf(y.why) || x.day - y.day || x.position - y.position,
  );
  const readers = readersOf({ ...held, promised });
  const before = last && readersOf(last);
  const rows = asked.map((row) => rowOf({ ...held, promised }, last, readers, before, row));
  const counts = Object.fromEntries(REASONS.map((r) => [r, rows.filter((x) => x.why === r).length])) as Record<
    Reason,
    number
  >;
  return { rows, last: last?.name ?? null, counts, changed: rows.filter((r) => r.changed).length };
}

/** A milestone happens on a day; it is not worked on. */
function fieldsOf({ kind }: Activity): RoundField[] {
  if (!isMilestone(kind)) return [...ROUND_FIELDS];
  return [kind === 'startMilestone' ? 'actualStart' : 'actualFinish', 'actualCost', 'notes'];
}

type Readers = (field: string) => (position: number) => string;

/** Reads fields of a plan, each made ready once. */
function readersOf(held: Held): Readers {
  const made = new Map<string, (position: number) => string>();
  return (field) => {
    let read = made.get(field);
    if (!read) made.set(field, (read = cellReader(held, field)));
    return read;
  };
}

function rowOf(
  held: Held,
  last: Kept | null,
  readers: Readers,
  lastReaders: Readers | null,
  { position: i, why, day }: AskedRow,
): RoundRow {
  const { plan, schedule: s } = held;
  const a = plan.activities[i]!;
  const j = last?.schedule.outline.indexOf.get(a.ref);
  const before = last && j !== undefined ? last.plan.activities[j]! : null;
  const said = (of: Held, read: Readers, at: number): Said =>
    Object.fromEntries(ROUND_FIELDS.map((f) => [f, editText(of, a.ref, f, read(f)(at))])) as Said;
  const parent = s.outline.parent[i]!;
  return {
    ref: a.ref,
    name: a.name || a.ref,
    group: parent === -1 ? '' : plan.activities[parent]!.name,
    responsible: a.responsible.join(', '),
    asksFor: fieldsOf(a),
    milestone: isMilestone(a.kind),
    why,
    asks: WORDS[why](formatDay(day, 'short')),
    planned: shownDays(s, i),
    complete: isComplete(a),
    onHold: a.onHold,
    status: readers('status')(i),
    now: said(held, readers, i),
    last: before && last && lastReaders && said(last, lastReaders, j!),
    changed: before !== null && differs(a, before),
    facts: factsOf(held, readers, i, last, j),
  };
}

function factsOf(held: Held, readers: Readers, i: number, last: Kept | null, j: number | undefined): RoundRow['facts'] {
  const { plan, schedule: s } = held;
  const a = plan.activities[i]!;
  const read = (field: string) => readers(field)(i);
  const span = (of: Schedule, at: number) => {
    const shown = shownDays(of, at);
    if (!shown) return 'no dates';
    return isMilestone(a.kind)
      ? formatDay(shown.last, 'medium')
      : `${formatDay(shown.first, 'medium')} to ${formatDay(shown.last, 'medium')}`;
  };
  const p = held.promised?.schedule.outline.indexOf.get(a.ref);
  const done = [read('percentTime'), read('percentEffort')];
  const [days, toGo] = [read('daysDone'), read('daysToGo')];
  return (
    [
      ['Now', span(s, i)],
      ['Promised', !held.promised ? '' : p === undefined ? 'not in the promise' : span(held.promised.schedule, p)],
      ['Last said', last && j !== undefined ? span(last.schedule, j) : last ? 'not in it' : ''],
      ['Days', days === '' ? '' : `${days} of ${Number(days) + Number(toGo)} done, ${toGo} to go`],
      ['By time', done[0] === '' ? '' : `${done[0]} %`],
      ['By effort', done[1] === '' ? '' : `${done[1]} %`],
      ['Float', s.totalFloat[i] === NONE ? '' : `${read('float')} days`],
      ['Off', read('late') === '' ? '' : `${read('late')} days`],
    ] as [string, string][]
  ).filter(([, value]) => value !== '');
}

/** What comes of something that is being typed: for the activity, and for the end of the plan. */
export interface RoundWould {
  error: string | null;
  words: string;
  bad: boolean;
}

export function roundWould(held: Held, ref: string, field: string, text: string): RoundWould {
  const { plan, schedule: s } = held;
  const typed = typedInto(plan, s, ref, field, text);
  if ('error' in typed) return { error: typed.error, words: '', bad: true };
  if (!typed.command) return { error: null, words: '', bad: false };
  const { words, bad } = consequencesOf(held, typed.command, []);
  const { plan: after } = applyCommand(plan, typed.command);
  const next = schedulePlan(after);
  const [i, j] = [s.outline.indexOf.get(ref)!, next.outline.indexOf.get(ref)!];
  const float = (p: Plan, of: Schedule, at: number) =>
    of.totalFloat[at] === NONE || p.links.length === 0
      ? null
      : Math.round((of.totalFloat[at]! / activityTime(p, of).minutesPerDay(at)) * 10) / 10;
  const [was, is] = [float(plan, s, i), float(after, next, j)];
  const finish =
    next.finish[j] === NONE || next.finish[j] === s.finish[i]
      ? ''
      : `It ends ${formatDay(finishDayOf(next.finish[j]!), 'medium')}. `;
  const floats = was === null || is === null || was === is ? '' : ` Its float goes from ${was} to ${is} days.`;
  return { error: null, words: `${finish}${words}${floats}`, bad };
}
