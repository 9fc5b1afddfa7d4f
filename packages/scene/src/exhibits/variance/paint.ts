import type { Band } from '@clembo/core';
import { HAREBELL, INK, MADDER, NEUTRAL, SOFT_INK } from '../../graph/ink';

/** Late, ahead and as promised, on a page in colour or in grey. */
export const lateColour = (days: number, print: 'colour' | 'grey'): string =>
  print === 'grey' ? INK : days > 0 ? MADDER : days < 0 ? HAREBELL : SOFT_INK;

/** To be watched: marigold is too light for words and thin lines on paper. */
export const WATCH = '#8A5A00';

/** Words about something by how far off it is. */
export const bandInk = (band: Band | null, print: 'colour' | 'grey'): string =>
  band === null || print === 'grey'
    ? INK
    : { ahead: HAREBELL, inTolerance: SOFT_INK, watch: WATCH, breach: MADDER }[band];

/** Areas by how far off they are. */
export const bandFill = (band: Band, print: 'colour' | 'grey'): string =>
  print === 'grey' ? NEUTRAL : { ahead: HAREBELL, inTolerance: '#8AA6A3', watch: '#E3A019', breach: MADDER }[band];

export const dayWordsOf = (n: number): string => `${Math.abs(n)} working ${Math.abs(n) === 1 ? 'day' : 'days'}`;
/** `19 d late`, `3 d ahead`, `on time`. */
export const offWordsOf = (n: number): string => (n === 0 ? 'on time' : `${Math.abs(n)} d ${n > 0 ? 'late' : 'ahead'}`);
