import {
  type Activity,
  type CalendarSpec,
  dayOf,
  finishDayOf,
  lengthWords,
  type SourceChange,
  type SourceFieldChange,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';

/** What the words of a changes list need of the plan. */
export interface ChangesPlan {
  inHours: boolean;
  calendars: CalendarSpec[];
  calendar: string;
  codeFields: { id: string; name: string }[];
}

/** Kinds of change in the order in which they are read, each with its heading. */
export const KINDS: [kind: SourceChange['kind'], one: string, many: string][] = [
  ['moved', 'moved', 'moved'],
  ['added', 'new', 'new'],
  ['removed', 'gone', 'gone'],
  ['progressed', 'progressed', 'progressed'],
  ['resized', 'of another length', 'of another length'],
  ['renamed', 'renamed', 'renamed'],
  ['relinked', 'linked otherwise', 'linked otherwise'],
  ['recoded', 'coded otherwise', 'coded otherwise'],
  ['outlined', 'in another place of the outline', 'in another place of the outline'],
  ['other', 'otherwise changed', 'otherwise changed'],
];

const FIELD_NAMES: Partial<Record<keyof Activity, string>> = {
  name: 'name',
  start: 'start',
  finish: 'finish',
  duration: 'length',
  actualStart: 'started',
  actualFinish: 'finished',
  percent: 'complete',
  remaining: 'remaining',
  parent: 'in',
  kind: 'kind',
  calendar: 'calendar',
  constraint: 'constraint',
  deadline: 'deadline',
  onHold: 'on hold',
  responsible: 'responsible',
  effort: 'effort',
  actualEffort: 'actual effort',
  cost: 'cost',
  actualCost: 'actual cost',
  from: 'from place',
  to: 'to place',
  quantity: 'quantity',
  output: 'daily output',
  rate: 'rate',
  crews: 'crews',
  notes: 'notes',
  said: 'words for the date',
};

const KIND_WORDS: Record<Activity['kind'], string> = {
  activity: 'activity',
  startMilestone: 'milestone',
  finishMilestone: 'milestone',
  levelOfEffort: 'supporting work',
  summary: 'group',
};

/** Late is positive: “5 working days later”. */
const daysWords = (days: number): string =>
  days === 0
    ? 'same day'
    : `${Math.abs(Math.round(days * 10) / 10)} working ${Math.abs(days) === 1 ? 'day' : 'days'} ${days > 0 ? 'later' : 'earlier'}`;

function value(field: keyof Activity, v: unknown, plan: ChangesPlan): string {
  if (v === null || v === undefined || v === '') return 'nothing';
  const calendar = plan.calendars.find((c) => c.id === plan.calendar) ?? plan.calendars[0]!;
  switch (field) {
    case 'start':
    case 'actualStart':
      return formatDay(dayOf(v as number), 'medium');
    case 'finish':
    case 'actualFinish':
    case 'deadline':
      return formatDay(finishDayOf(v as number), 'medium');
    case 'duration':
    case 'remaining':
      return lengthWords(v as number, 'day', calendar);
    case 'percent':
      return `${Math.round((v as number) * 10) / 10} %`;
    case 'effort':
    case 'actualEffort':
      return `${(v as number) / 60} h`;
    case 'cost':
    case 'actualCost':
      return ((v as number) / 100).toLocaleString('en-GB');
    case 'from':
    case 'to':
      return String((v as number) / 1000);
    case 'kind':
      return KIND_WORDS[v as Activity['kind']];
    case 'calendar':
      return plan.calendars.find((c) => c.id === v)?.name ?? String(v);
    case 'responsible':
      return (v as string[]).join(', ') || 'nobody';
    case 'said': {
      const { start, finish } = v as NonNullable<Activity['said']>;
      return [...new Set([start, finish].filter((w) => w !== null))].join(' – ');
    }
    case 'constraint':
      return (v as NonNullable<Activity['constraint']>).kind;
    case 'onHold':
      return v ? 'yes' : 'no';
    default:
      return String(v);
  }
}

/** A change in words: what was, and what is. */
function fieldWords({ field, from, to }: SourceFieldChange, plan: ChangesPlan): string[] {
  if (field === 'codes') {
    const [old, now] = [from as Activity['codes'], to as Activity['codes']];
    return [...new Set([...Object.keys(old), ...Object.keys(now)])]
      .filter((k) => old[k] !== now[k])
      .map(
        (k) => `${plan.codeFields.find((f) => f.id === k)?.name ?? k} ${old[k] ?? 'nothing'} → ${now[k] ?? 'nothing'}`,
      );
  }
  const name = FIELD_NAMES[field] ?? field;
  if (field === 'notes') return [`${name} changed`];
  return [`${name} ${value(field, from, plan)} → ${value(field, to, plan)}`];
}

const linkWords = (l: SourceChange['linksAdded'][number]): string =>
  `${l.from} ${l.type}${l.lag === 0 ? '' : l.lag > 0 ? ' with a lag' : ' with a lead'}`;

/** What a change says, in words. */
export function changeWords(c: SourceChange, plan: ChangesPlan): string {
  switch (c.kind) {
    case 'added':
    case 'removed': {
      const { start, finish, kind } = c.activity!;
      const dates =
        start === null && finish === null
          ? 'without dates'
          : [
              start === null ? null : formatDay(dayOf(start), 'medium'),
              finish === null ? null : formatDay(finishDayOf(finish), 'medium'),
            ]
              .filter((d) => d !== null)
              .join(' to ');
      return `${KIND_WORDS[kind]}, ${dates}`;
    }
    case 'relinked':
      return [
        ...c.linksAdded.map((l) => `now after ${linkWords(l)}`),
        ...c.linksRemoved.map((l) => `no more after ${linkWords(l)}`),
      ].join(' · ');
    default:
      return c.fields.flatMap((f) => fieldWords(f, plan)).join(' · ');
  }
}

/** How far a change moves an activity, in words; empty where it does not. */
export function movedWords(c: SourceChange): string {
  const days = c.finishDays ?? c.startDays;
  return days === null || days === 0 ? '' : daysWords(days);
}
