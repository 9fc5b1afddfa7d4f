import { counted } from '../text/languages/build';
import { en } from '../text/languages/en';
import type { PageLanguage } from '../text/languages/language';
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

/** What is on the page, and where the rest is: `35 of 142 activities shown, 100 more in 7 groups · not shown: 4 without dates`. */
export const shownWords = (c: Shown, language: PageLanguage = en): string => language.shown(c);

const COUNTED = [
  'datesWithoutRoom',
  'labelsShortened',
  'labelsInKey',
  'laneTitlesCut',
  'periodsWithoutName',
  'charactersMissing',
] as const;
type Counted = Pick<Fit, (typeof COUNTED)[number] | 'readable' | 'columnsCut' | 'tiersCut'>;

/** What had no room on a page that can be read, or could not be drawn as it is. Nothing for a page where all fits. */
export function fitWords(fit: Counted, language: PageLanguage = en): string[] {
  if (!fit.readable) return [];
  return [
    ...COUNTED.filter((k) => fit[k] > 0).map(
      (k) => counted(fit[k], language.fit[k]) + (k === 'charactersMissing' ? ` (${MISSING})` : ''),
    ),
    ...((fit.tiersCut ?? 0) > 0 ? [counted(fit.tiersCut!, language.tiersCut)] : []),
    ...((fit.columnsCut ?? 0) > 0 ? [counted(fit.columnsCut!, language.columnsCut)] : []),
  ];
}

/** As long as {@link fitWords} can be: room for it is kept at the foot of a page. */
export function longestFitWords(language: PageLanguage): string {
  const most = Object.fromEntries(COUNTED.map((k) => [k, k.startsWith('lane') || k.startsWith('period') ? 88 : 888]));
  return fitWords({ ...most, readable: true, columnsCut: 8, tiersCut: 3 } as unknown as Counted, language).join(' · ');
}

/** As long as the words about what a page hides can be. */
export const longestBlindWords = (language: PageLanguage): string =>
  language.notSeen(language.blind({ late: 888, critical: 888, milestones: 888, links: 8888, criticalLinks: 888 }));
