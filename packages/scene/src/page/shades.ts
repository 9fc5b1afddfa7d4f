import { MINUTES_PER_DAY, type Schedule } from '@clembo/core';
import { MIST } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import type { TimeScale } from '../scales/time';

/** Where a day is narrower, days off are stripes that say nothing, in points. */
const LEAST_DAY = 2;

/** Stretches of days without working time in a calendar of the plan; none where the scale is too narrow for them. */
export function daysOff(s: Schedule, calendar: string, scale: TimeScale): { start: number; finish: number }[] {
  const time = s.network.times.find((t) => t.spec.id === calendar) ?? s.network.times[0];
  if (!time) return [];
  if (((scale.right - scale.left) / (scale.to - scale.from)) * MINUTES_PER_DAY < LEAST_DAY) return [];
  const slot = s.network.slotMinutes;
  const rank = (moment: number) => time.rank(Math.ceil(moment / slot));
  const list: { start: number; finish: number }[] = [];
  const first = Math.floor(scale.from / MINUTES_PER_DAY);
  const last = Math.ceil(scale.to / MINUTES_PER_DAY);
  for (let day = first; day < last; day++) {
    const [start, finish] = [day * MINUTES_PER_DAY, (day + 1) * MINUTES_PER_DAY];
    if (rank(finish) > rank(start)) continue;
    const before = list.at(-1);
    if (before && before.finish === start) before.finish = finish;
    else list.push({ start, finish });
  }
  return list;
}

/** Shades over the plot. */
export const shadeNodes = (
  shades: readonly { start: number; finish: number }[],
  scale: TimeScale,
  top: number,
  bottom: number,
  role: 'dayOff' | 'elapsed',
): SceneNode[] =>
  shades.flatMap((p): SceneNode[] => {
    const [x0, x1] = [Math.max(scale.left, scale.x(p.start)), Math.min(scale.right, scale.x(p.finish))];
    if (x1 - x0 < 0.3) return [];
    return [
      {
        type: 'rect',
        x: round(x0),
        y: round(top),
        width: round(x1 - x0),
        height: round(bottom - top),
        fill: role === 'dayOff' ? MIST : ELAPSED,
        role,
      },
    ];
  });

/** The time before the status date: so light that labels read on it as on paper. */
export const ELAPSED = '#F3F1EA';
