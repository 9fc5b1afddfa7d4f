import { dayOf, endOfDay } from '@clembo/core';
import { INK, KELP, PAPER } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import { placeOnStems } from '../rows/strand';
import type { TimeScale } from '../scales/time';
import { en } from '../text/languages/en';
import { dayWords, type PageLanguage } from '../text/languages/language';
import type { Measure } from '../text/measure';
import { TIER } from './axis';
import type { PageFrame } from './frame';

/** Lines of flags down the plot. */
export const STATUS_LINE = { stroke: KELP, strokeWidth: 1.2 } as const;
export const DATE_LINE = { stroke: INK, strokeWidth: 0.7 } as const;

/** A day that a flag below the ground rule points out. */
export interface Flag {
  moment: number;
  text: string;
  /** The status date, in the colour that is its own. */
  status: boolean;
}

/** Flags below the ground rule, and where their lines go on. */
export interface Flags {
  height: number;
  nodes(rule: number): SceneNode[];
  lines: { x: number; status: boolean }[];
}

const flagRow = (frame: PageFrame): number => frame.scaleSize * TIER;

/** Shares of the scale that a flag may take at most, the first that keeps all clear of each other. */
const SHARES = [0.5, 0.35, 0.25, 0.18, 0.12] as const;

/** Hangs flags from the ground rule, in as many rows as keep each clear of the lines of the others. */
export function flagStrip(flags: readonly Flag[], scale: TimeScale, frame: PageFrame, measure: Measure): Flags {
  const size = frame.scaleSize;
  const shown = flags
    .filter((f) => f.moment >= scale.from && f.moment <= scale.to)
    .map((f) => ({ ...f, x: scale.x(f.moment) }))
    .sort((a, b) => a.x - b.x);
  const hung = (share: number) => {
    const most = (scale.right - scale.left) * share;
    const texts = shown.map((f) => measure.shorten('labelStrong', size, measure.clean(f.text), most));
    const widths = texts.map((t) => measure.width('labelStrong', size, t) + size);
    const places = placeOnStems({
      x: Float64Array.from(shown, (f) => f.x),
      width: Float64Array.from(widths),
      left: scale.left,
      right: scale.right,
      avoid: Number.NaN,
      inTurn: false,
      room: size * 0.4,
    });
    return { texts, widths, places };
  };
  // Long ones that would lie on the lines of others are shorter.
  let strip = hung(SHARES[0]);
  for (const share of SHARES.slice(1)) if (!strip.places.clear) strip = hung(share);
  const { texts, widths, places } = strip;
  const row = flagRow(frame);
  return {
    height: places.above * row,
    lines: shown.map(({ x, status }) => ({ x, status })),
    nodes: (rule) =>
      shown.flatMap(({ x, status }, k): SceneNode[] => {
        const top = rule + (places.above - places.level[k]!) * row;
        const role = status ? 'status' : 'date';
        // From a flag in a higher row its line comes down beside those in the lower ones.
        const stem: SceneNode = {
          type: 'line',
          x1: round(x),
          y1: round(top + row),
          x2: round(x),
          y2: round(rule + places.above * row),
          ...(status ? STATUS_LINE : DATE_LINE),
          role,
        };
        return [
          ...(places.level[k]! > 1 ? [stem] : []),
          {
            type: 'rect',
            x: round(places.label[k]!),
            y: round(top),
            width: round(widths[k]!),
            height: round(row),
            radius: 2,
            fill: status ? KELP : PAPER,
            ...(status ? {} : { stroke: INK, strokeWidth: 0.6 }),
            role,
          },
          {
            type: 'text',
            x: round(places.label[k]! + size / 2),
            y: round(top + size * 1.1),
            size,
            runs: [{ text: texts[k]!, face: 'labelStrong', fill: status ? PAPER : INK }],
            role,
          },
        ];
      }),
  };
}

/** Height of the strip below the ground rule in which the flag of the status date alone hangs. */
export const flagHeight = flagRow;

/** The status date as a flag that hangs from the ground rule; its line begins below it. */
export const statusFlag = (
  moment: number,
  withYear: boolean,
  scale: TimeScale,
  frame: PageFrame,
  measure: Measure,
  rule: number,
): SceneNode[] => flagStrip([flagOf(moment, withYear, en)], scale, frame, measure).nodes(rule);

/** The flag of the status date. */
export const flagOf = (moment: number, withYear: boolean, language: PageLanguage): Flag => ({
  moment: endOfDay(dayOf(moment)),
  text: dayWords(language, dayOf(moment), withYear ? 'medium' : 'short'),
  status: true,
});
