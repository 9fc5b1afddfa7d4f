import { en } from './languages/en';
import { type DateStyle, dayWords } from './languages/language';

export type { DateStyle } from './languages/language';
export const MONTHS = en.months;

/** A day in English words: `14 Sep`, `14 Sep 26`, `14 September 2026`, `Mon 14 Sep 2026`. */
export const formatDay = (day: number, style: DateStyle): string => dayWords(en, day, style);
