import { type Gutter, type Lane, type PlacedLane, titleHeight } from '../../page/lanes';
import type { PageFrame } from '../../page/frame';
import { packRows } from '../../rows/pack';
import { hasTotals, type TimelineBrief } from '../../brief/timeline';
import { type Cells, type Geometry, LINE, ROOM, ROW_ROOM, TEXT_DOWN, TEXT_UP } from './cells';
import type { Columns } from './columns';
import { type Row, strandRows } from './strand';

/** A lane with its rows, or with the lanes within it. */
export interface LaneRows {
  lane: Lane;
  lanes: LaneRows[];
  rows: Row[];
  /** Height of the line below them that says what the lane comes to. */
  total: number;
  titleHeight: number;
  /** How many rows high it is at least, and how high such a row is. */
  least: { rows: number; row: number } | null;
}

/** Puts what every lane holds into rows: one each, or the least number in which nothing overlaps. */
export function rowsOf(
  lanes: readonly Lane[],
  g: Geometry,
  cells: Cells,
  brief: TimelineBrief,
  gutter: Gutter,
  frame: PageFrame,
  columns: Columns,
): LaneRows[] {
  const { size } = cells.style;
  return lanes.map((lane) => ({
    lane,
    lanes: rowsOf(lane.lanes, g, cells, brief, gutter, frame, columns),
    rows: lane.lanes.length > 0 ? [] : besideColumns(laneRows(lane.items, g, cells, brief), columns, size),
    total:
      hasTotals(brief) && isLeafWithSeveral(lane) && !lane.items.some((i) => g.items[i]!.folded) ? size * TOTAL : 0,
    titleHeight: titleHeight(lane, gutter, frame, g.measure),
    // A lane that was drawn together to one row is to be low.
    least:
      lane.height === null || isDrawnTogether(lane, g)
        ? null
        : { rows: lane.height, row: size * (TEXT_UP + TEXT_DOWN) },
  }));
}

const isDrawnTogether = ({ lanes, items }: Lane, g: Geometry): boolean =>
  lanes.length === 0 && items.length > 0 && items.every((i) => g.items[i]!.folded);

const isLeafWithSeveral = ({ lanes, items }: Lane): boolean => lanes.length === 0 && items.length > 1;

/** From one middle of a row to that of the totals below it, in shares of the type size. */
const TOTAL = 1.9;

/** Rows are as high as what stands beside them in the columns. */
function besideColumns(rows: Row[], columns: Columns, size: number): Row[] {
  if (columns.columns.length === 0) return rows;
  return rows.map((r) => {
    const lines = Math.max(1, ...r.members.map((i) => columns.linesOf.get(i) ?? 1));
    const more = ((lines - 1) / 2) * size * LINE;
    return { ...r, up: Math.max(r.up, size * TEXT_UP + more), down: Math.max(r.down, size * TEXT_DOWN + more) };
  });
}

/** The rows of what belongs together: what is strung on a line above, then the bars. */
function laneRows(items: number[], g: Geometry, cells: Cells, brief: TimelineBrief): Row[] {
  if (items.length > 0 && items.every((i) => g.items[i]!.folded)) return [folded(items, cells)];
  if (brief.rows === 'each') {
    const strung = items.filter((i) => g.strung[i]);
    return [
      ...strandRows(strung, g, cells, brief),
      ...oneEach(
        items.filter((i) => !g.strung[i]),
        cells,
      ),
    ];
  }
  return groupsOf(items, g).flatMap((group) => [
    ...strandRows(
      group.filter((i) => g.strung[i]),
      g,
      cells,
      brief,
    ),
    ...packed(
      group.filter((i) => !g.strung[i]),
      g,
      cells,
    ),
  ]);
}

/** What shares rows: those of one value of the field by which rows are packed, in the order of its book. */
function groupsOf(items: number[], g: Geometry): number[][] {
  if (items.every((i) => g.items[i]!.row === null)) return [items];
  const byRow = new Map<string, number[]>();
  for (const i of items) {
    const { title } = g.items[i]!.row ?? { title: '' };
    const list = byRow.get(title);
    if (list) list.push(i);
    else byRow.set(title, [i]);
  }
  const rank = (list: number[]) => g.items[list[0]!]!.row?.rank ?? 0;
  return [...byRow.values()].sort((a, b) => rank(a) - rank(b));
}

/** All of a folded lane in one row. */
const folded = (items: number[], cells: Cells): Row => ({
  members: items,
  up: Math.max(...items.map((i) => cells.up[i]!)),
  down: Math.max(...items.map((i) => cells.down[i]!)),
});

const oneEach = (items: number[], cells: Cells): Row[] =>
  items.map((i) => ({ members: [i], up: cells.up[i]!, down: cells.down[i]! }));

/** The least number of rows; they stand in the order in which their work begins. */
function packed(items: number[], g: Geometry, cells: Cells): Row[] {
  const n = items.length;
  const left = new Float64Array(n);
  const right = new Float64Array(n);
  const room = cells.style.size * ROOM;
  for (let k = 0; k < n; k++) {
    left[k] = cells.left[items[k]!]!;
    right[k] = cells.right[items[k]!]! + room;
  }
  const { row, rows: count } = packRows(left, right);
  const rows: Row[] = Array.from({ length: count }, () => ({ members: [], up: 0, down: 0 }));
  for (let k = 0; k < n; k++) {
    const i = items[k]!;
    const r = rows[row[k]!]!;
    r.members.push(i);
    r.up = Math.max(r.up, cells.up[i]!);
    r.down = Math.max(r.down, cells.down[i]!);
  }
  const begins = (i: number, j: number) => g.items[i]!.start - g.items[j]!.start || i - j;
  for (const r of rows) r.members.sort(begins);
  return rows.sort((a, b) => begins(a.members[0]!, b.members[0]!));
}

/** How rows are spread over the height that they have. */
export interface Spread {
  /** Room above and below the rows of a lane. */
  padding: number;
  /** Room between rows. */
  between: number;
}

export const rowCount = (lanes: readonly LaneRows[]): number =>
  lanes.reduce((sum, l) => sum + (l.lanes.length > 0 ? rowCount(l.lanes) : l.rows.length), 0);

/** Height of a lane: what it holds, and at least its title and as many rows as its code book wants. */
function heightOf(lane: LaneRows, spread: Spread): number {
  const { least } = lane;
  const content =
    lane.lanes.length > 0
      ? totalHeight(lane.lanes, spread)
      : lane.rows.reduce((sum, r) => sum + r.up + r.down, 0) +
        Math.max(0, lane.rows.length - 1) * spread.between +
        lane.total +
        2 * spread.padding;
  const wanted = least === null ? 0 : least.rows * least.row + (least.rows - 1) * spread.between + 2 * spread.padding;
  return Math.max(content, wanted, lane.titleHeight + spread.padding);
}

export const totalHeight = (lanes: readonly LaneRows[], spread: Spread): number =>
  lanes.reduce((sum, l) => sum + heightOf(l, spread), 0);

/** The closest that rows may stand. */
export const closest = (size: number, tight: boolean): Spread => ({
  padding: tight ? Math.max(2, size * 0.3) : size * 0.65,
  between: Math.max(1.7, size * (tight ? ROW_ROOM.tight : ROW_ROOM.loose)),
});

/** Middles of all rows by item, and the places of the lanes, from the top of the plot on. */
export interface Placed {
  middle: Float64Array;
  row: Int32Array;
  lanes: PlacedLane[];
  /** Middles of the lines of totals. */
  totals: Map<Lane, number>;
  bottom: number;
}

/** Gives every lane and row its place. */
export function placeLanes(lanes: readonly LaneRows[], spread: Spread, top: number, count: number): Placed {
  const placed: Placed = {
    middle: new Float64Array(count),
    row: new Int32Array(count),
    lanes: [],
    totals: new Map(),
    bottom: top,
  };
  let row = 0;
  const place = (lane: LaneRows, at: number, height: number): number | null => {
    const entry: PlacedLane = { lane: lane.lane, top: at, bottom: at + height, firstRow: null };
    placed.lanes.push(entry);
    let y = at;
    lane.lanes.forEach((inner, k) => {
      const own = heightOf(inner, spread);
      // The last one takes what the title of the outer lane leaves over.
      const first = place(inner, y, k === lane.lanes.length - 1 ? at + height - y : own);
      entry.firstRow ??= first;
      y += own;
    });
    y = at + spread.padding;
    for (const r of lane.rows) {
      const middle = y + r.up;
      entry.firstRow ??= middle;
      for (const i of r.members) {
        placed.middle[i] = middle;
        placed.row[i] = row;
      }
      row++;
      y += r.up + r.down + spread.between;
    }
    if (lane.total > 0) placed.totals.set(lane.lane, y - spread.between + lane.total * (1 - (TEXT_DOWN + 0.1) / TOTAL));
    return entry.firstRow;
  };
  for (const lane of lanes) {
    const height = heightOf(lane, spread);
    place(lane, placed.bottom, height);
    placed.bottom += height;
  }
  return placed;
}
