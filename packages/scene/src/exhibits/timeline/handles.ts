import { type Handles, round } from '../../graph/scene';
import type { Lane } from '../../page/lanes';
import type { FittedPage } from './fitPage';
import { isFolded } from './item';
import { unplacedOf } from '../notes';
import type { Regions } from './regions';

/** Where things, lanes and dates of a page are, for hands. */
export function handlesOf(r: Regions, { cells, placed }: FittedPage, onPage: ReadonlySet<string>): Handles {
  const { geometry: g, scale, frame, gutter, input, selection } = r;
  const { outline } = input.schedule;
  const paths = new Map<Lane, string[]>();
  const walk = (lanes: readonly Lane[], above: string[]) => {
    for (const lane of lanes) {
      const path = [...above, lane.code];
      paths.set(lane, path);
      walk(lane.lanes, path);
    }
  };
  walk(r.lanes, []);
  return {
    size: cells.style.size,
    left: scale.left,
    right: scale.right,
    from: scale.from,
    to: scale.to,
    items: g.items.map(({ ref }, i) => ({
      ref,
      x0: round(g.x0[i]!),
      x1: round(g.x1[i]!),
      y: round(placed.middle[i]!),
    })),
    lanes: placed.lanes
      .filter((p) => p.lane.title !== '')
      .map(({ lane, top, bottom }) => {
        const codes = paths.get(lane)!;
        const column = gutter.columns[lane.depth];
        return {
          codes,
          title: lane.title,
          top: round(top),
          bottom: round(bottom),
          right: round(frame.margin + (column ? column.x + column.width : 0)),
          folded: isFolded(input.brief.folded, codes),
        };
      }),
    unplaced: unplacedOf(input.brief, selection.items, (ref) => outline.indexOf.has(ref), onPage),
  };
}
