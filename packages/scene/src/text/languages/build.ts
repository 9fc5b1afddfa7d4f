import type { PageLanguage } from './language';

/** A noun in the two forms that a count needs. */
export type Noun = readonly [one: string, several: string];

export const counted = (n: number, [one, several]: Noun): string => `${n} ${n === 1 ? one : several}`;

/** Words of which the account of what is shown is made; they are joined the same way in all these languages. */
export interface CountWords {
  nothing: string;
  activity: Noun;
  /** Where activities are counted out of all: `3 of 8 activities shown`. */
  shownOf(shown: number, of: string): string;
  more(n: number): string;
  inGroups(groups: string): string;
  group: Noun;
  among(milestones: string): string;
  milestone: Noun;
  of(n: number): string;
  notShown: string;
  undated: string;
  outside: string;
  noRoom: string;
  leftOut: string;
  lateActivity: Noun;
  criticalActivity: Noun;
  link: Noun;
  critical: string;
}

/** The account of what is on a page and where the rest is, in the words of a language. */
export const accountOf = (w: CountWords): Pick<PageLanguage, 'shown' | 'blind'> => ({
  shown: (c) => {
    if (c.of === 0) return w.nothing;
    const groups =
      c.inGroups === 0
        ? ''
        : `${c.shown === 0 ? counted(c.inGroups, w.activity) : w.more(c.inGroups)} ${w.inGroups(counted(c.groups, w.group))}` +
          (c.milestonesInGroups > 0 ? `, ${w.among(counted(c.milestonesInGroups, w.milestone))}` : '');
    const itself = c.shown === 0 && c.inGroups > 0 ? '' : w.shownOf(c.shown, counted(c.of, w.activity));
    const missing = (
      [
        [c.undated, w.undated],
        [c.outside, w.outside],
        [c.noRoom ?? 0, w.noRoom],
        [c.leftOut, w.leftOut],
      ] as const
    )
      .filter(([n]) => n > 0)
      .map(([n, words]) => `${n} ${words}`);
    const shown = [itself, itself === '' ? `${groups} (${w.of(c.of)})` : groups].filter(Boolean).join(', ');
    return missing.length === 0 ? shown : `${shown} · ${w.notShown}: ${missing.join(', ')}`;
  },
  blind: (b) =>
    [
      b.late > 0 ? counted(b.late, w.lateActivity) : '',
      b.critical > 0 ? counted(b.critical, w.criticalActivity) : '',
      b.milestones > 0 ? counted(b.milestones, w.milestone) : '',
      b.links > 0 ? counted(b.links, w.link) + (b.criticalLinks > 0 ? ` (${b.criticalLinks} ${w.critical})` : '') : '',
    ]
      .filter(Boolean)
      .join(', '),
});
