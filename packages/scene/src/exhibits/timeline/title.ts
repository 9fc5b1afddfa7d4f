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
  const rows = [...new Set([...items.flatMap((i) => (i.gone ? [] : i.members)), ...undated])];
  if (items.length === 0) return plan.name;
  const field = brief.together ?? brief.lanes.at(-1) ?? null;
  const titles = field === null ? null : codeTitles(plan, field, schedule.outline.roots, language);
  const codes = new Map(items.flatMap((i) => i.members.map((m) => [m, i.lane.at(-1) ?? ''] as const)));
  const partOf = (i: number): string => {
    const code = brief.together === null ? (codes.get(i) ?? '') : (plan.activities[i]!.codes[brief.together] ?? '');
    return code === '' || titles === null ? '' : titles.title(code);
  };
  return statementOf({
    plan,
    schedule,
    promised,
    rows,
    tells: questionOf(brief, plan),
    weeks: brief.weeks,
    name: partName(brief, plan),
    partOf,
    language,
  });
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
