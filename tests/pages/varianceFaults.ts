import { firstDayOf, lastDayOf, type Schedule } from '@clembo/core';
import { schedulePlan } from '../../packages/core/src/index';
import { checkLines, checkTexts, pairs, type Say } from './faults';
import type { Box, ReadPage } from './readPage';
import { leavesIn, type VariancePage, weekdaysBetween } from './variancePages';

const over = (a: Box, b: Box, by: number) =>
  a.left < b.right + by && b.left < a.right + by && a.top < b.bottom + by && b.top < a.bottom + by;

/** What is wrong with a written page about the variance of a plan; read from the file, and worked out from the plan once more. */
export function varianceFaults(page: ReadPage, given: VariancePage): string[] {
  const faults: string[] = [];
  const say: Say = (kind, what) => faults.push(`${kind}: ${what}`);
  checkTexts(page, given, say);
  checkLines(page, say);
  checkFoot(page, given, say);
  if (page.texts.some((t) => t.role === 'notice')) return faults;
  checkMarks(page, say);
  if (given.brief.kind === 'slips' && given.brief.of === 'each') checkSlips(page, given, say);
  if (given.brief.kind === 'amounts' && given.brief.of === 'each') checkAmounts(page, given, say);
  if (given.brief.kind === 'snapshot' || given.brief.kind === 'curves' || given.brief.kind === 'months') return faults;
  const rows = page.texts.filter((t) => t.role === 'cell');
  if (rows.length === 0) say('no rows', given.brief.kind);
  return faults;
}

/** No text stands on a mark, nothing stands off the page or above the scale. */
function checkMarks(page: ReadPage, say: Say): void {
  const marks = page.shapes.filter((s) => ['mark', 'bar', 'promised', 'milestone'].includes(s.role));
  pairs(page.texts, marks, 1, (t, m) => {
    if (t.role === 'legend' || m.role === 'legend') return;
    if (over(t, m, -0.3)) say('text on a mark', `${t.role} “${t.text}” ${m.role} ${m.ref}`);
  });
  for (const s of page.shapes)
    if (s.left < -0.5 || s.right > page.width + 0.5 || s.top < -0.5 || s.bottom > page.height + 0.5)
      say('shape off the page', `${s.role} ${s.ref}`);
  const curves = page.shapes.filter((s) => s.role === 'curve' && s.tag === 'line');
  pairs(page.texts, curves, 1, (t, c) => {
    if (t.role !== 'legend' && over(t, c, -0.3) && c.left === c.right) say('line through text', `curve “${t.text}”`);
  });
}

function checkFoot(page: ReadPage, { plan }: VariancePage, say: Say): void {
  const of = leavesIn(plan).length;
  if (of === 0) return;
  const foot = page.texts
    .filter((t) => t.role === 'source')
    .map((t) => t.text)
    .join(' ');
  const number = (words: RegExp) => Number(words.exec(foot)?.[1] ?? 0);
  const parts = [
    number(/(\d+) of \d+ activit/),
    number(/(\d+) (?:more|activit\w+) in \d+ group/),
    number(/(\d+) before or after/),
    number(/(\d+) left out/),
    number(/(\d+) without dates/),
    number(/(\d+) for want of room/),
  ];
  const notice = page.texts.some((t) => t.role === 'notice');
  if (!notice && parts.reduce((a, b) => a + b, 0) !== of)
    say('the foot does not add up', `${parts.join('+')} of ${of}: ${foot}`);
}

/** Days that are written beside arrows, against days that are counted one by one. */
function checkSlips(page: ReadPage, { plan, promised, brief }: VariancePage, say: Say): void {
  if (brief.kind !== 'slips') return;
  const [s, b] = [schedulePlan(plan), schedulePlan(promised)];
  let before = Number.POSITIVE_INFINITY;
  for (const t of page.texts.filter((x) => x.role === 'label')) {
    const [, days, way] = /^([\d.]+) d (late|ahead)$/.exec(t.text) ?? [];
    if (days === undefined) {
      say('a label that is no slip', t.text);
      continue;
    }
    const [i, j] = [s.outline.indexOf.get(t.ref!)!, b.outline.indexOf.get(t.ref!)!];
    // On which side of its day a point stands takes no part.
    const at = (x: Schedule, k: number) => {
      const span = { start: x.start[k]!, finish: x.finish[k]!, atFinish: x.atFinish[k] === 1 };
      return (brief.by === 'finish' ? lastDayOf(span) : firstDayOf(span)) + 1;
    };
    const counted = weekdaysBetween(at(b, j), at(s, i));
    const said = (way === 'late' ? 1 : -1) * Number(days);
    if (Math.abs(said - counted) > 0.06) say('a slip of other days', `${t.ref} says ${said}, counted ${counted}`);
    if (Math.abs(said) < brief.least) say('a slip below the least', t.text);
    if (said > before + 1e-9) say('slips out of order', t.text);
    before = said;
  }
}

/** Shares that are written beside bars, against sums of the plan. */
function checkAmounts(page: ReadPage, { plan, promised, brief }: VariancePage, say: Say): void {
  if (brief.kind !== 'amounts') return;
  const { amount } = brief;
  const now = new Map(plan.activities.map((a) => [a.ref, a]));
  const then = new Map(promised.activities.map((a) => [a.ref, a]));
  for (const t of page.texts.filter((x) => x.role === 'label')) {
    const a = now.get(t.ref!)!;
    const [spent, budget] = amount === 'cost' ? [a.actualCost, a.cost] : [a.actualEffort, a.effort];
    const done = (a.percent ?? 0) >= 100;
    const end = spent === null ? budget! : done ? spent : Math.max(spent, budget ?? 0);
    const promisedBudget = amount === 'cost' ? then.get(t.ref!)!.cost! : then.get(t.ref!)!.effort!;
    const said = Number(t.text.replace(/[ ,%]/g, ''));
    if (said !== Math.round((100 * end) / promisedBudget)) say('another share', `${t.ref} says ${t.text}`);
  }
}
