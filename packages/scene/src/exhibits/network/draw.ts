import { HAIRLINE, INK, NEUTRAL, PAPER, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { Face } from '../../text/faces';
import type { Measure } from '../../text/measure';
import { TO_COME } from '../timeline/marks';
import { marker } from '../timeline/shapes';
import { lineNodes } from '../cards/lines';
import type { Placer } from '../cards/placer';
import { CARD_SIZE, type CardKind, type NetworkLayout } from './layout';
import type { Card, Line, NetworkSelection } from './select';

/** Everything of a network: lanes, lines, cards. Critical lines lie on top. */
export function networkNodes(
  { cards, lines }: NetworkSelection,
  layout: NetworkLayout,
  p: Placer,
  measure: Measure,
  titleOf: (code: string) => string,
): { nodes: SceneNode[]; shortened: number } {
  const order = lines.map((_, e) => e).sort((a, b) => Number(lines[a]!.critical) - Number(lines[b]!.critical) || a - b);
  const nodes = order.flatMap((e) => {
    const route = layout.routes[e];
    if (!route) return [];
    const { from, to, critical } = lines[e]!;
    return lineNodes(route, { strong: critical }, [cards[from]!.ref, cards[to]!.ref], p);
  });
  nodes.push(...wordNodes(lines, layout, p, measure));
  let shortened = 0;
  cards.forEach((card, i) => {
    const others = layout.rest[i]!.map(titleOf);
    const drawn = cardNodes(card, others, layout, i, p, measure, {
      before: layout.rings.before[i]!,
      after: layout.rings.after[i]!,
    });
    shortened += drawn.shortened;
    nodes.push(...drawn.nodes);
  });
  return { nodes, shortened };
}

/** What kind of links lead to a card, above where they come in. */
function wordNodes(lines: readonly Line[], layout: NetworkLayout, p: Placer, measure: Measure): SceneNode[] {
  const byTarget = new Map<number, string[]>();
  lines.forEach((l, e) => {
    if (l.words === '' || !layout.routes[e]) return;
    byTarget.set(l.to, [...(byTarget.get(l.to) ?? []), l.words]);
  });
  const { size } = p;
  return [...byTarget].map(([to, list]): SceneNode => {
    const text = list.join(', ');
    return {
      type: 'text',
      x: round(p.along(layout.x[to]!) - p.size * 0.65 - measure.width('label', size, text)),
      y: round(p.within(layout.y[to]!) - p.size * 0.3),
      size: round(size),
      runs: [{ text, face: 'label', fill: SOFT_INK }],
      role: 'cell',
    };
  });
}

const days = (n: number): string => `${Math.round(n * 10) / 10} d`;

function cardNodes(
  card: Card,
  others: readonly string[],
  layout: NetworkLayout,
  i: number,
  p: Placer,
  measure: Measure,
  open: { before: number; after: number },
): { nodes: SceneNode[]; shortened: number } {
  const { width: w, height: h } = CARD_SIZE[layout.kind];
  const [left, size] = [p.along(layout.x[i]!), p.size];
  const [width, height] = [w * size, h * size];
  const middle = p.within(layout.y[i]!);
  const top = middle - height / 2;
  const tall = round(p.within(layout.reach[i]!) + height / 2 - top);
  const about = { ref: card.ref };
  const children: SceneNode[] = [];
  const edge = round(Math.max(0.5, size * 0.08));
  if (card.form === 'group')
    children.push({
      type: 'rect',
      x: round(left + size * 0.3),
      y: round(top - size * 0.3),
      width: round(width),
      height: tall,
      radius: round(size * 0.3),
      fill: PAPER,
      stroke: card.colour,
      strokeWidth: edge,
      ...about,
      role: 'bar',
    });
  children.push({
    type: 'rect',
    x: round(left),
    y: round(top),
    width: round(width),
    height: tall,
    radius: round(size * 0.3),
    fill: layout.kind === 'dot' ? PAPER : tint(card.colour, TO_COME * 0.6),
    stroke: layout.kind === 'dot' ? HAIRLINE : card.colour,
    strokeWidth: edge,
    ...about,
    role: 'bar',
  });
  if (card.progress > 0.005 && layout.kind !== 'dot')
    children.push({
      type: 'rect',
      x: round(left),
      y: round(top + tall - size * 0.28),
      width: round(width * card.progress),
      height: round(size * 0.28),
      fill: card.colour,
      ...about,
      role: 'progress',
    });
  if (card.critical)
    children.push({
      type: 'line',
      x1: round(left + size * 0.15),
      y1: round(top),
      x2: round(left + width - size * 0.15),
      y2: round(top),
      stroke: INK,
      strokeWidth: round(size * 0.18),
      ...about,
      role: 'critical',
    });
  const face = faceOf(card, withOthers(card, others), layout.kind, left, middle, size, measure);
  children.push(...face.nodes.map((n) => ({ ...n, ...about })));
  children.push(...ringNodes(open.before, left, top + height * 0.82, -1, size, measure));
  children.push(...ringNodes(open.after, left + width, top + height * 0.82, 1, size, measure));
  return {
    nodes: [{ type: 'group', role: 'item', name: card.name, alt: altOf(card, open), children, ...about }],
    shortened: face.shortened,
  };
}

/** The name of a card, with those of its lanes that it does not reach. */
function withOthers(card: Card, others: readonly string[]): string {
  const name = card.form === 'group' ? `${card.name} (${card.members.length})` : card.name;
  return others.length === 0 ? name : `${name} · with ${others.join(', ')}`;
}

/** What a card says: its name, and around it as much as its size holds. */
function faceOf(
  card: Card,
  says: string,
  kind: CardKind,
  left: number,
  middle: number,
  size: number,
  measure: Measure,
): { nodes: SceneNode[]; shortened: number } {
  const { width: w, height: h } = CARD_SIZE[kind];
  const pad = 0.45 * size;
  const nodes: SceneNode[] = [];
  const point = card.form === 'milestone';
  const mark = kind === 'dot' ? size * 1.05 : point ? size * 1.25 : 0;
  if (mark > 0)
    nodes.push(
      point
        ? marker(card.shape, left + pad + size * 0.45, middle, size * 0.5, {
            fill: card.complete ? card.colour : PAPER,
            stroke: card.colour,
            strokeWidth: round(size * 0.12),
            role: 'milestone',
          })
        : {
            type: 'circle',
            x: round(left + pad + size * 0.4),
            y: round(middle),
            radius: round(size * 0.36),
            fill: card.complete ? card.colour : tint(card.colour, TO_COME),
            stroke: card.colour,
            strokeWidth: round(size * 0.1),
            role: 'milestone',
          },
    );
  const room = w * size - 2 * pad - mark;
  const clean = measure.clean(says);
  const most = kind === 'float' ? 1 : kind === 'full' || kind === 'dates' || kind === 'dot' ? 2 : 3;
  const name = measure.wrap(kind === 'dot' ? 'label' : 'labelStrong', size, clean, room, most);
  const shortened = name.at(-1)?.endsWith('…') && !clean.endsWith('…') ? 1 : 0;
  const say = (
    text: string,
    y: number,
    align: 'left' | 'middle' | 'right',
    face: Face,
    fill: string,
    from = left + pad,
  ) => {
    if (text === '') return;
    const own = measure.width(face, size, text);
    const x = align === 'left' ? from : align === 'right' ? left + w * size - pad - own : left + (w * size - own) / 2;
    nodes.push({ type: 'text', x: round(x), y: round(y), size, runs: [{ text, face, fill }], role: 'label' });
  };
  const day = (d: number | null | undefined) => (d === null || d === undefined ? '–' : formatDay(d, 'medium'));
  const float = card.float === null ? '' : `float ${days(card.float)}`;
  const text = left + pad + mark;
  const top = middle - (h * size) / 2;
  const line = (k: number) => top + size * (1.15 + k * 1.25);
  switch (kind) {
    case 'dot':
      name.forEach((t, k) =>
        say(t, middle + size * (0.3 + (k - (name.length - 1) / 2) * 1.1), 'left', 'label', INK, text),
      );
      break;
    case 'float':
      say(name[0] ?? '', line(0), 'left', 'labelStrong', INK, text);
      say(float, line(1), 'left', 'label', SOFT_INK, text);
      say(card.finish === null ? '' : day(card.finish), line(1), 'right', 'label', SOFT_INK);
      break;
    case 'dates':
      name.forEach((t, k) => say(t, line(k + (name.length === 1 ? 0.5 : 0)), 'left', 'labelStrong', INK, text));
      say(point ? day(card.finish) : `${day(card.start)} – ${day(card.finish)}`, line(2), 'left', 'label', SOFT_INK);
      break;
    case 'datesSlim':
      name.forEach((t, k) => say(t, line(k), 'left', 'labelStrong', INK, text));
      say(day(card.start), line(point ? 4 : 3), 'left', 'label', SOFT_INK);
      say(point ? '' : day(card.finish), line(4), 'left', 'label', SOFT_INK);
      break;
    case 'floatSlim':
      name.forEach((t, k) => say(t, line(k), 'left', 'labelStrong', INK, text));
      say(float, line(3), 'left', 'label', SOFT_INK);
      break;
    case 'full':
      say(card.early ? day(card.early.start) : day(card.start), line(0), 'left', 'label', SOFT_INK);
      say(card.duration === null || point ? '' : days(card.duration), line(0), 'middle', 'label', SOFT_INK);
      say(point ? '' : card.early ? day(card.early.finish) : day(card.finish), line(0), 'right', 'label', SOFT_INK);
      name.forEach((t, k) => say(t, line(1 + k + (name.length === 1 ? 0.5 : 0)), 'left', 'labelStrong', INK, text));
      say(card.late ? day(card.late.start) : '', line(3), 'left', 'label', SOFT_INK);
      say(card.float === null ? '' : days(card.float), line(3), 'middle', 'label', card.critical ? INK : SOFT_INK);
      say(point || !card.late ? '' : day(card.late.finish), line(3), 'right', 'label', SOFT_INK);
  }
  return { nodes, shortened };
}

/** Links that leave the page: a ring at the edge of the card, with their number. */
function ringNodes(count: number, x: number, y: number, way: 1 | -1, size: number, measure: Measure): SceneNode[] {
  if (count === 0) return [];
  const text = String(count);
  const own = measure.width('label', size, text);
  const radius = size * 0.3;
  return [
    {
      type: 'circle',
      x: round(x + way * radius),
      y: round(y),
      radius: round(radius),
      fill: PAPER,
      stroke: NEUTRAL,
      strokeWidth: round(size * 0.1),
      role: 'mark',
    },
    {
      type: 'text',
      x: round(way > 0 ? x + radius * 2.4 : x - radius * 2.4 - own),
      y: round(y + size * 0.3),
      size: round(size),
      runs: [{ text, face: 'label', fill: SOFT_INK }],
      role: 'mark',
    },
  ];
}

function altOf(card: Card, open: { before: number; after: number }): string {
  const when =
    card.start === null
      ? 'without dates'
      : card.start === card.finish
        ? formatDay(card.finish!, 'long')
        : `${formatDay(card.start, 'long')} to ${formatDay(card.finish!, 'long')}`;
  return [
    when,
    card.form === 'group' ? `group of ${card.members.length}` : '',
    card.float === null ? '' : `float ${days(card.float)}`,
    card.critical ? 'critical' : '',
    open.before > 0 ? `${open.before} more lead to it` : '',
    open.after > 0 ? `it leads to ${open.after} more` : '',
  ]
    .filter(Boolean)
    .join(', ');
}
