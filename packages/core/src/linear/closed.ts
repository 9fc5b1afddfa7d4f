import type { ClosedWindow, FlowPoint } from './flowline';

/** The pieces of a flowline that lie within a closed window, cut where it comes in and where it goes out. */
export function closedPieces(points: readonly FlowPoint[], w: ClosedWindow): FlowPoint[][] {
  const pieces: FlowPoint[][] = [];
  for (let k = 1; k < points.length; k++) {
    const [a, b] = [points[k - 1]!, points[k]!];
    const slope = (b.place - a.place) / (b.time - a.time);
    let [from, to] = [Math.max(a.time, w.start), Math.min(b.time, w.finish)];
    if (Math.abs(slope) < 1e-12) {
      if (a.place <= w.from || a.place >= w.to) continue;
    } else {
      const [first, last] = [w.from, w.to].map((p) => a.time + (p - a.place) / slope).sort((x, y) => x - y);
      [from, to] = [Math.max(from, first!), Math.min(to, last!)];
    }
    // Whoever leaves as the window closes is not in it.
    if (to - from < 1e-6) continue;
    const at = (time: number): FlowPoint => ({ time, place: a.place + slope * (time - a.time) });
    const open = pieces.at(-1);
    if (open && Math.abs(open.at(-1)!.time - from) < 1e-9) open.push(at(to));
    else pieces.push([at(from), at(to)]);
  }
  return pieces;
}
