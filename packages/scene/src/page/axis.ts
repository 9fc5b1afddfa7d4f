import { dayOf } from '@clembo/core';
import { INK, KELP, PAPER, SOFT_INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import { chooseTiers, dayNames, nameForm, type Tick, ticks, type TimeScale } from '../scales/time';
import { en } from '../text/languages/en';
import { dayWords, type PageLanguage } from '../text/languages/language';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

/** Grid lines that lie closer are more to look at than they help, in points. */
const GRID_STEP = 24;

/** A time scale on the page. */
export interface Axis {
  nodes: SceneNode[];
  /** Moments at which lines run down the plot. */
  grid: number[];
  /** The ground rule. */
  bottom: number;
}

/** The two tiers of the time scale and its ground rule, which runs from `ruleLeft` to `ruleRight`. */
export function timeAxis(
  scale: TimeScale,
  frame: PageFrame,
  measure: Measure,
  top: number,
  ruleLeft: number,
  ruleRight: number,
  language: PageLanguage = en,
): Axis {
  const size = frame.scaleSize;
  const days = (scale.to - scale.from) / 1440;
  const tiers = chooseTiers((scale.right - scale.left) / days, size, days);
  const x = (moment: number) => Math.min(scale.right, Math.max(scale.left, scale.x(moment)));
  const upperBase = top + size * 1.15;
  const lowerBase = upperBase + size * 1.55;
  const bottom = lowerBase + size * 0.55;
  const nodes: SceneNode[] = [];
  const write = (left: number, base: number, text: string, strong: boolean) =>
    nodes.push({
      type: 'text',
      x: round(left),
      y: round(base),
      size: strong ? size + 0.5 : size,
      runs: [{ text, face: strong ? 'textStrong' : 'label', fill: strong ? INK : SOFT_INK }],
      role: 'scale',
    });
  const tick = (at: number, y1: number, y2: number, strokeWidth: number) =>
    nodes.push({
      type: 'line',
      x1: round(at),
      y1: round(y1),
      x2: round(at),
      y2: round(y2),
      stroke: SOFT_INK,
      strokeWidth,
      role: 'scale',
    });

  const upper = ticks(scale.from, scale.to, tiers.upper, language);
  if (tiers.upper === 'day') for (const t of upper) t.names = dayNames(t, language);
  const upperRoom = (t: Tick, name: string) =>
    measure.width('textStrong', size + 0.5, name) <= x(t.to) - x(t.from) - 5.5;
  const upperForm = nameForm(upper, upperRoom);
  // Weeks run across the ends of months: the lines of months stop above their numbers.
  const upperEnd = tiers.lower === 'week' ? upperBase + size * 0.35 : bottom;
  for (const t of upper) {
    const begins = t.from > scale.from;
    const text = t.names.slice(upperForm).find((name) => upperRoom(t, name));
    if (text !== undefined) write(x(t.from) + (begins ? 3.5 : 0), upperBase, text, true);
    if (begins) tick(x(t.from), top, upperEnd, 0.6);
  }

  const lower = ticks(scale.from, scale.to, tiers.lower, language);
  const lowerRoom = (t: Tick, name: string) => measure.width('label', size, name) <= x(t.to) - x(t.from) - 3;
  // The year of a month stands above it.
  const lowerForm = tiers.lower === 'month' ? -1 : nameForm(lower, lowerRoom);
  for (const t of lower) {
    const text = t.names.at(lowerForm)!;
    const width = measure.width('label', size, text);
    if (lowerRoom(t, text)) write((x(t.from) + x(t.to) - width) / 2, lowerBase, text, false);
    if (t.from > scale.from) tick(x(t.from), bottom - size * 0.4, bottom, 0.5);
  }
  nodes.push({
    type: 'line',
    x1: round(ruleLeft),
    y1: round(bottom),
    x2: round(ruleRight),
    y2: round(bottom),
    stroke: INK,
    strokeWidth: 0.9,
    role: 'scale',
  });
  const width = (scale.right - scale.left) / Math.max(1, lower.length);
  const grid =
    width >= GRID_STEP ? lower : tiers.lower === 'day' ? ticks(scale.from, scale.to, 'week') : coarse(upper, scale);
  return { nodes, grid: grid.map((t) => t.from).filter((m) => m > scale.from), bottom };
}

/** An upper tier whose lines would stand too close has none. */
const coarse = (upper: Tick[], scale: TimeScale): Tick[] =>
  (scale.right - scale.left) / Math.max(1, upper.length) >= GRID_STEP ? upper : [];

/** Height of the strip below the ground rule in which the flag of the status date hangs. */
export const flagHeight = (frame: PageFrame): number => frame.scaleSize * 1.55;

/** The status date as a flag that hangs from the ground rule; its line begins below it. */
export function statusFlag(
  moment: number,
  withYear: boolean,
  scale: TimeScale,
  frame: PageFrame,
  measure: Measure,
  rule: number,
  language: PageLanguage = en,
): SceneNode[] {
  const size = frame.scaleSize;
  const text = dayWords(language, dayOf(moment), withYear ? 'medium' : 'short');
  const width = measure.width('labelStrong', size, text) + size;
  const x = scale.x(moment);
  const left = Math.min(Math.max(x - width / 2, scale.left), scale.right - width);
  return [
    {
      type: 'rect',
      x: round(left),
      y: round(rule),
      width: round(width),
      height: round(flagHeight(frame)),
      radius: 2,
      fill: KELP,
      role: 'status',
    },
    {
      type: 'text',
      x: round(left + size / 2),
      y: round(rule + size * 1.1),
      size,
      runs: [{ text, face: 'labelStrong', fill: PAPER }],
      role: 'status',
    },
  ];
}
