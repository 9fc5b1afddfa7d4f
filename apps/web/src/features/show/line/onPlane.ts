import type { FlowPoint } from '@clembo/core';
import type { PlaneShape } from '@clembo/scene';
import type { SpotAnchor } from '@clembo/scene/brief';
import type { Point } from '../hand/places';

/** What of place and time lies at a point of a page. */
export function readPlane(p: PlaneShape, { x, y }: Point): { place: number; day: number } {
  const [across, down] = [(x - p.left) / (p.right - p.left), (y - p.top) / (p.bottom - p.top)];
  const [along, time] = p.across ? [across, down] : [1 - down, across];
  return { place: p.place0 + along * (p.place1 - p.place0), day: p.day0 + time * (p.day1 - p.day0) };
}

/** Where a place lies on a page at a time. */
export function pointOnPlane(p: PlaneShape, { place, time }: FlowPoint): Point {
  const along = (place - p.place0) / (p.place1 - p.place0);
  const down = (time - p.day0) / (p.day1 - p.day0);
  return p.across
    ? { x: p.left + along * (p.right - p.left), y: p.top + down * (p.bottom - p.top) }
    : { x: p.left + down * (p.right - p.left), y: p.bottom - along * (p.bottom - p.top) };
}

/** What a point of a page of a line is held by: its place, and the moment; null beside the plot. */
export function spotAt(p: PlaneShape, point: Point): SpotAnchor | null {
  if (!isOnPlane(p, point)) return null;
  const { place, day } = readPlane(p, point);
  return { place: Math.round(place * 1000), at: Math.round(day * 1440), dx: 0, dy: 0 };
}

export const isOnPlane = (p: PlaneShape, { x, y }: Point): boolean =>
  x >= p.left && x <= p.right && y >= p.top && y <= p.bottom;
