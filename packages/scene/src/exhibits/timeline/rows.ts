import { packRows } from '../../rows/pack';
import type { Measure } from '../../text/measure';
import { type Geometry, labelFace, labelText, labelWidth } from './geometry';
import type { Item } from './items';

/** Where labels stand: beside their bar, above it, or wherever there is room (when there is not enough for rows with labels). */
export type LabelStyle = 'side' | 'above' | 'free';

/** Distance of a label from what it names, and between things in a row. */
export const LABEL_GAP = 3.5;
export const ROW_GAP = 7;

/** Rows as they were tried: numbers only. */
export interface Rows {
  style: LabelStyle;
  size: number;
  labelLimit: number;
  barHeight: number;
  pitch: number;
  row: Int32Array;
  /** Left end and width of the room of each label. */
  labelX: Float64Array;
  labelRoom: Float64Array;
  /** Number of rows of each lane. */
  laneRows: number[];
  rows: number;
  /** Labels that had to be set on their own bar. */
  onBar: number;
  /** Least height of all rows, without the room between lanes. */
  height: number;
}

/** An item with its place on the page and its label as it is set. */
export interface Placed {
  item: Item;
  x0: number;
  x1: number;
  row: number;
  lane: number;
  label: string;
  detail: string;
  labelX: number;
  cutLeft: boolean;
  cutRight: boolean;
  /** Stretches of interrupted work along the page. */
  parts: [number, number][] | null;
}

/** Half the height of a marker: taller than a bar, and low enough to keep clear of the labels of the rows around it. */
export const halfMarker = (barHeight: number): number => barHeight * 0.68;

export interface RowOptions {
  style: LabelStyle;
  size: number;
  /** Greatest width of a label; longer ones are shortened. */
  labelLimit: number;
  /** One row each, or as few rows as hold them. */
  each: boolean;
}

export const barHeightOf = (style: LabelStyle, size: number): number =>
  style === 'free' ? size * 0.7 : Math.max(3.5, size * 0.8);

export const pitchOf = (style: LabelStyle, size: number): number =>
  style === 'side' ? size * 1.18 : barHeightOf(style, size) + size * (style === 'above' ? 1.4 : 0.25);

/** Puts the items of every lane into rows: one each, or the least number in which neither bars nor labels overlap. */
export function arrangeRows(g: Geometry, { style, size, labelLimit, each }: RowOptions): Rows {
  const n = g.items.length;
  const barHeight = barHeightOf(style, size);
  const half = halfMarker(barHeight);
  const left = new Float64Array(n);
  const right = new Float64Array(n);
  const labelX = new Float64Array(n);
  const labelRoom = new Float64Array(n);
  let onBar = 0;
  const limit = Math.min(labelLimit, g.right - g.left - 2 * half - LABEL_GAP);
  for (let i = 0; i < n; i++) {
    const x0 = g.isPoint[i] ? g.x0[i]! - half : g.x0[i]!;
    const x1 = g.isPoint[i] ? g.x0[i]! + half : g.x1[i]!;
    left[i] = x0;
    right[i] = x1;
    if (style === 'free' || g.nameWidth[i] === 0) continue;
    let width = Math.min(limit, (g.nameWidth[i]! + g.detailWidth[i]!) * size);
    let x: number;
    if ((style === 'above' && !g.isPoint[i]) || g.isSummary[i]) x = Math.max(g.left, Math.min(x0, g.right - width));
    else if (x1 + LABEL_GAP + width <= g.right + 1) x = x1 + LABEL_GAP;
    else if (x0 - LABEL_GAP - width >= g.left) x = x0 - LABEL_GAP - width;
    else {
      // Neither side has room for all of it: the wider side takes what fits, and a bar as wide as the page its own label.
      const roomRight = g.right - x1 - LABEL_GAP;
      const roomLeft = x0 - LABEL_GAP - g.left;
      const room = Math.max(roomLeft, roomRight);
      if (room >= 4 * size) {
        width = room;
        x = roomLeft > roomRight ? g.left : x1 + LABEL_GAP;
      } else {
        onBar++;
        width = Math.min(width, x1 - x0 - 2 * LABEL_GAP);
        x = x0 + LABEL_GAP;
      }
    }
    labelX[i] = x;
    labelRoom[i] = width;
    left[i] = Math.min(x0, x);
    right[i] = Math.max(x1, x + width);
  }
  const gap = style === 'free' ? 0.6 : ROW_GAP;
  const row = new Int32Array(n);
  const laneRows = g.lanes.map((members) => {
    if (each) {
      for (let k = 0; k < members.length; k++) row[members[k]!] = k;
      return members.length;
    }
    const l = new Float64Array(members.length);
    const r = new Float64Array(members.length);
    for (let k = 0; k < members.length; k++) {
      l[k] = left[members[k]!]!;
      r[k] = right[members[k]!]! + gap;
    }
    const packed = packRows(l, r);
    for (let k = 0; k < members.length; k++) row[members[k]!] = packed.row[k]!;
    return packed.rows;
  });
  const rows = laneRows.reduce((a, b) => a + b, 0);
  const pitch = pitchOf(style, size);
  return {
    style,
    size,
    labelLimit,
    barHeight,
    pitch,
    row,
    labelX,
    labelRoom,
    laneRows,
    rows,
    onBar,
    height: rows * pitch,
  };
}

/** The items in the rows that were settled on, their labels shortened to the room they have. */
export function placeItems(g: Geometry, rows: Rows, measure: Measure): Placed[] {
  const half = halfMarker(rows.barHeight);
  const placed: Placed[] = new Array(g.items.length);
  g.lanes.forEach((members, lane) => {
    for (const i of members) {
      const item = g.items[i]!;
      const point = g.isPoint[i] === 1;
      const p: Placed = {
        item,
        x0: point ? g.x0[i]! - half : g.x0[i]!,
        x1: point ? g.x0[i]! + half : g.x1[i]!,
        row: rows.row[i]!,
        lane,
        label: labelText(item),
        detail: item.detail,
        labelX: rows.labelX[i]!,
        cutLeft: g.cutLeft[i] === 1,
        cutRight: g.cutRight[i] === 1,
        parts: g.parts[i]!,
      };
      if (rows.style !== 'free')
        shortenLabel(p, rows, rows.labelRoom[i]!, (g.nameWidth[i]! + g.detailWidth[i]!) * rows.size, measure);
      placed[i] = p;
    }
  });
  return placed;
}

function shortenLabel(p: Placed, { size }: Rows, room: number, whole: number, measure: Measure): void {
  if (whole <= room + 0.01) return;
  const face = labelFace(p.item);
  const forName = room - labelWidth(measure, size, p.item, '', p.detail);
  if (forName < room * 0.5) p.detail = '';
  const standsLeft = p.labelX + room <= p.x0;
  p.label = measure.shorten(face, size, p.label, p.detail === '' ? room : forName);
  if (p.label === '') p.detail = '';
  // A label at the left of its bar keeps close to it.
  if (standsLeft) p.labelX = p.labelX + room - labelWidth(measure, size, p.item, p.label, p.detail);
}
