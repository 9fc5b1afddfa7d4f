import { dayOf, finishDayOf } from '@clembo/core';
import { NEEDS_PROMISE } from '../../brief/timelineParts';
import type { SceneNode } from '../../graph/scene';
import { noticeLines } from '../../page/notice';
import { formatDay } from '../../text/dates';
import { fitAdvice } from './advice';
import type { Regions, TimelineInput } from './regions';
import type { Selection } from './select';

/** A sentence in the place of the rows. */
export const noticeNodes = (words: string, { frame, head, input: { measure } }: Regions): SceneNode[] =>
  noticeLines(measure.clean(words), frame, measure, head.bottom, frame.height - frame.margin);

/** Why a page is empty. */
export function emptyWords({ brief, plan, promised }: TimelineInput, { counts, from, to }: Selection): string {
  if (counts.of === 0) return 'This plan has no activities yet.';
  if (counts.undated > 0 && counts.outside === 0)
    return `${counts.undated === 1 ? 'The one activity that the brief asks for has' : `None of the ${counts.undated} activities that the brief asks for has`} ${counts.undated === 1 ? 'no dates' : 'dates'}, so there is nothing to draw on a time axis. Enter dates, or let them be computed from lengths and links.`;
  if (counts.outside > 0) {
    const days = `${formatDay(dayOf(from), 'long')} to ${formatDay(finishDayOf(to), 'long')}`;
    return `Nothing that the brief asks for lies in the dates of this page, ${days}.`;
  }
  if (NEEDS_PROMISE.includes(brief.only) && !promised)
    return 'There is no edition to compare with, so nothing can be late, ahead or changed. Compare with one.';
  if (brief.only === 'next' && plan.statusDate === null)
    return 'The plan has no status date, so nobody knows which weeks are the next.';
  if (brief.only === 'changed' && promised && brief.where.tests.length === 0)
    return `Nothing has moved, come or gone since “${promised.name}”.`;
  if (brief.where.tests.length > 0 || brief.only !== 'all') return 'Nothing in the plan is what this brief asks for.';
  return `The plan has no ${brief.include === 'milestones' ? 'milestones' : 'activities'} at the levels that this brief shows.`;
}

export function crowdedWords({ plan, schedule, brief }: TimelineInput, { items }: Selection): string {
  const advice = fitAdvice(plan, schedule, brief, items.length).map((a) => a.words);
  const what = `${items.length} things cannot be read on one page (${brief.page}) in rows ${brief.rows}.`;
  if (advice.length === 0) return `${what} Leave out some of them.`;
  return `${what} To make it readable, ${advice.slice(0, 3).join(', or ')}.`;
}
