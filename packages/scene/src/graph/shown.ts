import { MISSING } from '../text/measure';
import type { Fit, Shown } from './scene';

/** What a page shows before anything is on it. */
export const NOTHING_SHOWN: Shown = {
  of: 0,
  shown: 0,
  inGroups: 0,
  groups: 0,
  milestonesInGroups: 0,
  undated: 0,
  outside: 0,
  leftOut: 0,
};

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
    (c.noRoom ?? 0) > 0 ? `${c.noRoom} for want of room` : '',
    c.leftOut > 0 ? `${c.leftOut} left out by the brief` : '',
  ].filter(Boolean);
  const shown = [itself, itself === '' ? `${groups} (of ${c.of})` : groups].filter(Boolean).join(', ');
  return missing.length === 0 ? shown : `${shown} · not shown: ${missing.join(', ')}`;
}

/** What had no room on a page that can be read, or could not be drawn as it is. Nothing for a page where all fits. */
export function fitWords(fit: Fit): string[] {
  if (!fit.readable) return [];
  const said = (n: number, one: string, several = one): string[] => (n > 0 ? [many(n, one, several)] : []);
  return [
    ...said(fit.datesWithoutRoom, 'label without dates', 'labels without dates'),
    ...said(fit.labelsShortened, 'name shortened', 'names shortened'),
    ...said(fit.labelsInKey, 'name in the key', 'names in the key'),
    ...said(fit.laneTitlesCut, 'lane title cut', 'lane titles cut'),
    ...said(fit.periodsWithoutName, 'period without name', 'periods without name'),
    ...said(
      fit.charactersMissing,
      `character not in the fonts (${MISSING})`,
      `characters not in the fonts (${MISSING})`,
    ),
  ];
}

/** As long as {@link fitWords} joined can be: room for it is kept at the foot of a page. */
export const LONGEST_FIT_WORDS =
  '000 labels without dates · 000 names shortened · 000 names in the key · 00 lane titles cut · 00 periods without name · 00 characters not in the fonts (□)';

/** As long as the words about what a page hides can be. */
export const LONGEST_BLIND_WORDS =
  'not seen here: 000 late activities, 000 critical activities, 000 milestones, 0000 links (000 critical)';
