import { civilFromDay } from '@clembo/core';

/** The month of a day as a number: twelve times its year, and how many months of that are over. */
export function monthOf(day: number): number {
  const { year, month } = civilFromDay(day);
  return year * 12 + month - 1;
}
