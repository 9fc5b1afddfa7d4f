import type { PageFrame } from './frame';
import type { Geometry } from './geometry';
import { arrangeRows, type LabelStyle, pitchOf, type Rows } from './rows';

/** Rows with their heights settled. */
export interface FittedRows extends Rows {
  lanePadding: number;
  /** Top of every lane below the top of the plot, and one more for the bottom. */
  laneTops: number[];
}

/** How much of its greatest width a label keeps, one try after the other. */
const WHOLE = 1e9;
const LABEL_LIMITS = [150, 100, 70];

/**
 * Finds the largest type at which the rows fit the height, with labels beside or above their bars, whichever
 * needs less room; below the least type labels are shortened, and last of all the rows are packed by the bars
 * alone and labels go where there is room.
 *
 * @param titles least height of each lane, for its title
 */
export function fitRows(g: Geometry, frame: PageFrame, height: number, titles: number[], each: boolean): FittedRows {
  const attempt = (style: LabelStyle, size: number, labelLimit: number) =>
    settle(arrangeRows(g, { style, size, labelLimit, each }), titles, height);
  const best = (size: number, labelLimit = WHOLE): FittedRows | null => {
    const side = attempt('side', size, labelLimit);
    if (each && side?.onBar === 0) return side;
    // Above costs more height a row: it is worth it where it saves rows, or keeps labels off their own bars.
    const above = attempt('above', size, labelLimit);
    if (!side || !above) return side ?? above;
    return side.onBar === 0 && side.height <= above.height * 1.15 ? side : above;
  };
  const dense = arrangeRows(g, { style: 'free', size: frame.leastType, labelLimit: WHOLE, each });
  // Bars alone need no more rows than bars with labels: where those do not fit, nothing that is labelled does.
  if (dense.rows * pitchOf('side', frame.leastType) > height) return squeeze(dense, titles, height);

  const largest = best(frame.largestLabel);
  if (largest) return largest;
  let fits = best(frame.leastType);
  if (!fits) {
    for (const limit of LABEL_LIMITS) fits ??= best(frame.leastType, limit);
    return fits ?? squeeze(dense, titles, height);
  }
  // Half a point at a time, by bisection: what fits at one size fits at every smaller one.
  let [low, high] = [0, Math.round((frame.largestLabel - frame.leastType) * 2)];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    const tried = best(frame.leastType + middle / 2);
    if (tried) [fits, low] = [tried, middle];
    else high = middle;
  }
  return fits;
}

/** Spreads rows over the height they have, or null when they do not fit it. */
function settle(rows: Rows, titles: number[], height: number): FittedRows | null {
  const total = (pitch: number, padding: number) =>
    laneHeights(rows, titles, pitch, padding).reduce((a, b) => a + b, 0);
  for (const lanePadding of [rows.size * 0.8, rows.size * 0.45]) {
    const need = total(rows.pitch, lanePadding);
    if (need > height) continue;
    const pitch = Math.min(rows.pitch * 1.9, rows.pitch + (height - need) / Math.max(1, rows.rows));
    const spare = height - total(pitch, lanePadding);
    const wider = lanePadding + Math.min(rows.size * 1.5, Math.max(0, spare) / (2 * Math.max(1, rows.laneRows.length)));
    const padding = total(pitch, wider) <= height + 0.01 ? wider : lanePadding;
    return { ...rows, pitch, lanePadding: padding, laneTops: tops(laneHeights(rows, titles, pitch, padding)) };
  }
  return null;
}

const laneHeights = (rows: Rows, titles: number[], pitch: number, padding: number): number[] =>
  rows.laneRows.map((count, lane) => Math.max(count * pitch + 2 * padding, titles[lane]! + padding));

/** Makes rows as low as they must be to stand on the page. */
function squeeze(rows: Rows, titles: number[], height: number): FittedRows {
  const lanes = rows.laneRows.length;
  const lanePadding = Math.min(3, height / (6 * lanes));
  const least = titles.map((h) => Math.min(h, (height * 0.7) / lanes));
  const total = (pitch: number) => laneHeights(rows, least, pitch, lanePadding).reduce((a, b) => a + b, 0);
  let [pitch, high] = [0, rows.size * 2.8];
  if (total(high) <= height) pitch = high;
  else {
    for (let k = 0; k < 30; k++) {
      const middle = (pitch + high) / 2;
      if (total(middle) <= height) pitch = middle;
      else high = middle;
    }
  }
  const barHeight = Math.max(0.5, Math.min(rows.barHeight, pitch * 0.66));
  return { ...rows, pitch, barHeight, lanePadding, laneTops: tops(laneHeights(rows, least, pitch, lanePadding)) };
}

function tops(heights: number[]): number[] {
  const list = [0];
  for (const h of heights) list.push(list[list.length - 1]! + h);
  return list;
}
