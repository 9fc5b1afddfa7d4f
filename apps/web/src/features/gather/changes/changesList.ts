import {
  type Activity,
  type CalendarSpec,
  constraintWords,
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
  promised: 'promised dates',
};

const KIND_WORDS: Record<Activity['kind'], string> = {
  activity: 'activity',
  startMilestone: 'milestone',
  finishMilestone: 'milestone',
  levelOfEffort: 'supporting work',
  summary: 'group',
};

/** Late is positive: “5 working days later”; empty for less than a twentieth of a day. */
function daysWords(days: number): string {
  const size = Math.abs(Math.round(days * 10) / 10);
  return size === 0 ? '' : `${size} working ${size === 1 ? 'day' : 'days'} ${days > 0 ? 'later' : 'earlier'}`;
}

const calendarOfPlan = (plan: ChangesPlan): CalendarSpec =>
  plan.calendars.find((c) => c.id === plan.calendar) ?? plan.calendars[0]!;

function value(field: keyof Activity, v: unknown, plan: ChangesPlan): string {
  if (v === null || v === undefined || v === '') return 'nothing';
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
      return lengthWords(v as number, 'day', calendarOfPlan(plan));
    case 'percent':
      return `${Math.round((v as number) * 10) / 10} %`;
    case 'effort':
    case 'actualEffort':
      return `${Math.round((v as number) / 6) / 10} h`;
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
    case 'promised': {
      const { start, finish } = v as NonNullable<Activity['promised']>;
      return [
        start === null ? '' : formatDay(dayOf(start), 'medium'),
        finish === null ? '' : formatDay(finishDayOf(finish), 'medium'),
      ]
        .filter(Boolean)
        .join(' to ');
    }
    case 'said': {
      const { start, finish } = v as NonNullable<Activity['said']>;
      return [...new Set([start, finish].filter((w) => w !== null))].join(' – ');
    }
    case 'constraint':
      return constraintWords(v as Activity['constraint'], (day) => formatDay(day, 'medium'));
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

function linkWords(l: SourceChange['linksAdded'][number], plan: ChangesPlan): string {
  const unit = l.lagCalendar === 'elapsed' ? 'elapsedDay' : 'day';
  const size = lengthWords(Math.abs(l.lag), unit, calendarOfPlan(plan));
  return `${l.from} ${l.type}${l.lag === 0 ? '' : `, ${l.lag > 0 ? 'lag' : 'lead'} ${size}`}`;
}

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
        ...c.linksAdded.map((l) => `now after ${linkWords(l, plan)}`),
        ...c.linksRemoved.map((l) => `no more after ${linkWords(l, plan)}`),
      ].join(' · ');
    default:
      return c.fields.flatMap((f) => fieldWords(f, plan)).join(' · ');
  }
}

/** How far a change moves an activity, in words: its finish, or else its start; empty where it moves neither. */
export function movedWords(c: SourceChange): string {
  const finish = daysWords(c.finishDays ?? 0);
  if (finish !== '') return finish;
  const start = daysWords(c.startDays ?? 0);
  return start === '' ? '' : `starts ${start}`;
}
