import { MIST, SAND, SOFT_INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import { packRows } from '../rows/pack';
import type { TimeScale } from '../scales/time';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

export interface ShownPeriod {
  name: string;
  start: number;
  finish: number;
}

/** Names of periods in lines below the plot, as words or as letters that the legend explains. */
export interface PeriodStrip {
  /** Height of the strip. */
  height: number;
  places: { period: ShownPeriod; text: string; x: number; line: number }[];
  letters: { letter: string; name: string }[];
  withoutName: number;
  size: number;
}

const MOST_LINES = 4;
const LINE = 1.35;

/** Finds places for the names of periods: each below its period, in as few lines as keep them apart. */
export function periodStrip(
  periods: readonly ShownPeriod[],
  scale: TimeScale,
  frame: PageFrame,
  measure: Measure,
): PeriodStrip {
  const size = frame.smallSize;
  const shown = periods.filter((p) => p.start < scale.to && p.finish > scale.from && p.name.trim() !== '');
  const names = [...new Set(shown.map((p) => measure.clean(p.name)))];
  const letterOf = (name: string) => lettersFor(names.indexOf(measure.clean(name)));
  const tries: ((p: ShownPeriod) => string)[] = [
    (p) => measure.clean(p.name),
    (p) => measure.shorten('label', size, measure.clean(p.name), size * 14),
    (p) => letterOf(p.name),
  ];
  for (const [k, textOf] of tries.entries()) {
    const byLetter = k === tries.length - 1;
    const texts = shown.map(textOf);
    if (!byLetter && new Set(texts).size < names.length) continue;
    const list = onePerName(shown, texts, byLetter);
    const strip = placeNames(list, scale, size, measure);
    if (!strip) continue;
    const letters = byLetter ? names.map((name, n) => ({ letter: lettersFor(n), name })) : [];
    if (letters.length > 30) break;
    return { ...strip, letters, withoutName: 0, size };
  }
  return { height: 0, places: [], letters: [], withoutName: shown.length, size };
}

/** Periods of one name that touch on the page need it once. */
function onePerName(periods: ShownPeriod[], texts: string[], all: boolean): { period: ShownPeriod; text: string }[] {
  const list = periods.map((period, i) => ({ period, text: texts[i]! }));
  if (all) return list;
  return list.filter(
    (p, i) =>
      !list.some(
        (q, j) => j < i && q.text === p.text && q.period.start <= p.period.finish && p.period.start <= q.period.finish,
      ),
  );
}

function placeNames(
  list: { period: ShownPeriod; text: string }[],
  scale: TimeScale,
  size: number,
  measure: Measure,
): Pick<PeriodStrip, 'height' | 'places'> | null {
  const within = (x: number) => Math.min(Math.max(x, scale.left), scale.right);
  const widths = list.map((p) => measure.width('label', size, p.text));
  const xs = list.map(({ period }, i) => {
    const middle = (within(scale.x(period.start)) + within(scale.x(period.finish))) / 2;
    return Math.min(Math.max(middle - widths[i]! / 2, scale.left), scale.right - widths[i]!);
  });
  if (widths.some((w) => w > scale.right - scale.left)) return null;
  const { row, rows } = packRows(
    Float64Array.from(xs),
    Float64Array.from(xs, (x, i) => x + widths[i]! + size * 0.9),
  );
  if (rows > MOST_LINES) return null;
  return {
    height: rows === 0 ? 0 : rows * size * LINE + size * 0.5,
    places: list.map(({ period, text }, i) => ({ period, text, x: xs[i]!, line: row[i]! })),
  };
}

/** a, b … z, aa, ab … */
const lettersFor = (n: number): string =>
  (n >= 26 ? String.fromCharCode(96 + Math.floor(n / 26)) : '') + String.fromCharCode(97 + (n % 26));

/** Shades over the plot and the strip; periods of one name have one shade. */
export function periodNodes(
  periods: readonly ShownPeriod[],
  strip: PeriodStrip,
  scale: TimeScale,
  top: number,
  plotBottom: number,
): SceneNode[] {
  const names = [...new Set(periods.map((p) => p.name))];
  const nodes: SceneNode[] = [];
  for (const p of periods) {
    const x0 = Math.max(scale.left, scale.x(p.start));
    const x1 = Math.min(scale.right, scale.x(p.finish));
    if (x1 - x0 < 0.3) continue;
    nodes.push({
      type: 'rect',
      x: round(x0),
      y: round(top),
      width: round(x1 - x0),
      height: round(plotBottom + (strip.height > 0 ? size3(strip) : 0) - top),
      fill: names.indexOf(p.name) % 2 === 0 ? SAND : MIST,
      role: 'period',
    });
  }
  for (const { text, x, line } of strip.places)
    nodes.push({
      type: 'text',
      x: round(x),
      y: round(plotBottom + strip.size * (1.15 + line * LINE)),
      size: strip.size,
      runs: [{ text, face: 'label', fill: SOFT_INK }],
      role: 'period',
    });
  return nodes;
}

/** Shades reach a little into the strip, so that a name is seen to hang from its shade. */
const size3 = (strip: PeriodStrip): number => strip.size * 0.3;
