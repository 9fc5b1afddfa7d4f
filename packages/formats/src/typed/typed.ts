import { daysOfPlan, typedDay } from './typedDay';
import {
  type Activity,
  calendarOf,
  codeOfFieldId,
  type Command,
  datedOn,
  dayOf,
  endOfDay,
  isMilestone,
  lagCalendarOf,
  lagMinutesPerDay,
  type Link,
  makeLink,
  paused,
  type Plan,
  readPlace,
  type Schedule,
  shownDays,
  startOfDay,
  stretchedOver,
  workingTimeOf,
  ROUND_THE_CLOCK,
} from '@clembo/core';
import { readDuration, readNumber, readPercent, saysNothing, toMinutes } from '../values/amounts';
import { readPredecessors } from '../values/predecessors';
import { assignmentWords, readAssignments, readConstraint, readSpan, readStretches } from './readings';

/** What came of something typed: a command, nothing to do, or why it cannot be used. */
export type Typed = { command: Command | null } | { error: string };

/** How a cell is written into. */
export type CellEditor =
  | 'text'
  | 'day'
  | 'length'
  | 'number'
  | 'percent'
  | 'money'
  | 'people'
  | 'links'
  | 'one'
  | 'code';

type Part = Partial<Omit<Activity, 'ref'>>;

interface Cell {
  plan: Plan;
  s: Schedule;
  a: Activity;
  at: number;
  text: string;
}

interface Field {
  editor: CellEditor;
  /** What it is, its unit, and how it comes about. */
  about: string;
  /** Whether a group may be written into. */
  ofGroups?: boolean;
  write: (cell: Cell) => Typed;
}

const part = ({ a }: Cell, changed: Part): Typed => {
  const differs = Object.entries(changed).some(
    ([key, value]) => JSON.stringify(a[key as keyof Activity]) !== JSON.stringify(value),
  );
  return { command: differs ? { do: 'changeActivity', ref: a.ref, part: changed } : null };
};
const wrong = (error: string): Typed => ({ error });

/** A day as it is typed: in any notation, day before month where it leaves that open. Undefined where it is none. */
function dayIn(cell: Cell): number | null | undefined {
  const { text } = cell;
  return text === '' || saysNothing(text) ? null : (readDayOf(cell)(text) ?? undefined);
}

/** Reads days as they are typed for a cell's activity; null for what is none, or could be several. */
const readDayOf =
  ({ plan, at, s }: Pick<Cell, 'plan' | 'at' | 's'>) =>
  (text: string): number | null =>
    typedDay(text, shownDays(s, at)?.first ?? null, () => daysOfPlan(plan, s));

const NO_DAY = (text: string) => `“${text}” is no day. Type it as in 14 Sep 2026 or 2026-09-14.`;

const ownCalendar = ({ plan, a }: Pick<Cell, 'plan' | 'a'>) => calendarOf(plan, a.calendar);

/** The working minutes that are typed; undefined where they are none. */
function lengthIn(cell: Cell): number | null | undefined {
  if (cell.text === '') return null;
  const read = readDuration(cell.text, { unit: 'day', m: 'minute' });
  if (!read || read.amount < 0) return undefined;
  const minutes = toMinutes(read, ownCalendar(cell));
  return minutes <= 105_000_000 ? minutes : undefined;
}

function numberOr(cell: Cell, least: number, use: (value: number | null) => Part): Typed {
  if (cell.text === '') return part(cell, use(null));
  const value = readNumber(cell.text.replace(/[€$£%]|h(?:ours?)?$/gi, '').trim(), null, 'decimal');
  if (value === null || value < least)
    return wrong(`“${cell.text}” is no number${least > Number.NEGATIVE_INFINITY ? ` from ${least} up` : ''}.`);
  return part(cell, use(value));
}

const EFFORT_UNITS: [unit: RegExp, minutes: (plan: Plan) => number][] = [
  [/\s*(?:h|hrs?|hours?)$/i, () => 60],
  [/\s*(?:pd|person[- ]?days?)$/i, ({ effortDay }) => effortDay ?? 480],
];

/** Effort with its unit, or in the one that the plan tells it in. */
function effortOr(cell: Cell, use: (minutes: number | null) => Part): Typed {
  const unit = EFFORT_UNITS.find(([pattern]) => pattern.test(cell.text));
  const minutes = unit ? unit[1](cell.plan) : (cell.plan.effortDay ?? 60);
  const text = unit ? cell.text.replace(unit[0], '') : cell.text;
  const typed = numberOr({ ...cell, text }, 0, (v) => use(v === null ? null : Math.round(v * minutes * 1000) / 1000));
  return 'error' in typed ? wrong(`“${cell.text}” is no effort. Type hours, or 3 person-days.`) : typed;
}

/** The line that a cell's activity is on: its own, or the first. */
const lineOf = ({ plan, a }: Pick<Cell, 'plan' | 'a'>) =>
  a.line === null ? plan.lines[0] : plan.lines.find((l) => l.id === a.line);

function writePlace(cell: Cell, end: 'from' | 'to'): Typed {
  if (cell.text === '') return part(cell, { [end]: null });
  const place = readPlace(cell.text, lineOf(cell)?.unit ?? '');
  return place === null
    ? wrong(`“${cell.text}” is no place. Type a number in the unit of its line, or 12+350.`)
    : part(cell, { [end]: place });
}

function writeLine(cell: Cell): Typed {
  if (cell.text === '') return part(cell, { line: null });
  const wanted = cell.text.toLowerCase();
  const found = cell.plan.lines.find((l) => l.name.toLowerCase() === wanted || l.id.toLowerCase() === wanted);
  return found
    ? part(cell, { line: found.id })
    : wrong(`There is no line “${cell.text}”. Lines are described under Structure, Lines.`);
}

/** Where dates are computed, a typed start holds the activity back; where they are stated, it moves with its length. */
function writeStart(cell: Cell): Typed {
  const { plan, s, a, at } = cell;
  const day = dayIn(cell);
  if (day === undefined) return wrong(NO_DAY(cell.text));
  if (plan.source === 'computed')
    return day === null
      ? part(cell, { constraint: a.constraint?.kind === 'startNotEarlier' ? null : a.constraint })
      : part(cell, { constraint: { kind: 'startNotEarlier', moment: startOfDay(day) } });
  if (day === null) return part(cell, { start: null, said: null });
  if (isMilestone(a.kind)) return part(cell, datedOn(plan, a, day, day));
  const shown = shownDays(s, at);
  const time = workingTimeOf(ownCalendar(cell), 'day', day);
  const length = shown
    ? time.between(shown.first, shown.last + 1)
    : a.duration === null
      ? 0
      : Math.round(a.duration / time.spec.minutesPerDay);
  const first = time.firstStart(day);
  if (length < 1) return part(cell, { start: startOfDay(first), said: null });
  return part(cell, datedOn(plan, a, first, time.finishOf(first, length) - 1));
}

/** A typed finish changes the length. */
function writeFinish(cell: Cell): Typed {
  const { plan, s, a, at } = cell;
  const day = dayIn(cell);
  if (day === undefined) return wrong(NO_DAY(cell.text));
  if (isMilestone(a.kind))
    return plan.source === 'computed'
      ? writeStart(cell)
      : day === null
        ? part(cell, { start: null, finish: null, said: null })
        : part(cell, datedOn(plan, a, day, day));
  if (day === null) return plan.source === 'computed' ? { command: null } : part(cell, { finish: null, said: null });
  const shown = shownDays(s, at);
  if (!shown)
    return plan.source === 'computed'
      ? wrong('It has no start yet to end from; type its length.')
      : part(cell, { finish: endOfDay(day), said: null });
  if (day < shown.first) return wrong(`That is before its start.`);
  const dated = datedOn(plan, a, shown.first, day);
  return part(cell, plan.source === 'computed' ? { duration: dated.duration! } : dated);
}

function writeDays(cell: Cell): Typed {
  const { plan, s, a, at } = cell;
  const minutes = lengthIn(cell);
  if (minutes === undefined)
    return wrong(`“${cell.text}” is no length. Type working days, or a unit: 3, 2 weeks, 16 h.`);
  const shown = shownDays(s, at);
  if (minutes !== null && minutes > 0 && isElapsed(cell.text)) return writeElapsed(cell, minutes);
  if (minutes === 0 && a.kind === 'activity') {
    const kind = plan.links.some((l) => l.to === a.ref) ? 'finishMilestone' : 'startMilestone';
    const on = plan.source === 'given' && shown ? datedOn(plan, { ...a, kind }, shown.first, shown.first) : {};
    return part(cell, { ...on, kind, duration: 0 });
  }
  if (minutes === null || isMilestone(a.kind) || plan.source === 'computed') return part(cell, { duration: minutes });
  const time = workingTimeOf(ownCalendar(cell), 'day', shown?.first ?? 0);
  const days = Math.ceil(minutes / time.spec.minutesPerDay);
  if (!shown || days < 1) return part(cell, { duration: minutes });
  const { start, finish } = datedOn(plan, a, shown.first, time.finishOf(time.firstStart(shown.first), days) - 1);
  return part(cell, { start, finish, duration: minutes, said: null });
}

/** Days of the calendar go on by night and on days off: the row gets a calendar that does, as a file would give it. */
function writeElapsed(cell: Cell, minutes: number): Typed {
  const { plan, s, a, at } = cell;
  const held = plan.calendars.some((c) => c.id === ROUND_THE_CLOCK.id);
  const calendars = held ? plan.calendars : [...plan.calendars, ROUND_THE_CLOCK];
  const shown = shownDays(s, at);
  const days = Math.ceil(minutes / ROUND_THE_CLOCK.minutesPerDay);
  const dates =
    plan.source === 'given' && shown && !isMilestone(a.kind)
      ? { start: startOfDay(shown.first), finish: endOfDay(shown.first + days - 1), said: null }
      : {};
  const changed = part(cell, { duration: minutes, calendar: ROUND_THE_CLOCK.id, ...dates });
  if ('error' in changed || changed.command === null || held) return changed;
  return { command: { do: 'all', commands: [{ do: 'setPlan', settings: { calendars } }, changed.command] } };
}

const day =
  (use: (day: number | null) => Part) =>
  (cell: Cell): Typed => {
    const read = dayIn(cell);
    return read === undefined ? wrong(NO_DAY(cell.text)) : part(cell, use(read));
  };

const KINDS: [word: string, kind: Activity['kind']][] = [
  ['activity', 'activity'],
  ['milestone', 'finishMilestone'],
  ['start milestone', 'startMilestone'],
  ['finish milestone', 'finishMilestone'],
  ['supporting work', 'levelOfEffort'],
  ['level of effort', 'levelOfEffort'],
];

function writeKind(cell: Cell): Typed {
  const kind = KINDS.find(([word]) => word === cell.text.toLowerCase())?.[1];
  if (!kind) return wrong(`“${cell.text}” is no kind. Type activity, milestone or supporting work.`);
  if (kind === cell.a.kind) return { command: null };
  const { a, plan } = cell;
  // A milestone keeps the length that it had as an activity: it gets it back.
  if (isMilestone(kind) && (a.duration ?? 0) > 0) return part(cell, { kind });
  if (kind === 'activity' && isMilestone(a.kind) && (a.duration ?? 0) > 0) return part(cell, { kind });
  const shown = shownDays(cell.s, cell.at);
  const dates =
    shown && plan.source === 'given'
      ? datedOn(plan, { ...a, kind }, kind === 'finishMilestone' ? shown.last : shown.first, shown.last)
      : {};
  return part(cell, { kind, ...dates, ...(isMilestone(kind) && { duration: 0 }) });
}

function writeCalendar(cell: Cell): Typed {
  const { plan, text } = cell;
  if (text === '') return part(cell, { calendar: null });
  const found = plan.calendars.find((c) => c.name.toLowerCase() === text.toLowerCase() || c.id === text);
  if (!found)
    return wrong(`There is no calendar “${text}”. There are: ${plan.calendars.map((c) => c.name).join(', ')}.`);
  return part(cell, { calendar: found.id === plan.calendar ? null : found.id });
}

/** References with type and lag, at the end of the links that is not the activity's own. */
const links =
  (other: 'from' | 'to') =>
  (cell: Cell): Typed => {
    const { plan, s, a, text } = cell;
    const own = other === 'from' ? 'to' : 'from';
    const { read, wrong: unread, more } = readPredecessors(text, (ref) => s.outline.indexOf.has(ref));
    if (unread.length > 0)
      return wrong(
        `There is no activity ${unread.map((u) => `“${u}”`).join(', ')}. Type references, as in A12, A12 SS+2d.`,
      );
    if (more) return wrong('That are more links than one activity may have.');
    if (read.some((r) => r.ref === a.ref)) return wrong('An activity is not linked to itself.');
    const before = plan.links.filter((l) => l[own] === a.ref);
    const wanted = read.map(({ ref, type, lag }): Link => {
      const known = before.find((l) => l[other] === ref && l.type === type);
      const ends = other === 'from' ? { from: ref, to: a.ref } : { from: a.ref, to: ref };
      const counted = { ...ends, lagCalendar: known?.lagCalendar ?? ('successor' as const) };
      const minutes = lag === null ? 0 : toMinutes(lag, lagCalendarOf(plan, counted) ?? ownCalendar(cell));
      return makeLink({
        from: a.ref,
        to: a.ref,
        [other]: ref,
        type,
        lag: minutes,
        lagCalendar: lag?.elapsed ? 'elapsed' : (known?.lagCalendar ?? 'successor'),
      });
    });
    const key = (l: Link) => JSON.stringify([l.from, l.to, l.type, l.lag, l.lagCalendar]);
    const keep = new Set(wanted.map(key));
    const there = new Set(before.map(key));
    const commands: Command[] = [
      ...before.filter((l) => !keep.has(key(l))).map((link): Command => ({ do: 'removeLink', link })),
      ...[...new Map(wanted.map((l) => [key(l), l])).values()]
        .filter((l) => !there.has(key(l)))
        .map((link): Command => ({ do: 'addLink', link })),
    ];
    return { command: commands.length === 0 ? null : { do: 'all', commands } };
  };

function writeConstraint(cell: Cell): Typed {
  const read = readConstraint(cell.text, cell.a.kind, readDayOf(cell));
  return 'error' in read ? wrong(read.error) : part(cell, { constraint: read.value });
}

/** Stretches as they are typed, or a pause in what there is: “pause 10 Mar to 14 Mar”. */
function writeStretches(cell: Cell): Typed {
  const pause = /^pause\s+(?:from\s+)?/i.exec(cell.text);
  if (pause) {
    const span = readSpan(cell.text.slice(pause[0].length), readDayOf(cell));
    if (!span) return wrong(`“${cell.text}” names no days. Type it as in pause 10 Mar to 14 Mar.`);
    const interrupted = paused(cell.plan, cell.s, cell.at, ...span);
    return interrupted ? part(cell, interrupted) : wrong('The pause does not lie within its work.');
  }
  const read = readStretches(cell.text, cell.a, readDayOf(cell));
  if ('error' in read) return wrong(read.error);
  if (read.value.length < 2) return part(cell, { stretches: [] });
  const time = workingTimeOf(ownCalendar(cell), 'day', dayOf(read.value[0]!.start));
  return part(
    cell,
    stretchedOver(read.value, time.spec.minutesPerDay, (from, end) => time.between(from, end)),
  );
}

function writeAssignments(cell: Cell): Typed {
  const read = readAssignments(cell.text, cell.a, cell.plan, ownCalendar(cell));
  return 'error' in read ? wrong(read.error) : part(cell, { assignments: read.value });
}

const text =
  (most: number, use: (text: string) => Part) =>
  (cell: Cell): Typed =>
    cell.text.length > most ? wrong(`That is longer than ${most} characters.`) : part(cell, use(cell.text));

const GIVEN = 'Where dates are computed, a typed one holds the activity back; where they are given, it moves.';

/** What can be typed into the cells of each field. Fields that are not here are worked out. */
const FIELDS: Record<string, Field> = {
  name: {
    editor: 'text',
    ofGroups: true,
    about: 'What the activity is called.',
    write: text(1000, (name) => ({ name })),
  },
  notes: {
    editor: 'text',
    ofGroups: true,
    about: 'Anything to be remembered.',
    write: text(10_000, (notes) => ({ notes })),
  },
  start: { editor: 'day', about: `The first day of work. ${GIVEN}`, write: writeStart },
  finish: { editor: 'day', about: 'The last day of work. A typed one changes the length.', write: writeFinish },
  days: {
    editor: 'length',
    about: 'Length in working days of the activity’s own calendar; units may be typed: 2 weeks, 16 h.',
    write: writeDays,
  },
  remaining: {
    editor: 'length',
    about: 'Working days still to be done, as reported.',
    write: (cell) => {
      const minutes = lengthIn(cell);
      return minutes === undefined ? wrong(`“${cell.text}” is no length.`) : part(cell, { remaining: minutes });
    },
  },
  percent: {
    editor: 'percent',
    about: 'Percent complete as reported, 0 to 100.',
    write: (cell) => {
      if (cell.text === '') return part(cell, { percent: null });
      const percent = readPercent(cell.text, 'percent');
      return percent === null || percent < 0 || percent > 100
        ? wrong(`“${cell.text}” is no percentage from 0 to 100.`)
        : part(cell, { percent });
    },
  },
  actualStart: {
    editor: 'day',
    about: 'The day on which work began.',
    write: day((d) => ({ actualStart: d === null ? null : startOfDay(d) })),
  },
  actualFinish: {
    editor: 'day',
    about: 'The day on which work ended.',
    write: day((d) => ({ actualFinish: d === null ? null : endOfDay(d) })),
  },
  deadline: {
    editor: 'day',
    about: 'The last day on which it may end; it moves nothing, and a finding says when it is missed.',
    write: day((d) => ({ deadline: d === null ? null : endOfDay(d) })),
  },
  constraint: {
    editor: 'text',
    about:
      'A date that holds it: starts not before, finishes by, on, or as late as possible. It bounds computed dates.',
    write: writeConstraint,
  },
  stretches: {
    editor: 'text',
    about: 'Interrupted work: 3 Mar to 7 Mar; 17 Mar to 21 Mar. Or a pause in it: pause 10 Mar to 14 Mar.',
    write: writeStretches,
  },
  resources: {
    editor: 'people',
    about: 'Who and what works on it, with effort: Crane crew 40 h, Divers 2 days.',
    write: writeAssignments,
  },
  predecessors: {
    editor: 'links',
    ofGroups: true,
    about: 'What it comes after: references, with type and lag if any (A12, A12 SS+2d).',
    write: links('from'),
  },
  successors: {
    editor: 'links',
    ofGroups: true,
    about: 'What it leads to: references, with type and lag if any.',
    write: links('to'),
  },
  kind: {
    editor: 'one',
    about:
      'Activity, milestone, or supporting work, which spans from the start of one to the finish of another (A12 SS, B30 FF).',
    write: writeKind,
  },
  calendar: { editor: 'one', about: 'The calendar that its working days are counted by.', write: writeCalendar },
  responsible: {
    editor: 'people',
    about: 'Who does it; several with commas.',
    ofGroups: true,
    write: (cell) =>
      part(cell, {
        responsible: cell.text
          .split(/\s*[,;]\s*/)
          .filter(Boolean)
          .slice(0, 50),
      }),
  },
  effort: {
    editor: 'number',
    about: 'Budgeted effort, in hours or in person-days as the plan tells it. It is not the length.',
    write: (cell) => effortOr(cell, (effort) => ({ effort })),
  },
  actualEffort: {
    editor: 'number',
    about: 'Effort so far, in hours or in person-days as the plan tells it.',
    write: (cell) => effortOr(cell, (actualEffort) => ({ actualEffort })),
  },
  cost: {
    editor: 'money',
    about: 'Budgeted cost.',
    write: (cell) =>
      numberOr(cell, Number.NEGATIVE_INFINITY, (v) => ({ cost: v === null ? null : Math.round(v * 100) })),
  },
  actualCost: {
    editor: 'money',
    about: 'Cost so far.',
    write: (cell) =>
      numberOr(cell, Number.NEGATIVE_INFINITY, (v) => ({ actualCost: v === null ? null : Math.round(v * 100) })),
  },
  quantity: {
    editor: 'number',
    about: 'How much of it is to be done.',
    write: (cell) => numberOr(cell, Number.NEGATIVE_INFINITY, (v) => ({ quantity: v })),
  },
  output: {
    editor: 'number',
    about: 'How much of its quantity one crew does in a working day. With the quantity it gives the length.',
    write: (cell) => numberOr(cell, 0, (v) => ({ output: v })),
  },
  placeFrom: {
    editor: 'text',
    about: 'The place on its line at which it begins, in the unit of the line: 1200, 12+350.',
    write: (cell) => writePlace(cell, 'from'),
  },
  placeTo: {
    editor: 'text',
    about: 'The place on its line at which it ends.',
    write: (cell) => writePlace(cell, 'to'),
  },
  line: { editor: 'one', about: 'The line that its places are on.', write: writeLine },
  rate: {
    editor: 'number',
    about: 'Distance that one crew does in a working day, in the unit of the line. Empty: by its dates.',
    write: (cell) => numberOr(cell, 0, (v) => ({ rate: v })),
  },
  crews: {
    editor: 'number',
    about: 'Crews that share the work along the line.',
    write: (cell) => numberOr(cell, 0, (v) => ({ crews: v })),
  },
  occupies: {
    editor: 'text',
    about: 'Yes, where it holds its whole stretch of the line for as long as it lasts.',
    write: (cell) => {
      const yes = /^(y|yes|x|1|true|ja|oui|sí|si)$/i.test(cell.text);
      if (!yes && !/^(|n|no|0|false|nein|non)$/i.test(cell.text)) return wrong(`Type yes or no, not “${cell.text}”.`);
      return part(cell, { occupies: yes });
    },
  },
};

const WORKED_OUT: Record<string, string> = {
  ref: 'The reference by which it is known at its source; it never changes.',
  float: 'Working days by which it can slip before the end of the plan does. Worked out.',
  dailyDistance: 'Distance that it does in a working day with all its crews, by its rate or by its dates. Worked out.',
  free: 'Working days by which it can slip before anything else does. Worked out.',
  critical: 'Whether its float is used up. Worked out.',
  off: 'Working days by which the computed finish lies after the given one. Worked out.',
  percentTime: 'Working time gone, of its length. Worked out.',
  percentEffort: 'Effort spent, of what it will come to. Worked out.',
  daysDone: 'Whole working days that are done of its length, by the percent that the plan shows. Worked out.',
  daysToGo: 'Working days of its length that are still to be done. Worked out.',
  promisedStart: 'Where the edition that is measured against has its start.',
  promisedFinish: 'Where the edition that is measured against has its finish.',
  late: 'Working days that its finish lies behind the promised one, in its own calendar; ahead is below nothing. Worked out.',
  effortOff: 'What its effort will come to, of the budget that was promised, in percent. Worked out.',
  costOff: 'What its cost will come to, of the budget that was promised, in percent. Worked out.',
  band: 'Ahead, within what is normal, to be watched, or far off: the worst of dates, effort and cost, by the tolerance under Measure. Worked out.',
  status: 'Not started, in progress, complete or on hold, from progress and actual dates.',
  group: 'The group of the outline that holds it.',
  level: 'How deep it lies in the outline.',
};

/** What a field is, for its heading. */
export const fieldAbout = (field: string): string =>
  FIELDS[field]?.about ??
  WORKED_OUT[field] ??
  (codeOfFieldId(field) === null ? '' : 'A code field; its book is under Gather.');

/** How a field is written into, of a group where that is asked; null where it is worked out. */
export function editorOf(field: string, ofGroup = false): CellEditor | null {
  if (codeOfFieldId(field) !== null) return 'code';
  const own = FIELDS[field];
  return own && (!ofGroup || own.ofGroups) ? own.editor : null;
}

/** What typing a text into a cell of an activity does. */
export function typedInto(plan: Plan, s: Schedule, ref: string, field: string, typed: string): Typed {
  const at = s.outline.indexOf.get(ref);
  if (at === undefined) return wrong(`There is no activity ${ref} in the plan (any more).`);
  const a = plan.activities[at]!;
  const code = codeOfFieldId(field);
  if (code !== null) return writeCode(plan, a, code, typed.trim());
  const own = FIELDS[field];
  if (!own) return wrong('This is worked out, and cannot be typed.');
  if (s.outline.isSummary[at] && !own.ofGroups) return wrong('A group has what it holds; type it there.');
  return own.write({ plan, s, a, at, text: typed.trim() });
}

/** A code by its code or its title, whichever is typed. */
function writeCode(plan: Plan, a: Activity, id: string, typed: string): Typed {
  const field = plan.codeFields.find((f) => f.id === id);
  if (!field) return wrong('This code field is not in the plan (any more).');
  const plain = typed.toLowerCase();
  const value =
    field.values.find((v) => v.code === typed) ??
    field.values.find((v) => v.code.toLowerCase() === plain || v.title.toLowerCase() === plain);
  const code = value?.code ?? typed;
  if (code.length > 300) return wrong('That is longer than 300 characters.');
  return { command: code === (a.codes[id] ?? '') ? null : { do: 'recode', field: id, codes: [[a.ref, code]] } };
}

/** A day as it would be understood, for saying so while it is typed; null where it is none. */
export const dayTyped = (plan: Plan, s: Schedule, ref: string, typed: string): number | null => {
  const at = s.outline.indexOf.get(ref);
  return at === undefined ? null : (dayIn({ plan, s, at, a: plan.activities[at]!, text: typed.trim() }) ?? null);
};

/** A length as it would be understood, in working minutes of the activity's calendar; null where it is none. */
export const lengthTyped = (plan: Plan, s: Schedule, ref: string, typed: string): number | null => {
  const at = s.outline.indexOf.get(ref);
  return at === undefined ? null : (lengthIn({ plan, s, at, a: plan.activities[at]!, text: typed.trim() }) ?? null);
};

/** Whether a length that is typed is one of the calendar, counted by night and on days off too. */
export const isElapsed = (typed: string): boolean =>
  readDuration(typed.trim(), { unit: 'day', m: 'minute' })?.elapsed ?? false;

/** The text that an editor begins with: what would be typed to have what there is. */
export function cellText(plan: Plan, s: Schedule, ref: string, field: string, shown: string): string {
  const a = plan.activities[s.outline.indexOf.get(ref) ?? -1];
  if (!a) return shown;
  if (field === 'resources') return assignmentWords(a.assignments, plan);
  if (field !== 'predecessors' && field !== 'successors') return shown;
  const other = field === 'predecessors' ? 'from' : 'to';
  const own = other === 'from' ? 'to' : 'from';
  return plan.links
    .filter((l) => l[own] === ref)
    .map((l) => {
      const per = lagMinutesPerDay(plan, l);
      const amount = Math.abs(l.lag);
      const lag =
        l.lag === 0
          ? ''
          : `${l.lag > 0 ? '+' : '-'}${amount % per === 0 ? `${amount / per}${l.lagCalendar === 'elapsed' ? ' elapsed days' : 'd'}` : `${amount} min`}`;
      return l.type === 'FS' && l.lag === 0 ? l[other] : `${l[other]} ${l.type}${lag}`;
    })
    .join(', ');
}
