import { MONTHS } from '../text/dates';

/** Names of months as they are typed. */
export const MONTH_NAMES = MONTHS.map((m) => m.toLowerCase());
