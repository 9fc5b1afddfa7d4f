/** What nothing was done of yet: the progress of a copy, of a new part, of an activity of a starter. */
export const NOT_BEGUN = {
  actualStart: null,
  actualFinish: null,
  percent: null,
  remaining: null,
  actualEffort: null,
  actualCost: null,
} as const;
