import { type Anchor, heldBy, type Look, type Note, type SpotAnchor } from '../brief/hand';
import { INK, KELP, PAPER } from '../graph/ink';
import { type GroupNode, polygon, round, type SceneNode, type Unplaced } from '../graph/scene';
import type { PageFrame } from '../page/frame';
import type { Measure } from '../text/measure';
import { BASELINE, LINE, TEXT_DOWN, TEXT_UP } from './timeline/cells';
import { leader } from './timeline/leader';

interface Point {
  x: number;
  y: number;
}

/** What notes are placed by. */
export interface NoteRoom {
  /** The size of the type of labels. */
  size: number;
  measure: Measure;
  frame: PageFrame;
  /** The ends of a thing, with the height of the second where that is another; null where it is not on the page. */
  place(ref: string): { x0: number; x1: number; y: number; y1?: number } | null;
  /** The place of a moment along the page; null where the page has none. */
  across(moment: number): number | null;
  /** Where a place of a line and a moment are; null where the page does not show them. */
  spot?(anchor: SpotAnchor): Point | null;
}

const PAD = 0.45;
const MOST_LINES = 12;

/** The notes of a page, each a group of its parts, in their order; those whose activity is not there are not drawn. */
export function noteNodes(notes: readonly Note[], room: NoteRoom): GroupNode[] {
  return notes.flatMap((note): GroupNode[] => {
    const children = drawn(note, room);
    if (children === null) return [];
    const name = note.kind === 'text' ? note.text : note.kind === 'picture' ? note.alt || 'Picture' : KINDS[note.kind];
    return [{ type: 'group', role: 'note', note: note.id, name: room.measure.clean(name), children }];
  });
}

const KINDS = { arrow: 'Arrow', box: 'Frame' } as const;

/** Where an anchor is on the page; null where its activity or its moment is not. */
function pointOf(anchor: Anchor, { place, across, spot }: NoteRoom): Point | null {
  if ('place' in anchor) return spot?.(anchor) ?? null;
  const { ref, at } = anchor;
  const own = place(ref);
  if (own === null) return null;
  if (at === 'start') return { x: own.x0, y: own.y };
  if (at === 'finish') return { x: own.x1, y: own.y1 ?? own.y };
  const x = across(at);
  return x === null ? null : { x, y: own.y };
}

function drawn(note: Note, room: NoteRoom): SceneNode[] | null {
  const held = pointOf(note.anchor, room);
  if (held === null) return null;
  const { size, frame } = room;
  const away = ({ dx, dy }: Anchor, p: Point): Point => ({
    x: Math.max(0, Math.min(p.x + dx * size, frame.width)),
    y: Math.max(0, Math.min(p.y + dy * size, frame.height)),
  });
  const from = away(note.anchor, held);
  switch (note.kind) {
    case 'text':
      return textNote(note, held, from, room);
    case 'picture': {
      const height = (note.width * size * note.picture.height) / note.picture.width;
      const width = note.width * size;
      const [x, y] = inside(from, width, height, frame);
      const { data } = note.picture;
      return [
        { type: 'image', x: round(x), y: round(y), width: round(width), height: round(height), data, alt: note.alt },
      ];
    }
    default: {
      const other = pointOf(note.to, room);
      if (other === null) return null;
      const to = away(note.to, other);
      const colour = note.colour ?? (note.kind === 'arrow' ? INK : KELP);
      return note.kind === 'arrow' ? arrow(from, to, colour, size) : [box(from, to, colour)];
    }
  }
}

/** Moved so that all of it is on the page. */
const inside = (at: Point, width: number, height: number, frame: PageFrame): [x: number, y: number] => [
  Math.max(2, Math.min(at.x, frame.width - width - 2)),
  Math.max(2, Math.min(at.y, frame.height - height - 2)),
];

function textNote(
  note: Extract<Note, { kind: 'text' }>,
  held: Point,
  from: Point,
  { size, measure, frame }: NoteRoom,
): SceneNode[] {
  const colour = note.colour ?? INK;
  const lines = note.text
    .split('\n')
    .flatMap((t) => measure.wrap('label', size, measure.clean(t), note.width * size, MOST_LINES));
  const width = Math.max(...lines.map((l) => measure.width('label', size, l))) + 2 * PAD * size;
  const height = (lines.length - 1) * LINE * size + (TEXT_UP + TEXT_DOWN) * size + 2 * PAD * size;
  const [x, y] = inside(from, width, height, frame);
  const edge = { left: x, right: x + width, top: y, bottom: y + height };
  const line = note.line ? leader(held.x, held.y, edge, 0, size) : null;
  return [
    ...(line === null ? [] : [{ ...line, stroke: colour, strokeWidth: 0.7, role: 'note' as const }]),
    ...(line === null
      ? []
      : [{ type: 'circle' as const, x: line.x1, y: line.y1, radius: 1.4, fill: colour, role: 'note' as const }]),
    {
      type: 'rect',
      x: round(x),
      y: round(y),
      width: round(width),
      height: round(height),
      radius: 2,
      fill: PAPER,
      stroke: colour,
      strokeWidth: 0.7,
      role: 'note',
    },
    ...lines.map(
      (text, k): SceneNode => ({
        type: 'text',
        x: round(x + PAD * size),
        y: round(y + (PAD + TEXT_UP + BASELINE + k * LINE) * size),
        size,
        runs: [{ text, face: 'label', fill: INK }],
        role: 'note',
      }),
    ),
  ];
}

function arrow(from: Point, to: Point, colour: string, size: number): SceneNode[] {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const head = Math.min(size * 0.8, length);
  const [ux, uy] = length === 0 ? [1, 0] : [(to.x - from.x) / length, (to.y - from.y) / length];
  const base = { x: to.x - ux * head, y: to.y - uy * head };
  return [
    {
      type: 'line',
      x1: round(from.x),
      y1: round(from.y),
      x2: round(base.x),
      y2: round(base.y),
      stroke: colour,
      strokeWidth: 1.1,
      role: 'note',
    },
    polygon(
      [
        [round(to.x), round(to.y)],
        [round(base.x - uy * head * 0.45), round(base.y + ux * head * 0.45)],
        [round(base.x + uy * head * 0.45), round(base.y - ux * head * 0.45)],
      ],
      { fill: colour, role: 'note' },
    ),
  ];
}

const box = (from: Point, to: Point, colour: string): SceneNode => ({
  type: 'rect',
  x: round(Math.min(from.x, to.x)),
  y: round(Math.min(from.y, to.y)),
  width: round(Math.abs(to.x - from.x)),
  height: round(Math.abs(to.y - from.y)),
  radius: 4,
  stroke: colour,
  strokeWidth: 1.2,
  role: 'note',
});

/** What is set by hand for things that are not on the page. */
export function unplacedOf(
  brief: { looks?: readonly Look[]; marks: readonly Note[] },
  items: readonly { ref: string }[],
  isInPlan: (ref: string) => boolean,
  onPage: ReadonlySet<string>,
): Unplaced[] {
  const there = new Set(items.map((i) => i.ref));
  const looks = (brief.looks ?? [])
    .filter((l) => !there.has(l.ref))
    .map(({ ref }): Unplaced => ({ ref, note: null, words: '', gone: !isInPlan(ref) }));
  const notes = brief.marks
    .filter((m) => !onPage.has(m.id))
    .map((m): Unplaced => {
      const refs = ('to' in m ? [m.anchor, m.to] : [m.anchor]).flatMap((a) => heldBy(a) ?? []);
      const missing = refs.find((r) => !there.has(r)) ?? refs[0] ?? null;
      const words = m.kind === 'text' ? m.text : m.kind === 'picture' ? m.alt : '';
      return { ref: missing ?? '', note: m.id, words, gone: missing !== null && !isInPlan(missing) };
    });
  return [...looks, ...notes];
}
