import { packRows } from '../../rows/pack';
import type { TimeScale } from '../../scales/time';
import type { Measure } from '../../text/measure';
import type { Item, Selection } from './items';

/** Where labels stand: beside their bar, above it, or wherever there is room (when there is not enough for rows with labels). */
export type LabelStyle = 'side' | 'above' | 'free';

/** Distance of a label from what it names, and between things in a row. */
export const LABEL_GAP = 3.5;
export const ROW_GAP = 7;

/** An item with its place along the page. */
export interface Placed {
  item: Item;
  x0: number;
  x1: number;
  row: number;
  lane: number;
  /** Label text after shortening, with its left end; not set in free style. */
  label: string;
  detail: string;
  labelX: number;
  /** True where the thing runs past the page. */
  cutLeft: boolean;
  cutRight: boolean;
}

export interface Rows {
  style: LabelStyle;
  size: number;
  barHeight: number;
  pitch: number;
  placed: Placed[];
  /** Number of rows of each lane. */
  laneRows: number[];
  rows: number;
  /** Least height of all rows, without the room between lanes. */
  height: number;
}

/** Half the height of a marker: taller than a bar, and low enough to keep clear of the labels of the rows around it. */
export const halfMarker = (barHeight: number): number => barHeight * 0.68;

export type EachOrder = 'outline' | 'time' | null;

export interface RowOptions {
  style: LabelStyle;
  size: number;
  /** Greatest width of a label; longer ones are shortened. */
  labelLimit: number;
  /** One row each, in the order of the outline or of time; null packs. */
  each: EachOrder;
}

/** Puts the items of every lane into rows: one each, or the least number in which neither bars nor labels overlap. */
export function arrangeRows(selection: Selection, scale: TimeScale, measure: Measure, options: RowOptions): Rows {
  const { style, size } = options;
  const barHeight = style === 'free' ? size * 0.7 : Math.max(3.5, size * 0.8);
  const pitch = style === 'side' ? size * 1.18 : style === 'above' ? barHeight + size * 1.4 : barHeight * 1.35;
  const laneIndex = new Map(selection.lanes.map((l, k) => [l.id, k]));
  const placed = selection.items.map((item) =>
    placeItem(item, scale, measure, options, barHeight, laneIndex.get(item.lane)!),
  );
  const laneRows = selection.lanes.map((_, lane) => {
    const members = placed.filter((p) => p.lane === lane);
    if (options.each) {
      if (options.each === 'time') members.sort((a, b) => a.item.start - b.item.start || a.item.finish - b.item.finish);
      members.forEach((p, k) => {
        p.row = k;
      });
      return members.length;
    }
    const left = Float64Array.from(members, (p) => leftEnd(p, style));
    const right = Float64Array.from(
      members,
      (p) => rightEnd(p, style, size, measure) + (style === 'free' ? 0.6 : ROW_GAP),
    );
    const { row, rows } = packRows(left, right);
    members.forEach((p, k) => {
      p.row = row[k]!;
    });
    return rows;
  });
  const rows = laneRows.reduce((a, b) => a + b, 0);
  return { style, size, barHeight, pitch, placed, laneRows, rows, height: rows * pitch };
}

export const labelFace = (item: Item) => (item.form === 'summary' ? 'labelStrong' : 'label') as 'label' | 'labelStrong';

/** Width of a label with its detail. */
export function labelWidth(measure: Measure, size: number, item: Item, label: string, detail: string): number {
  return measure.width(labelFace(item), size, label) + (detail === '' ? 0 : measure.width('label', size, ` ${detail}`));
}

function placeItem(
  item: Item,
  scale: TimeScale,
  measure: Measure,
  options: RowOptions,
  barHeight: number,
  lane: number,
): Placed {
  const { style, size, labelLimit } = options;
  const half = halfMarker(barHeight);
  const clamp = (x: number) => Math.min(Math.max(x, scale.left), scale.right);
  const point = item.form === 'milestone';
  const x0 = point ? clamp(scale.x(item.start)) - half : clamp(scale.x(item.start));
  const x1 = point ? x0 + 2 * half : Math.max(clamp(scale.x(item.finish)), x0 + 1);
  const text = item.form === 'summary' ? item.label.toUpperCase() : item.label;
  let [label, detail] = [text, item.detail];
  let width = labelWidth(measure, size, item, label, detail);
  const limit = Math.min(labelLimit, scale.right - scale.left - 2 * half - LABEL_GAP);
  if (width > limit) {
    const room = limit - (width - measure.width(labelFace(item), size, label));
    label = measure.shorten(labelFace(item), size, text, Math.max(room, limit * 0.5));
    if (room < limit * 0.5) detail = '';
    width = labelWidth(measure, size, item, label, detail);
  }
  let labelX: number;
  if ((style === 'above' && !point) || item.form === 'summary')
    labelX = Math.max(scale.left, Math.min(x0, scale.right - width));
  else if (x1 + LABEL_GAP + width <= scale.right + 1) labelX = x1 + LABEL_GAP;
  else if (x0 - LABEL_GAP - width >= scale.left) labelX = x0 - LABEL_GAP - width;
  else {
    // Neither side has room for all of it: the wider side takes what fits, and a bar as wide as the page its own label.
    const right = scale.right - x1 - LABEL_GAP;
    const left = x0 - LABEL_GAP - scale.left;
    const room = Math.max(left, right);
    const shorter = room < 3 * size ? '' : measure.shorten(labelFace(item), size, text, room);
    if (shorter !== '') {
      [label, detail] = [shorter, ''];
      labelX = left > right ? x0 - LABEL_GAP - labelWidth(measure, size, item, label, '') : x1 + LABEL_GAP;
    } else labelX = x0 + LABEL_GAP;
  }
  const cutLeft = !point && scale.x(item.start) < scale.left - 0.5;
  const cutRight = !point && scale.x(item.finish) > scale.right + 0.5;
  return { item, x0, x1, row: 0, lane, label, detail, labelX, cutLeft, cutRight };
}

const leftEnd = (p: Placed, style: LabelStyle): number =>
  style === 'free' || p.label === '' ? p.x0 : Math.min(p.x0, p.labelX);

const rightEnd = (p: Placed, style: LabelStyle, size: number, measure: Measure): number =>
  style === 'free' || p.label === ''
    ? p.x1
    : Math.max(p.x1, p.labelX + labelWidth(measure, size, p.item, p.label, p.detail));
