import { dayOf, endOfDay } from '../time/civil';
import type { Plan } from './schema';

/**
 * The moment up to which everything is history: the end of the status date's day; null without a status date. What
 * happened on that day has happened, what was due on it was due, and what is open goes on at the next working moment.
 */
export const statusEnd = ({ statusDate }: Pick<Plan, 'statusDate'>): number | null =>
  statusDate === null ? null : endOfDay(dayOf(statusDate));
