import { civilFromDay } from '@clembo/core';
import { INK, KELP, PAPER, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { Face } from '../../text/faces';
import type { Measure } from '../../text/measure';
import { BACK, type RoutePoint } from '../../layered/layout';
import { cardBox } from '../cards/hands';
import { lineNodes } from '../cards/lines';
import type { Placer } from '../cards/placer';
import { type ProcessLayout, stepCard, type WordsAt } from './layout';
import { NOBODY, type Process, type ProcessStep } from './process';
import { type Box, edgeInset, symbol, wordBox } from './symbols';

/** Colours of a page of handoffs: handing over stands out, the rest is quiet. */
export const HANDED = KELP;

/** Arrows, their words, steps. Handoffs lie on top. */
export function processNodes(
  { steps, arrows }: Process,
  layout: ProcessLayout,
  p: Placer,
  measure: Measure,
  dates: boolean,
): { nodes: SceneNode[]; shortened: number } {
  const order = arrows
    .map((_, e) => e)
    .sort((a, b) => Number(arrows[a]!.handoff) - Number(arrows[b]!.handoff) || a - b);
  const card = stepCard(layout.size, p.down);
  const nodes = order.flatMap((e) => {
    const { from, to, handoff } = arrows[e]!;
    const look = { strong: handoff && !p.down, ...(handoff && !p.down ? { colour: HANDED } : {}) };
    const route = layout.routes[e]!;
    const inset = (i: number, end: RoutePoint) => {
      const [x, y] = p.at(end);
      return edgeInset(steps[i]!.kind, cardBox(layout, i, card, p), { x, y }, p.down);
    };
    const insets = [inset(from, route[0]!), inset(to, route.at(-1)!)] as const;
    return lineNodes(route, look, [steps[from]!.ref, steps[to]!.ref], p, insets);
  });
  let shortened = 0;
  for (const at of layout.written)
    nodes.push(wordsNode(at, cardBox(layout, at.step, card, p), card.height, p, measure));
  steps.forEach((step, i) => {
    const drawn = stepNodes(step, layout.rest[i]!, cardBox(layout, i, card, p), p, measure, dates);
    shortened += drawn.shortened;
    nodes.push(drawn.node);
  });
  return { nodes, shortened };
}

/** What is said of the arrows that come in, beside where they do. */
function wordsNode({ words, forward }: WordsAt, box: Box, high: number, p: Placer, measure: Measure): SceneNode {
  const { size } = p;
  const faces = words.flatMap((r, k) => [
    ...(k > 0 ? [{ text: ', ', face: 'label' as Face, fill: SOFT_INK }] : []),
    {
      text: measure.clean(r.text),
      face: (r.strong ? 'labelStrong' : 'label') as Face,
      fill: r.strong ? INK : SOFT_INK,
    },
  ]);
  const wide = faces.reduce((sum, r) => sum + measure.width(r.face, size, r.text), 0);
  // An arrow comes in at the middle of the part of a step in its first lane; one that leads back, from behind and below.
  const port = (high / 2 + (forward ? 0 : BACK * high)) * size;
  const [x, y] = p.down
    ? [box.left + port + size * 0.45, forward ? box.top - size * 0.75 : box.top + box.height + size * 1.35]
    : [forward ? box.left - size * 0.65 - wide : box.left + box.width + size * 0.65, box.top + port - size * 0.3];
  return {
    type: 'text',
    x: round(x),
    y: round(y),
    size: round(size),
    runs: faces,
    role: 'cell',
  };
}

function stepNodes(
  step: ProcessStep,
  others: readonly string[],
  box: Box,
  p: Placer,
  measure: Measure,
  dates: boolean,
): { node: SceneNode; shortened: number } {
  const { size } = p;
  const about = { ref: step.ref };
  const ends = step.kind === 'start' || step.kind === 'end';
  const children: SceneNode[] = [
    symbol(step.kind, box, {
      fill: step.complete ? tint(KELP, 0.12) : ends ? tint(INK, 0.06) : PAPER,
      stroke: INK,
      strokeWidth: round(size * (step.critical ? 0.2 : 0.09)),
      ...about,
      role: 'bar',
    }),
  ];
  const when = dates ? whenOf(step) : '';
  // Without lanes a step says itself whose it is.
  const hands = p.down && step.hands[0] !== NOBODY ? step.hands.join(', ') : '';
  const says = others.length === 0 ? step.name : `${step.name} · with ${others.join(', ')}`;
  const words = wordBox(step.kind, box, size * 0.45);
  const clean = measure.clean(says);
  const most = Math.max(
    1,
    Math.floor((words.height + size * 0.25) / (size * 1.18)) - (when === '' ? 0 : 1) - (hands === '' ? 0 : 1),
  );
  const name = measure.wrap('labelStrong', size, clean, words.width, Math.min(4, most));
  const lines: { text: string; face: Face; fill: string }[] = [
    ...name.map((text) => ({ text, face: 'labelStrong' as Face, fill: INK })),
    ...[hands, when]
      .filter((text) => text !== '')
      .map((text) => ({
        text: measure.shorten('label', size, measure.clean(text), words.width),
        face: 'label' as Face,
        fill: SOFT_INK,
      })),
  ];
  const first = words.top + words.height / 2 - (lines.length * size * 1.18) / 2;
  lines.forEach(({ text, face, fill }, k) => {
    const wide = measure.width(face, size, text);
    children.push({
      type: 'text',
      x: round(words.left + (words.width - wide) / 2),
      y: round(first + size * (0.92 + k * 1.18)),
      size: round(size),
      runs: [{ text, face, fill }],
      ...about,
      role: 'label',
    });
  });
  const cut = name.at(-1)?.endsWith('…') && !clean.endsWith('…') ? 1 : 0;
  return {
    node: {
      type: 'group',
      role: 'item',
      name: step.name,
      alt: [step.hands.join(' and '), whenOf(step), step.critical ? 'critical' : '', step.complete ? 'done' : '']
        .filter(Boolean)
        .join(', '),
      children,
      ...about,
    },
    shortened: cut,
  };
}

/** `4–9 Mar 26`, `28 Feb – 9 Mar 26`, or the one day. */
export function whenOf({ start, finish }: Pick<ProcessStep, 'start' | 'finish'>): string {
  const day = (d: number) => formatDay(d, 'medium');
  if (start === null && finish === null) return '';
  if (start === null || finish === null) return start === null ? `to ${day(finish!)}` : `from ${day(start)}`;
  if (start === finish) return day(start);
  const [a, b] = [civilFromDay(start), civilFromDay(finish)];
  if (a.year !== b.year) return `${day(start)} – ${day(finish)}`;
  return a.month === b.month ? `${a.day}–${day(finish)}` : `${formatDay(start, 'short')} – ${day(finish)}`;
}
