import { layCells } from './cells';
import { laneKey } from './laneKey';
import type { Item, Selection } from './item';
import type { Label } from './labels';
import type { Regions } from './regions';
import { closest, type LaneRows, rowsOf, totalHeight } from './rows';
import type { Row } from './strand';

/** More pages than these are nobody's one exhibit. */
export const MOST_SHEETS = 60;

/** What stands on one of several pages. */
export interface Sheet {
  items: number[];
  /** Lanes that begin on an earlier page, by their codes. */
  continued: ReadonlySet<string>;
}

/** A row with the lanes that it lies in, outermost first. */
interface Entry {
  path: LaneRows[];
  row: Row;
}

/**
 * Shares the rows of an exhibit out among pages, in their order, each page with as many as stand on it at the usual
 * type. A lane that does not end with its page goes on on the next.
 */
export function sheetsOf(r: Regions, height: number): Sheet[] {
  const { geometry: g, frame, input } = r;
  const style = { size: frame.labelSize, tall: false, withDates: true, limit: 1e9, tight: false };
  const cells = layCells(g, style, new Uint8Array(g.items.length));
  const spread = closest(style.size, false);
  const entries = entriesOf(rowsOf(r.lanes, g, cells, input.brief, r.gutter, frame, r.columns), []);
  const pages: Entry[][] = [];
  for (const entry of entries) {
    const last = pages.at(-1);
    if (last && totalHeight(treeOf([...last, entry], 0), spread) <= height) last.push(entry);
    else pages.push([entry]);
  }
  // On which page each lane begins.
  const begun = new Map<string, number>();
  return pages.map((page, n) => {
    const continued = new Set<string>();
    const items = page.flatMap((e) => e.row.members);
    for (const i of items) {
      const { lane } = g.items[i]!;
      for (let k = 1; k <= lane.length; k++) {
        const key = laneKey(lane.slice(0, k));
        const first = begun.get(key) ?? n;
        if (first < n) continued.add(key);
        begun.set(key, first);
      }
    }
    return { items, continued };
  });
}

const entriesOf = (lanes: readonly LaneRows[], above: LaneRows[]): Entry[] =>
  lanes.flatMap((lane) => {
    const path = [...above, lane];
    return lane.lanes.length > 0 ? entriesOf(lane.lanes, path) : lane.rows.map((row) => ({ path, row }));
  });

/** The lanes that hold some rows, with those rows alone. */
function treeOf(entries: readonly Entry[], depth: number): LaneRows[] {
  const lanes: LaneRows[] = [];
  for (let from = 0; from < entries.length; ) {
    const lane = entries[from]!.path[depth]!;
    let to = from;
    while (to < entries.length && entries[to]!.path[depth] === lane) to++;
    const own = entries.slice(from, to);
    const isLeaf = own[0]!.path.length === depth + 1;
    lanes.push({ ...lane, lanes: isLeaf ? [] : treeOf(own, depth + 1), rows: isLeaf ? own.map((e) => e.row) : [] });
    from = to;
  }
  return lanes;
}

/** One page of several: its things alone, on the scale of all of them. */
export function onSheet(
  selection: Selection,
  labels: readonly Label[],
  sheet: Sheet,
): { selection: Selection; labels: Label[] } {
  const kept = [...sheet.items].sort((a, b) => a - b);
  const items: Item[] = kept.map((i) => selection.items[i]!);
  return { selection: { ...selection, items, continued: sheet.continued }, labels: kept.map((i) => labels[i]!) };
}
