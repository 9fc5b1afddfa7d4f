import {
  dayOf,
  finishDayOf,
  isoDate,
  NONE,
  ORIGINS,
  type Plan,
  planEnds,
  type Schedule,
  schedulePlan,
  UNKNOWN,
} from '@clembo/core';
import { writeCsv } from '@clembo/formats';
import { findingRows } from '../findings';
import type { Loaded } from '../load';

/** Columns of the schedule as CSV and members of its JSON, in their order. */
const COLUMNS = [
  'ref',
  'name',
  'kind',
  'start',
  'finish',
  'earlyStart',
  'earlyFinish',
  'lateStart',
  'lateFinish',
  'totalFloat',
  'freeFloat',
  'critical',
  'startFrom',
  'finishFrom',
] as const;
type Row = Record<(typeof COLUMNS)[number], string | number | boolean | null>;

/**
 * Computes a plan; dates are ISO, a finish is the day on which the work ends, float is in working days. In a plan as
 * drawn the dates that are shown are the early ones, since late ones and float are counted from them.
 */
export function scheduleCommand(loaded: Loaded, asJson: boolean): string {
  const { plan } = loaded;
  const s = schedulePlan(plan);
  const rows = plan.activities.map((_, i) => scheduleRow(plan, s, i));
  if (!asJson) return writeCsv(COLUMNS, rows);
  const { last, openWithout } = planEnds(plan, s, null);
  return `${JSON.stringify(
    {
      finish: last === null ? null : isoDate(last),
      without: openWithout,
      findings: findingRows(loaded, s.findings),
      activities: rows,
    },
    null,
    1,
  )}\n`;
}

function scheduleRow(plan: Plan, s: Schedule, i: number): Row {
  const a = plan.activities[i]!;
  const perDay = plan.calendars.find((c) => c.id === (a.calendar ?? plan.calendar))?.minutesPerDay ?? 480;
  // A point in time that stands at the beginning of a day is on that day, also as a finish.
  const atStart = !s.atFinish[i];
  const start = (m: number) =>
    m === NONE ? null : isoDate(s.earlyStart[i] === s.earlyFinish[i] && !atStart ? finishDayOf(m) : dayOf(m));
  const finish = (m: number) => (m === NONE ? null : isoDate(atStart ? dayOf(m) : finishDayOf(m)));
  const point = s.start[i] !== NONE && s.start[i] === s.finish[i];
  // An end that is not known stands where the other is.
  const isOpen = (from: number) => from === UNKNOWN && !s.outline.isSummary[i];
  const shown = {
    start:
      s.start[i] === NONE || isOpen(s.startFrom[i]!)
        ? null
        : point && !atStart
          ? finish(s.finish[i]!)
          : isoDate(dayOf(s.start[i]!)),
    finish: isOpen(s.finishFrom[i]!) ? null : finish(s.finish[i]!),
  };
  const early = plan.source === 'given' ? shown : { start: start(s.earlyStart[i]!), finish: finish(s.earlyFinish[i]!) };
  const days = (minutes: number) => (minutes === NONE ? null : Math.round((minutes / perDay) * 1000) / 1000);
  return {
    ref: a.ref,
    name: a.name,
    kind: s.outline.isSummary[i] ? 'summary' : a.kind,
    ...shown,
    earlyStart: early.start,
    earlyFinish: early.finish,
    lateStart: start(s.lateStart[i]!),
    lateFinish: finish(s.lateFinish[i]!),
    totalFloat: days(s.totalFloat[i]!),
    freeFloat: days(s.freeFloat[i]!),
    critical: s.critical[i] === 1,
    startFrom: ORIGINS[s.startFrom[i]!]!,
    finishFrom: ORIGINS[s.finishFrom[i]!]!,
  };
}
