import { AS_PROMISED, type DaysDone, EXPECTED, firstDayOf, lastDayOf, UNKNOWN, wholePercent } from '@clembo/core';
import { en } from '../../text/languages/en';
import { type DateStyle, dayWords, numberWords, type PageLanguage } from '../../text/languages/language';
import type { Item } from './item';

/** Start and finish in words: days, or what the source says in place of one. */
export const dateWords = (item: Item, style: DateStyle, l: PageLanguage): { start: string; finish: string } => ({
  start: item.said?.start ?? dayWords(l, firstDayOf(item), style),
  finish: item.said?.finish ?? dayWords(l, lastDayOf(item), style),
});

/** `4 of 14 days done, 10 to go`. */
export const daysDoneWords = ({ whole, done, toGo }: DaysDone, l: PageLanguage = en): string => {
  const [all, gone, left] = [whole, done, toGo].map((n) => numberWords(l, n)) as [string, string, string];
  return toGo === 0 ? l.allDone(all) : l.daysDone(all, gone, left);
};

/** Whole percents; what is not complete is at most 99. */
export const percentWords = (item: { progress: number; complete: boolean }): number =>
  item.complete ? 100 : Math.min(99, wholePercent(item.progress * 100));

/** `5 d late`, `3 d ahead`; nothing for less than half a working day. */
export function offWords(days: number | null, l: PageLanguage = en): string {
  if (days === null || Math.abs(days) < 0.5) return '';
  return days > 0 ? l.late(Math.round(days)) : l.ahead(Math.round(-days));
}

/** Whether an end is drawn soft: the source names no day for it, or nobody stated it at all. */
export const isSoft = (item: Item, end: 'start' | 'finish'): boolean =>
  (item.said?.[end] ?? null) !== null || isWorkedOut(item, end);

/** Whether nobody stated an end: it is worked out, taken from the promise, or not known. What is done is past. */
export const isWorkedOut = (item: Item, end: 'start' | 'finish'): boolean =>
  !item.complete && [EXPECTED, AS_PROMISED, UNKNOWN].includes(item.from[end]);
