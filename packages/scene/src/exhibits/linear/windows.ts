import type { Line } from '@clembo/core';
import { HAIRLINE, SAND, SAND_LINE, SOFT_INK } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import type { Named } from './named';
import { pathOf } from './paths';
import { type Box, boxOn, clipLine, dashes, hatch, type Plane, pointOn } from './plane';

/** Stretches of places and days that are closed: hatched; their names, where they have room, on patches over the grid. */
export function windowNodes(
  line: Line,
  plane: Plane,
  size: number,
  measure: Measure,
): { nodes: SceneNode[]; words: SceneNode[]; names: Box[] } {
  const nodes: SceneNode[] = [];
  const words: SceneNode[] = [];
  const names: Box[] = [];
  for (const w of line.windows) {
    const box = boxOn(plane, w.from / 1000, w.to / 1000, w.start / 1440, w.finish / 1440);
    if (!box) continue;
    const [width, height] = [box.right - box.left, box.bottom - box.top];
    nodes.push(
      {
        type: 'rect',
        x: round(box.left),
        y: round(box.top),
        width: round(width),
        height: round(height),
        fill: SAND,
        role: 'dayOff',
      },
      { type: 'path', steps: pathOf(hatch(box, size * 1.1)), stroke: SAND_LINE, strokeWidth: 0.5, role: 'pattern' },
    );
    const text = measure.shorten('label', size, measure.clean(w.name), width - size * 1.5);
    const wide = measure.width('label', size, text);
    if (text.length < 3 || height < size * 1.6) continue;
    const name: Box = {
      left: (box.left + box.right - wide) / 2 - size * 0.5,
      right: (box.left + box.right + wide) / 2 + size * 0.5,
      top: (box.top + box.bottom) / 2 - size * 0.75,
      bottom: (box.top + box.bottom) / 2 + size * 0.75,
    };
    names.push(name);
    words.push(
      {
        type: 'rect',
        x: round(name.left),
        y: round(name.top),
        width: round(name.right - name.left),
        height: round(name.bottom - name.top),
        fill: SAND,
        role: 'dayOff',
      },
      {
        type: 'text',
        x: round(name.left + size * 0.5),
        y: round((name.top + name.bottom) / 2 + size * 0.32),
        size,
        runs: [{ text, face: 'label', fill: SOFT_INK }],
        role: 'period',
      },
    );
  }
  return { nodes, words, names };
}

/** A line at every station, and across the plot. */
export const stationLines = (stations: Named['stations'], plane: Plane, size: number): SceneNode[] =>
  stations.flatMap(({ at, colour, style }): SceneNode[] => {
    if (style === 'scale') return [];
    const line = clipLine(pointOn(plane, at, plane.day0), pointOn(plane, at, plane.day1), plane);
    if (!line) return [];
    return [
      {
        type: 'path',
        steps: pathOf(style === 'solid' ? [line] : dashes(line, size * 0.25, size * 0.35)),
        stroke: colour ?? HAIRLINE,
        strokeWidth: 0.9,
        role: 'grid',
      },
    ];
  });
