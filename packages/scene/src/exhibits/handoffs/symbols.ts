import type { StepKind } from '../../brief/steps';
import { type Paint, type PathStep, round, type SceneNode, type About } from '../../graph/scene';

/** How far the lower edge of a document swings. */
const waveOf = ({ width, height }: { width: number; height: number }): number => Math.min(height * 0.13, width * 0.08);

/** A box in points. */
export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** How far a quarter of a circle is bent, as a cubic curve. */
const ROUND = 0.5523;

/**
 * The symbol of a kind of step within a box (ISO 5807:1985): process 9.2.1, decision 9.2.6, document 9.1.3, terminator
 * 9.4.2; delay, which that standard leaves to flow process charts, by its common shape.
 */
export function symbol(kind: StepKind, { left, top, width, height }: Box, about: Paint & About): SceneNode {
  const [right, bottom] = [left + width, top + height];
  const path = (steps: PathStep[]): SceneNode => ({
    type: 'path',
    steps: steps.map((s) => s.map((v) => (typeof v === 'number' ? round(v) : v)) as PathStep),
    ...about,
  });
  switch (kind) {
    case 'decision':
      return path([
        ['M', left, top + height / 2],
        ['L', left + width / 2, top],
        ['L', right, top + height / 2],
        ['L', left + width / 2, bottom],
        ['Z'],
      ]);
    case 'document': {
      const wave = waveOf({ width, height });
      const low = bottom - wave;
      return path([
        ['M', left, top],
        ['L', right, top],
        ['L', right, low],
        ['C', right - width * 0.36, low - wave * 2.6, left + width * 0.36, low + wave * 2.6, left, low],
        ['Z'],
      ]);
    }
    case 'waiting': {
      const r = Math.min(height / 2, width / 2);
      return path([
        ['M', left, top],
        ['L', right - r, top],
        ['C', right - r + r * ROUND, top, right, top + height / 2 - (height / 2) * ROUND, right, top + height / 2],
        ['C', right, top + height / 2 + (height / 2) * ROUND, right - r + r * ROUND, bottom, right - r, bottom],
        ['L', left, bottom],
        ['Z'],
      ]);
    }
    default:
      return {
        type: 'rect',
        x: round(left),
        y: round(top),
        width: round(width),
        height: round(height),
        radius: round(kind === 'step' ? Math.min(2, height / 8) : Math.min(height, width) / 2),
        ...about,
      };
  }
}

/**
 * How far within its box the edge of a symbol lies, for a line that comes in level at a height of the page, or upright at
 * a place across it.
 */
export function edgeInset(kind: StepKind, box: Box, at: { x: number; y: number }, upright: boolean): number {
  const [long, broad] = upright ? [box.height, box.width] : [box.width, box.height];
  const off = Math.abs(upright ? at.x - box.left - box.width / 2 : at.y - box.top - box.height / 2);
  switch (kind) {
    case 'decision':
      return Math.min(1, off / (broad / 2)) * (long / 2);
    case 'start':
    case 'end':
    case 'waiting': {
      const r = Math.min(box.width, box.height) / 2;
      // The straight part of the side, and then a quarter of a circle.
      const beyond = Math.max(0, off - Math.max(0, broad / 2 - r));
      return r - Math.sqrt(Math.max(0, r * r - beyond * beyond));
    }
    case 'document':
      return upright && at.y > box.top + box.height / 2 ? waveOf(box) : 0;
    default:
      return 0;
  }
}

/** The part of a symbol that words may stand in. */
export function wordBox(kind: StepKind, { left, top, width, height }: Box, pad: number): Box {
  const inset = (x: number, up: number, down: number): Box => ({
    left: left + x,
    top: top + up,
    width: width - 2 * x,
    height: height - up - down,
  });
  switch (kind) {
    case 'decision':
      // The largest box in a diamond that is twice as wide as its half is high.
      return inset(width * 0.2, height * 0.2, height * 0.2);
    case 'start':
    case 'end':
      return inset(Math.max(pad, Math.min(height, width) * 0.25), pad * 0.5, pad * 0.5);
    case 'document':
      return inset(pad, pad * 0.5, height * 0.2);
    case 'waiting':
      return {
        left: left + pad,
        top: top + pad * 0.5,
        width: width - pad - Math.min(height, width) * 0.3,
        height: height - pad,
      };
    default:
      return inset(pad, pad * 0.5, pad * 0.5);
  }
}
