import { KELP, PAPER } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { Measure } from '../../text/measure';
import { type Plane, timeAlong } from './plane';

/** The status date at the end of its line, outside the plot. */
export function statusFlag(status: number, plane: Plane, size: number, measure: Measure): SceneNode[] {
  const text = formatDay(status - 1, 'short');
  const wide = measure.width('labelStrong', size, text) + size * 0.8;
  const at = timeAlong(plane, status);
  const [x, y] = plane.across ? [plane.right, at - size * 0.75] : [at - wide / 2, plane.top - size * 4.3];
  return [
    {
      type: 'rect',
      x: round(x),
      y: round(y),
      width: round(wide),
      height: round(size * 1.5),
      radius: 2,
      fill: KELP,
      role: 'status',
    },
    {
      type: 'text',
      x: round(x + size * 0.4),
      y: round(y + size * 1.08),
      size,
      runs: [{ text, face: 'labelStrong', fill: PAPER }],
      role: 'status',
    },
  ];
}
