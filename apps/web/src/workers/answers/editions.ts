import {
  codeOfFieldId,
  compareEditions,
  type Day,
  dayOf,
  isMilestone,
  type Moved,
  movesBetween,
  type Plan,
  type Schedule,
  type Trend,
  trendsOf,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import type { Held } from './held';

/** An edition as the list of them shows it. */
export interface EditionRow {
  id: string;
  name: string;
  /** Its status date. */
  day: Day | null;
  finish: string;
  /** Working days that the finish moved since the edition before; null for the first. */
  moved: number | null;
  activities: number;
  /** In words: `3 new, 12 moved, 4 completed`. */
  words: string;
}

/** Who moved how much. */
export interface MoverShown {
  who: string;
  later: number;
  earlier: number;
  /** Working days later, less those earlier, added up. */
  days: number;
}

export interface EditionsShown {
  /** The oldest first; the last is the plan as it stands. */
  editions: EditionRow[];
  /** How many older ones are left out. */
  older: number;
  trends: Trend[];
  milestones: { ref: string; name: string }[];
  /** What changed since an edition. */
  since: { name: string; words: string[]; moves: Moved[]; count: number; movers: MoverShown[] } | null;
}

export interface EditionsAsked {
  /** Milestones that are followed; null for the first that matter. */
  refs: string[] | null;
  /** The edition since which it is asked what changed; null for the one before. */
  since: string | null;
  /** Who is said to have moved something: `responsible`, or a code field. */
  by: string;
}

type Kept = { id: string; plan: Plan; schedule: Schedule; name: string };

/** So many moved activities are listed. */
const LISTED = 300;
/** So many milestones are followed where nobody chose any. */
const FOLLOWED = 5;

const many = (n: number, one: string, more: string): string[] => (n === 0 ? [] : [`${n} ${n === 1 ? one : more}`]);

/** How the plan came to stand as it does, from edition to edition. */
export function editionsShown(held: Held, kept: readonly Kept[], older: number, asked: EditionsAsked): EditionsShown {
  const all: Kept[] = [...kept, { id: '', plan: held.plan, schedule: held.schedule, name: 'Now' }];
  const milestones = held.plan.activities
    .filter((a) => isMilestone(a.kind))
    .map((a) => ({ ref: a.ref, name: a.name || a.ref }));
  const known = new Set(milestones.map((m) => m.ref));
  const refs = asked.refs?.filter((r) => known.has(r)) ?? followed(held, kept);
  const trends = trendsOf(all, refs);
  const whole = trends[0]!;
  const editions = all.map((e, k): EditionRow => {
    const pair = k === 0 ? null : trendsOf([all[k - 1]!, e], [])[0]!;
    const finish = whole.days[k] ?? null;
    return {
      id: e.id,
      name: e.name,
      day: e.plan.statusDate === null ? null : dayOf(e.plan.statusDate),
      finish: finish === null ? 'no dates' : formatDay(finish, 'medium'),
      moved: pair?.moved ?? null,
      activities: e.schedule.outline.isSummary.filter((x) => !x).length,
      words: k === 0 ? '' : changeWords(all[k - 1]!, e).join(', ') || 'nothing changed',
    };
  });
  const since = all.find((e) => e.id !== '' && e.id === asked.since) ?? kept.at(-1) ?? null;
  return { editions, older, trends, milestones, since: since && sinceShown(since, all.at(-1)!, asked.by) };
}

/** Milestones that moved most since the first edition, else the last ones of the plan. */
function followed({ plan, schedule }: Held, kept: readonly Kept[]): string[] {
  const points = plan.activities.flatMap((a, i) =>
    isMilestone(a.kind) ? [{ ref: a.ref, at: schedule.finish[i]! }] : [],
  );
  const first = kept[0];
  const size = new Map(
    first ? movesBetween(first, { plan, schedule }).map((m) => [m.ref, Math.abs(m.finishDays)]) : [],
  );
  return points
    .sort((x, y) => (size.get(y.ref) ?? 0) - (size.get(x.ref) ?? 0) || y.at - x.at)
    .slice(0, FOLLOWED)
    .sort((x, y) => x.at - y.at)
    .map((p) => p.ref);
}

function changeWords(before: Kept, after: Kept): string[] {
  const c = compareEditions(before.plan, after.plan);
  const moves = movesBetween(before, after);
  const complete = (p: Plan) =>
    new Set(p.activities.filter((a) => a.actualFinish !== null || a.percent === 100).map((a) => a.ref));
  const [was, is] = [complete(before.plan), complete(after.plan)];
  const completed = [...is].filter((ref) => !was.has(ref)).length;
  const of = (kind: string) => c.changed.filter((x) => (x.kinds as string[]).includes(kind)).length;
  return [
    ...many(c.added.length, 'activity new', 'activities new'),
    ...many(c.removed.length, 'taken out', 'taken out'),
    ...many(moves.filter((m) => m.finishDays > 0).length, 'later', 'later'),
    ...many(moves.filter((m) => m.finishDays < 0).length, 'earlier', 'earlier'),
    ...many(completed, 'completed', 'completed'),
    ...many(of('progressed'), 'with progress', 'with progress'),
    ...many(of('renamed'), 'renamed', 'renamed'),
    ...many(c.linksAdded.length + c.linksRemoved.length, 'link changed', 'links changed'),
  ];
}

function sinceShown(before: Kept, after: Kept, by: string): NonNullable<EditionsShown['since']> {
  const moves = movesBetween(before, after);
  const code = codeOfFieldId(by);
  const field = after.plan.codeFields.find((f) => f.id === code);
  const who = (m: Moved): string[] => {
    if (code === null) return m.responsible.length === 0 ? ['nobody named'] : m.responsible;
    const value = after.plan.activities[after.schedule.outline.indexOf.get(m.ref)!]!.codes[code] ?? '';
    return [field?.values.find((v) => v.code === value)?.title ?? (value || 'none')];
  };
  const movers = new Map<string, MoverShown>();
  for (const m of moves)
    for (const name of who(m)) {
      const own = movers.get(name) ?? { who: name, later: 0, earlier: 0, days: 0 };
      if (m.finishDays > 0) own.later++;
      else if (m.finishDays < 0) own.earlier++;
      own.days = Math.round((own.days + m.finishDays) * 10) / 10;
      movers.set(name, own);
    }
  return {
    name: before.name,
    words: changeWords(before, after),
    moves: moves.slice(0, LISTED),
    count: moves.length,
    movers: [...movers.values()].sort((x, y) => y.days - x.days || y.later - x.later),
  };
}
