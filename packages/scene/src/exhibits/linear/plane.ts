/** A point of a page. */
export type XY = readonly [x: number, y: number];

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Place and time on a page: places in the unit of the line, times as fractions of a day number. */
export interface Plane extends Box {
  /** Places run across the page and time down it; else places up and time across. */
  across: boolean;
  /** Places at the beginning and at the end of their axis; the first is the larger one where it runs backwards. */
  place0: number;
  place1: number;
  day0: number;
  day1: number;
}

/** Where a place lies on its axis. */
export function placeAlong(p: Plane, place: number): number {
  const share = (place - p.place0) / (p.place1 - p.place0);
  return p.across ? p.left + share * (p.right - p.left) : p.bottom - share * (p.bottom - p.top);
}

/** Where a time lies on its axis. */
export function timeAlong(p: Plane, day: number): number {
  const share = (day - p.day0) / (p.day1 - p.day0);
  return p.across ? p.top + share * (p.bottom - p.top) : p.left + share * (p.right - p.left);
}

/** Where something is on the page. */
export const pointOn = (p: Plane, place: number, day: number): XY =>
  p.across ? [placeAlong(p, place), timeAlong(p, day)] : [timeAlong(p, day), placeAlong(p, place)];

/** Whether a point of the page lies on the plane, or on its border. */
export const isOn = (p: Box, x: number, y: number): boolean =>
  x > p.left - 1e-6 && x < p.right + 1e-6 && y > p.top - 1e-6 && y < p.bottom + 1e-6;

/** The box of a stretch of places for a time, within the plane; null where it lies outside. */
export function boxOn(p: Plane, from: number, to: number, start: number, finish: number): Box | null {
  const [x1, y1] = pointOn(p, from, start);
  const [x2, y2] = pointOn(p, to, finish);
  const box = {
    left: Math.max(p.left, Math.min(x1, x2)),
    right: Math.min(p.right, Math.max(x1, x2)),
    top: Math.max(p.top, Math.min(y1, y2)),
    bottom: Math.min(p.bottom, Math.max(y1, y2)),
  };
  return box.left < box.right && box.top < box.bottom ? box : null;
}

/** What of a straight line lies within a box (Liang and Barsky 1984); null for nothing. */
export function clipLine(a: XY, b: XY, box: Box): [XY, XY] | null {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [-dx, a[0] - box.left],
    [dx, box.right - a[0]],
    [-dy, a[1] - box.top],
    [dy, box.bottom - a[1]],
  ] as const) {
    if (p === 0) {
      if (q < 0) return null;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  if (from > to) return null;
  const at = (t: number): XY => [a[0] + t * dx, a[1] + t * dy];
  return [from === 0 ? a : at(from), to === 1 ? b : at(to)];
}

/** The pieces of a line through points that lie within a box. */
export function clipPath(points: readonly XY[], box: Box): XY[][] {
  const pieces: XY[][] = [];
  let open: XY[] | null = null;
  for (let k = 1; k < points.length; k++) {
    const inside = clipLine(points[k - 1]!, points[k]!, box);
    if (inside === null) {
      open = null;
      continue;
    }
    const [a, b] = inside;
    const last: XY | undefined = open?.at(-1);
    if (open && last && last[0] === a[0] && last[1] === a[1]) open.push(b);
    else {
      open = [a, b];
      pieces.push(open);
    }
  }
  return pieces;
}

/** A line through fewer points that is nowhere further from the given one (Ramer 1972, Douglas and Peucker 1973). */
export function simplified(points: readonly XY[], most: number): XY[] {
  const keep = new Uint8Array(points.length);
  keep[0] = 1;
  keep[points.length - 1] = 1;
  const open: [number, number][] = [[0, points.length - 1]];
  for (let range = open.pop(); range; range = open.pop()) {
    const [from, to] = range;
    const [a, b] = [points[from]!, points[to]!];
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
    let [far, at] = [most, -1];
    for (let k = from + 1; k < to; k++) {
      const c = points[k]!;
      const away =
        long === 0
          ? Math.hypot(c[0] - a[0], c[1] - a[1])
          : Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / long;
      if (away > far) [far, at] = [away, k];
    }
    if (at < 0) continue;
    keep[at] = 1;
    open.push([from, at], [at, to]);
  }
  return points.filter((_, k) => keep[k] === 1);
}

/** The dashes of a line through points. */
export function dashes(points: readonly XY[], dash: number, gap: number): [XY, XY][] {
  const list: [XY, XY][] = [];
  let [left, on] = [dash, true];
  for (let k = 1; k < points.length; k++) {
    let a = points[k - 1]!;
    const b = points[k]!;
    let rest = Math.hypot(b[0] - a[0], b[1] - a[1]);
    while (rest > 1e-9) {
      const step = Math.min(rest, left);
      const to: XY = step === rest ? b : [a[0] + ((b[0] - a[0]) * step) / rest, a[1] + ((b[1] - a[1]) * step) / rest];
      if (on) list.push([a, to]);
      a = to;
      rest -= step;
      left -= step;
      if (left <= 1e-9) {
        on = !on;
        left = on ? dash : gap;
      }
    }
  }
  return list;
}

/** Slanting lines over a box, so far apart. */
export function hatch({ left, right, top, bottom }: Box, apart: number): [XY, XY][] {
  const list: [XY, XY][] = [];
  const height = bottom - top;
  // Lines on one raster over the whole page, so that neighbours go on from each other.
  const first = Math.ceil((left + top) / apart) * apart;
  for (let sum = first; sum <= right + bottom; sum += apart) {
    const line = clipLine([sum - top, top], [sum - top - height, bottom], { left, right, top, bottom });
    if (line && Math.hypot(line[0][0] - line[1][0], line[0][1] - line[1][1]) > 0.5) list.push(line);
  }
  return list;
}
