import { round } from '../../graph/scene';

/** A line from the edge of a mark to the nearest edge of a text; null where the text stands beside the mark anyway. */
export function leader(
  x: number,
  y: number,
  box: { left: number; right: number; top: number; bottom: number },
  half: number,
  size: number,
): { type: 'line'; x1: number; y1: number; x2: number; y2: number } | null {
  const endX = Math.min(Math.max(x, box.left), box.right);
  const endY = Math.min(Math.max(y, box.top), box.bottom);
  const [dx, dy] = [endX - x, endY - y];
  if (Math.hypot(dx, Math.max(0, Math.abs(dy) - half)) < size * 0.9) return null;
  // It begins at the upper or lower edge of the mark, or at its end.
  const beginY = Math.abs(dy) <= half ? y + dy : y + Math.sign(dy) * half;
  return { type: 'line', x1: round(x), y1: round(beginY), x2: round(endX), y2: round(endY) };
}
