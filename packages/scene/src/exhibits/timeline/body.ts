import type { TimelineBrief } from '../../brief/timeline';
import type { LabelPlace } from '../../brief/hand';
import { LANGUAGES } from '../../text/languages/index';
import type { PageLanguage } from '../../text/languages/language';
import { dateWords, offWords, percentWords, isSoft } from './itemWords';
import { DATE_LINE, STATUS_LINE } from '../../page/flags';
import { HAIRLINE, HAREBELL, INK, MADDER, NEUTRAL, SOFT_INK } from '../../graph/ink';
import { type GroupNode, round, type SceneNode } from '../../graph/scene';
import {
  ABOVE,
  BASELINE,
  barHeightOf,
  type Cells,
  type Geometry,
  halfHeight,
  INSIDE,
  LEFT,
  LINE,
  markerHalfOf,
  NOWHERE,
  PROMISED,
  promisedTop,
  ROOM,
  STEM,
  STEM_LEFT,
  TEXT_DOWN,
  TEXT_UP,
} from './cells';
import type { FittedPage } from './fitPage';
import { labelRuns, runsWidth } from './labels';
import { leader } from './leader';
import {
  barMark,
  type BarPlace,
  deadlineMark,
  goneMark,
  milestoneMark,
  promisedMark,
  slipMark,
  stretchedMark,
  summaryMark,
  supportMark,
} from './marks';
import type { Item } from './select';
import { labelLeft, setLabel, type SetLabel, widen } from './texts';

/** The box that a text takes, so that lines can be kept out of it. */
export interface TextBox {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** What stands in the plot, and where its texts are. */
export interface Body {
  nodes: SceneNode[];
  boxes: TextBox[];
  shortened: number;
  datesLost: number;
}

/** All items with their labels, each a group of its parts. */
export function bodyNodes(g: Geometry, page: FittedPage, brief: TimelineBrief): Body {
  const language = LANGUAGES[brief.language];
  const { cells, placed } = page;
  const rooms = roomsOf(g, page);
  const body: Body = { nodes: [], boxes: [], shortened: 0, datesLost: 0 };
  for (const i of paintOrder(g)) {
    const item = g.items[i]!;
    const y = placed.middle[i]!;
    const children = [...stemNodes(g, cells, i, y), ...markNodes(g, cells, i, y, brief.print)];
    if (cells.place[i] !== NOWHERE) {
      const number = page.key?.numberOf.get(i);
      const set =
        number === undefined
          ? setLabel(g, cells, i, rooms[i]!, cells.lines[i] === 2)
          : numberLabel(g, cells.style.size, number);
      if (set.shortened) body.shortened++;
      if (set.datesLost) body.datesLost++;
      children.push(...textNodes(g, cells, i, y, set, number === undefined ? rooms[i]! : set.width, body.boxes));
    }
    if (item.own?.at && hasLabel(g, i)) children.push(...ownLabel(g, cells, i, y, item.own.at, body.boxes));
    const group: GroupNode = {
      type: 'group',
      ref: item.ref,
      role: 'item',
      name: item.name,
      alt: altOf(item, language),
      children,
    };
    body.nodes.push(group);
  }
  return body;
}

/** In a folded lane short things lie on long ones. */
function paintOrder(g: Geometry): number[] {
  const order = g.items.map((_, i) => i);
  if (!g.items.some((i) => i.folded)) return order;
  const length = (i: number) => (g.items[i]!.folded ? g.x0[i]! - g.x1[i]! : Number.NEGATIVE_INFINITY);
  return order.sort((i, j) => length(i) - length(j) || i - j);
}

const hasLabel = (g: Geometry, i: number): boolean => g.nameWidth[i]! > 0 || g.elsewhereWidth[i]! > 0;

/** A label where a person has put it, kept on the page, with a line to its thing where it is not beside it. */
function ownLabel(g: Geometry, cells: Cells, i: number, y: number, at: LabelPlace, boxes: TextBox[]): SceneNode[] {
  const { size } = cells.style;
  const label = g.labels[i]!;
  const runs = labelRuns(label, label.name, at.end === 'finish' ? label.atFinish : label.elsewhere, true);
  const width = runsWidth(g.measure, size, runs);
  const held = at.end === 'start' ? g.x0[i]! : g.x1[i]!;
  const x = Math.max(g.left, Math.min(held + at.x * size, g.right - width));
  const baseline = y + at.y * size;
  const box = {
    left: x,
    right: x + width,
    top: baseline - size * (BASELINE + TEXT_UP),
    bottom: baseline + size * (TEXT_DOWN - BASELINE),
  };
  boxes.push(box);
  const { ref } = g.items[i]!;
  const text: SceneNode = { type: 'text', x: round(x), y: round(baseline), size, runs, ref, role: 'label' };
  const line = leader(held, y, box, halfHeight(g, cells.style, i), size);
  return line === null ? [text] : [{ ...line, stroke: NEUTRAL, strokeWidth: 0.5, ref, role: 'stem' }, text];
}

/** The stem from a mark to its label. */
function stemNodes(g: Geometry, cells: Cells, i: number, y: number): SceneNode[] {
  if (!isOnStem(cells, i)) return [];
  const { size } = cells.style;
  const way = Math.sign(cells.labelY[i]!);
  const from = y + way * halfHeight(g, cells.style, i);
  const to = y + cells.labelY[i]! - way * size * (way < 0 ? TEXT_DOWN : TEXT_UP);
  const x = round(cells.stemX[i]!);
  return [
    {
      type: 'line',
      x1: x,
      y1: round(from),
      x2: x,
      y2: round(to),
      stroke: NEUTRAL,
      strokeWidth: 0.5,
      ref: g.items[i]!.ref,
      role: 'stem',
    },
  ];
}

/** The lines on which points are strung, across the plot. */
export function strandNodes(g: Geometry, { placed, cells }: FittedPage): SceneNode[] {
  const rows = new Map<number, number>();
  for (let i = 0; i < g.items.length; i++) if (g.strung[i]) rows.set(placed.row[i]!, placed.middle[i]!);
  // Blocks of their own make a line.
  for (let i = 0; i < g.items.length; i++) if (!g.isPoint[i]) rows.delete(placed.row[i]!);
  return [...rows.values()].map(
    (y): SceneNode => ({
      type: 'line',
      x1: round(g.left),
      y1: round(y),
      x2: round(g.right),
      y2: round(y),
      stroke: SOFT_INK,
      strokeWidth: round(Math.max(0.6, cells.style.size * 0.1)),
      role: 'strand',
    }),
  );
}

/** Room of every label once its row is settled: shortened ones take what is free beside them. */
function roomsOf(g: Geometry, { cells, placed }: FittedPage): Float64Array {
  const rooms = Float64Array.from(cells.room);
  const byRow = new Map<number, number[]>();
  for (let i = 0; i < g.items.length; i++) {
    const list = byRow.get(placed.row[i]!);
    if (list) list.push(i);
    else byRow.set(placed.row[i]!, [i]);
  }
  for (const members of byRow.values()) {
    const wider = widen(g, cells, members, cells.style.size * ROOM);
    members.forEach((i, k) => {
      rooms[i] = wider[k]!;
    });
  }
  return rooms;
}

const numberLabel = (g: Geometry, size: number, number: number): SetLabel => ({
  lines: [[{ text: String(number), face: 'labelStrong', fill: INK }]],
  width: g.measure.width('labelStrong', size, String(number)),
  shortened: false,
  datesLost: false,
});

function markNodes(g: Geometry, cells: Cells, i: number, y: number, print: 'colour' | 'grey'): SceneNode[] {
  const item = g.items[i]!;
  const { size } = cells.style;
  const height = barHeightOf(cells.style);
  const half = markerHalfOf(cells.style);
  const [x0, x1] = [g.x0[i]!, g.x1[i]!];
  const place: BarPlace = {
    x0,
    x1,
    done: g.done[i]!,
    top: y - height / 2,
    height,
    cutLeft: g.cutLeft[i] === 1,
    cutRight: g.cutRight[i] === 1,
    group: item.form === 'group',
    softLeft: isSoft(item, 'start') && g.cutLeft[i] !== 1,
    softRight: isSoft(item, 'finish') && g.cutRight[i] !== 1,
    criticalWork: g.criticalWork[i] ?? null,
  };
  const nodes: SceneNode[] = [];
  if (!Number.isNaN(g.promised0[i]!)) {
    const point = item.form === 'milestone';
    const top = y + promisedTop(cells.style, point, cells.lines[i] === 2);
    const height = size * PROMISED.height;
    if (!Number.isNaN(g.outline0[i]!))
      nodes.push(promisedMark(g.outline0[i]!, g.outline1[i]!, top, height, point, item.ref));
    if (!Number.isNaN(g.arrow0[i]!)) {
      const colour = print === 'grey' ? INK : (item.off ?? 0) > 0 ? MADDER : HAREBELL;
      nodes.push(...slipMark(g.arrow0[i]!, g.arrow1[i]!, top + height / 2, height, colour, item.ref));
    }
  }
  if (!Number.isNaN(g.deadline[i]!)) nodes.push(...deadlineMark(g.deadline[i]!, y, half, item.ref));
  if (item.gone) return [...nodes, goneMark(x0, x1, y, height, half, item.form === 'milestone', item.ref)];
  switch (item.form) {
    case 'milestone':
      nodes.push(...milestoneMark(x0, y, half, item));
      break;
    case 'summary':
      nodes.push(...summaryMark(x0, x1, y, Math.max(0.8, size * 0.14), item.ref));
      break;
    case 'support':
      nodes.push(...supportMark(place, item));
      break;
    default: {
      const parts = g.parts[i];
      nodes.push(...(parts && parts.length > 1 ? stretchedMark(parts, place, item) : barMark(place, item)));
    }
  }
  return nodes;
}

function textNodes(
  g: Geometry,
  cells: Cells,
  i: number,
  y: number,
  set: SetLabel,
  room: number,
  boxes: TextBox[],
): SceneNode[] {
  const { size } = cells.style;
  const place = cells.place[i]!;
  const x = labelLeft(
    cells,
    i,
    place === ABOVE || place === INSIDE || place >= STEM ? cells.room[i]! : room,
    set.width,
  );
  const middle = middleOf(g, cells, i, y);
  return set.lines.map((runs, k): SceneNode => {
    const line = middle + (k - (set.lines.length - 1) / 2) * size * LINE;
    boxes.push({ left: x, right: x + set.width, top: line - size * TEXT_UP, bottom: line + size * TEXT_DOWN });
    // Lines at the left of a bar end beside it.
    const own = place === LEFT ? x + set.width - runsWidth(g.measure, size, runs) : x;
    return {
      type: 'text',
      x: round(own),
      y: round(line + size * BASELINE),
      size,
      runs,
      ref: g.items[i]!.ref,
      role: 'label',
    };
  });
}

const isOnStem = (cells: Cells, i: number): boolean => cells.place[i] === STEM || cells.place[i] === STEM_LEFT;

/** The middle of the line on which a label stands. */
function middleOf(g: Geometry, cells: Cells, i: number, y: number): number {
  const { size } = cells.style;
  const height = barHeightOf(cells.style);
  if (isOnStem(cells, i)) return y + cells.labelY[i]!;
  if (cells.place[i] === ABOVE) return y - halfHeight(g, cells.style, i) - size * (0.16 + TEXT_DOWN);
  // A name in its bar stands above the band of its progress.
  if (cells.place[i] === INSIDE) return y - height / 2 + size * (0.12 + TEXT_UP);
  return y;
}

/** What a thing is and when, in words. */
function altOf(item: Item, l: PageLanguage): string {
  const { start, finish } = dateWords(item, 'long', l);
  const parts = [item.form === 'milestone' || start === finish ? finish : l.span(start, finish), noteOf(item, l)];
  return parts.filter(Boolean).join(', ');
}

/** What is to be said of a thing beside its dates. */
export function noteOf(item: Item, l: PageLanguage): string {
  const { noted } = l;
  const done = () => l.percentDone(percentWords(item));
  const kind =
    item.form === 'milestone'
      ? item.complete
        ? noted.reached
        : noted.milestone
      : item.form === 'group'
        ? [noted.groupOf(item.members.length), item.measured ? done() : ''].filter(Boolean).join(', ')
        : item.form === 'summary'
          ? [noted.summary, item.measured ? done() : ''].filter(Boolean).join(', ')
          : item.measured
            ? done()
            : noted.support;
  return [
    item.gone ? l.goneNow : kind,
    item.fresh ? l.fresh : '',
    !item.critical
      ? ''
      : item.criticalWork
        ? noted.criticalOf(item.criticalWork.count, item.members.length)
        : noted.critical,
    offWords(item.off, l),
  ]
    .filter(Boolean)
    .join(', ');
}

/** A vertical line over the plot that leaves out the boxes of texts. */
export function brokenLine(
  x: number,
  top: number,
  bottom: number,
  boxes: readonly TextBox[],
  paint: { stroke: string; strokeWidth: number; role: 'grid' | 'status' | 'date' },
): SceneNode[] {
  const gaps = boxes.filter((b) => b.left - 1.6 < x && b.right + 1.6 > x && b.bottom > top && b.top < bottom);
  gaps.sort((a, b) => a.top - b.top);
  const nodes: SceneNode[] = [];
  let from = top;
  const piece = (to: number) => {
    if (to - from > 0.5)
      nodes.push({ type: 'line', x1: round(x), y1: round(from), x2: round(x), y2: round(to), ...paint });
  };
  for (const gap of gaps) {
    piece(gap.top - 0.8);
    from = Math.max(from, gap.bottom + 0.8);
  }
  piece(bottom);
  return nodes;
}

export const GRID_PAINT = { stroke: HAIRLINE, strokeWidth: 0.5, role: 'grid' } as const;
export const STATUS_PAINT = { ...STATUS_LINE, role: 'status' } as const;
export const DATE_PAINT = { ...DATE_LINE, role: 'date' } as const;
