import { buildRange, type Day, dayOf, monthStart, quantityBuilt, startOfDay, weekdayOf } from '@clembo/core';
import type { BuildBrief } from '../../brief/build';
import { INK, KELP, NEUTRAL, PAPER, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import { timeAxis } from '../../page/axis';
import { timeScale } from '../../scales/time';
import type { ComposeInput } from '../composed';
import type { Room } from '../sheet';
import { BASE, rule, write } from '../../graph/nodes';
import type { Standings } from './standings';

/** Up to so many days the strip tells weeks, then months. */
const WEEKS = 420;

/** The ends of weeks or months that hold all that is built. */
function boundsOf(first: Day, last: Day): Day[] {
  const weekly = last - first <= WEEKS;
  const start = (day: Day) => (weekly ? day - ((weekdayOf(day) + 6) % 7) : monthStart(day));
  const next = (day: Day) => (weekly ? day + 7 : monthStart(day + 32));
  const bounds = [start(first)];
  while (bounds.at(-1)! <= last) bounds.push(next(bounds.at(-1)!));
  return bounds;
}

/** How high the strip is. */
export const stripHeight = ({ frame }: Room): number => frame.labelSize * 6.4;

/**
 * The time of all that is built as a strip: what each week or month brings, with the dates of the page marked, and
 * numbered where there are several.
 */
export function timeStrip(
  room: Room,
  { plan, brief }: ComposeInput<BuildBrief>,
  { times, model, meant, dates }: Standings,
  top: number,
): SceneNode[] {
  const { frame, measure } = room;
  const size = frame.labelSize;
  const range = buildRange(times);
  if (!range) return [];
  const first = Math.min(range.first, ...dates.map((d) => d.day));
  const last = Math.max(range.last, ...dates.map((d) => d.day));
  const bounds = boundsOf(first, last);
  const { built } = quantityBuilt(
    times,
    model.elements,
    brief.measure,
    bounds.map((d) => d - 1),
    meant,
  );
  const steps = bounds.slice(1).map((_, k) => built[k + 1]! - built[k]!);
  const most = Math.max(...steps, 1e-9);
  const inset = size;
  const scale = timeScale(startOfDay(bounds[0]!), startOfDay(bounds.at(-1)!), room.left + inset, room.right - inset);
  const high = size * 2.6;
  const base = top + size * 1.1 + high;
  const x = (day: Day) => scale.x(startOfDay(day));
  const shown = dates.at(-1)?.day ?? null;
  const colour = brief.print === 'grey' ? NEUTRAL : KELP;
  const bars = steps.flatMap((v, k): SceneNode[] => {
    if (v <= 0) return [];
    const [x0, x1] = [x(bounds[k]!), x(bounds[k + 1]!)];
    const gap = Math.min(1.5, (x1 - x0) * 0.12);
    return [
      {
        type: 'rect',
        x: round(x0 + gap),
        y: round(base - (v / most) * high),
        width: round(Math.max(0.4, x1 - x0 - gap * 2)),
        height: round((v / most) * high),
        fill: tint(colour, shown !== null && bounds[k]! <= shown ? 0.55 : 0.2),
        role: 'bar',
      },
    ];
  });
  const axis = timeAxis(scale, frame, measure, base + size * 0.2, room.left, room.right);
  let taken = Number.NEGATIVE_INFINITY;
  const radius = size * 0.72;
  const marks = dates.flatMap(({ day }, k): SceneNode[] => {
    const at = x(day + 1);
    const text = dates.length > 1 ? String(k + 1) : '';
    const head = Math.max(at, taken + radius * 2 + 1);
    taken = head;
    return [
      rule(at, top + size * 0.9, at, base, INK, 1, 'status'),
      {
        type: 'circle',
        x: round(head),
        y: round(top + size * 0.3),
        radius: round(text === '' ? radius * 0.6 : radius),
        fill: INK,
        role: 'mark',
      },
      ...(text === ''
        ? []
        : [
            write(
              head - measure.width('labelStrong', size * 0.9, text) / 2,
              top + size * (0.3 + BASE * 0.95),
              size * 0.9,
              text,
              PAPER,
              'mark',
              'labelStrong',
            ),
          ]),
    ];
  });
  const status = plan.statusDate === null ? null : dayOf(plan.statusDate);
  const statusLine =
    status !== null && dates.length > 1 && status >= bounds[0]! && status < bounds.at(-1)!
      ? [rule(x(status + 1), top + size * 1.4, x(status + 1), base, SOFT_INK, 0.6, 'status')]
      : [];
  return [
    rule(room.left, base, room.right, base, SOFT_INK, 0.5, 'scale'),
    ...bars,
    ...axis.nodes,
    ...statusLine,
    ...marks,
  ];
}
