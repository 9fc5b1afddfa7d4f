/** Units of time that rates of work along a line are told in. */
export const RATE_TIMES = ['hour', 'shift', 'day', 'week', 'month'] as const;
export type RateTime = (typeof RATE_TIMES)[number];
