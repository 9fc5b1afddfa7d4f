import { HAIRLINE, INK, SOFT_INK } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { Layered } from '../../layered/layout';
import type { Room } from '../sheet';
import { type Placer, placer } from './placer';

/** A stretch of columns under one name: a month, a phase. */
export interface Head {
  name: string;
  from: number;
  to: number;
}

/** Titles stand in a gutter of so many sizes of the type at most. */
const TITLE_ROOM = 11;
/** Distances are drawn out so far at most. */
const WIDEST = 2.6;
const HIGHEST = 2.4;

/** Where a layout stands in the body of a page, with the titles of its lanes and the names over its columns. */
export interface CardPlot {
  p: Placer;
  nodes: SceneNode[];
  /** Titles that are cut with a sign. */
  shortened: number;
}

/**
 * Puts a layout of cards into the body of a page, drawn out over what room there is; null where it has none.
 *
 * @param titles of the lanes; empty ones are not written
 * @param down columns follow each other down the page; then it has neither lanes nor heads
 */
export function plotCards(
  room: Room,
  layout: Pick<Layered, 'columns' | 'width' | 'height' | 'lanes'>,
  titles: readonly string[],
  heads: readonly Head[],
  down = false,
): CardPlot | null {
  const { frame, measure } = room;
  const size = frame.labelSize;
  const titled = titles.filter((t) => t !== '');
  const gutter =
    titled.length === 0
      ? 0
      : Math.min(
          TITLE_ROOM * size,
          Math.max(...titled.map((t) => measure.width('textStrong', frame.laneSize, measure.clean(t)))) + size * 1.5,
        );
  const over = heads.length > 0 ? size * 2 : size * 0.6;
  const [width, height] = [room.right - room.left - gutter, room.bottom - room.top - over];
  const [long, broad] = down ? [height, width] : [width, height];
  const need = { long: layout.width * size, broad: layout.height * size };
  if (need.long > long || need.broad > broad) return null;
  // What room is left goes between the columns and the rows.
  const cards = layout.columns.reduce((sum, c) => sum + c.width, 0) * size;
  const between = need.long - cards;
  const wide = between <= 0 ? 1 : Math.min(WIDEST, (long - cards) / between);
  const high = Math.min(HIGHEST, broad / Math.max(need.broad, 1e-6));
  const left = room.left + gutter;
  // What is left over stands below more than above; on both sides alike.
  const top = room.top + over + (down ? 0 : Math.max(0, height - need.broad * high) * 0.35);
  const aside = down ? Math.max(0, width - need.broad * high) / 2 : 0;
  const p = placer(layout, { left: left + aside, top, size, wide, high, down });
  const nodes: SceneNode[] = [];
  let shortened = 0;
  layout.lanes.forEach((lane, k) => {
    if (down) return;
    if (k > 0) {
      const y = round((p.within(lane.top) + p.within(layout.lanes[k - 1]!.bottom)) / 2);
      nodes.push({
        type: 'line',
        x1: room.left,
        y1: y,
        x2: room.right,
        y2: y,
        stroke: HAIRLINE,
        strokeWidth: 0.8,
        role: 'laneRule',
      });
    }
    const words = measure.wrap('textStrong', frame.laneSize, measure.clean(titles[k] ?? ''), gutter - size, 3);
    if (words.at(-1)?.endsWith('…')) shortened++;
    words.forEach((text, n) =>
      nodes.push({
        type: 'text',
        x: room.left,
        y: round(p.within(lane.top) + frame.laneSize * (1.05 + n * 1.2)),
        size: frame.laneSize,
        runs: [{ text, face: 'textStrong', fill: INK }],
        role: 'lane',
      }),
    );
  });
  heads.forEach(({ name, from, to }) => {
    const [x1, x2] = [p.along(from), p.along(to)];
    nodes.push(
      {
        type: 'line',
        x1: round(x1),
        y1: round(room.top + size * 1.5),
        x2: round(x2),
        y2: round(room.top + size * 1.5),
        stroke: INK,
        strokeWidth: 0.8,
        role: 'scale',
      },
      {
        type: 'text',
        x: round(x1),
        y: round(room.top + size * 1.1),
        size,
        runs: [{ text: measure.shorten('label', size, measure.clean(name), x2 - x1), face: 'label', fill: SOFT_INK }],
        role: 'scale',
      },
    );
  });
  return { p, nodes, shortened };
}
