import { endOfDay, startOfDay } from '@clembo/core';
import { STATUS_LINE } from '../../page/flags';
import { INK, INK_ON_TINT, KELP, MADDER_ON_TINT, PAPER, SOFT_INK, tint } from '../../graph/ink';
import { rule, write } from '../../graph/nodes';
import { round, type SceneNode } from '../../graph/scene';
import { timeAxis } from '../../page/axis';
import { packRows } from '../../rows/pack';
import { timeScale } from '../../scales/time';
import { formatDay } from '../../text/dates';
import type { Measure } from '../../text/measure';
import type { PlanFacts } from '../facts';
import { doneWords, type Phase } from '../phases';
import type { Box } from '../places';
import { atBestSize, type DrawnBlock } from './drawn';

/** The reference of a phase of a plan. */
export const phaseRef = (plan: string, ref: string | null): string => `phase ${plan} ${ref ?? ''}`;

/** From one row of bands to the next, and the height of a band, in type sizes. */
const ROW = 2.1;
const BAND = 1.65;

/**
 * Phases as bands over one time line, the rows of each plan below its others: what is done of each, by how much it
 * ends late, and how much of the time has passed.
 */
export function phasesBlock(all: readonly PlanFacts[], box: Box, size: number, measure: Measure): DrawnBlock {
  const plans = all.filter((p) => p.phases.length > 0);
  const phases = plans.flatMap((p) => p.phases);
  if (phases.length === 0)
    return { nodes: [write(box.x, box.y + size, size, 'No dates yet.', SOFT_INK, 'notice')], cut: 0 };
  const from = startOfDay(phases.reduce((a, p) => Math.min(a, p.first), Number.POSITIVE_INFINITY));
  const to = endOfDay(phases.reduce((a, p) => Math.max(a, p.last), Number.NEGATIVE_INFINITY));
  const drawn = atBestSize(size, (s) => draw(plans, { from, to }, box, s, measure));
  return { nodes: drawn.nodes, cut: drawn.cut };
}

function draw(
  plans: readonly PlanFacts[],
  { from, to }: { from: number; to: number },
  box: Box,
  s: number,
  measure: Measure,
): DrawnBlock & { fits: boolean } {
  const named = plans.length > 1;
  const names = plans.map((p) => measure.clean(p.plan));
  const column = named
    ? Math.min(box.width * 0.24, Math.max(...names.map((n) => measure.width('labelStrong', s, n))) + s * 1.2)
    : 0;
  const scale = timeScale(from, to, box.x + column, box.x + box.width);
  const axis = timeAxis(scale, { scaleSize: s }, measure, box.y, scale.left, scale.right);
  const nodes: SceneNode[] = [...axis.nodes];
  const bottom = box.y + box.height - s * 1.5;
  let [y, cut] = [axis.bottom + s * 0.5, 0];
  const top = y;
  const statuses: { day: number; from: number; to: number }[] = [];
  plans.forEach((p, k) => {
    const bands = p.phases.map((phase) => bandOf(phase, scale, s, measure));
    const { row, rows } = packRows(
      Float64Array.from(bands, (b) => b.left),
      Float64Array.from(bands, (b) => b.right),
    );
    const begins = y;
    const shown = Math.max(0, Math.min(rows, Math.floor((bottom - y + s * (ROW - BAND)) / (s * ROW))));
    if (named && shown > 0) {
      const name = measure.shorten('labelStrong', s, names[k]!, column - s);
      nodes.push(write(box.x, y + s * 1.2, s, name, INK, 'lane', 'labelStrong'));
      if (p.status !== null && shown > 1)
        nodes.push(write(box.x, y + s * 2.5, s, `at ${formatDay(p.status, 'medium')}`, SOFT_INK, 'lane'));
    }
    bands.forEach((b, n) => {
      if (row[n]! >= shown) cut++;
      else nodes.push(bandNode(b, p.id, y + row[n]! * s * ROW, s));
    });
    y += shown * s * ROW + (named ? s * 0.35 : 0);
    if (p.status !== null && shown > 0) statuses.push({ day: p.status, from: begins, to: y - s * (ROW - BAND) });
  });
  if (statuses.length > 0) {
    const latest = Math.max(...statuses.map((d) => d.day));
    const now = Math.min(to, Math.max(from, endOfDay(latest)));
    nodes.push({
      type: 'rect',
      x: round(scale.left),
      y: round(axis.bottom - 1.3),
      width: round(scale.x(now) - scale.left),
      height: 2.6,
      fill: KELP,
      role: 'elapsed',
    });
  }
  for (const { day, from: above, to: below } of statuses) {
    const moment = endOfDay(day);
    if (moment < from || moment > to) continue;
    const x = scale.x(moment);
    const begins = named ? above : top - s * 0.4;
    nodes.push(rule(x, begins, x, below, STATUS_LINE.stroke, STATUS_LINE.strokeWidth, 'status'));
    if (named) continue;
    const share = Math.round((100 * (moment - from)) / (to - from));
    const words = `${formatDay(day, 'medium')}: ${share} % of the time has passed`;
    const width = measure.width('label', s, words);
    const left = Math.max(scale.left, Math.min(x - width / 2, scale.right - width));
    nodes.push(write(left, y + s * 0.75, s, words, SOFT_INK, 'status'));
  }
  if (cut > 0) {
    const words = `${cut} ${cut === 1 ? 'phase has' : 'phases have'} no room here`;
    nodes.push(write(box.x, box.y + box.height - s * 0.3, s, words, SOFT_INK, 'notice'));
  }
  return { nodes, cut, fits: cut === 0 && y + s * 1.1 <= box.y + box.height };
}

interface Band {
  phase: Phase;
  x0: number;
  x1: number;
  /** Where it and its words begin and end. */
  left: number;
  right: number;
  textAt: number;
  name: string;
  late: string;
}

/** A band with its words: within it, else beside it, where more of them have room. */
function bandOf(
  phase: Phase,
  scale: { left: number; right: number; x(m: number): number },
  s: number,
  measure: Measure,
): Band {
  const x0 = scale.x(startOfDay(phase.first));
  const x1 = Math.max(x0 + 1.5, scale.x(endOfDay(phase.last)));
  const days = Math.abs(phase.late ?? 0);
  const late =
    phase.late === null || phase.late === 0
      ? ''
      : `  ${days} ${days === 1 ? 'day' : 'days'} ${phase.late > 0 ? 'late' : 'ahead'}`;
  const name = measure.clean(phase.name);
  const width = (n: string) => measure.width('labelStrong', s, n) + measure.width('label', s, late);
  const band = { phase, x0, x1, late };
  if (width(name) <= x1 - x0 - s) return { ...band, name, left: x0, right: x1, textAt: x0 + s * 0.5 };
  const gap = s * 0.4;
  if (x1 + gap + width(name) <= scale.right)
    return { ...band, name, left: x0, right: x1 + gap * 2 + width(name), textAt: x1 + gap };
  if (x0 - gap - width(name) >= scale.left)
    return {
      ...band,
      name,
      left: x0 - gap - width(name),
      right: x1 + gap,
      textAt: x0 - gap - width(name),
    };
  const room = x1 - x0 - s - measure.width('label', s, late);
  return {
    ...band,
    name: measure.shorten('labelStrong', s, name, Math.max(0, room)),
    left: x0,
    right: x1,
    textAt: x0 + s * 0.5,
  };
}

function bandNode({ phase, x0, x1, textAt, name, late }: Band, plan: string, y: number, s: number): SceneNode {
  const ref = phaseRef(plan, phase.ref);
  const high = round(s * BAND);
  const rect = (width: number, fill: string, role: 'bar' | 'progress'): SceneNode => ({
    type: 'rect',
    x: round(x0),
    y: round(y),
    width: round(width),
    height: high,
    fill,
    ...(role === 'bar' ? { stroke: PAPER, strokeWidth: 1 } : {}),
    role,
  });
  return {
    type: 'group',
    role: 'item',
    ref,
    name: phase.name,
    alt: `${formatDay(phase.first, 'medium')} to ${formatDay(phase.last, 'medium')}, ${doneWords(phase)}${late && `,${late}`}`,
    children: [
      rect(x1 - x0, tint(KELP, 0.16), 'bar'),
      ...(phase.done !== null && phase.done > 0
        ? [rect((x1 - x0) * Math.min(1, phase.done), tint(KELP, 0.4), 'progress')]
        : []),
      {
        type: 'text',
        x: round(textAt),
        y: round(y + s * (BAND / 2 + 0.34)),
        size: s,
        runs: [
          { text: name, face: 'labelStrong', fill: INK },
          ...(late === ''
            ? []
            : [{ text: late, face: 'label' as const, fill: (phase.late ?? 0) > 0 ? MADDER_ON_TINT : INK_ON_TINT }]),
        ],
        role: 'label',
      },
    ],
  };
}
