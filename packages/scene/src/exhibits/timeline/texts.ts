import type { TextRun } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import { ABOVE, type Cells, type Geometry, INSIDE, LEFT, NOWHERE, RIGHT, STEM_LEFT } from './cells';
import { type Label, labelRuns, runsWidth } from './labels';

/** A label as it is set: its lines, and whether it lost something for want of room. */
export interface SetLabel {
  lines: TextRun[][];
  width: number;
  shortened: boolean;
  datesLost: boolean;
}

/** Sets the label of an item in the room that it has: whole, without dates, in two lines, or shortened. */
export function setLabel(g: Geometry, cells: Cells, i: number, room: number, inTwo: boolean): SetLabel {
  const label = g.labels[i]!;
  const { measure } = g;
  const { size, withDates } = cells.style;
  const soft = cells.place[i] === RIGHT ? label.atFinish : label.elsewhere;
  const done = (lines: TextRun[][], shortened: boolean, datesLost: boolean): SetLabel => ({
    lines,
    width: Math.max(...lines.map((l) => runsWidth(measure, size, l))),
    shortened,
    datesLost,
  });
  const fits = (runs: TextRun[]) => runsWidth(measure, size, runs) <= room + 0.01;
  const onBar = cells.place[i] === INSIDE;
  const whole = labelRuns(label, label.name, soft, true, onBar);
  if (fits(whole)) return done([whole], false, false);
  const bare = label.name === '' ? whole : labelRuns(label, label.name, '', true, onBar);
  if (!withDates && fits(bare)) return done([bare], false, label.name !== '' && soft !== '');
  if (inTwo) {
    const two = inTwoLines(label, withDates ? soft : '', measure, size, room);
    if (two) return done(two, false, !withDates && soft !== '');
  }
  if (fits(bare)) return done([bare], false, label.name !== '' && soft !== '');
  const named = labelRuns(label, label.name === '' ? soft : label.name, '', false);
  if (fits(named)) return done([named], false, soft !== '' || label.off !== '');
  const text = named[0]!.text;
  const cut = measure.shorten(named[0]!.face, size, text, room);
  return done([[{ ...named[0]!, text: cut }]], true, label.name !== '' && (soft !== '' || label.off !== ''));
}

/** Two lines of about the same length; the dates go with the second. */
function inTwoLines(label: Label, soft: string, measure: Measure, size: number, room: number): TextRun[][] | null {
  const lines = measure.wrap(label.face, size, label.name, room, 2);
  if (lines.length < 2 || lines.some((l) => l.endsWith('…') && !label.name.endsWith('…'))) {
    if (lines.length !== 1 || soft === '') return null;
    const second = labelRuns({ ...label, name: '' }, '', soft, true);
    return runsWidth(measure, size, second) <= room ? [labelRuns(label, lines[0]!, '', false), second] : null;
  }
  const second = labelRuns(label, lines[1]!, soft, true);
  const bare = labelRuns(label, lines[1]!, '', true);
  const last = runsWidth(measure, size, second) <= room ? second : runsWidth(measure, size, bare) <= room ? bare : null;
  return last && [labelRuns(label, lines[0]!, '', false), last];
}

/**
 * Items whose shortened names would be alike although they differ: those need numbers. Null where there are none.
 */
export function nameClashes(g: Geometry, cells: Cells): Uint8Array | null {
  if (cells.shortened === 0) return null;
  const { size, withDates } = cells.style;
  const seen = new Map<string, { full: string; items: number[] }>();
  const clashing: number[] = [];
  for (let i = 0; i < g.items.length; i++) {
    if (cells.place[i] === NOWHERE || cells.numbered[i]) continue;
    const widths = cells.place[i] === RIGHT ? g.atFinishWidth : g.elsewhereWidth;
    if (cells.room[i]! >= (withDates ? widths[i]! : g.nameWidth[i]!) * size - 0.01) continue;
    const set = setLabel(g, cells, i, cells.room[i]!, cells.lines[i] === 2);
    if (!set.shortened) continue;
    const text = set.lines[0]![0]!.text;
    const full = g.labels[i]!.name || g.labels[i]!.elsewhere;
    if (lettersOf(text) < Math.min(4, lettersOf(full))) clashing.push(i);
    const known = seen.get(text);
    if (!known) seen.set(text, { full, items: [i] });
    else {
      known.items.push(i);
      if (known.full !== full) known.full = '\u0000';
    }
  }
  for (const { full, items } of seen.values()) if (full === '\u0000') clashing.push(...items);
  if (clashing.length === 0) return null;
  const marks = new Uint8Array(g.items.length);
  for (const i of clashing) marks[i] = 1;
  return marks;
}

const lettersOf = (text: string): number => [...text.replace(/[\s….,;:·()-]/g, '')].length;

/** Where the left end of a set label lies: at its place, or for one at the left of its bar close to that bar. */
export function labelLeft(cells: Cells, i: number, room: number, width: number): number {
  const x = cells.labelX[i]!;
  return cells.place[i] === LEFT || cells.place[i] === STEM_LEFT ? x + room - width : x;
}

/** What a label needs for all that it says. */
const needs = (g: Geometry, cells: Cells, i: number): number =>
  (cells.place[i] === RIGHT ? g.atFinishWidth[i]! : g.elsewhereWidth[i]!) * cells.style.size;

/** Shortened labels take what room their row has left beside them: up to the next thing, the page's end, the status line. */
export function widen(g: Geometry, cells: Cells, members: readonly number[], space: number): Float64Array {
  const room = new Float64Array(members.length);
  members.forEach((i, k) => {
    room[k] = cells.room[i]!;
    if (cells.place[i] === NOWHERE || cells.numbered[i] || cells.place[i] === INSIDE) return;
    const more = needs(g, cells, i) - cells.room[i]!;
    if (more <= 0) return;
    const x = cells.labelX[i]!;
    if (cells.place[i] === LEFT) {
      let edge = g.left;
      for (const j of members) if (j !== i && cells.right[j]! <= x) edge = Math.max(edge, cells.right[j]! + space);
      if (g.statusX < x) edge = Math.max(edge, g.statusX + 2);
      edge = Math.max(edge, x - more);
      if (edge < x) {
        room[k] = cells.room[i]! + x - edge;
        cells.labelX[i] = cells.left[i] = edge;
      }
      return;
    }
    if (cells.place[i] !== RIGHT && cells.place[i] !== ABOVE) return;
    const end = x + cells.room[i]!;
    let edge = g.right;
    for (const j of members) if (j !== i && cells.left[j]! >= end - 0.01) edge = Math.min(edge, cells.left[j]! - space);
    if (g.statusX > end) edge = Math.min(edge, g.statusX - 2);
    edge = Math.min(edge, end + more);
    room[k] = Math.max(cells.room[i]!, edge - x);
    cells.right[i] = Math.max(cells.right[i]!, x + room[k]!);
  });
  return room;
}
