import type { TimeScale } from '../../scales/time';
import type { Measure } from '../../text/measure';
import type { Item, Selection } from './items';

/** What the rows are worked out from: places along the page, and widths of labels at a type size of one point. */
export interface Geometry {
  items: Item[];
  left: number;
  right: number;
  /** Ends of bars, within the page; for points in time both are the point. */
  x0: Float64Array;
  x1: Float64Array;
  isPoint: Uint8Array;
  isSummary: Uint8Array;
  /** True where the thing runs past the page. */
  cutLeft: Uint8Array;
  cutRight: Uint8Array;
  /** Ends of the stretches of interrupted work; null for work in one piece. */
  parts: ([number, number][] | null)[];
  nameWidth: Float64Array;
  detailWidth: Float64Array;
  /** Positions of the items of each lane, in the order that rows of one each have. */
  lanes: Int32Array[];
}

/** The face of an item's name. */
export const labelFace = (item: Item) => (item.form === 'summary' ? 'labelStrong' : 'label') as 'label' | 'labelStrong';

/** The name as it is set: summaries in capitals. */
export const labelText = (item: Item): string => (item.form === 'summary' ? item.label.toUpperCase() : item.label);

/** Width of a label with its detail. */
export const labelWidth = (measure: Measure, size: number, item: Item, label: string, detail: string): number =>
  measure.width(labelFace(item), size, label) +
  (detail === '' ? 0 : measure.width('label', size, detail) + measure.width('label', size, ' '));

/** Measures every item once. `order` says how lanes list their items. */
export function measureItems(
  selection: Selection,
  scale: TimeScale,
  measure: Measure,
  order: 'time' | 'given',
): Geometry {
  const { items } = selection;
  const n = items.length;
  const floats = () => new Float64Array(n);
  const flags = () => new Uint8Array(n);
  const g: Geometry = {
    items,
    left: scale.left,
    right: scale.right,
    x0: floats(),
    x1: floats(),
    isPoint: flags(),
    isSummary: flags(),
    cutLeft: flags(),
    cutRight: flags(),
    parts: new Array(n).fill(null),
    nameWidth: floats(),
    detailWidth: floats(),
    lanes: [],
  };
  const space = measure.width('label', 1, ' ');
  const laneOf = new Map(selection.lanes.map((l, k) => [l.id, k]));
  const lists: number[][] = selection.lanes.map(() => []);
  for (let i = 0; i < n; i++) {
    const item = items[i]!;
    const a = scale.x(item.start);
    const b = scale.x(item.finish);
    const point = item.form === 'milestone';
    g.x0[i] = Math.min(Math.max(a, g.left), g.right);
    g.x1[i] = point ? g.x0[i]! : Math.max(Math.min(Math.max(b, g.left), g.right), g.x0[i]! + 1);
    if (item.stretches) {
      const within = (m: number) => Math.min(Math.max(scale.x(m), g.left), g.right);
      g.parts[i] = item.stretches
        .map((s): [number, number] => [within(s.start), within(s.finish)])
        .filter(([p, q]) => q > p);
    }
    g.isPoint[i] = point ? 1 : 0;
    g.isSummary[i] = item.form === 'summary' ? 1 : 0;
    g.cutLeft[i] = !point && a < g.left - 0.5 ? 1 : 0;
    g.cutRight[i] = !point && b > g.right + 0.5 ? 1 : 0;
    g.nameWidth[i] = measure.width(labelFace(item), 1, labelText(item));
    g.detailWidth[i] = item.detail === '' ? 0 : measure.width('label', 1, item.detail) + space;
    lists[laneOf.get(item.lane)!]!.push(i);
  }
  if (order === 'time') {
    for (const list of lists)
      list.sort((i, j) => items[i]!.start - items[j]!.start || items[i]!.finish - items[j]!.finish || i - j);
  }
  g.lanes = lists.map((l) => Int32Array.from(l));
  return g;
}
