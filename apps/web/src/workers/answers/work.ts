import {
  type Command,
  type Mend,
  mendCommand,
  mendsFor,
  NONE,
  type Plan,
  type WorkGroup,
  worklist,
  wordsFor,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { finishDay, type Held, startDay } from './held';

const formatAmount = (value: number): string => String(Math.round(value * 100) / 100);

/** A finding with the ways to mend it. */
export interface WorkItemShown {
  key: string;
  refs: string[];
  name: string;
  /** When it is, in words; an empty text where it has no dates. */
  dates: string;
  words: string;
  mends: Mend[];
}

export interface WorkGroupShown {
  id: string;
  code: string;
  title: string;
  severity: WorkGroup['severity'];
  about: string | null;
  count: number;
  aside: number;
  items: WorkItemShown[];
  /** Mends that can be done to all of them at once. */
  forAll: Mend[];
  /** The field whose codes are asked for. */
  field: string | null;
}

export interface WorkShown {
  groups: WorkGroupShown[];
  open: number;
  aside: number;
}

/** How many items of a group are shown until more are asked for. */
const SHOWN = 20;

/** The worklist as it is shown; `opened` says how many items of a group are wanted. */
export function workShown(held: Held, opened: Readonly<Record<string, number>>): WorkShown {
  const { plan, schedule } = held;
  const list = worklist(plan, schedule);
  const groups = list.map((g): WorkGroupShown => {
    const [first] = g.items;
    return {
      id: g.id,
      code: g.code,
      title: g.title,
      severity: g.severity,
      about: g.about,
      count: g.items.length,
      aside: g.aside,
      items: g.items.slice(0, opened[g.id] ?? SHOWN).map(({ key, finding }) => ({
        key,
        refs: finding.refs,
        name: nameOf(held, finding.refs[0]),
        dates: datesWords(held, finding.refs[0]),
        words: g.about === null ? wordsFor(finding) : '',
        mends: mendsFor(plan, schedule, finding),
      })),
      forAll: first ? mendsFor(plan, schedule, first.finding).filter((m) => m.all) : [],
      field: typeof first?.finding.facts?.id === 'string' ? first.finding.facts.id : null,
    };
  });
  const sum = (of: (g: WorkGroupShown) => number) => groups.reduce((n, g) => n + of(g), 0);
  return { groups, open: sum((g) => g.count), aside: sum((g) => g.aside) };
}

const indexOf = ({ schedule }: Held, ref: string | undefined): number =>
  ref === undefined ? -1 : (schedule.outline.indexOf.get(ref) ?? -1);

const nameOf = (held: Held, ref: string | undefined): string => held.plan.activities[indexOf(held, ref)]?.name ?? '';

function datesWords(held: Held, ref: string | undefined): string {
  const i = indexOf(held, ref);
  if (i < 0 || held.schedule.start[i] === NONE) return '';
  const [start, finish] = [startDay(held, i), finishDay(held, i)];
  return start === finish
    ? formatDay(start, 'medium')
    : `${formatDay(start, 'medium')} – ${formatDay(finish, 'medium')}`;
}

/** @throws AnswerRefused when the answer cannot be used */
export function mendingCommand(
  { plan, schedule }: Held,
  group: string,
  keys: readonly string[] | null,
  mend: string,
  answer: string,
): Command {
  const wanted = keys && new Set(keys);
  const items = worklist(plan, schedule).find((g) => g.id === group)?.items ?? [];
  const findings = items.filter((i) => wanted === null || wanted.has(i.key)).map((i) => i.finding);
  return mendCommand(plan, schedule, findings, mend, answer);
}

/** What one of several activities of the same name says, beside the others. */
export interface AlikeRow {
  label: string;
  /** By activity. */
  values: string[];
  /** Whether they say different things. */
  differs: boolean;
}

/** Activities side by side, with what any of them says. */
export function alikeRows(held: Held, refs: readonly string[]): AlikeRow[] {
  const { plan } = held;
  const list = refs.map((ref) => plan.activities[indexOf(held, ref)]!);
  const names = (of: 'from' | 'to', ref: string): string =>
    plan.links
      .filter((l) => l[of] === ref)
      .map((l) => `${of === 'from' ? l.to : l.from}${l.type === 'FS' ? '' : ` ${l.type}`}`)
      .join(', ');
  const perDay = (id: string | null): number =>
    (plan.calendars.find((c) => c.id === (id ?? plan.calendar)) ?? plan.calendars[0]!).minutesPerDay;
  const rows: [string, (a: Plan['activities'][number]) => string][] = [
    ['Name', (a) => a.name],
    ['Dates', (a) => datesWords(held, a.ref)],
    ['Working days', (a) => (a.duration === null ? '' : formatAmount(a.duration / perDay(a.calendar)))],
    ['Complete', (a) => (a.percent === null ? '' : `${formatAmount(a.percent)} %`)],
    ['After', (a) => names('to', a.ref)],
    ['Leads to', (a) => names('from', a.ref)],
    ['Responsible', (a) => a.responsible.join(', ')],
    ...plan.codeFields.map((f): [string, (a: Plan['activities'][number]) => string] => [
      f.name,
      (a) => {
        const code = a.codes[f.id] ?? '';
        return f.values.find((v) => v.code === code)?.title ?? code;
      },
    ]),
    ['Effort', (a) => (a.effort === null ? '' : `${formatAmount(a.effort / 60)} h`)],
    ['Cost', (a) => (a.cost === null ? '' : formatAmount(a.cost / 100))],
    ['Notes', (a) => a.notes],
  ];
  return rows.flatMap(([label, of]): AlikeRow[] => {
    const values = list.map(of);
    return values.every((v) => v === '') ? [] : [{ label, values, differs: new Set(values).size > 1 }];
  });
}
