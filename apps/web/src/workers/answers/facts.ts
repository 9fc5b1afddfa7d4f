import {
  addDone,
  calendarOf,
  dayOf,
  doneReader,
  drivingPath,
  finishDayOf,
  isMilestone,
  lengthWords,
  type Link,
  NONE,
  nothingDone,
  percentComplete,
  percentOf,
  shownDays,
  AS_PROMISED,
  COMPUTED,
  EXPECTED,
  UNKNOWN,
  daysReader,
  extentOf,
  floatOf,
  wholePercent,
  type Plan,
} from '@clembo/core';
import { formatDay, sumRef } from '@clembo/scene';
import { finishDay, type Held, startDay } from './held';

/** The facts about one activity, as the margin shows them. */
export interface Facts {
  ref: string;
  name: string;
  kind: string;
  path: string[];
  rows: [label: string, value: string][];
  codes: [field: string, value: string][];
  before: { ref: string; name: string; how: string }[];
  after: { ref: string; name: string; how: string }[];
  /** What its dates wait for, from where that begins to what comes right before it. */
  driving: { ref: string; name: string }[];
  notes: string;
  /** What the source says where it names no day. */
  said: string | null;
  /** The row that it was read from. */
  place: { source: number; name: string; sheet: string | null; row: number } | null;
}

/** Where the data of a plan came from, and which row each activity was. */
export interface CameFrom {
  sources: { no: number; name: string; sheet: string | null }[];
  /** Number of the source and row in it, by reference. */
  rows: () => ReadonlyMap<string, readonly [source: number, row: number]>;
}

function placeOf(ref: string, { sources, rows }: CameFrom): Facts['place'] {
  const place = rows().get(ref);
  const source = place && sources.find((x) => x.no === place[0]);
  return source ? { source: source.no, name: source.name, sheet: source.sheet, row: place[1] } : null;
}

const COMPLETE = { stated: 'Complete', time: 'Complete by time', effort: 'Complete by effort' } as const;

/** What is known of an activity, or null where the plan has none by that reference. */
export function factsOf(held: Held, ref: string, from: CameFrom): Facts | null {
  const { plan, schedule: s } = held;
  const i = s.outline.indexOf.get(ref);
  if (i === undefined) return sumFacts(held, ref);
  const a = plan.activities[i]!;
  const path: string[] = [];
  for (let p = s.outline.parent[i]!; p !== -1; p = s.outline.parent[p]!) path.unshift(plan.activities[p]!.name);
  const linkOf = (other: string, link: Link) => ({
    ref: other,
    name: plan.activities[s.outline.indexOf.get(other) ?? -1]?.name ?? 'not in the plan',
    how: link.lag === 0 ? link.type : `${link.type} ${link.lag > 0 ? '+' : '−'}${lagWords(held, link)}`,
  });
  return {
    ref,
    name: a.name,
    kind: s.outline.isSummary[i] ? 'summary' : a.kind,
    path,
    rows: factRows(held, i),
    said: a.said && [...new Set([a.said.start, a.said.finish].filter((w) => w !== null))].join(' – '),
    place: placeOf(ref, from),
    codes: plan.codeFields.flatMap((f): [string, string][] => {
      const code = a.codes[f.id];
      return code === undefined ? [] : [[f.name, f.values.find((v) => v.code === code)?.title ?? code]];
    }),
    before: plan.links.filter((l) => l.to === ref).map((l) => linkOf(l.from, l)),
    after: plan.links.filter((l) => l.from === ref).map((l) => linkOf(l.to, l)),
    driving: s.outline.isSummary[i]
      ? []
      : drivingPath(s, i)
          .slice(0, -1)
          .map((p) => ({ ref: plan.activities[p]!.ref, name: plan.activities[p]!.name })),
    notes: a.notes,
  };
}

/** What is known of all the work of a code value, which is one bar on some pages. */
function sumFacts({ plan, schedule: s }: Held, ref: string): Facts | null {
  const field = plan.codeFields.find((f) => ref.startsWith(sumRef(f.id, '')));
  if (!field) return null;
  const code = ref.slice(sumRef(field.id, '').length);
  const read = doneReader(plan, s, plan.percentShown);
  const sum = nothingDone();
  let [count, first, last] = [0, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  plan.activities.forEach((a, i) => {
    if (s.outline.isSummary[i] || isMilestone(a.kind) || (a.codes[field.id] ?? '') !== code) return;
    count++;
    addDone(sum, read(i));
    const days = shownDays(s, i);
    if (!days) return;
    first = Math.min(first, days.first);
    last = Math.max(last, days.last);
  });
  if (count === 0) return null;
  const percent = percentOf(sum);
  return {
    ref,
    name: field.values.find((v) => v.code === code)?.title ?? (code === '' ? `Without ${field.name}` : code),
    kind: 'sum',
    path: [field.name],
    rows: [
      ['Activities', String(count)],
      ...(first > last
        ? [['Dates', 'none'] as [string, string]]
        : ([
            ['Start', formatDay(first, 'weekday')],
            ['Finish', formatDay(last, 'weekday')],
          ] as [string, string][])),
      [COMPLETE[plan.percentShown], percentTold(percent)],
    ],
    codes: [],
    before: [],
    after: [],
    driving: [],
    notes: '',
    said: null,
    place: null,
  };
}

function factRows(held: Held, i: number): Facts['rows'] {
  const { plan, schedule: s } = held;
  const a = plan.activities[i]!;
  const calendar = calendarOf(held.plan, a.calendar);
  const point = isMilestone(a.kind);
  const days = (minutes: number) => lengthWords(minutes, 'day', calendar);
  const rows: Facts['rows'] = [];
  if (s.start[i] === NONE) rows.push(['Dates', 'none']);
  else {
    if (!point) rows.push(['Start', `${formatDay(startDay(held, i), 'weekday')}${cameFrom(plan, s.startFrom[i]!)}`]);
    rows.push([
      point ? 'Date' : 'Finish',
      s.finishFrom[i] === UNKNOWN
        ? 'not known'
        : `${formatDay(finishDay(held, i), 'weekday')}${cameFrom(plan, s.finishFrom[i]!)}`,
    ]);
  }
  const length = daysReader(plan, s)(i);
  const extent = extentOf(s, [i]);
  if (length !== null && !point)
    rows.push([
      'Length',
      days(length * calendar.minutesPerDay) +
        (extent && s.finishFrom[i] !== UNKNOWN ? `, ${extent.last - extent.first + 1} cal d` : ''),
    ]);
  if (a.actualStart !== null && !point) rows.push(['Started', formatDay(dayOf(a.actualStart), 'weekday')]);
  if (a.actualFinish !== null)
    rows.push([
      point ? 'Reached' : 'Finished',
      formatDay(s.atFinish[i] ? finishDayOf(a.actualFinish) : dayOf(a.actualFinish), 'weekday'),
    ]);
  if (s.totalFloat[i] !== NONE) rows.push(['Float', `${days(s.totalFloat[i]!)}${floatNote(s, i)}`]);
  if (!point) rows.push([COMPLETE[plan.percentShown], percentTold(percentComplete(plan, s).percent[i]!)]);
  if (!point && !s.outline.isSummary[i]) rows.push(['Calendar', calendar.name]);
  if (a.responsible.length > 0) rows.push(['Responsible', a.responsible.join(', ')]);
  return rows;
}

/** Where a date comes from that nobody stated; in a plan as computed that goes without saying. */
function cameFrom(plan: Plan, from: number): string {
  if (from === EXPECTED) return ', expected';
  if (from === AS_PROMISED) return ', as promised';
  return from === COMPUTED && plan.source === 'given' ? ', computed' : '';
}

/** Not known where all that is known is done, and more is to come. */
const percentTold = (percent: number): string => (Number.isNaN(percent) ? 'not known' : `${wholePercent(percent)} %`);

/** What a float is counted to, and what it means. */
function floatNote(s: Held['schedule'], i: number): string {
  const float = floatOf(s, i);
  if (!float) return '';
  if (float.critical) return ', critical';
  if (float.last) return ', the last thing of the plan';
  return float.to === 'end' ? ', to the end of the plan: nothing follows' : '';
}

/** The size of a lag in the time that it is counted in. */
function lagWords(held: Held, { lag, lagCalendar, from, to }: Link): string {
  const { plan, schedule: s } = held;
  const counted = lagCalendar === 'plan' ? undefined : s.outline.indexOf.get(lagCalendar === 'predecessor' ? from : to);
  const calendar = calendarOf(held.plan, counted === undefined ? null : plan.activities[counted]!.calendar);
  return lengthWords(Math.abs(lag), lagCalendar === 'elapsed' ? 'elapsedDay' : 'day', calendar);
}
