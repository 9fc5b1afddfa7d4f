import type { TimeScale } from '../../scales/time';
import type { Measure } from '../../text/measure';
import type { PageFrame } from './frame';
import type { Selection } from './items';
import { arrangeRows, type EachOrder, type Rows } from './rows';

/** Rows with their heights settled. */
export interface FittedRows extends Rows {
  lanePadding: number;
  /** Top of every lane below the top of the plot, and one more for the bottom. */
  laneTops: number[];
}

/** How much of its greatest width a label keeps, one try after the other. */
const LABEL_LIMITS = [1e9, 150, 100, 70];

/**
 * Finds the largest type at which the rows fit the height, with labels beside or above their bars, whichever
 * needs less room; below the least type labels are shortened, and last of all the rows are packed by the bars
 * alone and labels go where there is room.
 */
export function fitRows(
  selection: Selection,
  scale: TimeScale,
  measure: Measure,
  frame: PageFrame,
  height: number,
  laneHeights: (size: number) => number[],
  each: EachOrder,
): FittedRows {
  const tries = (size: number, labelLimit: number): FittedRows | null => {
    const side = settle(
      arrangeRows(selection, scale, measure, { style: 'side', size, labelLimit, each }),
      laneHeights(size),
      height,
    );
    if (each) return side;
    const above = settle(
      arrangeRows(selection, scale, measure, { style: 'above', size, labelLimit, each }),
      laneHeights(size),
      height,
    );
    if (!side || !above) return side ?? above;
    return side.height <= above.height * 1.15 ? side : above;
  };
  // Half a point at a time, by bisection: what fits at one size fits at every smaller one.
  const steps = Math.max(0, Math.round((frame.largestLabel - frame.leastType) * 2));
  const sizeAt = (k: number) => frame.largestLabel - k / 2;
  let best = tries(sizeAt(0), LABEL_LIMITS[0]!);
  if (best) return best;
  let [low, high] = [1, steps];
  while (low <= high) {
    const middle = (low + high) >> 1;
    const fits = tries(sizeAt(middle), LABEL_LIMITS[0]!);
    if (fits) {
      best = fits;
      high = middle - 1;
    } else low = middle + 1;
  }
  if (best) return best;
  for (const limit of LABEL_LIMITS.slice(1)) {
    const fits = tries(frame.leastType, limit);
    if (fits) return fits;
  }
  const dense = arrangeRows(selection, scale, measure, {
    style: 'free',
    size: frame.leastType,
    labelLimit: LABEL_LIMITS[0]!,
    each,
  });
  return squeeze(dense, laneHeights(frame.leastType), height);
}

/** Spreads rows over the height they have, or null when they do not fit it. */
function settle(rows: Rows, laneHeights: number[], height: number): FittedRows | null {
  const paddings = [rows.size * 0.8, rows.size * 0.45];
  for (const lanePadding of paddings) {
    const need = neededHeights(rows, laneHeights, rows.pitch, lanePadding);
    const total = need.reduce((a, b) => a + b, 0);
    if (total > height) continue;
    const pitch = Math.min(rows.pitch * 1.6, rows.pitch + (height - total) / Math.max(1, rows.rows));
    let padding = lanePadding;
    const spare = height - neededHeights(rows, laneHeights, pitch, lanePadding).reduce((a, b) => a + b, 0);
    if (spare > 0) padding += Math.min(rows.size * 0.9, spare / (2 * Math.max(1, rows.laneRows.length)));
    let heights = neededHeights(rows, laneHeights, pitch, padding);
    if (heights.reduce((a, b) => a + b, 0) > height + 0.01)
      heights = neededHeights(rows, laneHeights, pitch, lanePadding);
    if (heights.reduce((a, b) => a + b, 0) > height + 0.01) return { ...rows, lanePadding, laneTops: tops(need) };
    return { ...rows, pitch, lanePadding: padding, laneTops: tops(heights) };
  }
  return null;
}

function neededHeights(rows: Rows, laneHeights: number[], pitch: number, padding: number): number[] {
  return rows.laneRows.map((count, lane) => Math.max(count * pitch + 2 * padding, laneHeights[lane]! + padding));
}

/** Makes rows as low as they must be to stand on the page. */
function squeeze(rows: Rows, laneHeights: number[], height: number): FittedRows {
  const lanes = rows.laneRows.length;
  const lanePadding = Math.min(3, height / (6 * lanes));
  const titles = laneHeights.map((h) => Math.min(h + lanePadding, (height * 0.7) / lanes));
  const total = (pitch: number) =>
    rows.laneRows.reduce((sum, count, lane) => sum + Math.max(count * pitch + 2 * lanePadding, titles[lane]!), 0);
  let [pitch, high] = [0, rows.size * 2.8];
  if (total(high) <= height) pitch = high;
  else {
    for (let k = 0; k < 30; k++) {
      const middle = (pitch + high) / 2;
      if (total(middle) <= height) pitch = middle;
      else high = middle;
    }
  }
  const heights = rows.laneRows.map((count, lane) => Math.max(count * pitch + 2 * lanePadding, titles[lane]!));
  return {
    ...rows,
    pitch,
    barHeight: Math.max(0.5, Math.min(rows.barHeight, pitch * 0.66)),
    lanePadding,
    laneTops: tops(heights),
  };
}

function tops(heights: number[]): number[] {
  const list = [0];
  for (const h of heights) list.push(list[list.length - 1]! + h);
  return list;
}
