import type { TimelineBrief } from '../../brief/timeline';
import type { TimeScale } from '../../scales/time';
import type { Measure } from '../../text/measure';
import type { Label } from './labels';
import type { Item } from './select';

/** What rows are worked out from: places along the page in points, and widths of labels at a type size of one point. */
export interface Geometry {
  items: Item[];
  labels: Label[];
  measure: Measure;
  left: number;
  right: number;
  /** The line of the status date, an obstacle for labels; NaN where there is none. */
  statusX: number;
  /** Where labels stand where they have room there. */
  side: TimelineBrief['side'];
  /** Ends of bars, within the page; for points in time both are the point. */
  x0: Float64Array;
  x1: Float64Array;
  /** Right end of what is done, as a share of the whole bar, also where the page cuts it. */
  done: Float64Array;
  isPoint: Uint8Array;
  isSummary: Uint8Array;
  cutLeft: Uint8Array;
  cutRight: Uint8Array;
  /** Ends of all that tells what was promised, within the page; NaN where nothing was. */
  promised0: Float64Array;
  promised1: Float64Array;
  /** Ends of its outline, and of the arrow from the promised to the current finish; NaN where there is none. */
  outline0: Float64Array;
  outline1: Float64Array;
  arrow0: Float64Array;
  arrow1: Float64Array;
  /** Where the deadline is; NaN where there is none on the page. */
  deadline: Float64Array;
  /** Ends of the stretches of interrupted work; null for work in one piece. */
  parts: ([number, number][] | null)[];
  /** Ends of the critical work of a group; null for one thing. */
  criticalWork: ([number, number][] | null)[];
  /** 1 where an item stands on a line with others, its label on a stem; 2 where others may lie over it there. */
  strung: Uint8Array;
  nameWidth: Float64Array;
  atFinishWidth: Float64Array;
  elsewhereWidth: Float64Array;
}

/** Bars are at least so wide, that they can be seen, in points. */
const LEAST_BAR = 1.2;

/** Measures every item once for a time scale. */
export function measureItems(
  items: Item[],
  labels: Label[],
  scale: TimeScale,
  statusX: number | null,
  measure: Measure,
  brief: Pick<TimelineBrief, 'compareBy' | 'rows' | 'points' | 'overlaps' | 'deadlines' | 'side'>,
): Geometry {
  const n = items.length;
  const floats = () => new Float64Array(n);
  const flags = () => new Uint8Array(n);
  const g: Geometry = {
    items,
    labels,
    measure,
    left: scale.left,
    right: scale.right,
    statusX: statusX ?? Number.NaN,
    side: brief.side,
    x0: floats(),
    x1: floats(),
    done: floats(),
    isPoint: flags(),
    isSummary: flags(),
    cutLeft: flags(),
    cutRight: flags(),
    promised0: floats(),
    promised1: floats(),
    outline0: floats().fill(Number.NaN),
    outline1: floats().fill(Number.NaN),
    arrow0: floats().fill(Number.NaN),
    arrow1: floats().fill(Number.NaN),
    deadline: floats().fill(Number.NaN),
    parts: new Array(n).fill(null),
    criticalWork: new Array(n).fill(null),
    strung: flags(),
    nameWidth: floats(),
    atFinishWidth: floats(),
    elsewhereWidth: floats(),
  };
  const within = (x: number) => Math.min(Math.max(x, g.left), g.right);
  for (let i = 0; i < n; i++) {
    const item = items[i]!;
    const [a, b] = [scale.x(item.start), scale.x(item.finish)];
    const point = item.form === 'milestone';
    g.x0[i] = point ? within(a) : Math.min(within(a), g.right - LEAST_BAR);
    g.x1[i] = point ? g.x0[i]! : Math.max(within(b), g.x0[i]! + LEAST_BAR);
    g.done[i] = within(item.stretches ? doneInStretches(item, scale) : a + (b - a) * item.progress);
    const placed = (spans: readonly { start: number; finish: number }[]): [number, number][] =>
      spans.map((s): [number, number] => [within(scale.x(s.start)), within(scale.x(s.finish))]);
    if (item.stretches) g.parts[i] = placed(item.stretches).filter(([p, q]) => q > p);
    if (item.criticalWork) g.criticalWork[i] = placed(item.criticalWork.spans);
    g.isPoint[i] = point ? 1 : 0;
    g.isSummary[i] = item.form === 'summary' ? 1 : 0;
    g.cutLeft[i] = !point && a < g.left - 0.5 ? 1 : 0;
    g.cutRight[i] = !point && b > g.right + 0.5 ? 1 : 0;
    g.promised0[i] = g.promised1[i] = Number.NaN;
    placePromise(g, i, scale, brief.compareBy);
    if (brief.deadlines && item.deadline !== null) {
      const x = scale.x(item.deadline);
      if (x >= g.left && x <= g.right) g.deadline[i] = x;
    }
    g.strung[i] = isStrung(item, brief) ? (brief.rows === 'packed' && brief.overlaps === 'allowed' ? 2 : 1) : 0;
    const { widths } = labels[i]!;
    g.nameWidth[i] = widths.name;
    g.atFinishWidth[i] = widths.atFinish;
    g.elsewhereWidth[i] = widths.elsewhere;
  }
  return g;
}

/** What stands on a line with others of its lane: points in time and phases, or all where overlaps are allowed. */
export const isStrung = (item: Item, brief: Pick<TimelineBrief, 'rows' | 'points' | 'overlaps'>): boolean =>
  item.phase ||
  (item.form === 'milestone' && (brief.rows === 'strand' || brief.points !== 'among')) ||
  (brief.rows === 'packed' && brief.overlaps === 'allowed');

/** Progress fills stretches one after the other. */
function doneInStretches(item: Item, scale: TimeScale): number {
  const worked = item.stretches!.reduce((sum, s) => sum + s.finish - s.start, 0);
  let left = worked * item.progress;
  for (const s of item.stretches!) {
    if (left <= s.finish - s.start) return scale.x(s.start + left);
    left -= s.finish - s.start;
  }
  return scale.x(item.finish);
}

function placePromise(g: Geometry, i: number, scale: TimeScale, compareBy: TimelineBrief['compareBy']): void {
  const { promised, form, off } = g.items[i]!;
  if (!promised || form === 'summary') return;
  const within = (x: number) => Math.min(Math.max(x, g.left), g.right);
  const [a, b] = [scale.x(promised.start), scale.x(promised.finish)];
  const ends: number[] = [];
  // What is where it was promised has no arrow: its outline says so.
  const arrow = compareBy !== 'outline' && off !== null && Math.abs(off) >= 0.5;
  if ((compareBy !== 'arrow' || !arrow) && b >= g.left && a <= g.right) {
    const start = Math.min(within(a), g.right - LEAST_BAR);
    g.outline0[i] = start;
    g.outline1[i] = g.isPoint[i] ? start : Math.max(Math.min(b, g.right), start + LEAST_BAR);
    ends.push(g.outline0[i]!, g.outline1[i]!);
  }
  const now = g.isPoint[i] ? g.x0[i]! : g.x1[i]!;
  if (arrow && Math.abs(within(b) - now) > 1.5) {
    g.arrow0[i] = within(b);
    g.arrow1[i] = now;
    ends.push(g.arrow0[i]!, g.arrow1[i]!);
  }
  if (ends.length === 0) return;
  g.promised0[i] = Math.min(...ends);
  g.promised1[i] = Math.max(...ends);
}

/** Where a label stands. */
export const NOWHERE = 0;
export const INSIDE = 1;
export const RIGHT = 2;
export const LEFT = 3;
export const ABOVE = 4;
/** On a stem, to its right or to its left. */
export const STEM = 5;
export const STEM_LEFT = 6;

/** How things and labels are tried. Lengths in shares of the type size. */
export interface CellStyle {
  size: number;
  /** Bars as tall as the name that they hold, or low. */
  tall: boolean;
  /** Whether labels keep their dates and amounts. */
  withDates: boolean;
  /** Names longer than this are shortened; in points. */
  limit: number;
  /** Rows stand as close as reading allows. */
  tight: boolean;
  /** Labels on stems are numbers into the key. */
  numbers?: boolean;
}

export const BAR = { low: 0.62, tall: 1.55 } as const;
const MARKER = { low: 0.46, tall: 0.62 } as const;
/** From a label to what it names: less than to anything else. */
const GAP = { loose: 0.3, tight: 0.2 } as const;
/** Between things in a row, and between rows. */
export const ROOM = 1;
export const ROW_ROOM = { loose: 0.5, tight: 0.26 } as const;
/** What stands above and below the middle of a line of text: its ascenders and descenders. */
export const TEXT_UP = 0.48;
export const TEXT_DOWN = 0.52;
/** From the middle of a line to its baseline. */
export const BASELINE = 0.27;
export const LINE = 1.16;
/** Room at both ends of a bar for the name in it. */
const INSET = 0.4;
/** The outline of what was promised: its distance below a bar, and its height. */
export const PROMISED = { gap: 0.14, height: 0.32 } as const;

/** How far below the middle of a bar the outline of its promise begins: below the bar, and below a label beside it. */
export const promisedTop = (style: CellStyle, point: boolean, twoLines: boolean): number =>
  Math.max(
    (point ? markerHalfOf(style) : barHeightOf(style) / 2) + style.size * PROMISED.gap,
    style.size * (TEXT_DOWN + 0.08 + (twoLines ? LINE / 2 : 0)),
  );

/** Cells of all items: what each takes in its row, and where its label goes. */
export interface Cells {
  style: CellStyle;
  left: Float64Array;
  right: Float64Array;
  /** From the middle of the bar. */
  up: Float64Array;
  down: Float64Array;
  place: Uint8Array;
  labelX: Float64Array;
  /** Of labels on stems: from the middle of the bar to the middle of the line of text. */
  labelY: Float64Array;
  /** Where a stem stands. */
  stemX: Float64Array;
  /** Room for the label; less than it takes where it has to be shortened. */
  room: Float64Array;
  lines: Uint8Array;
  /** 1 where the label is a number into the key. */
  numbered: Uint8Array;
  shortened: number;
  numbers: number;
  /** Labels that the status line runs into, and so has to leave out. */
  crossings: number;
  /** False where labels on stems are too long to stand clear of each other. */
  clear: boolean;
}

export const barHeightOf = (style: CellStyle): number => style.size * (style.tall ? BAR.tall : BAR.low);
/** Half the width of the mark of a deadline. */
export const DEADLINE = 0.3;
/** How tall supporting work is drawn, as a share of a bar. */
export const SUPPORT = 0.6;
/** Half the height of a thing's own mark. */
export function halfHeight(g: Geometry, style: CellStyle, i: number): number {
  if (g.isPoint[i]) return markerHalfOf(style);
  if (g.isSummary[i]) return style.size * 0.2;
  return (barHeightOf(style) / 2) * (g.items[i]!.form === 'support' ? SUPPORT : 1);
}
export const markerHalfOf = (style: CellStyle): number => style.size * (style.tall ? MARKER.tall : MARKER.low);
/** What a number into the key takes at the most. */
const NUMBER_WIDTH = 1.7;
/** A name with fewer letters than these says nothing; in shares of the type size. */
const LEAST_NAME = 3.2;

/** Places every item with its label: inside its bar, at its right, at its left, above it, shortened, or as a number. */
export function layCells(g: Geometry, style: CellStyle, numbered: Uint8Array): Cells {
  const n = g.items.length;
  const floats = () => new Float64Array(n);
  const cells: Cells = {
    style,
    left: floats(),
    right: floats(),
    up: floats(),
    down: floats(),
    place: new Uint8Array(n),
    labelX: floats(),
    labelY: floats(),
    stemX: floats(),
    room: floats(),
    lines: new Uint8Array(n).fill(1),
    numbered: Uint8Array.from(numbered),
    shortened: 0,
    numbers: 0,
    crossings: 0,
    clear: true,
  };
  const { size } = style;
  const half = markerHalfOf(style);
  for (let i = 0; i < n; i++) {
    const point = g.isPoint[i] === 1;
    let [a, b] = point ? [g.x0[i]! - half, g.x1[i]! + half] : [g.x0[i]!, g.x1[i]!];
    // A label stands beyond the mark of a deadline.
    if (!Number.isNaN(g.deadline[i]!)) {
      a = Math.max(g.left, Math.min(a, g.deadline[i]! - size * DEADLINE));
      b = Math.min(g.right, Math.max(b, g.deadline[i]! + size * DEADLINE));
    }
    if (style.numbers && g.strung[i]) cells.numbered[i] = 1;
    cells.left[i] = a;
    cells.right[i] = b;
    cells.up[i] = cells.down[i] = halfHeight(g, style, i);
    if (!Number.isNaN(g.promised0[i]!)) {
      const reach = point ? size * PROMISED.height * 0.62 : 0;
      cells.left[i] = Math.min(a, g.promised0[i]! - reach);
      cells.right[i] = Math.max(b, g.promised1[i]! + reach);
      cells.down[i] = Math.max(cells.down[i]!, promisedTop(style, point, false) + size * PROMISED.height * 1.1);
    }
    if (!labelledInRow(g, i)) {
      cells.numbered[i] = 0;
      continue;
    }
    placeLabel(g, cells, i, a, b);
    if (cells.place[i] === NOWHERE) continue;
    cells.numbers += cells.numbered[i]!;
    if (cells.place[i] === STEM) continue;
    if (crosses(g.statusX, cells.labelX[i]!, cells.labelX[i]! + cells.room[i]!)) cells.crossings++;
    cells.left[i] = Math.min(cells.left[i]!, cells.labelX[i]!);
    cells.right[i] = Math.max(cells.right[i]!, cells.labelX[i]! + cells.room[i]!);
  }
  return cells;
}

/** Whether a label stands in its row: one that was put elsewhere by hand, or that a folded lane leaves out, does not. */
const labelledInRow = (g: Geometry, i: number): boolean => {
  const { own, folded } = g.items[i]!;
  return (g.nameWidth[i]! > 0 || g.elsewhereWidth[i]! > 0) && !folded && own?.at === undefined;
};

/** Tries the places of a label in the order in which they read best. */
function placeLabel(g: Geometry, c: Cells, i: number, a: number, b: number): void {
  const { size, withDates, limit } = c.style;
  const gap = size * (c.style.tight ? GAP.tight : GAP.loose);
  const asNumber = c.numbered[i] === 1;
  const elsewhere = withDates ? g.elsewhereWidth[i]! : g.nameWidth[i]!;
  const atFinish = withDates ? g.atFinishWidth[i]! : g.nameWidth[i]!;
  const whole = asNumber ? size * NUMBER_WIDTH : Math.min(limit, elsewhere * size);
  const wholeRight = asNumber ? whole : Math.min(limit, atFinish * size);
  const put = (place: number, x: number, room: number) => {
    c.place[i] = place;
    c.labelX[i] = x;
    c.room[i] = room;
    const needed = (place === RIGHT ? atFinish : elsewhere) * size;
    if (asNumber) c.numbered[i] = 1;
    else if (room < needed - 0.01) c.shortened++;
    if (place === ABOVE) c.up[i] = c.up[i]! + size * (0.16 + TEXT_UP + TEXT_DOWN);
    else if (place !== INSIDE && place !== STEM) {
      c.up[i] = Math.max(c.up[i]!, size * TEXT_UP);
      c.down[i] = Math.max(c.down[i]!, size * TEXT_DOWN);
    }
  };
  if (g.strung[i]) {
    // The point at which a phase begins reaches into it.
    const from = a + markerHalfOf(c.style);
    const inside =
      g.strung[i] === 1 && g.items[i]!.phase && canHold(g, c.style, i)
        ? insidePlace(g, from, b, whole, size)
        : Number.NaN;
    if (!Number.isNaN(inside)) return put(INSIDE, inside, whole);
    const x = g.isPoint[i] ? g.x0[i]! : g.items[i]!.phase ? (a + b) / 2 : Math.min(a + 1.5, (a + b) / 2);
    c.stemX[i] = x;
    return put(STEM, x, Math.min(whole, Math.max(g.right - x, x - g.left)));
  }
  if (g.isSummary[i]) {
    const room = Math.min(whole, g.right - g.left);
    put(ABOVE, Math.max(g.left, Math.min(a, g.right - room)), room);
    return;
  }
  const side = g.items[i]!.own?.side ?? g.side;
  const inside = canHold(g, c.style, i) ? insidePlace(g, a, b, whole, size) : Number.NaN;
  if (!Number.isNaN(inside) && (side === 'auto' || side === 'inside')) return put(INSIDE, inside, whole);
  const [rightX, leftX] = [b + gap, a - gap - whole];
  const fitsRight = rightX + wholeRight <= g.right + 0.01;
  const fitsLeft = leftX >= g.left - 0.01;
  const clear = (x: number, width: number) => !crosses(g.statusX, x, x + width);
  if (side === 'left' && fitsLeft) return put(LEFT, leftX, whole);
  if (side === 'right' && fitsRight) return put(RIGHT, rightX, wholeRight);
  if (side === 'above' && !g.isPoint[i] && !asNumber) {
    const above = abovePlace(g, a, b, whole);
    if (!Number.isNaN(above)) return put(ABOVE, above, whole);
  }
  if (fitsRight && clear(rightX, wholeRight)) return put(RIGHT, rightX, wholeRight);
  if (fitsLeft && clear(leftX, whole)) return put(LEFT, leftX, whole);
  if (asNumber && b - a < size * 3) return put(fitsRight ? RIGHT : LEFT, fitsRight ? rightX : leftX, whole);
  // Above a long bar there is room where there is none at its ends.
  const aboveX = abovePlace(g, a, b, whole);
  if (!g.isPoint[i] && !Number.isNaN(aboveX) && whole <= Math.max(b - a, size * 8)) return put(ABOVE, aboveX, whole);
  if (fitsRight) return put(RIGHT, rightX, wholeRight);
  if (fitsLeft) return put(LEFT, leftX, whole);
  placeNarrow(g, c, i, a, b, whole, put);
}

/** Where no side has room for all of it: in two lines, above, shortened, or as a number. */
function placeNarrow(
  g: Geometry,
  c: Cells,
  i: number,
  a: number,
  b: number,
  whole: number,
  put: (place: number, x: number, room: number) => void,
): void {
  const { size } = c.style;
  const gap = size * (c.style.tight ? GAP.tight : GAP.loose);
  const [roomRight, roomLeft] = [g.right - b - gap, a - gap - g.left];
  const room = Math.max(roomLeft, roomRight);
  const atRight = roomRight >= roomLeft;
  if (room >= whole * 0.62 && room >= size * 6 && g.nameWidth[i]! > 0) {
    put(atRight ? RIGHT : LEFT, atRight ? b + gap : g.left, room);
    c.shortened--;
    c.lines[i] = 2;
    c.up[i] = Math.max(c.up[i]!, size * (TEXT_UP + LINE / 2));
    c.down[i] = Math.max(c.down[i]!, size * (TEXT_DOWN + LINE / 2));
    if (!Number.isNaN(g.promised0[i]!))
      c.down[i] = Math.max(c.down[i]!, promisedTop(c.style, g.isPoint[i] === 1, true) + size * PROMISED.height * 1.1);
    return;
  }
  const aboveX = abovePlace(g, a, b, whole);
  if (!g.isPoint[i] && !Number.isNaN(aboveX)) return put(ABOVE, aboveX, whole);
  if (room >= size * LEAST_NAME) return put(atRight ? RIGHT : LEFT, atRight ? b + gap : g.left, room);
  if (!g.isPoint[i] && b - a > size * LEAST_NAME) return put(ABOVE, a, Math.min(whole, g.right - a));
  c.numbered[i] = 1;
  const number = size * NUMBER_WIDTH;
  put(
    atRight ? RIGHT : LEFT,
    atRight ? Math.min(b + gap, g.right - number) : Math.max(g.left, a - gap - number),
    number,
  );
}

/** Whether a bar can hold its name: tall ones without a pattern and in one piece. */
const canHold = (g: Geometry, style: CellStyle, i: number): boolean => {
  if (!Number.isNaN(g.deadline[i]!)) return false;
  const { form, pattern, stretches } = g.items[i]!;
  return style.tall && (form === 'bar' || form === 'group') && pattern === 0 && stretches === null;
};

/** Where in a bar a name stands, clear of the status line and of the ends; NaN where it has no room. */
function insidePlace(g: Geometry, a: number, b: number, width: number, size: number): number {
  const inset = size * INSET + (b - a > 12 ? 2 : 0);
  const [from, to] = [a + inset, b - inset];
  if (!crosses(g.statusX, from, from + width)) return from + width <= to ? from : Number.NaN;
  const after = g.statusX + 2;
  return after + width <= to ? after : Number.NaN;
}

/** Where above a bar a name stands on the page, clear of the status line where that can be. */
function abovePlace(g: Geometry, a: number, b: number, width: number): number {
  if (width > g.right - g.left) return Number.NaN;
  const x = Math.max(g.left, Math.min(a, g.right - width));
  if (!crosses(g.statusX, x, x + width)) return x;
  const [before, after] = [g.statusX - 2 - width, g.statusX + 2];
  if (after + width <= Math.max(b, g.right) && after < b) return after;
  return before >= g.left && before + width > a ? before : x;
}

const crosses = (at: number, from: number, to: number): boolean => at > from - 1.5 && at < to + 1.5;
