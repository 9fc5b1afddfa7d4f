import {
  type Activity,
  dayOf,
  finishDayOf,
  isMilestone,
  isoDate,
  MINUTES_PER_DAY,
  type Plan,
  NONE,
  schedulePlan,
} from '@clembo/core';
import ICAL from 'ical.js';

/**
 * A plan as a calendar (RFC 5545): activities and groups as events, milestones as to-dos that are due on their day,
 * with what holds what, categories, people and notes. What has no date is not in it.
 *
 * @param written milliseconds since 1970: when the file is said to be written
 */
export function writePlanCalendar(plan: Plan, written: number): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.addPropertyWithValue('version', '2.0');
  calendar.addPropertyWithValue('prodid', '-//Clembo//Plan//EN');
  calendar.addPropertyWithValue('x-wr-calname', plan.name);
  const stamp = ICAL.Time.fromJSDate(new Date(written), true);
  const spans = spansOf(plan);
  for (const a of plan.activities) {
    const entry = entryOf(a, spans.get(a.ref)!, plan);
    if (!entry) continue;
    entry.addPropertyWithValue('uid', a.ref);
    entry.addPropertyWithValue('dtstamp', stamp);
    entry.addPropertyWithValue('summary', a.name || a.ref);
    if (a.parent !== null && (spans.get(a.parent)?.start ?? null) !== null)
      entry.addPropertyWithValue('related-to', a.parent);
    const codes = plan.codeFields.flatMap((f) => {
      const code = a.codes[f.id];
      return code === undefined ? [] : [f.values.find((v) => v.code === code)?.title ?? code];
    });
    if (codes.length > 0) {
      const categories = new ICAL.Property('categories');
      categories.setValues(codes);
      entry.addProperty(categories);
    }
    for (const person of a.responsible) {
      const attendee = new ICAL.Property('attendee');
      attendee.setParameter('cn', person.replace(/["\r\n]/g, ' '));
      attendee.setValue('mailto:nobody@localhost.invalid');
      entry.addProperty(attendee);
    }
    const notes = [
      a.said ? `Dates as said: ${[...new Set([a.said.start, a.said.finish].filter(Boolean))].join(' – ')}` : '',
      a.notes,
    ]
      .filter((n) => n !== '')
      .join('\n');
    if (notes !== '') entry.addPropertyWithValue('description', notes);
    calendar.addSubcomponent(entry);
  }
  return `${calendar.toString()}\r\n`;
}

interface Dates {
  start: number | null;
  finish: number | null;
  atFinish: boolean;
}

/** Start and finish of every activity as the plan shows them; those of a group are the first and the last of what it holds. */
function spansOf(plan: Plan): Map<string, Dates> {
  const s = schedulePlan(plan);
  return new Map(
    plan.activities.map((a, i) => [
      a.ref,
      s.start[i] === NONE
        ? { start: null, finish: null, atFinish: true }
        : { start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 },
    ]),
  );
}

function entryOf(a: Activity, { start, finish, atFinish }: Dates, plan: Plan): ICAL.Component | null {
  if (start === null || finish === null) return null;
  if (isMilestone(a.kind)) {
    const todo = new ICAL.Component('vtodo');
    const moment = atFinish ? finish : start;
    todo.addPropertyWithValue(
      'due',
      plan.inHours ? timeOf(moment) : ICAL.Time.fromDateString(isoDate(atFinish ? finishDayOf(moment) : dayOf(moment))),
    );
    if (a.percent !== null) todo.addPropertyWithValue('percent-complete', Math.round(a.percent));
    if (a.actualFinish !== null || a.actualStart !== null) todo.addPropertyWithValue('status', 'COMPLETED');
    return todo;
  }
  const event = new ICAL.Component('vevent');
  if (plan.inHours) {
    event.addPropertyWithValue('dtstart', timeOf(start));
    event.addPropertyWithValue('dtend', timeOf(finish));
  } else {
    event.addPropertyWithValue('dtstart', ICAL.Time.fromDateString(isoDate(dayOf(start))));
    // The end of an all-day event is the day after its last.
    event.addPropertyWithValue('dtend', ICAL.Time.fromDateString(isoDate(finishDayOf(finish) + 1)));
  }
  return event;
}

/** A moment of the clock, in no zone. */
function timeOf(moment: number): ICAL.Time {
  const day = Math.floor(moment / MINUTES_PER_DAY);
  const minute = moment - day * MINUTES_PER_DAY;
  const two = (n: number) => String(n).padStart(2, '0');
  return ICAL.Time.fromDateTimeString(`${isoDate(day)}T${two(Math.floor(minute / 60))}:${two(minute % 60)}:00`);
}
