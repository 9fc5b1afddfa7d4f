import { INK, KELP, PAPER, SOFT_INK } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import { chooseTiers, nameForm, type Tick, ticks, type TimeScale } from '../../scales/time';
import { formatDay } from '../../text/dates';
import type { Measure } from '../../text/measure';
import type { PageFrame } from './frame';

/** Grid lines that lie closer are more to look at than they help, in points. */
const GRID_STEP = 24;

/** The two tiers of the time scale, its ground rule, and the days at which lines run down the plot. Nothing is written under the flag. */
export function scaleNodes(
  scale: TimeScale,
  frame: PageFrame,
  measure: Measure,
  top: number,
  flag: { left: number; right: number } | null,
): { nodes: SceneNode[]; gridDays: number[]; bottom: number } {
  const size = frame.scaleSize;
  const fromDay = Math.floor(scale.from / 1440);
  const toDay = Math.ceil(scale.to / 1440);
  const tiers = chooseTiers((scale.right - scale.left) / (toDay - fromDay), size);
  const x = (day: number) => Math.min(scale.right, Math.max(scale.left, scale.x(day * 1440)));
  const upperBase = top + size * 1.15;
  const lowerBase = upperBase + size * 1.55;
  const bottom = lowerBase + size * 0.55;
  const nodes: SceneNode[] = [];
  const upper = ticks(fromDay, toDay, tiers.upper);
  const upperRoom = (t: Tick, name: string) => measure.width('textStrong', size + 1, name) <= x(t.to) - x(t.from) - 4;
  const upperForm = nameForm(upper, upperRoom);
  // Weeks run across the ends of months: the lines of months stop above their numbers.
  const upperEnd = tiers.lower === 'week' ? upperBase + size * 0.4 : bottom;
  for (const t of upper) {
    const text = t.names.slice(upperForm).find((name) => upperRoom(t, name));
    if (text !== undefined) {
      nodes.push({
        type: 'text',
        x: round(x(t.from) + (t.from > fromDay ? 3.5 : 0)),
        y: round(upperBase),
        text,
        face: 'textStrong',
        size: size + 1,
        fill: INK,
        role: 'scale',
      });
    }
    if (t.from > fromDay)
      nodes.push({
        type: 'line',
        x1: round(x(t.from)),
        y1: round(top),
        x2: round(x(t.from)),
        y2: round(upperEnd),
        stroke: SOFT_INK,
        strokeWidth: 0.6,
        role: 'scale',
      });
  }
  const lower = ticks(fromDay, toDay, tiers.lower);
  const lowerRoom = (t: Tick, name: string) => measure.width('label', size, name) <= x(t.to) - x(t.from) - 1.5;
  // The year of a month stands above it.
  const lowerForm = tiers.lower === 'month' ? -1 : nameForm(lower, lowerRoom);
  for (const t of lower) {
    const text = t.names.at(lowerForm)!;
    const width = measure.width('label', size, text);
    const left = (x(t.from) + x(t.to) - width) / 2;
    const hidden = flag !== null && left < flag.right + 1.5 && left + width > flag.left - 1.5;
    if (lowerRoom(t, text) && !hidden) {
      nodes.push({
        type: 'text',
        x: round(left),
        y: round(lowerBase),
        text,
        face: 'label',
        size,
        fill: SOFT_INK,
        role: 'scale',
      });
    }
    if (t.from > fromDay)
      nodes.push({
        type: 'line',
        x1: round(x(t.from)),
        y1: round(bottom - size * 0.55),
        x2: round(x(t.from)),
        y2: round(bottom),
        stroke: SOFT_INK,
        strokeWidth: 0.5,
        role: 'scale',
      });
  }
  nodes.push({
    type: 'line',
    x1: round(scale.left),
    y1: round(bottom),
    x2: round(scale.right),
    y2: round(bottom),
    stroke: INK,
    strokeWidth: 0.9,
    role: 'scale',
  });
  const width = (scale.right - scale.left) / Math.max(1, lower.length);
  const grid = width >= GRID_STEP ? lower : tiers.lower === 'day' ? ticks(fromDay, toDay, 'week') : upper;
  return { nodes, gridDays: grid.map((t) => t.from).filter((d) => d > fromDay), bottom };
}

/** Where the flag of the status date stands on the time scale. */
export function flagPlace(
  x: number,
  day: number,
  frame: PageFrame,
  measure: Measure,
  scale: TimeScale,
): { left: number; right: number; text: string } {
  const text = formatDay(day, 'short');
  const width = measure.width('labelStrong', frame.scaleSize, text) + 7;
  const left = Math.min(Math.max(x - width / 2, scale.left), scale.right - width);
  return { left, right: left + width, text };
}

/** The status date as a flag on the time scale; its line is drawn with the grid. */
export function statusFlag(flag: ReturnType<typeof flagPlace>, frame: PageFrame, ruleY: number): SceneNode[] {
  const size = frame.scaleSize;
  const height = size * 1.5;
  const top = ruleY - height;
  return [
    {
      type: 'rect',
      x: round(flag.left),
      y: round(top),
      width: round(flag.right - flag.left),
      height: round(height),
      radius: 2,
      fill: KELP,
      role: 'status',
    },
    {
      type: 'text',
      x: round(flag.left + 3.5),
      y: round(top + size * 1.08),
      text: flag.text,
      face: 'labelStrong',
      size,
      fill: PAPER,
      role: 'status',
    },
  ];
}
