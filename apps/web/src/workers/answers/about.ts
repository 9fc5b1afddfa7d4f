import {
  codeFieldId,
  type Command,
  drivingPath,
  isMilestone,
  NONE,
  neededBy,
  type Plan,
  type Schedule,
  finishDayOf,
  dayOf,
  selectFields,
  shownDays,
  activityTime,
  wholePercent,
} from '@clembo/core';
import { editorOf } from '@clembo/formats/typed';
import { formatDay } from '@clembo/scene/dates';
import { bandTone, cellReader, type Tone } from './ledger';
import type { Held } from './held';

/** One field of what is chosen, as the margin shows and takes it. */
export interface AboutField {
  id: string;
  name: string;
  /** What all have, or an empty text where they differ. */
  text: string;
  differs: boolean;
  /** Whether it can be typed into. */
  open: boolean;
  /** How far off it is. */
  tone: Tone;
}

/** Somebody's last moment for a fixed date to hold. */
export interface NeedWords {
  ref: string;
  name: string;
  words: string;
  late: boolean;
}

/** What the margin says of the activities that are chosen. */
export interface About {
  refs: number;
  ref: string;
  title: string;
  kind: string;
  fields: AboutField[];
  /** Of one activity: what leads to it without slack, from where that begins. */
  driving: { ref: string; name: string }[];
  /** Of one activity: how its constraint or its deadline stands, and a way out of each conflict. */
  conflict: { words: string; ways: { words: string; command: Command }[] } | null;
  needed: NeedWords[];
}

/** An activity as an edition had it. */
export interface EditionFacts {
  edition: string;
  words: string;
}

/** Of work along a line; not asked of plans without lines. */
const PLACED = ['line', 'placeFrom', 'placeTo', 'occupies', 'rate', 'crews', 'dailyDistance', 'quantity', 'output'];
const OF_ONE = new Set(['name', 'stretches']);
const SHOWN = [
  'name',
  'kind',
  'start',
  'finish',
  'days',
  'calendar',
  'constraint',
  'deadline',
  'percent',
  'percentTime',
  'percentEffort',
  'daysDone',
  'daysToGo',
  'actualStart',
  'actualFinish',
  'remaining',
  'stretches',
  'float',
  'promisedFinish',
  'late',
  'effortOff',
  'costOff',
  'responsible',
  'resources',
  'effort',
  'cost',
  ...PLACED,
];
const LATER = ['notes'];
const QUIET = new Set([
  'percentTime',
  'percentEffort',
  'daysDone',
  'daysToGo',
  'promisedFinish',
  'late',
  'effortOff',
  'costOff',
  'dailyDistance',
]);

/** What is known of the activities that are chosen, field by field: one text where all have the same. */
export function aboutOf(held: Held, refs: readonly string[]): About | null {
  const { plan, schedule: s } = held;
  const positions = refs.flatMap((ref) => s.outline.indexOf.get(ref) ?? []);
  const [first] = positions;
  if (first === undefined) return null;
  const one = positions.length === 1;
  const names = new Map(selectFields(plan).map((f) => [f.id, f.name]));
  const groupsOnly = positions.every((i) => s.outline.isSummary[i]);
  const pointsOnly = positions.every((i) => isMilestone(plan.activities[i]!.kind));
  const ids = [...SHOWN, ...plan.codeFields.map((f) => codeFieldId(f.id)), ...LATER].filter(
    (id) =>
      (one || !OF_ONE.has(id)) &&
      (plan.lines.length > 0 || !PLACED.includes(id)) &&
      (!pointsOnly || !['days', 'remaining', 'stretches', 'effort', 'percent', 'start'].includes(id)) &&
      (!groupsOnly ||
        ![
          'kind',
          'calendar',
          'constraint',
          'deadline',
          'remaining',
          'stretches',
          'actualStart',
          'actualFinish',
          'resources',
        ].includes(id)),
  );
  const a = plan.activities[first]!;
  return {
    refs: positions.length,
    ref: a.ref,
    title: one ? a.name || a.ref : `${positions.length} activities`,
    kind: kindWords(held, positions),
    fields: ids.flatMap((id) => {
      const read = cellReader(held, id);
      const texts = new Set<string>();
      for (const i of positions) {
        texts.add(read(i));
        if (texts.size > 1) break;
      }
      // What is worked out and does not apply is no news.
      if (QUIET.has(id) && texts.size === 1 && texts.has('')) return [];
      return {
        id,
        name: id === 'finish' && pointsOnly ? 'date' : (names.get(id) ?? id),
        text: texts.size === 1 ? [...texts][0]! : '',
        differs: texts.size > 1,
        open: editorOf(id, groupsOnly) !== null,
        tone: one ? bandTone(held, id, first) : '',
      };
    }),
    driving: one && !s.outline.isSummary[first] ? named(plan, drivingPath(s, first).slice(0, -1)) : [],
    conflict: one ? conflictOf(held, first) : null,
    needed: one ? neededWords(held, first) : [],
  };
}

const named = (plan: Plan, positions: number[]) =>
  positions.map((i) => ({ ref: plan.activities[i]!.ref, name: plan.activities[i]!.name || plan.activities[i]!.ref }));

function kindWords({ plan, schedule: s }: Held, positions: readonly number[]): string {
  const words = new Set(
    positions.map((i) => {
      if (s.outline.isSummary[i]) return 'group of activities';
      const { kind } = plan.activities[i]!;
      return isMilestone(kind) ? 'milestone' : kind === 'levelOfEffort' ? 'supporting work' : 'activity';
    }),
  );
  return words.size === 1 ? [...words][0]! : 'of several kinds';
}

const days = (n: number): string => `${n} working ${n === 1 ? 'day' : 'days'}`;

/** By how much what leads to a bound date arrives too late, and what would resolve it. */
function conflictOf(held: Held, i: number): About['conflict'] {
  const { plan, schedule: s } = held;
  const a = plan.activities[i]!;
  if (s.outline.isSummary[i] || s.finish[i] === NONE) return null;
  const time = activityTime(plan, s);
  const size = (minutes: number) => Math.ceil(minutes / time.minutesPerDay(i));
  const change = (words: string, part: Extract<Command, { do: 'changeActivity' }>['part']) => ({
    words,
    command: { do: 'changeActivity' as const, ref: a.ref, part },
  });
  const bound =
    a.constraint && ['startNotLater', 'finishNotLater', 'fixedStart', 'fixedFinish'].includes(a.constraint.kind);
  if (bound && s.totalFloat[i]! < 0 && s.totalFloat[i] !== NONE) {
    const by = size(-s.totalFloat[i]!);
    const lead = drivingPath(s, i).filter(
      (k) => plan.activities[k]!.duration !== null && k !== i && !isMilestone(plan.activities[k]!.kind),
    );
    const longest = lead.sort((x, y) => plan.activities[y]!.duration! - plan.activities[x]!.duration!)[0];
    const short = longest === undefined ? null : plan.activities[longest]!;
    const per = longest === undefined ? 1 : time.minutesPerDay(longest);
    return {
      words: `What leads to it arrives ${days(by)} too late for its date.`,
      ways: [
        change('Let the date go', { constraint: null }),
        ...(a.constraint!.kind === 'fixedStart' || a.constraint!.kind === 'fixedFinish'
          ? [
              change('Hold it from this date on only', {
                constraint: {
                  kind: a.constraint!.kind === 'fixedStart' ? 'startNotEarlier' : 'finishNotEarlier',
                  moment: a.constraint!.moment,
                },
              }),
            ]
          : []),
        ...(short && short.duration! > by * per
          ? [
              {
                words: `Shorten ${short.name || short.ref} by ${days(by)}`,
                command: {
                  do: 'changeActivity' as const,
                  ref: short.ref,
                  part: { duration: short.duration! - by * per },
                },
              },
            ]
          : []),
      ],
    };
  }
  if (a.deadline !== null && s.finish[i] !== NONE && s.finish[i]! > a.deadline) {
    const by = size(time.minutesBetween(i, a.deadline, s.finish[i]!));
    return {
      words: `It ends ${days(by)} behind its deadline.`,
      ways: [
        change('Let the deadline go', { deadline: null }),
        change(`Set the deadline to ${formatDay(finishDayOf(s.finish[i]!), 'medium')}`, { deadline: s.finish[i]! }),
      ],
    };
  }
  return null;
}

/** For what is fixed: the last moment of each predecessor, and whether that holds. */
function neededWords({ plan, schedule: s }: Held, i: number): NeedWords[] {
  return neededBy(plan, s, i).map(({ position, moment, ofStart }) => {
    const { ref, name } = plan.activities[position]!;
    const at = ofStart ? s.start[position]! : s.finish[position]!;
    const day = ofStart ? dayOf(moment) : finishDayOf(moment);
    const late = at !== NONE && at > moment;
    const by = late ? Math.ceil(activityTime(plan, s).daysBetween(position, moment, at)) : 0;
    return {
      ref,
      name: name || ref,
      words: `${ofStart ? 'start needed by' : 'needed by'} ${formatDay(day, 'weekday')}${late ? `, ${days(by)} too late` : ''}`,
      late,
    };
  });
}

/** An activity as a kept edition had it; null where the edition does not have it. */
export function editionWords(plan: Plan, s: Schedule, ref: string): string | null {
  const i = s.outline.indexOf.get(ref);
  if (i === undefined) return null;
  const shown = shownDays(s, i);
  if (!shown) return 'no dates';
  const { kind, percent } = plan.activities[i]!;
  const span = isMilestone(kind)
    ? formatDay(shown.last, 'medium')
    : `${formatDay(shown.first, 'medium')} to ${formatDay(shown.last, 'medium')}`;
  return percent ? `${span}, ${wholePercent(percent)} %` : span;
}
