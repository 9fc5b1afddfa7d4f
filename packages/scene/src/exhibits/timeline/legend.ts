import { INK, KELP, NEUTRAL, PAPER, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import type { PageFrame } from './frame';
import type { Item, Selection } from './items';
import { marker } from './shapes';

interface Entry {
  title: string;
  width: number;
  draw(x: number, y: number): SceneNode[];
}

/** What the page shows, explained: colours by value, and the marks that are really on it. Wraps at the right edge. */
export function legendNodes(
  selection: Selection,
  frame: PageFrame,
  measure: Measure,
  hasStatus: boolean,
): { nodes: SceneNode[]; height: number } {
  const size = frame.smallSize;
  const entries = [...colourEntries(selection, size), ...markEntries(selection.items, size, hasStatus)];
  const nodes: SceneNode[] = [];
  const lineHeight = size * 1.8;
  let x = frame.margin;
  let y = lineHeight / 2;
  for (const e of entries) {
    const width = e.width + 4 + measure.width('label', size, e.title);
    if (x > frame.margin && x + width > frame.width - frame.margin) {
      x = frame.margin;
      y += lineHeight;
    }
    nodes.push(...e.draw(x, y), {
      type: 'text',
      x: round(x + e.width + 4),
      y: round(y + size * 0.33),
      text: e.title,
      face: 'label',
      size,
      fill: SOFT_INK,
      role: 'legend',
    });
    x += width + size * 2.2;
  }
  return { nodes, height: entries.length === 0 ? 0 : y + lineHeight / 2 };
}

function colourEntries(selection: Selection, size: number): Entry[] {
  const anyDone = selection.items.some((i) => i.progress > 0);
  return selection.colours.map(({ title, colour, shape }) => ({
    title,
    width: size * 2.6,
    draw: (x, y) =>
      shape === 'diamond'
        ? [bar(x, y, size, colour, 1.5), ...(anyDone ? [done(x, y, size, colour)] : [])]
        : [marker(shape, x + size * 1.3, y, size * 0.5, { fill: colour, role: 'legend' })],
  }));
}

const bar = (x: number, y: number, size: number, colour: string, corner: number): SceneNode => ({
  type: 'rect',
  x: round(x),
  y: round(y - size * 0.4),
  width: round(size * 2.6),
  height: round(size * 0.8),
  radius: corner,
  fill: tint(colour, 0.36),
  role: 'legend',
});

const done = (x: number, y: number, size: number, fill: string): SceneNode => ({
  type: 'rect',
  x: round(x),
  y: round(y),
  width: round(size * 1.3),
  height: round(size * 0.4),
  radius: 1,
  fill,
  role: 'legend',
});

function markEntries(items: Item[], size: number, hasStatus: boolean): Entry[] {
  const has = (test: (i: Item) => boolean) => items.some(test);
  const entries: Entry[] = [];
  const milestones = items.filter((i) => i.form === 'milestone');
  const grey = milestones[0]?.colour === KELP && milestones.every((m) => m.colour === KELP) ? KELP : NEUTRAL;
  const add = (when: boolean, title: string, width: number, draw: Entry['draw']) => {
    if (when) entries.push({ title, width, draw });
  };
  const diamond = (x: number, y: number, fill: string) => [
    marker('diamond', x + size * 0.55, y, size * 0.5, { fill, stroke: grey, strokeWidth: 0.9, role: 'legend' }),
  ];
  add(
    milestones.some((m) => !m.complete),
    'Milestone',
    size * 1.1,
    (x, y) => diamond(x, y, PAPER),
  );
  add(
    milestones.some((m) => m.complete),
    'Milestone reached',
    size * 1.1,
    (x, y) => diamond(x, y, grey),
  );
  add(
    has((i) => i.form !== 'milestone' && i.progress > 0),
    'Done',
    size * 2.6,
    (x, y) => [bar(x, y, size, NEUTRAL, 1.5), done(x, y, size, NEUTRAL)],
  );
  add(
    has((i) => i.form === 'group'),
    'Group of activities',
    size * 2.6,
    (x, y) => [
      bar(x, y, size, NEUTRAL, round(size * 0.4)),
      {
        type: 'line',
        x1: round(x + size * 0.3),
        y1: round(y + size * 0.6),
        x2: round(x + size * 2.3),
        y2: round(y + size * 0.6),
        stroke: tint(NEUTRAL, 0.55),
        strokeWidth: 0.8,
        role: 'legend',
      },
    ],
  );
  add(
    has((i) => i.form === 'support'),
    'Supporting work',
    size * 2.6,
    (x, y) => [
      {
        type: 'rect',
        x: round(x),
        y: round(y - size * 0.25),
        width: round(size * 2.6),
        height: round(size * 0.5),
        fill: NEUTRAL,
        opacity: 0.55,
        fade: true,
        role: 'legend',
      },
    ],
  );
  add(
    has((i) => i.critical && i.form !== 'milestone'),
    'Critical',
    size * 2.6,
    (x, y) => [
      bar(x, y, size, NEUTRAL, 1.5),
      {
        type: 'line',
        x1: round(x + 0.5),
        y1: round(y - size * 0.4),
        x2: round(x + size * 2.6 - 0.5),
        y2: round(y - size * 0.4),
        stroke: INK,
        strokeWidth: 1.3,
        role: 'legend',
      },
    ],
  );
  add(hasStatus, 'Status date', size * 0.8, (x, y) => [
    {
      type: 'line',
      x1: round(x + size * 0.4),
      y1: round(y - size * 0.55),
      x2: round(x + size * 0.4),
      y2: round(y + size * 0.55),
      stroke: KELP,
      strokeWidth: 1.2,
      role: 'legend',
    },
  ]);
  return entries;
}
