import type { TimelineBrief } from '../../brief/timeline';
import type { PageFrame } from '../../page/frame';
import { eachLeafLane, type Gutter, type Lane } from '../../page/lanes';
import { packRows } from '../../rows/pack';
import { BAR, type Cells, type CellStyle, type Geometry, layCells, TEXT_DOWN, TEXT_UP } from './cells';
import type { Columns } from './columns';
import { keyHeight, keyOf, type Key } from './key';
import { closest, type LaneRows, placeLanes, type Placed, rowCount, rowsOf, type Spread, totalHeight } from './rows';
import { nameClashes } from './texts';

/** Everything that stands in the plot, with its place. */
export interface FittedPage {
  cells: Cells;
  placed: Placed;
  rows: number;
  key: Key | null;
  keyHeight: number;
}

/** What rows are fitted into. */
export interface PageRoom {
  lanes: Lane[];
  gutter: Gutter;
  frame: PageFrame;
  top: number;
  height: number;
  brief: TimelineBrief;
  columns: Columns;
}

const WHOLE = 1e9;
/** How much of its greatest width a label keeps, in type sizes, one try after the other. */
const LIMITS = [22, 15, 10, 7.5];
/** More names than these in a key are no help to a reader. */
const MOST_IN_KEY = 150;
/** The share of labels that may stand on the status line before type is grown no further. */
const MOST_CROSSINGS = 0.1;
const TIGHT = { withDates: true, limit: WHOLE, tight: true } as const;

/** The rows at one type size as they were tried. */
interface Attempt {
  cells: Cells;
  lanes: LaneRows[];
  least: Spread;
  key: Key | null;
  keyHeight: number;
}

/** With more things than these, sizes that cannot fit are not tried: every try counts. */
const MANY = 300;
/** How much more than in proportion a larger type may hold after all: labels find other places. */
const SLACK = 1.15;

/**
 * Finds the largest type at which the rows fit the height. At the least type labels lose first their dates, then
 * long names their ends; those that would then be alike become numbers into a key. Null where not even that can be read.
 */
export function fitPage(g: Geometry, room: PageRoom): FittedPage | null {
  const { frame } = room;
  const [least, most] = [frame.leastType, frame.labelSize];
  if (leastHeight(g, room) > room.height) return null;
  const atSize = (size: number): Attempt | null => {
    for (const tall of [true, false]) {
      const tried = attempt(g, room, { ...TIGHT, size, tall, tight: false });
      if (tried) return tried;
    }
    return null;
  };
  const many = g.items.length > MANY;
  const bound = many ? largestSize(g, room) : most;
  if (bound >= most) {
    const largest = atSize(most);
    if (largest) return spreadOut(g, room, largest);
  }
  const fits = bound < least ? null : atSize(least);
  if (!fits) return shortened(g, room);
  // Half a point at a time, by bisection: what fits at one size fits at every smaller one.
  let best = fits;
  let [low, high] = [0, Math.ceil((Math.min(most, bound) - least) * 2 + (bound < most ? 1 : 0))];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    const tried = atSize(least + middle / 2);
    if (tried) [best, low] = [tried, middle];
    else high = middle;
  }
  return spreadOut(g, room, best);
}

/** The size beyond which rows cannot fit: the height of rows grows with their type at the least. */
function largestSize(g: Geometry, room: PageRoom): number {
  const size = room.frame.leastType;
  const spread = closest(size, false);
  const needs = [true, false].map((tall) => {
    const cells = layCells(g, { ...TIGHT, size, tall, tight: false }, new Uint8Array(g.items.length));
    const lanes = rowsOf(room.lanes, g, cells, room.brief, room.gutter, room.frame, room.columns);
    return totalHeight(lanes.map(withoutTitle), spread);
  });
  return (size * SLACK * room.height) / Math.min(...needs);
}

/** Titles of lanes do not grow with the rows. */
const withoutTitle = (lane: LaneRows): LaneRows => ({ ...lane, lanes: lane.lanes.map(withoutTitle), titleHeight: 0 });

/** Labels at the least type as they have to be shortened for the rows to fit; null where they fit no way. */
function shortened(g: Geometry, room: PageRoom): FittedPage | null {
  const { leastType } = room.frame;
  const shortest = LIMITS.at(-1)! * leastType;
  const steps: Partial<CellStyle>[] = [
    {},
    { withDates: false },
    ...LIMITS.map((limit) => ({ withDates: false, limit: limit * leastType })),
    ...(g.strung.some((s) => s > 0) ? [{ withDates: false, limit: shortest, numbers: true }] : []),
  ];
  const atStep = (k: number): Attempt | null => {
    const style = { ...TIGHT, size: leastType, ...steps[k]! };
    return attempt(g, room, { ...style, tall: false }) ?? attempt(g, room, { ...style, tall: true });
  };
  // What does not fit at the last step fits at none: a page that cannot be read is known soon.
  let fits = atStep(steps.length - 1);
  if (!fits) return null;
  // Each step needs no more room than the one before it: the first that fits is found by bisection.
  let [low, high] = [-1, steps.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    const tried = atStep(middle);
    if (tried) [fits, high] = [tried, middle];
    else low = middle;
  }
  return spreadOut(g, room, fits);
}

/** True when everything has its whole label at the greatest type of the frame, for a page that may grow its type. */
export function fitsWhole(g: Geometry, room: PageRoom): FittedPage | null {
  const tried = attempt(g, room, { ...TIGHT, size: room.frame.labelSize, tall: true, tight: false });
  if (!tried || tried.cells.shortened > 0 || tried.cells.numbers > 0) return null;
  // Type does not grow at the cost of the status line, which would be in pieces.
  if (tried.cells.crossings > MOST_CROSSINGS * g.items.length) return null;
  return spreadOut(g, room, tried);
}

/**
 * The least height that rows can take: as many as the bars alone need, each as low as a line of the least type. What
 * does not fit so fits no other way.
 */
function leastHeight(g: Geometry, room: PageRoom): number {
  const size = room.frame.leastType;
  const labelled = g.nameWidth.some((w) => w > 0);
  const line = size * (labelled ? TEXT_UP + TEXT_DOWN : BAR.low);
  const spread = closest(size, true);
  let height = 0;
  eachLeafLane(room.lanes, ({ items }) => {
    const bars = items.filter((i) => !g.strung[i]);
    const strands = bars.length < items.length ? 1 : 0;
    const rows = strands + (room.brief.rows === 'each' ? bars.length : rowsOfBars(g, bars));
    height += rows * line + Math.max(0, rows - 1) * spread.between + 2 * spread.padding;
  });
  return height;
}

function rowsOfBars(g: Geometry, items: readonly number[]): number {
  const left = Float64Array.from(items, (i) => g.x0[i]!);
  const right = Float64Array.from(items, (i) => g.x1[i]!);
  return packRows(left, right).rows;
}

function attempt(g: Geometry, room: PageRoom, style: CellStyle): Attempt | null {
  let cells = layCells(g, style, new Uint8Array(g.items.length));
  const clashes = nameClashes(g, cells);
  if (clashes) cells = layCells(g, style, clashes);
  if (cells.numbers > MOST_IN_KEY) return null;
  const lanes = rowsOf(room.lanes, g, cells, room.brief, room.gutter, room.frame, room.columns);
  if (!cells.clear) return null;
  const least = closest(style.size, style.tight);
  const need = totalHeight(lanes, least);
  if (need > room.height) return null;
  const key = cells.numbers > 0 ? keyOf(g, cells, lanes, room.frame) : null;
  const forKey = key ? keyHeight(key) : 0;
  return need + forKey > room.height ? null : { cells, lanes, least, key, keyHeight: forKey };
}

/** Spreads rows over the height that they have; a page with few rows does not leave most of it empty. */
function spreadOut(g: Geometry, room: PageRoom, { cells, lanes, least, key, keyHeight: forKey }: Attempt): FittedPage {
  const { size } = cells.style;
  const height = room.height - forKey;
  const count = rowCount(lanes);
  const most: Spread = { padding: Math.max(size * 2.2, 14), between: Math.max(size * 3.2, 26) };
  const at = (share: number): Spread => ({
    padding: least.padding + (Math.max(most.padding, least.padding) - least.padding) * share,
    between: least.between + (Math.max(most.between, least.between) - least.between) * share,
  });
  let [low, high] = [0, 1];
  if (totalHeight(lanes, at(1)) <= height) low = 1;
  else {
    for (let k = 0; k < 12; k++) {
      const middle = (low + high) / 2;
      if (totalHeight(lanes, at(middle)) <= height) low = middle;
      else high = middle;
    }
  }
  const spread = at(low);
  const left = height * 0.8 - totalHeight(lanes, spread);
  if (left > 0) {
    // A step between the rows of a lane, and half of it above and below them, is one for every row.
    const step = left / Math.max(1, count);
    const widest = Math.max(110, height * 0.15);
    spread.between += Math.min(step, widest);
    spread.padding += Math.min(step, widest) / 2;
    const over = totalHeight(lanes, spread) - height;
    if (over > 0) Object.assign(spread, at(low));
  }
  return {
    cells,
    placed: placeLanes(lanes, spread, room.top, g.items.length),
    rows: count,
    key,
    keyHeight: forKey,
  };
}
