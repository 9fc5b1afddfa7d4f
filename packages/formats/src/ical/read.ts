import ICAL from 'ical.js';
import { type Table, trimTable, UnreadableFile } from '../table/table';

/** Instances that are made of what comes back, at most: of one thing, and of a whole calendar. */
const MOST_OF_ONE = 1000;
const MOST = 50_000;
/** What comes back without an end is followed for so long, in days. */
const FOLLOWED = 2 * 366;

const HEADINGS = [
  'Reference',
  'Name',
  'Start',
  'Finish',
  'Milestone',
  'Percent complete',
  'Actual finish',
  'Parent ref',
  'Responsible',
  'Status',
  'Category',
  'Place',
  'Comes back',
  'Notes',
];

type Row = Partial<Record<(typeof HEADINGS)[number], string>>;

export const looksLikeCalendar = (text: string): boolean => /^\s*BEGIN:VCALENDAR\b/i.test(text.slice(0, 500));

/**
 * A calendar (RFC 5545) as a table: events and to-dos, all-day and timed, each with its times as they are written
 * there. What comes back is a row for each time: without an end, for two years. RELATED-TO says what holds what.
 *
 * @throws UnreadableFile
 */
export function readCalendarFile(text: string, source: string): Table {
  try {
    return tableOf(text, source);
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    throw unreadable(source, error);
  }
}

const unreadable = (source: string, error: unknown): UnreadableFile =>
  new UnreadableFile(
    `${source} is not a calendar that can be read (${error instanceof Error ? error.message.slice(0, 150) : 'unknown reason'}).`,
  );

function tableOf(text: string, source: string): Table {
  let components: ICAL.Component[];
  try {
    const parsed = ICAL.parse(text) as unknown[];
    const all = Array.isArray(parsed[0]) ? parsed : [parsed];
    components = all.flatMap((c) => new ICAL.Component(c as never).getAllSubcomponents());
  } catch (error) {
    throw unreadable(source, error);
  }
  const rows: Row[] = [];
  const held: [child: string, parent: string][] = [];
  for (const [uid, list] of byUid(components.filter((c) => c.name === 'vevent' || c.name === 'vtodo'))) {
    const master = list.find((c) => !c.hasProperty('recurrence-id')) ?? list[0]!;
    const others = list.filter((c) => c !== master);
    for (const p of master.getAllProperties('related-to')) {
      const other = String(p.getFirstValue());
      const kind = String(p.getParameter('reltype') ?? 'PARENT').toUpperCase();
      if (kind === 'PARENT') held.push([uid, other]);
      else if (kind === 'CHILD') held.push([other, uid]);
    }
    rows.push(...safeInstances(master, others, uid));
    if (rows.length > MOST)
      throw new UnreadableFile(`${source} holds more than ${MOST} dates; take in a part of the calendar.`);
  }
  const parent = new Map(held);
  for (const row of rows) row['Parent ref'] = parent.get(row.Reference!.split(' @ ')[0]!) ?? '';
  rows.sort((a, b) => (a.Start || a.Finish || '').localeCompare(b.Start || b.Finish || ''));
  if (rows.length === 0) throw new UnreadableFile(`${source} holds no events and no to-dos.`);
  return trimTable({
    source,
    sheet: null,
    firstRow: 1,
    rows: [[...HEADINGS], ...rows.map((row) => HEADINGS.map((h) => row[h] ?? ''))],
  });
}

function byUid(components: ICAL.Component[]): Map<string, ICAL.Component[]> {
  const found = new Map<string, ICAL.Component[]>();
  components.forEach((c, k) => {
    const uid = String(c.getFirstPropertyValue('uid') ?? `item ${k + 1}`);
    found.set(uid, [...(found.get(uid) ?? []), c]);
  });
  return found;
}

/** The value of a property; nothing where it cannot be read. */
function value(c: ICAL.Component, name: string): unknown {
  try {
    return c.getFirstPropertyValue(name);
  } catch {
    return null;
  }
}

/** A time that cannot be read, as it is written: it is listed as not read. */
function unreadTime(c: ICAL.Component, name: string): string {
  const property = c.getFirstProperty(name);
  return property && time(c, name) === null
    ? String((property.toJSON() as unknown[])[3] ?? '').slice(0, 100) || '?'
    : '';
}

const words = (c: ICAL.Component, name: string): string => String(value(c, name) ?? '').trim();
const time = (c: ICAL.Component, name: string): ICAL.Time | null => {
  const found = value(c, name);
  return found instanceof ICAL.Time ? found : null;
};

/** A time as it is written: the clock of wherever it takes place. */
const timeText = (t: ICAL.Time): string => (t.isDate ? t.toString().slice(0, 10) : t.toString().slice(0, 16));

/** The last day, or the end, of what begins at a time: a last day that is written as the day after it is put right. */
function endOf(c: ICAL.Component, start: ICAL.Time | null): ICAL.Time | null {
  const end = time(c, c.name === 'vtodo' ? 'due' : 'dtend');
  const lasts = durationOf(c);
  const found = end ?? (start && lasts ? plus(start, lasts) : null);
  // The end of an event is not part of it; the day by which a to-do is due is.
  if (found?.isDate && c.name === 'vevent' && start && found.compare(start) > 0) {
    const last = found.clone();
    last.addDuration(ICAL.Duration.fromSeconds(-86_400));
    return last;
  }
  return found;
}

/** Nothing of a calendar lasts longer than this, in seconds; the library would count it out day by day. */
const LONGEST = 200 * 366 * 86_400;

function durationOf(c: ICAL.Component): ICAL.Duration | null {
  const found = value(c, 'duration');
  return found instanceof ICAL.Duration && Math.abs(found.toSeconds()) <= LONGEST ? found : null;
}

/** What is said of an end, or of a duration in its place, that cannot be read. */
function unreadEnd(c: ICAL.Component): string {
  const end = c.name === 'vtodo' ? 'due' : 'dtend';
  if (c.hasProperty(end)) return unreadTime(c, end);
  const duration = c.getFirstProperty('duration');
  return duration && durationOf(c) === null
    ? String((duration.toJSON() as unknown[])[3] ?? '').slice(0, 100) || '?'
    : '';
}

function plus(start: ICAL.Time, duration: ICAL.Duration): ICAL.Time {
  const end = start.clone();
  end.addDuration(duration);
  return end;
}

/** What cannot be followed through time is one row. */
function safeInstances(master: ICAL.Component, others: ICAL.Component[], uid: string): Row[] {
  try {
    return instancesOf(master, others, uid);
  } catch {
    return [rowOf(master, uid)];
  }
}

const rulesOf = (c: ICAL.Component): ICAL.Recur[] =>
  c.getAllProperties('rrule').map((p) => p.getFirstValue() as ICAL.Recur);

/** Days of the steps in which something comes back. */
const STEP_DAYS: Partial<Record<string, number>> = {
  SECONDLY: 1 / 86_400,
  MINUTELY: 1 / 1440,
  HOURLY: 1 / 24,
  DAILY: 1,
  WEEKLY: 7,
  MONTHLY: 30,
  YEARLY: 365,
};
/** What comes back after four hundred years does not come back; looking for it would take as long. */
const isBoundless = (rule: ICAL.Recur): boolean => (STEP_DAYS[rule.freq] ?? 1) * rule.interval > 400 * 365;

function instancesOf(master: ICAL.Component, others: ICAL.Component[], uid: string): Row[] {
  const start = time(master, 'dtstart');
  const comesBack = master.hasProperty('rrule') || master.hasProperty('rdate');
  if (!comesBack || !start) return [master, ...others].map((c, k) => rowOf(c, k === 0 ? uid : `${uid} @ ${k + 1}`));
  if (rulesOf(master).some(isBoundless)) return [rowOf(master, uid)];
  const own = endOf(master, start);
  const length = own ? own.subtractDate(start) : null;
  const expansion = new ICAL.RecurExpansion({ component: master, dtstart: start });
  const moved = new Map(others.map((c) => [String(time(c, 'recurrence-id') ?? ''), c]));
  const isEndless = rulesOf(master).some((rule) => rule.until === null && rule.count === null);
  const rows: Row[] = [];
  for (let next = expansion.next(); next && rows.length < MOST_OF_ONE; next = expansion.next()) {
    if (isEndless && next.subtractDate(start).toSeconds() > FOLLOWED * 86_400) break;
    const ref = `${uid} @ ${timeText(next)}`;
    const other = moved.get(String(next));
    rows.push(
      other
        ? { ...rowOf(other, ref), 'Comes back': 'yes' }
        : { ...rowOf(master, ref, next, length ? plus(next, length) : null), 'Comes back': 'yes' },
    );
  }
  return rows;
}

function rowOf(c: ICAL.Component, ref: string, start = time(c, 'dtstart'), end = endOf(c, start)): Row {
  const isPoint = start !== null && (end === null ? !start.isDate : start.compare(end) === 0 && !start.isDate);
  const people = [...c.getAllProperties('attendee'), ...c.getAllProperties('organizer')].map((p) =>
    String(p.getParameter('cn') ?? String(p.getFirstValue()).replace(/^mailto:/i, '')),
  );
  const unread = unreadEnd(c);
  const completed = time(c, 'completed');
  const status = words(c, 'status').toLowerCase();
  const [first, last] =
    c.name === 'vtodo' && start === null ? [null, end] : [start, end ?? (start?.isDate ? start : null)];
  return {
    Reference: ref,
    Name: words(c, 'summary'),
    Start: first ? timeText(first) : unreadTime(c, 'dtstart'),
    Finish: unread || (last && !isPoint ? timeText(last) : ''),
    Milestone: (isPoint && unread === '') || (c.name === 'vtodo' && start === null) ? 'yes' : 'no',
    'Percent complete': c.hasProperty('percent-complete')
      ? `${words(c, 'percent-complete')}%`
      : status === 'completed'
        ? '100%'
        : '',
    'Actual finish': completed ? timeText(completed) : '',
    Responsible: [...new Set(people)].join('; '),
    Status: status,
    Category: c
      .getAllProperties('categories')
      .flatMap((p) => p.getValues().map(String))
      .join(', '),
    Place: words(c, 'location'),
    Notes: words(c, 'description'),
  };
}
