import { isComplete, isMilestone, NONE, type Plan, type Schedule, varianceReader } from '@clembo/core';
import type { BlindSpot, BlindSpots } from '../../graph/scene';
import { en } from '../../text/languages/en';
import type { PageLanguage } from '../../text/languages/language';
import type { Promised } from '../composed';
import type { Fate, Selection } from './select';

const WHY: Record<Exclude<Fate, '' | 'shown'>, BlindSpot['why']> = {
  grouped: 'in a group',
  leftOut: 'left out by the brief',
  undated: 'without dates',
  outside: 'before or after these dates',
};

/**
 * What a page hides that its reader would want to know of: critical and late activities and milestones that are not on
 * it themselves, and links that begin or end at something that is not.
 *
 * @param all what of the brief leaves nothing out, beside its filter
 */
export function blindSpots(
  plan: Plan,
  s: Schedule,
  { fates }: Pick<Selection, 'fates'>,
  promised: Promised | null,
  all: Record<string, unknown> = { only: 'all', include: 'both', strays: true },
): BlindSpots {
  const late = lateReader(plan, s, promised);
  const spots: BlindSpots = { critical: [], late: [], milestones: [], links: 0, criticalLinks: 0, mends: [] };
  const isCritical = (i: number) => plan.links.length > 0 && s.critical[i] === 1 && !isComplete(plan.activities[i]!);
  const hidden = new Set<Fate>();
  fates.forEach((fate, i) => {
    if (fate === '' || fate === 'shown') return;
    const a = plan.activities[i]!;
    const spot: BlindSpot = { ref: a.ref, name: a.name || a.ref, why: WHY[fate] };
    const found = [
      isCritical(i) && spots.critical.push(spot),
      late(i) && spots.late.push(spot),
      isMilestone(a.kind) && spots.milestones.push(spot),
    ].some(Boolean);
    if (found) hidden.add(fate);
  });
  for (const l of plan.links) {
    const ends = [s.outline.indexOf.get(l.from), s.outline.indexOf.get(l.to)];
    // Links to groups are links to what they hold, and nowhere on the page by themselves.
    if (ends.some((i) => i === undefined || fates[i] === '') || ends.every((i) => fates[i!] === 'shown')) continue;
    spots.links++;
    if (ends.every((i) => isCritical(i!))) spots.criticalLinks++;
    for (const i of ends) if (fates[i!] !== 'shown') hidden.add(fates[i!]!);
  }
  if (hidden.has('grouped')) spots.mends.push({ words: 'show every level', change: { level: null } });
  if (hidden.has('leftOut'))
    spots.mends.push({
      words: 'leave nothing out',
      change: { where: { match: 'all', tests: [] }, ...all },
    });
  if (hidden.has('outside')) spots.mends.push({ words: 'show all dates', change: { from: null, to: null } });
  return spots;
}

/** Whether an activity is late: behind its deadline, with negative float, or beyond tolerance against the promise. */
function lateReader(plan: Plan, s: Schedule, promised: Promised | null): (i: number) => boolean {
  const variance = promised && varianceReader(plan, s, promised.plan, promised.schedule);
  return (i) => {
    const { deadline } = plan.activities[i]!;
    if (isComplete(plan.activities[i]!)) return false;
    if (deadline !== null && s.finish[i] !== NONE && s.finish[i]! > deadline) return true;
    if (s.totalFloat[i] !== NONE && s.totalFloat[i]! < 0) return true;
    const band = variance?.(i)?.dateBand;
    return band === 'watch' || band === 'breach';
  };
}

/** What is hidden, in words; an empty text where nothing is. */
export const blindWords = (b: BlindSpots, language: PageLanguage = en): string =>
  language.blind({ ...b, late: b.late.length, critical: b.critical.length, milestones: b.milestones.length });
