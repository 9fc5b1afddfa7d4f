import { dayOf, finishDayOf, type Plan } from '@clembo/core';
import { formatDay } from '../text/dates';
import { type Filter, type LabelPart, PROMISED, type TimelineBrief } from './brief';

/** A part of the brief's sentence that can be changed. */
export type BriefPart =
  | 'include'
  | 'level'
  | 'where'
  | 'lanes'
  | 'rows'
  | 'colour'
  | 'compare'
  | 'labels'
  | 'periods'
  | 'from'
  | 'to'
  | 'page'
  | 'print';

/** Plain words, or words that stand for a part. */
export type Segment = { text: string; part?: BriefPart };

export const INCLUDE_WORDS = {
  both: 'activities and milestones',
  activities: 'activities only',
  milestones: 'milestones only',
} as const;
export const LABEL_WORDS: Record<LabelPart, string> = {
  name: 'name',
  start: 'start',
  finish: 'finish',
  reference: 'reference',
  duration: 'working days',
  percent: 'percent done',
  off: 'days late or ahead',
};
export const PRINT_WORDS = { colour: 'in colour', grey: 'in grey with patterns' } as const;

/** What the sentence needs to know of a plan. */
export type PlanWords = Pick<Plan, 'codeFields' | 'periods'> & {
  /** Editions that were kept, the oldest last. */
  editions?: readonly { id: string; name: string }[];
};

/** The brief as a sentence in plain language, in segments. */
export function briefSentence(brief: TimelineBrief, plan: PlanWords): Segment[] {
  const part = (name: BriefPart, text: string): Segment => ({ text, part: name });
  const fieldName = (id: string) =>
    id === 'outline' ? 'outline' : (plan.codeFields.find((f) => f.id === id)?.name.toLowerCase() ?? id);
  return [
    { text: 'Show ' },
    part('include', INCLUDE_WORDS[brief.include]),
    { text: ' down to ' },
    part('level', brief.level === null ? 'the last level' : `level ${brief.level}`),
    { text: ' where ' },
    part('where', filterWords(brief.where, plan)),
    { text: ', ' },
    part(
      'lanes',
      brief.lanes.length === 0 ? 'without lanes' : `in lanes by ${brief.lanes.map(fieldName).join(', then ')}`,
    ),
    { text: ', rows ' },
    part('rows', brief.rows),
    { text: ', ' },
    part('colour', brief.colour === null ? 'in one colour' : `coloured by ${fieldName(brief.colour)}`),
    ...((plan.editions?.length ?? 0) > 0 || brief.compare !== null
      ? [{ text: ', compared with ' }, part('compare', compareWords(brief.compare, plan))]
      : []),
    { text: ', labelled with ' },
    part('labels', brief.labels.length === 0 ? 'nothing' : listWords(brief.labels.map((l) => LABEL_WORDS[l]))),
    ...(plan.periods.length > 0
      ? [
          { text: ', ' },
          part(
            'periods',
            brief.periods
              ? `marking ${plan.periods.length} ${plan.periods.length === 1 ? 'period' : 'periods'}`
              : 'marking no periods',
          ),
        ]
      : []),
    { text: ', from ' },
    part('from', brief.from === null ? 'the start' : formatDay(dayOf(brief.from), 'long')),
    { text: ' to ' },
    part('to', brief.to === null ? 'the finish' : formatDay(finishDayOf(brief.to), 'long')),
    { text: ', on ' },
    part('page', brief.page === 'wide slide' ? 'a wide slide' : brief.page),
    { text: ', ' },
    part('print', PRINT_WORDS[brief.print]),
    { text: '.' },
  ];
}

/** The name of an edition to compare with. */
function compareWords(compare: string | null, plan: PlanWords): string {
  if (compare === null) return 'nothing';
  const edition = compare === PROMISED ? plan.editions?.at(-1) : plan.editions?.find((e) => e.id === compare);
  return edition?.name ?? 'an edition that is gone';
}

/** `a`, `a and b`, `a, b and c`. */
function listWords(words: string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;
}

function filterWords(filters: Filter[], plan: PlanWords): string {
  if (filters.length === 0) return 'nothing is excluded';
  return listWords(
    filters.map((f) => {
      const field = plan.codeFields.find((c) => c.id === f.field);
      const titles = f.values.map((v) => (v === '' ? 'none' : (field?.values.find((x) => x.code === v)?.title ?? v)));
      const shown =
        titles.length > 3 ? `${titles.slice(0, 2).join(', ')} or ${titles.length - 2} more` : titles.join(' or ');
      return `${field?.name.toLowerCase() ?? f.field} is ${f.keep === 'only' ? '' : 'not '}${shown}`;
    }),
  );
}
