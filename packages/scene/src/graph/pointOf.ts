import type { Anchor } from '../brief/hand';
import type { Handles, PlaneShape } from './scene';

export interface Point {
  x: number;
  y: number;
}

/** Where an anchor is on a page, in points from its top left corner; null where what holds it is not there. */
export function pointOf(
  { handles: h, plane: p }: { handles?: Handles | null; plane?: PlaneShape | null },
  anchor: Anchor,
): Point | null {
  if ('place' in anchor) {
    if (!p) return null;
    const along = (anchor.place / 1000 - p.place0) / (p.place1 - p.place0);
    const late = (anchor.at / 1440 - p.day0) / (p.day1 - p.day0);
    if (along < 0 || along > 1 || late < 0 || late > 1) return null;
    return p.across
      ? { x: p.left + along * (p.right - p.left), y: p.top + late * (p.bottom - p.top) }
      : { x: p.left + late * (p.right - p.left), y: p.bottom - along * (p.bottom - p.top) };
  }
  const row = h?.items.find((r) => r.ref === anchor.ref);
  if (!h || !row) return null;
  const away = { x: anchor.dx * h.size, y: anchor.dy * h.size };
  if (anchor.at === 'start') return { x: row.x0 + away.x, y: row.y + away.y };
  if (anchor.at === 'finish') return { x: row.x1 + away.x, y: (row.y1 ?? row.y) + away.y };
  const share = (anchor.at - h.from) / (h.to - h.from);
  if (share < 0 || share > 1) return null;
  return { x: h.left + share * (h.right - h.left) + away.x, y: row.y + away.y };
}
