import { codeOfFieldId } from '@clembo/core';
import type { Suggestion } from '@/workers/answers/suggestions';

/** Fields that take what is on their lists and nothing else. */
const isClosed = (field: string): boolean => codeOfFieldId(field) === null && field !== 'responsible';

/** Fields whose entries are known by their hints too: activities by name, code values by code. */
const hintNames = (field: string): boolean =>
  codeOfFieldId(field) !== null || field === 'predecessors' || field === 'successors';

const plain = (text: string): string => text.trim().toLowerCase();

/**
 * Which entry of the list Enter and Tab take: one that is what was typed, by its text or its name; otherwise the first,
 * in fields that take other texts too only where it begins as typed. -1 where the text stays as it is: nothing was
 * typed, or it may mean two.
 */
export function takenOf(list: readonly Suggestion[], field: string, text: string): number {
  const last = plain(text.split(/[,;]/).at(-1)!);
  if (last === '') return -1;
  const isHint = (s: Suggestion) => hintNames(field) && plain(s.hint) === last;
  const exact = list.flatMap((s, k) => (plain(s.text) === plain(text) || isHint(s) ? [k] : []));
  if (exact.length > 0) return exact.length === 1 ? exact[0]! : -1;
  if (isClosed(field)) return list.length > 0 ? 0 : -1;
  return list.findIndex((s) => plain(s.text.split(/[,;]/).at(-1)!).startsWith(last));
}

/** Whether a list of entries belongs to a field. */
export const hasList = (field: string, isDay: boolean): boolean =>
  !isDay && field !== 'days' && field !== 'name' && field !== 'notes';
