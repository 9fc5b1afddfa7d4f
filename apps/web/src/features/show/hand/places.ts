import type { Anchor, Handles, LabelPlace } from '@clembo/scene';
import type { Point } from '@clembo/scene/pointOf';

export type { Point };

type Row = Handles['items'][number];

/** Of things in rows that are about as near, the one that is nearest along the page. */
const SIDEWAYS = 0.15;

const nearest = (h: Handles, { x, y }: Point, wanted: (r: Row) => boolean = () => true): Row | null => {
  let [best, least] = [null as Row | null, Number.POSITIVE_INFINITY];
  for (const r of h.items) {
    if (!wanted(r)) continue;
    const away = Math.max(0, r.x0 - x, x - r.x1);
    const far = Math.abs(r.y - y) + away * SIDEWAYS;
    if (far < least) [best, least] = [r, far];
  }
  return best;
};

const inSizes = (points: number, size: number): number => Math.round((points / size) * 100) / 100;

/** The moment at a place along the page, at the beginning of its day. */
const momentAt = (h: Handles, x: number): number => {
  const share = Math.min(1, Math.max(0, (x - h.left) / (h.right - h.left)));
  return Math.floor((h.from + share * (h.to - h.from)) / 1440) * 1440;
};

/**
 * What holds a point of the page: the activity that was pointed at, by its nearer end, or the date in the nearest row.
 * The distance from there to the point is kept with it. Null on a page without things.
 */
export function anchorAt(h: Handles, point: Point, ref: string | null): Anchor | null {
  // A page without dates along it holds a point by the nearest thing.
  const held = ref ?? (h.from === h.to ? (nearest(h, point)?.ref ?? null) : null);
  const own = held === null ? null : nearest(h, point, (r) => r.ref === held);
  const row = own ?? nearest(h, point);
  if (!row) return null;
  if (own) {
    const far = (x: number, y: number) => Math.hypot(point.x - x, point.y - y);
    const second = own.y1 ?? own.y;
    const start =
      own.y1 === undefined ? point.x - own.x0 < own.x1 - point.x : far(own.x0, own.y) <= far(own.x1, second);
    return {
      ref: own.ref,
      at: start ? 'start' : 'finish',
      dx: inSizes(point.x - (start ? own.x0 : own.x1), h.size),
      dy: inSizes(point.y - (start ? own.y : second), h.size),
    };
  }
  return { ref: row.ref, at: momentAt(h, point.x), dx: 0, dy: inSizes(point.y - row.y, h.size) };
}

/** Where a label stands from the nearer end of its thing; `at` is its left end on the baseline. */
export function labelPlaceAt(h: Handles, ref: string, at: Point): LabelPlace | null {
  const row = nearest(h, at, (r) => r.ref === ref);
  if (!row) return null;
  const end = Math.abs(at.x - row.x0) <= Math.abs(at.x - row.x1) ? 'start' : 'finish';
  return {
    end,
    x: inSizes(at.x - (end === 'start' ? row.x0 : row.x1), h.size),
    y: inSizes(at.y - row.y, h.size),
  };
}

export type LaneHandle = Handles['lanes'][number];

/** The lane whose title is at a point; null where none is. */
export function laneAt(h: Handles, { x, y }: Point): LaneHandle | null {
  const beside = h.lanes.filter((l) => y >= l.top && y <= l.bottom && x <= l.right + 4);
  return beside.reduce<LaneHandle | null>((best, l) => (best === null || l.right < best.right ? l : best), null);
}

/** The outermost lanes, from the top down. */
export const outerLanes = (h: Handles): LaneHandle[] => h.lanes.filter((l) => l.codes.length === 1);

/** Before which of the outermost lanes a lane comes to lie when it is let go at a height: their number, or how many there are. */
export const laneSlot = (h: Handles, y: number): number => {
  const lanes = outerLanes(h);
  const k = lanes.findIndex((l) => y < (l.top + l.bottom) / 2);
  return k < 0 ? lanes.length : k;
};

/** Codes of the outermost lanes with one of them moved; those that are not on the page keep what place they had. */
export function lanesWith(h: Handles, code: string, slot: number, before: readonly string[]): string[] {
  const codes = outerLanes(h).map((l) => l.codes[0]!);
  const at = codes.indexOf(code);
  const rest = codes.filter((c) => c !== code);
  rest.splice(slot > at ? slot - 1 : slot, 0, code);
  return [...rest, ...before.filter((c) => !codes.includes(c))];
}
