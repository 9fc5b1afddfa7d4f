import { apartReader, computedDates, deadlineMiss, extentOf } from '../compare/behind';
import type { Finding } from '../findings/finding';
import { buildFindings } from './buildChecks';
import { lineFindings } from './lineChecks';
import { isMilestone, type Plan } from '../plan/schema';
import { statusEnd } from '../plan/status';
import { isComplete } from '../schedule/given';
import { NONE } from '../schedule/slots';
import type { Schedule } from '../schedule/model';
import { type ActivityTime, activityTime } from '../schedule/workingDays';
import { codeFieldId, fieldReader, isEmptyValue, requirableFields } from '../select/fields';
import { isoDate } from '../time/civil';

/** What counts as long, in working days. The defaults are those of the 14-point assessment. */
export interface CheckLimits {
  longDuration: number;
  highFloat: number;
  longLag: number;
}
export const DEFAULT_LIMITS: CheckLimits = { longDuration: 44, highFloat: 44, longLag: 10 };

/** What every check looks at. */
export interface Checked {
  plan: Plan;
  s: Schedule;
  time: ActivityTime;
  limits: CheckLimits;
  /** Positions of what is scheduled: no summaries, no supporting work. */
  work: number[];
}

export function checked(plan: Plan, s: Schedule, limits: CheckLimits = DEFAULT_LIMITS): Checked {
  const work = plan.activities.map((_, i) => i).filter((i) => s.network.nodeOf[i]! >= 0);
  return { plan, s, time: activityTime(plan, s), limits, work };
}

/** Checks a plan: the findings of the schedule itself, and one finding for each thing that a planner would want to know. */
export function checkPlan(plan: Plan, s: Schedule, limits: CheckLimits = DEFAULT_LIMITS): Finding[] {
  const c = checked(plan, s, limits);
  return [...s.findings, ...CHECKS.flatMap((check) => check(c))];
}

const isDone = isComplete;
const refsOf = ({ plan }: Checked, positions: number[]): string[] => positions.map((i) => plan.activities[i]!.ref);
/** One finding about all of the positions, or none when there are none. */
const about = (
  c: Checked,
  code: Finding['code'],
  severity: Finding['severity'],
  positions: number[],
  facts?: Finding['facts'],
): Finding[] =>
  positions.length === 0 ? [] : [{ code, severity, refs: refsOf(c, positions), ...(facts && { facts }) }];

const duplicates = (c: Checked): Finding[] => {
  const groups = new Map<string, string[]>();
  for (const i of c.work) {
    const a = c.plan.activities[i]!;
    if (a.name === '') continue;
    const key = JSON.stringify([a.parent, a.name.trim().toLowerCase()]);
    const group = groups.get(key);
    if (group) group.push(a.ref);
    else groups.set(key, [a.ref]);
  }
  return [...groups.values()]
    .filter((refs) => refs.length > 1)
    .map((refs) => ({
      code: 'sameNameAndParent',
      severity: 'warning',
      refs,
      facts: { name: c.plan.activities[c.s.outline.indexOf.get(refs[0]!)!]!.name },
    }));
};

/** Positions without a link at one end, that are not done: in a plan without links all of them. */
export function openEnds({ plan, s, work }: Checked, end: 'from' | 'to'): number[] {
  const linked = new Set(plan.links.map((l) => l[end]));
  const inSummary = (i: number): boolean => {
    for (let p = s.outline.parent[i]!; p !== -1; p = s.outline.parent[p]!)
      if (linked.has(plan.activities[p]!.ref)) return true;
    return false;
  };
  return work.filter((i) => !isDone(plan.activities[i]!) && !linked.has(plan.activities[i]!.ref) && !inSummary(i));
}

/** A plan without any links is not asked for them by the checks; its assessment says that all are missing. */
const openStarts = (c: Checked): Finding[] =>
  about(
    c,
    'noPredecessor',
    'warning',
    c.plan.links.length === 0 ? [] : openEnds(c, 'to').filter((i) => c.plan.activities[i]!.actualStart === null),
  );
const openFinishes = (c: Checked): Finding[] =>
  about(c, 'noSuccessor', 'warning', c.plan.links.length === 0 ? [] : openEnds(c, 'from'));

const linksTwice = ({ plan }: Checked): Finding[] => {
  const times = new Map<string, { link: Plan['links'][number]; count: number }>();
  for (const link of plan.links) {
    const key = JSON.stringify([link.from, link.to, link.type]);
    const known = times.get(key);
    if (known) known.count++;
    else times.set(key, { link, count: 1 });
  }
  return [...times.values()]
    .filter(({ count }) => count > 1)
    .map(({ link, count }) => ({
      code: 'linkTwice',
      severity: 'note',
      refs: [link.from, link.to],
      facts: { type: link.type, times: count },
    }));
};

/** Working days of a link's lag, in the calendar that it names. */
function lagDays({ s, time }: Checked, link: Plan['links'][number]): number {
  const i = s.outline.indexOf.get(link.lagCalendar === 'predecessor' ? link.from : link.to);
  return link.lag / (link.lagCalendar === 'elapsed' || i === undefined ? 1440 : time.minutesPerDay(i));
}

const leads = (c: Checked): Finding[] =>
  c.plan.links
    .filter((l) => l.lag < 0)
    .map((l) => ({ code: 'lead', severity: 'warning', refs: [l.from, l.to], facts: { days: -lagDays(c, l) } }));

const longLags = (c: Checked): Finding[] =>
  c.plan.links
    .filter((l) => l.lag > 0 && lagDays(c, l) > c.limits.longLag)
    .map((l) => ({
      code: 'longLag',
      severity: 'note',
      refs: [l.from, l.to],
      facts: { days: lagDays(c, l), limit: c.limits.longLag },
    }));

/** Positions with a date that must not move or must not be passed. */
export const hardConstraints = ({ plan, work }: Checked): number[] =>
  work.filter(
    (i) =>
      ['fixedStart', 'fixedFinish', 'startNotLater', 'finishNotLater'].includes(
        plan.activities[i]!.constraint?.kind ?? '',
      ) && !isDone(plan.activities[i]!),
  );

/** Positions whose work is longer than the limit and not done. */
export const longDurations = ({ plan, time, work, limits }: Checked): number[] =>
  work.filter((i) => {
    const a = plan.activities[i]!;
    return !isDone(a) && (a.remaining ?? a.duration ?? 0) / time.minutesPerDay(i) > limits.longDuration;
  });

export const highFloats = ({ plan, s, time, work, limits }: Checked): number[] =>
  plan.links.length === 0
    ? []
    : work.filter((i) => s.totalFloat[i] !== NONE && s.totalFloat[i]! / time.minutesPerDay(i) > limits.highFloat);

export const negativeFloats = ({ s, work }: Checked): number[] =>
  work.filter((i) => s.totalFloat[i] !== NONE && s.totalFloat[i]! < 0);

const negativeFloat = (c: Checked): Finding[] => {
  const late = negativeFloats(c);
  const days = Math.max(0, ...late.map((i) => -c.s.totalFloat[i]! / c.time.minutesPerDay(i)));
  return about(c, 'negativeFloat', 'error', late, { days });
};

const deadlines = (c: Checked): Finding[] =>
  c.work.flatMap((i): Finding[] => {
    const miss = deadlineMiss(c.plan, c.s, i);
    if (miss === null) return [];
    const facts = { finish: isoDate(miss.finish), deadline: isoDate(miss.deadline), days: miss.days };
    return [{ code: 'deadlineMissed', severity: 'error', refs: [c.plan.activities[i]!.ref], facts }];
  });

/** Positions planned before the status date that are not reported as begun or done. */
export const plannedInThePast = ({ plan, work }: Checked): number[] => {
  const status = statusEnd(plan);
  if (status === null) return [];
  return work.filter((i) => {
    const a = plan.activities[i]!;
    if (isComplete(a)) return false;
    return (
      (a.finish !== null && a.finish <= status) || (a.actualStart === null && a.start !== null && a.start < status)
    );
  });
};

export const actualInTheFuture = ({ plan, work }: Checked): number[] => {
  const status = statusEnd(plan);
  if (status === null) return [];
  return work.filter((i) => {
    const { actualStart, actualFinish } = plan.activities[i]!;
    return (actualStart !== null && actualStart >= status) || (actualFinish !== null && actualFinish > status);
  });
};

const againstStatus = (c: Checked): Finding[] => {
  const status = c.plan.statusDate === null ? '' : isoDate(Math.floor(c.plan.statusDate / 1440));
  return [
    ...about(c, 'plannedInThePast', 'warning', plannedInThePast(c), { status }),
    ...about(c, 'actualInTheFuture', 'error', actualInTheFuture(c), { status }),
  ];
};

/** Fields that say nothing of a point in time. */
const OF_LENGTH = new Set(['start', 'finish', 'days', 'effort']);

/** Cells that the plan requires of every activity, and that are empty. */
const missingRequired = (c: Checked): Finding[] =>
  requirableFields(c.plan)
    .filter((f) => c.plan.required.includes(f.id))
    .flatMap((f) => {
      const read = fieldReader(c.plan, c.s, f.id)!;
      const asked = (i: number) =>
        !OF_LENGTH.has(f.id) || !isMilestone(c.plan.activities[i]!.kind) || c.s.start[i] === NONE;
      return about(
        c,
        'missingRequired',
        'error',
        c.work.filter((i) => isEmptyValue(read(i)) && asked(i)),
        { field: f.name, id: f.id },
      );
    });

const missingCodes = (c: Checked): Finding[] =>
  c.plan.codeFields.flatMap((f) =>
    // What is required is asked for above.
    c.plan.required.includes(codeFieldId(f.id))
      ? []
      : about(
          c,
          'missingCode',
          'note',
          c.work.filter((i) => (c.plan.activities[i]!.codes[f.id] ?? '') === ''),
          { field: f.name, id: f.id },
        ),
  );

/** Positions of work without anybody responsible and without effort. */
export const missingResources = ({ plan, work }: Checked): number[] =>
  work.filter((i) => {
    const a = plan.activities[i]!;
    return !isMilestone(a.kind) && !isDone(a) && a.responsible.length === 0 && a.effort === null;
  });

/** Resources are asked for only in plans that have any. */
const resources = (c: Checked): Finding[] => {
  const missing = missingResources(c);
  return c.plan.activities.some((a) => a.responsible.length > 0 || a.effort !== null)
    ? about(c, 'missingResource', 'note', missing)
    : [];
};

const outOfSequence = (c: Checked): Finding[] =>
  c.plan.links.flatMap((l): Finding[] => {
    const [from, to] = [c.s.outline.indexOf.get(l.from), c.s.outline.indexOf.get(l.to)];
    if (from === undefined || to === undefined) return [];
    const [a, b] = [c.plan.activities[from]!, c.plan.activities[to]!];
    const waits = l.type === 'FS' || l.type === 'SS' ? b.actualStart !== null : b.actualFinish !== null;
    const free = l.type === 'FS' || l.type === 'FF' ? a.actualFinish !== null : a.actualStart !== null;
    if (!waits || free || a.kind === 'levelOfEffort' || b.kind === 'levelOfEffort') return [];
    return [
      {
        code: 'outOfSequence',
        severity: 'warning',
        refs: [l.to, l.from],
        facts: { what: l.type === 'FS' || l.type === 'FF' ? 'finished' : 'begun' },
      },
    ];
  });

const givenAgainstComputed = (c: Checked): Finding[] => {
  if (c.plan.links.length === 0) return [];
  const { s } = c;
  const apart = apartReader(c.plan);
  const computed = computedDates(s);
  let days = 0;
  const differing = c.work.filter((i) => {
    const [given, would] = [extentOf(s.given, [i]), extentOf(computed, [i])];
    if (!given || !would) return false;
    const off = Math.max(Math.abs(apart.starts(i, given, would)), Math.abs(apart.finishes(i, given, would)));
    if (off >= 1) days = Math.max(days, Math.round(off));
    return off >= 1;
  });
  return about(c, 'givenAgainstComputed', 'note', differing, { days });
};

const milestonesWithDuration = (c: Checked): Finding[] =>
  about(
    c,
    'milestoneWithDuration',
    'note',
    c.work.filter((i) => isMilestone(c.plan.activities[i]!.kind) && (c.plan.activities[i]!.duration ?? 0) > 0),
  );

const CHECKS: ((c: Checked) => Finding[])[] = [
  duplicates,
  openStarts,
  openFinishes,
  linksTwice,
  leads,
  longLags,
  (c) => about(c, 'hardConstraint', 'note', hardConstraints(c)),
  (c) => about(c, 'longDuration', 'note', longDurations(c), { limit: c.limits.longDuration }),
  (c) => about(c, 'highFloat', 'note', highFloats(c), { limit: c.limits.highFloat }),
  negativeFloat,
  deadlines,
  againstStatus,
  missingRequired,
  missingCodes,
  resources,
  outOfSequence,
  givenAgainstComputed,
  milestonesWithDuration,
  lineFindings,
  buildFindings,
];
