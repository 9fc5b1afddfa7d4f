import { type Line, type LineClash, placeOn, workedOutPlace } from '@clembo/core';
import { INK, MADDER } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { Room } from '../sheet';
import type { LineSelection } from './select';

/** What the works of a page are called, by their references. */
export function namesOf({ flows, blocks }: LineSelection): (ref: string) => string {
  const names = new Map([...flows, ...blocks].map((f) => [f.ref, f.name]));
  return (ref) => names.get(ref) ?? ref;
}

/** A clash in words. */
export function clashWords(c: LineClash, line: Line | null, nameOf: (ref: string) => string): string {
  const [a, b] = c.refs.map(nameOf);
  const at = `at ${placeOn(line, workedOutPlace(line, c.place))} on ${formatDay(Math.floor(c.time + 1e-9), 'medium')}`;
  switch (c.kind) {
    case 'crossing':
      return `${b} runs into ${a} ${at}`;
    case 'close':
      return `${b} comes ${calendarDays(c.gap!)} behind ${a} ${at}`;
    case 'held':
      return `${a} meets ${b}, which holds its stretch, ${at}`;
    case 'bothHold':
      return `${a} and ${b} hold the same stretch ${at}`;
  }
}

function calendarDays(gap: number): string {
  const days = Math.round(gap * 10) / 10;
  return `${days} calendar ${days === 1 ? 'day' : 'days'}`;
}

/** From one told clash to the next, in sizes of the type. */
export const CLASH_LINE = 1.25;

/** The first clashes in words, under the plot, and how many more there are. */
export function clashLines(
  selection: LineSelection,
  most: number,
  top: number,
  { left, right, measure }: Room,
  size: number,
): SceneNode[] {
  const { clashes } = selection;
  const nameOf = namesOf(selection);
  const rows = clashes.slice(0, most).map((c, k) => [`${k + 1}  `, clashWords(c, selection.line, nameOf)] as const);
  const more = clashes.length - rows.length;
  return [...rows, ...(more > 0 ? [['   ', `and ${more} more`] as const] : [])].map(
    ([number, text], k): SceneNode => ({
      type: 'text',
      x: left,
      y: round(top + size * (0.9 + k * CLASH_LINE)),
      size,
      runs: [
        { text: number, face: 'labelStrong', fill: MADDER },
        {
          text: measure.shorten('label', size, measure.clean(text), right - left - size * 3),
          face: 'label',
          fill: INK,
        },
      ],
      role: 'mark',
    }),
  );
}
