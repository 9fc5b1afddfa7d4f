/** Headings of where dates come from in a table that was written by us; intake passes these columns over. */
export const ORIGIN_HEADINGS = ['Origin of start', 'Origin of finish'] as const;
