import { INK } from '../../graph/ink';
import { write } from '../../graph/nodes';
import type { Measure } from '../../text/measure';
import type { Box } from '../places';
import { atBestSize, type DrawnBlock } from './drawn';

const LINE = 1.38;

/** Words in a box, each line of them as a paragraph, in as large a type as has room. */
export function textBlock(text: string, box: Box, size: number, measure: Measure): DrawnBlock {
  const drawn = atBestSize(size * 1.25, (s) => {
    const lines = text.split('\n').flatMap((p) => measure.wrap('text', s, measure.clean(p), box.width, 200));
    const room = Math.max(1, Math.floor((box.height - s * 0.3) / (s * LINE)));
    return { lines, room, size: s, fits: lines.length <= room };
  });
  const shown = drawn.lines.slice(0, drawn.room);
  const last = shown.length - 1;
  if (drawn.lines.length > drawn.room)
    shown[last] = measure.shorten('text', drawn.size, `${shown[last]} …………………………`, box.width);
  return {
    nodes: shown.map((line, k) =>
      write(box.x, box.y + drawn.size * (1 + k * LINE), drawn.size, line, INK, 'note', 'text'),
    ),
    cut: drawn.lines.length - shown.length,
  };
}
