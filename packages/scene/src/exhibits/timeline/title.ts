import { isMilestone } from '@clembo/core';
import type { TimelineBrief } from '../../brief/timeline';
import { meansWho } from '../../brief/fields';
import { LANGUAGES } from '../../text/languages/index';
import type { Tells } from '../../brief/tells';
import { statementOf } from '../statement';
import { codeTitles } from './codes';
import type { TimelineInput } from './regions';
import type { Selection } from './select';

/** What a timeline says by itself: about the rows that it shows, and to the question that it answers. */
export function titleOf({ plan, schedule, brief, promised }: TimelineInput, { items, undated }: Selection): string {
  const language = LANGUAGES[brief.language];
  if (items.length === 0) return plan.name;
  // Work that several things stand for is told of once.
  const isTold = new Uint8Array(plan.activities.length);
  for (const i of items) if (!i.gone) for (const m of i.members) isTold[m] = 1;
  for (const i of undated) isTold[i] = 1;
  let parts: ReturnType<typeof partReader> | null = null;
  return statementOf({
    plan,
    schedule,
    promised,
    rows: [...plan.activities.keys()].filter((i) => isTold[i] === 1),
    tells: questionOf(brief, plan),
    weeks: brief.weeks,
    name: partName(brief, plan),
    partOf: (i) => (parts ??= partReader({ plan, schedule, brief }, items))(i),
    language,
  });
}

/** The part of the page in which an activity stands: its lane, or what it is taken together by. */
function partReader(
  { plan, schedule, brief }: Pick<TimelineInput, 'plan' | 'schedule' | 'brief'>,
  items: Selection['items'],
): (i: number) => string {
  const field = brief.together ?? brief.lanes.at(-1) ?? null;
  if (field === null) return () => '';
  const titles = codeTitles(plan, field, schedule.outline.roots, LANGUAGES[brief.language]);
  const lanes = new Map<number, string>();
  if (brief.together === null) for (const i of items) for (const m of i.members) lanes.set(m, i.lane.at(-1) ?? '');
  return (i) => {
    const code = brief.together === null ? lanes.get(i) : plan.activities[i]!.codes[brief.together];
    return code ? titles.title(code) : '';
  };
}

/** The question that a brief answers: the one that it names, else the one that its choice of rows asks. */
export function questionOf(brief: TimelineBrief, plan: TimelineInput['plan']): Tells {
  if (brief.tells !== 'shown') return brief.tells;
  if (brief.only === 'critical') return 'chain';
  if (brief.only === 'next') return 'next';
  if (brief.only === 'late' || brief.only === 'beyond') return 'behind';
  if (brief.only === 'changed') return 'changed';
  const isPoints =
    brief.include === 'milestones' || (brief.include === 'both' && plan.activities.every((a) => isMilestone(a.kind)));
  if (isPoints) return 'milestones';
  const lane = plan.codeFields.find((f) => f.id === brief.lanes[0]);
  return lane && brief.lanes.length === 1 && meansWho(lane.name) ? 'who' : 'end';
}

/** The name of the part that a page is about: the value that its filter asks for, where it asks for just one. */
function partName(brief: TimelineBrief, plan: TimelineInput['plan']): string | null {
  const [test] = brief.where.tests;
  if (brief.where.tests.length !== 1 || !test || !('field' in test) || test.is !== 'is') return null;
  if (test.values.length !== 1 || !test.field.startsWith('code.')) return null;
  const field = plan.codeFields.find((f) => `code.${f.id}` === test.field);
  const value = test.values[0]!;
  return field?.values.find((v) => v.code === value)?.title ?? value;
}
