import { hatchAlong } from './flowMark';
import type { LinearBrief } from '../../brief/linear';
import { GOLD, HAIRLINE, INK, MADDER, NEUTRAL, PAPER, SAND, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import type { LegendEntry } from '../../page/legend';
import type { LineSelection } from './select';

/** What is on the page, and nothing else. */
export function legend(
  frame: PageFrame,
  { line, flows, blocks, clashes }: LineSelection,
  brief: LinearBrief,
): LegendEntry[] {
  const wide = frame.smallSize * 2.4;
  const high = frame.smallSize;
  const categories = new Map(
    [...flows, ...blocks].flatMap((f) => (f.category === null ? [] : [[f.category, f] as const])),
  );
  const [some] = flows;
  const colour = brief.colour === null ? (some?.colour ?? NEUTRAL) : NEUTRAL;
  const stroke =
    (c: string, width: number, from = 0, to = wide) =>
    (x: number, y: number): SceneNode[] => [
      {
        type: 'line',
        x1: round(x + from),
        y1: round(y),
        x2: round(x + to),
        y2: round(y),
        stroke: c,
        strokeWidth: width,
      },
    ];
  const box =
    (fill: string, edge: string) =>
    (x: number, y: number): SceneNode[] => [
      {
        type: 'rect',
        x: round(x),
        y: round(y - high / 2),
        width: round(wide),
        height: round(high),
        fill,
        stroke: edge,
        strokeWidth: 0.6,
      },
    ];
  const entry = (when: boolean, title: string, draw: LegendEntry['draw']): LegendEntry[] =>
    when ? [{ title, width: wide, draw }] : [];
  return [
    ...[...categories.values()]
      .sort((a, b) => a.categoryRank - b.categoryRank)
      .map((f): LegendEntry => ({ title: f.category!, width: wide, draw: stroke(f.colour, 2.4) })),
    ...entry(
      flows.some((f) => f.doneTo !== null),
      'Done, thick; to come, thin',
      (x, y) => [...stroke(tint(colour, 0.65), 1.4)(x, y), ...stroke(colour, 2.6, 0, wide / 2)(x, y)],
    ),
    ...entry(
      [...flows, ...blocks].some((f) => f.critical),
      'Critical',
      (x, y) => [...stroke(INK, 3.6)(x, y), ...stroke(colour, 1.6)(x, y)],
    ),
    ...entry(
      flows.some((f) => f.promised !== null),
      'Promised',
      (x, y) => [0, 1, 2].flatMap((k) => stroke(SOFT_INK, 0.8, (k * wide) / 3, (k * wide) / 3 + wide / 5)(x, y)),
    ),
    ...entry(
      flows.some((f) => f.closed.length > 0),
      'Planned in a closed window',
      (x, y) => [
        ...stroke(tint(colour, 0.65), 1.4)(x, y),
        {
          type: 'path',
          steps: hatchAlong(
            [
              [x, y],
              [x + wide, y],
            ],
            1.4,
          ),
          stroke: MADDER,
          strokeWidth: 0.8,
        },
      ],
    ),
    ...entry(blocks.length > 0, 'Holds its stretch', box(tint(colour, 0.25), colour)),
    ...entry(brief.windows && (line?.windows.length ?? 0) > 0, 'Closed', box(SAND, HAIRLINE)),
    ...entry(brief.gaps && flows.length > 1, 'Least days between works', stroke(GOLD, 2.6)),
    ...entry(clashes.length > 0, 'Clash', (x, y) => [
      {
        type: 'circle',
        x: round(x + wide / 2),
        y: round(y),
        radius: round(high * 0.45),
        fill: PAPER,
        stroke: MADDER,
        strokeWidth: 1,
      },
    ]),
  ];
}
