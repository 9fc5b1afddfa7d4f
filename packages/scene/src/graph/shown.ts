import type { Shown } from './scene';

const many = (n: number, one: string, several = `${one}s`): string => `${n} ${n === 1 ? one : several}`;

/** What is on the page, and where the rest is: `35 of 142 activities shown, 100 more in 7 groups · not shown: 4 without dates`. */
export function shownWords(c: Shown): string {
  if (c.of === 0) return 'The plan has no activities';
  const groups =
    c.inGroups === 0
      ? ''
      : `${c.shown === 0 ? many(c.inGroups, 'activity', 'activities') : `${c.inGroups} more`} in ${many(c.groups, 'group')}` +
        (c.milestonesInGroups > 0 ? `, ${many(c.milestonesInGroups, 'milestone')} among them` : '');
  const itself = c.shown === 0 && c.inGroups > 0 ? '' : `${c.shown} of ${many(c.of, 'activity', 'activities')} shown`;
  const missing = [
    c.undated > 0 ? `${c.undated} without dates` : '',
    c.outside > 0 ? `${c.outside} before or after these dates` : '',
    c.leftOut > 0 ? `${c.leftOut} left out by the brief` : '',
  ].filter(Boolean);
  const shown = [itself, itself === '' ? `${groups} (of ${c.of})` : groups].filter(Boolean).join(', ');
  return missing.length === 0 ? shown : `${shown} · not shown: ${missing.join(', ')}`;
}
