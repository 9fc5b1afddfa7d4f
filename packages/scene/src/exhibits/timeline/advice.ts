import { isMilestone, type Plan, type Schedule } from '@clembo/core';
import { LARGER, PAGES } from '../../brief/pages';
import type { TimelineBrief } from '../../brief/timeline';
import type { FitAdvice } from '../../graph/scene';

/** Above so many things only showing fewer of them helps. */
const MOST_EACH_WAY = 5000;
/** More things than these are a reason for further pages, however their rows are made. */
const MANY = 150;

/**
 * What would help a page that is crowded or cannot be read: fewer levels, rows that hold more, a larger page. Each is
 * a change of the brief.
 */
export function fitAdvice(plan: Plan, schedule: Schedule, brief: TimelineBrief, items: number): FitAdvice[] {
  const advice: FitAdvice[] = [];
  const level = higherLevel(schedule, brief.level, items);
  if (level)
    advice.push({ words: `show level ${level.level} (${level.items} things)`, change: { level: level.level } });
  const sum = brief.together === null ? sumFor(plan, brief, items) : null;
  if (sum)
    advice.push({
      words: `show one bar for each ${sum.name} (${sum.bars} things)`,
      change: { together: sum.id, rows: 'each', lanes: brief.lanes.filter((l) => l !== sum.id) },
    });
  if (brief.rows === 'each') advice.push({ words: 'pack the rows', change: { rows: 'packed' } });
  const points = plan.activities.filter((a) => isMilestone(a.kind)).length;
  if (level === null && brief.include === 'both' && points > 0 && points <= items * 0.6)
    advice.push({ words: `show milestones only (${points})`, change: { include: 'milestones' } });
  // Of thousands no larger page, and no shorter label, makes one that can be read.
  if (items > MOST_EACH_WAY) return advice;
  const larger = LARGER[brief.page];
  if (larger && PAGES[larger]) advice.push({ words: `use ${larger}`, change: { page: larger, size: null } });
  if (brief.pages === 'one' && (brief.rows === 'each' || items > MANY))
    advice.push({ words: 'use several pages', change: { pages: 'several' } });
  if (brief.labels.length > 1) advice.push({ words: 'label with the name alone', change: { labels: ['name'] } });
  return advice;
}

/** The field whose values make a page of few bars; of several the first, as it stands in the books. */
function sumFor(plan: Plan, brief: TimelineBrief, items: number): { id: string; name: string; bars: number } | null {
  const points = brief.include === 'activities' ? 0 : plan.activities.filter((a) => isMilestone(a.kind)).length;
  for (const { id, name } of plan.codeFields) {
    const codes = new Set(plan.activities.map((a) => a.codes[id] ?? ''));
    const bars = codes.size + points;
    if (codes.size >= 2 && codes.size <= 40 && bars <= items * 0.5) return { id, name, bars };
  }
  return null;
}

/** The deepest level above the one shown with clearly fewer things; null where there is none. */
function higherLevel(
  { outline }: Schedule,
  shown: number | null,
  items: number,
): { level: number; items: number } | null {
  const deepest = outline.level.reduce((a, b) => Math.max(a, b), 1);
  for (let level = Math.min(deepest, shown ?? deepest) - 1; level >= 1; level--) {
    const count = outline.level.reduce(
      (n, l, i) => n + (l === level || (l < level && !outline.isSummary[i]) ? 1 : 0),
      0,
    );
    if (count <= items * 0.7 && count > 1) return { level, items: count };
  }
  return null;
}
