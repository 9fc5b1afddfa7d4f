import { civilFromDay, dayOf, endOfDay } from '@clembo/core';
import type { SceneNode } from '../../graph/scene';
import { timeAxis } from '../../page/axis';
import { flagHeight, statusFlag } from '../../page/flags';
import { niceRange, timeScale, type TimeScale } from '../../scales/time';
import { brokenLine, GRID_PAINT, STATUS_PAINT, type TextBox } from '../timeline/body';
import type { Room } from '../sheet';

/** A plot over time: its scale and its lines, which leave out texts. */
export interface TimePlot {
  scale: TimeScale;
  /** Where rows begin. */
  top: number;
  /** The baseline of the finer tier of the scale: where heads of columns stand. */
  headBase: number;
  axis: SceneNode[];
  lines(bottom: number, boxes: readonly TextBox[]): SceneNode[];
  hasStatus: boolean;
  statusX: number | null;
}

/** Lays a time scale over a plot, from the moments that it has to hold. */
export function timePlot(
  room: Room,
  left: number,
  range: { from: number; to: number; exact?: boolean },
  statusDate: number | null,
): TimePlot {
  const { frame, measure } = room;
  const { from, to } = range.exact ? range : niceRange(range.from, range.to);
  const inset = frame.labelSize * 0.75;
  const scale = timeScale(from, to, left + inset, room.right - inset);
  const axis = timeAxis(scale, frame, measure, room.top, left, room.right);
  const status = statusDate === null ? null : endOfDay(dayOf(statusDate));
  const hasStatus = status !== null && status >= from && status <= to;
  const withYear = to - from > 365 * 1440;
  const top = axis.bottom + (hasStatus ? flagHeight(frame) : frame.labelSize * 0.5);
  const statusX = hasStatus ? scale.x(status) : null;
  return {
    scale,
    top,
    headBase: axis.bottom - frame.scaleSize * 0.55,
    axis: [...axis.nodes, ...(hasStatus ? statusFlag(statusDate!, withYear, scale, frame, measure, axis.bottom) : [])],
    lines: (bottom, boxes) => [
      ...axis.grid.flatMap((m) => brokenLine(scale.x(m), top, bottom, boxes, GRID_PAINT)),
      ...(statusX === null ? [] : brokenLine(statusX, top, bottom, boxes, STATUS_PAINT)),
    ],
    hasStatus,
    statusX,
  };
}

/** Days of a plot as they are written in columns beside it: with the year where it holds more than one. */
export const dateStyle = (from: number, to: number): 'short' | 'medium' =>
  civilFromDay(dayOf(from)).year === civilFromDay(dayOf(to)).year ? 'short' : 'medium';
