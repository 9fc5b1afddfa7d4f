import { INK, SOFT_INK } from '../graph/ink';
import { type ImageNode, round, type SceneNode } from '../graph/scene';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

const MOST_LINES = 3;

/** A picture is at most as high as a title over its subtitle, and takes at most this share of the width. */
const HIGHEST = 2.2;
const WIDEST = 0.18;

function pictureAt(
  { data, width, height }: { data: string; width: number; height: number },
  frame: PageFrame,
): ImageNode {
  const factor = Math.min((frame.titleSize * HIGHEST) / height, (frame.width * WIDEST) / width);
  return {
    type: 'image',
    x: round(frame.width - frame.margin - width * factor),
    y: round(frame.margin),
    width: round(width * factor),
    height: round(height * factor),
    data,
    alt: '',
    role: 'logo',
  };
}

/** Title and subtitle. A long title is set smaller before it is cut. */
export function headNodes(
  title: string,
  under: string,
  frame: PageFrame,
  measure: Measure,
  picture: { data: string; width: number; height: number } | null = null,
): { nodes: SceneNode[]; bottom: number } {
  const logo = picture && pictureAt(picture, frame);
  const width = frame.width - 2 * frame.margin - (logo ? logo.width + frame.titleSize : 0);
  let size = frame.titleSize;
  let lines = measure.wrap('title', size, title, width, MOST_LINES);
  while (size > frame.subtitleSize + 1 && lines.some((l) => l.endsWith('…') && !title.endsWith('…'))) {
    size -= 1;
    lines = measure.wrap('title', size, title, width, MOST_LINES);
  }
  // A little smaller is better than a word alone on a line.
  for (const share of [0.95, 0.9, 0.86]) {
    const fewer = measure.wrap('title', size * share, title, width, MOST_LINES);
    if (
      lines.length > 1 &&
      fewer.length < lines.length &&
      !fewer.some((l) => l.endsWith('…') && !title.endsWith('…'))
    ) {
      [size, lines] = [Math.round(size * share * 2) / 2, fewer];
      break;
    }
  }
  const nodes: SceneNode[] = lines.map((text, k) => ({
    type: 'text',
    x: frame.margin,
    y: round(frame.margin + size * (0.82 + 1.18 * k)),
    size,
    runs: [{ text, face: 'title', fill: INK }],
    role: 'title',
  }));
  const titleBottom = frame.margin + size * (0.82 + 1.18 * (Math.max(1, lines.length) - 1));
  const small = measure.wrap('text', frame.subtitleSize, under, width, 2);
  const first = titleBottom + frame.subtitleSize * 1.8;
  small.forEach((text, k) =>
    nodes.push({
      type: 'text',
      x: frame.margin,
      y: round(first + k * frame.subtitleSize * 1.25),
      size: frame.subtitleSize,
      runs: [{ text, face: 'text', fill: SOFT_INK }],
      role: 'subtitle',
    }),
  );
  if (logo) nodes.push(logo);
  const end = first + (small.length - 1) * frame.subtitleSize * 1.25 + frame.subtitleSize * 1.2;
  const below = logo ? logo.y + logo.height + frame.subtitleSize * 0.6 : 0;
  return { nodes, bottom: round(Math.max(end, below)) };
}
