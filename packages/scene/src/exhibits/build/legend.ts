import type { BuildBrief } from '../../brief/build';
import { HAREBELL, HAIRLINE, INK, MADDER, NEUTRAL, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import type { LegendEntry } from '../../page/legend';
import type { ComposeInput } from '../composed';
import { codeLooks } from '../timeline/codes';
import { PALE, STANDS, TO_COME } from './look';
import type { Standings } from './standings';

/** What is drawn on the page, and nothing else. */
export function buildLegend(
  frame: PageFrame,
  { plan, brief }: ComposeInput<BuildBrief>,
  { dates }: Standings,
): LegendEntry[] {
  const [wide, high] = [frame.smallSize * 1.7, frame.smallSize * 0.95];
  const swatch =
    (fill: string | null, stroke: string, strokeWidth: number, stripes = false, share = 1) =>
    (x: number, y: number): SceneNode[] => [
      ...(fill === null
        ? []
        : [
            {
              type: 'rect' as const,
              x: round(x),
              y: round(y + high / 2 - high * share),
              width: round(wide),
              height: round(high * share),
              fill,
              role: 'bar' as const,
            },
          ]),
      ...(stripes
        ? [0.15, 0.45, 0.75].map(
            (t): SceneNode => ({
              type: 'line',
              x1: round(x + wide * t),
              y1: round(y + high / 2),
              x2: round(x + wide * (t + 0.22)),
              y2: round(y - high / 2),
              stroke,
              strokeWidth: 0.9,
            }),
          )
        : []),
      {
        type: 'rect',
        x: round(x),
        y: round(y - high / 2),
        width: round(wide),
        height: round(high),
        fill: '#FFFFFF',
        opacity: 0,
        stroke,
        strokeWidth,
        role: 'bar',
      },
    ];
  const some = (f: (d: Standings['dates'][number]) => boolean) => dates.some(f);
  const entry = (when: boolean, title: string, draw: LegendEntry['draw']): LegendEntry[] =>
    when ? [{ title, width: wide, draw }] : [];
  const looksOf = codeLooks(plan, brief.colour, brief);
  const categories = new Map<string, { rank: number; colour: string }>();
  if (brief.colour !== null)
    for (const w of dates.flatMap((d) => d.underWay)) {
      const look = looksOf([plan.activities[w.position]!.codes[brief.colour] ?? '']);
      if (look.category !== null) categories.set(look.category, { rank: look.categoryRank, colour: look.colour });
    }
  const plain = looksOf([]).colour;
  const underWay =
    categories.size > 0
      ? [...categories]
          .sort(([, a], [, b]) => a.rank - b.rank)
          .flatMap(([title, { colour }]) =>
            entry(true, `Under way: ${title}`, swatch(tint(colour, 0.62), colour, 1, false, 0.6)),
          )
      : entry(
          some((d) => d.counts.underWay > 0),
          'Under way, filled as far as it is',
          swatch(tint(plain, 0.62), plain, 1, false, 0.6),
        );
  return [
    ...entry(
      some((d) => d.counts.there > 0),
      'Stands',
      swatch(STANDS, INK, 0.6),
    ),
    ...underWay,
    ...entry(
      some((d) => d.counts.going > 0),
      'Being removed',
      swatch(tint(NEUTRAL, 0.25), SOFT_INK, 0.6, false, 0.6),
    ),
    ...entry(brief.toCome && some((d) => d.counts.notYet > 0), 'To come', swatch(null, TO_COME, 0.8)),
    ...entry(
      some((d) => d.behind > 0),
      'Behind the promise',
      swatch(tint(MADDER, 0.15), MADDER, 1.2, true),
    ),
    ...entry(
      some((d) => d.ahead > 0),
      'Ahead of it',
      swatch(STANDS, HAREBELL, 1.2),
    ),
    ...entry(
      brief.loose && some((d) => d.counts.loose + d.counts.undated > 0),
      some((d) => d.counts.undated > 0) ? 'Without work or its dates' : 'Without work',
      swatch(PALE, HAIRLINE, 0.8),
    ),
  ];
}
