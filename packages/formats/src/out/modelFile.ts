import {
  type Activity,
  type CalendarSpec,
  identifierOf,
  isMilestone,
  isoDate,
  type Link,
  MINUTES_PER_DAY,
  type Plan,
  ROUND_THE_CLOCK,
} from '@clembo/core';
import { globalId, stepFile, stepReal, stepText } from '../ifc/step';

/**
 * A plan as the tasks of a building model without a building (ISO 16739-1, IFC4, in the text form of ISO 10303-21):
 * tasks with their times, what they are part of, sequences with lags, working calendars; and the elements that they
 * build or remove, by the identifiers of their models, without bodies.
 *
 * @param written milliseconds since 1970: when the file is said to be written
 */
export function writePlanModel(plan: Plan, written: number): string {
  const lines: string[] = [];
  const add = (entity: string): number => {
    lines.push(`#${lines.length + 1}=${entity};`);
    return lines.length;
  };
  const id = (what: string) => stepText(globalId(`${plan.name} ${what}`));
  const unit = add('IFCSIUNIT(*,.LENGTHUNIT.,$,.METRE.)');
  const units = add(`IFCUNITASSIGNMENT((#${unit}))`);
  add(`IFCPROJECT(${id('project')},$,${stepText(plan.name)},$,$,$,$,$,#${units})`);
  const own = plan.calendars.find((c) => c.id === plan.calendar) ?? plan.calendars[0]!;
  const calendarOf = (a: Activity) => plan.calendars.find((c) => c.id === a.calendar) ?? own;
  const tasks = new Map<string, number>();
  const effects = new Map(plan.matches.map((m) => [m.activity, TASK_KINDS[m.effect]]));
  for (const a of plan.activities) {
    const calendar = calendarOf(a);
    const isElapsed = calendar.id === ROUND_THE_CLOCK.id;
    const completion = a.percent === null ? '$' : stepReal(a.percent / 100);
    const time = add(
      `IFCTASKTIME($,$,$,${isElapsed ? '.ELAPSEDTIME.' : '.WORKTIME.'},${a.duration === null ? '$' : stepText(isoLength(a.duration, calendar))},${moment(a.start)},${moment(a.finish, true)},$,$,$,$,$,$,$,$,$,${moment(a.actualStart)},${moment(a.actualFinish, true)},$,${completion})`,
    );
    tasks.set(
      a.ref,
      add(
        `IFCTASK(${id(`task ${a.ref}`)},$,${stepText(a.name)},${a.notes === '' ? '$' : stepText(a.notes)},$,${stepText(a.ref)},$,$,$,${isMilestone(a.kind) ? '.T.' : '.F.'},$,#${time},.${effects.get(a.ref) ?? 'NOTDEFINED'}.)`,
      ),
    );
  }
  const held = new Map<string, number[]>();
  for (const a of plan.activities)
    if (a.parent !== null && tasks.has(a.parent))
      held.set(a.parent, [...(held.get(a.parent) ?? []), tasks.get(a.ref)!]);
  for (const [parent, children] of held)
    add(
      `IFCRELNESTS(${id(`nests ${parent}`)},$,$,$,#${tasks.get(parent)},(${children.map((c) => `#${c}`).join(',')}))`,
    );
  plan.links.forEach((l, k) => {
    const [from, to] = [tasks.get(l.from), tasks.get(l.to)];
    if (from === undefined || to === undefined) return;
    const lag =
      l.lag === 0 ? '$' : `#${add(lagEntity(l, calendarOf(plan.activities.find((a) => a.ref === l.to)!), own))}`;
    add(`IFCRELSEQUENCE(${id(`link ${k}`)},$,$,$,#${from},#${to},${lag},.${SEQUENCES[l.type]}.,$)`);
  });
  const products = new Map<string, number>();
  for (const m of plan.matches) {
    const task = tasks.get(m.activity);
    if (task === undefined) continue;
    for (const ref of m.elements) {
      const known = products.get(ref) ?? add(productEntity(ref));
      products.set(ref, known);
      add(`IFCRELASSIGNSTOPRODUCT(${id(`works ${m.activity} ${m.effect} ${ref}`)},$,$,$,(#${task}),$,#${known})`);
    }
  }
  for (const calendar of plan.calendars) {
    const users = plan.activities.filter(
      (a) => calendarOf(a) === calendar && a.kind !== 'summary' && calendar.id !== ROUND_THE_CLOCK.id,
    );
    if (users.length === 0) continue;
    const times = workTimes(calendar, add);
    const control = add(
      `IFCWORKCALENDAR(${id(`calendar ${calendar.id}`)},$,${stepText(calendar.name)},$,$,${stepText(calendar.id)},(${times.map((t) => `#${t}`).join(',')}),$,.NOTDEFINED.)`,
    );
    add(
      `IFCRELASSIGNSTOCONTROL(${id(`uses ${calendar.id}`)},$,$,$,(${users.map((a) => `#${tasks.get(a.ref)}`).join(',')}),$,#${control})`,
    );
  }
  const stamp = new Date(written).toISOString().slice(0, 19);
  return stepFile(plan.name, stamp, lines);
}

const TASK_KINDS = { builds: 'CONSTRUCTION', removes: 'DEMOLITION', stands: 'OPERATION' } as const;

/** An element by its identifier: one of the standard stays what it is, any other becomes one, and stands as the tag. */
function productEntity(ref: string): string {
  const identifier = identifierOf(ref);
  const own = /^[0-3][0-9A-Za-z_$]{21}$/.test(identifier) ? identifier : globalId(ref);
  return `IFCBUILDINGELEMENTPROXY(${stepText(own)},$,$,$,$,$,$,${stepText(identifier)},$)`;
}

const SEQUENCES: Record<Link['type'], string> = {
  FS: 'FINISH_START',
  SS: 'START_START',
  FF: 'FINISH_FINISH',
  SF: 'START_FINISH',
};

function lagEntity(l: Link, successor: CalendarSpec, own: CalendarSpec): string {
  const calendar = l.lagCalendar === 'plan' ? own : successor;
  const amount =
    l.lagCalendar === 'elapsed' ? isoLength(Math.abs(l.lag), ROUND_THE_CLOCK) : isoLength(Math.abs(l.lag), calendar);
  const duration = `${l.lag < 0 ? '-' : ''}${amount}`;
  return `IFCLAGTIME($,$,$,IFCDURATION(${stepText(duration)}),${l.lagCalendar === 'elapsed' ? '.ELAPSEDTIME.' : '.WORKTIME.'})`;
}

/** The working times of a week, a pattern for each set of days with the same hours. */
function workTimes(calendar: CalendarSpec, add: (entity: string) => number): number[] {
  const groups = new Map<string, number[]>();
  calendar.week.forEach((pattern, weekday) => {
    if (pattern.length > 0) {
      const key = JSON.stringify(pattern);
      groups.set(key, [...(groups.get(key) ?? []), weekday + 1]);
    }
  });
  return [...groups].map(([key, days]) => {
    const periods = (JSON.parse(key) as [number, number][]).map(([from, to]) =>
      add(`IFCTIMEPERIOD(${stepText(clock(from))},${stepText(clock(to))})`),
    );
    const pattern = add(
      `IFCRECURRENCEPATTERN(.WEEKLY.,$,(${days.join(',')}),$,$,$,$,(${periods.map((p) => `#${p}`).join(',')}))`,
    );
    return add(`IFCWORKTIME('Week',$,$,#${pattern},$,$)`);
  });
}

const clock = (minute: number): string =>
  `${String(Math.floor(Math.min(minute, 1439) / 60)).padStart(2, '0')}:${String(Math.min(minute, 1439) % 60).padStart(2, '0')}:00`;

/** A length in days of its calendar where it is whole, else in hours and minutes (ISO 8601). */
function isoLength(minutes: number, calendar: CalendarSpec): string {
  if (minutes % calendar.minutesPerDay === 0) return `P${minutes / calendar.minutesPerDay}D`;
  const [h, m] = [Math.floor(minutes / 60), minutes % 60];
  return `PT${h > 0 ? `${h}H` : ''}${m > 0 ? `${m}M` : ''}`;
}

/** A moment as IFC writes it (ISO 8601); the end of a day is its 24th hour. */
function moment(value: number | null, isEnd = false): string {
  if (value === null) return '$';
  const day = Math.floor(value / MINUTES_PER_DAY);
  const minute = value - day * MINUTES_PER_DAY;
  if (isEnd && minute === 0) return stepText(`${isoDate(day - 1)}T24:00:00`);
  return stepText(`${isoDate(day)}T${clock(minute)}`);
}
