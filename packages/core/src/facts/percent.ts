/**
 * A percent as it is told: whole, but 100 only of what is all done and 0 only of what is not begun. The one rule of
 * rounding for percents: 87.4 is 87, 99.7 is 99, 0.2 is 1.
 */
export const wholePercent = (percent: number): number =>
  percent <= 0 || percent >= 100 ? Math.round(percent) : Math.min(99, Math.max(1, Math.round(percent)));

/** What is to be said beside a percent of work of which some has no length; empty where all has one. */
export const notCounted = (unknown: number): string =>
  unknown === 0 ? '' : `${unknown} of unknown length not counted`;
