import { type Day, dayOf, finishDayOf, isoDate } from '../time/civil';
import type { Constraint } from './schema';

const OF_FINISH = new Set<Constraint['kind']>(['finishNotEarlier', 'finishNotLater', 'fixedFinish']);

const WORDS: Record<Constraint['kind'], string> = {
  startNotEarlier: 'starts not before',
  finishNotEarlier: 'finishes not before',
  startNotLater: 'starts by',
  finishNotLater: 'finishes by',
  fixedStart: 'starts on',
  fixedFinish: 'finishes on',
  asLateAsPossible: 'as late as possible',
};

/** The day that a constraint speaks of; null where it has none. */
export const constraintDay = ({ kind, moment }: Constraint): Day | null =>
  moment === null ? null : OF_FINISH.has(kind) ? finishDayOf(moment) : dayOf(moment);

/** Whether its moment is the end of a day rather than its beginning. */
export const ofFinish = (kind: Constraint['kind']): boolean => OF_FINISH.has(kind);

/** A constraint in words, `starts not before 2026-09-14`, its day as `sayDay` writes it. */
export function constraintWords(constraint: Constraint | null, sayDay: (day: Day) => string = isoDate): string {
  if (!constraint) return '';
  const day = constraintDay(constraint);
  return day === null ? WORDS[constraint.kind] : `${WORDS[constraint.kind]} ${sayDay(day)}`;
}
