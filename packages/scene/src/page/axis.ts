import { INK, SOFT_INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import { chooseTiers, dayNames, nameForm, type Tick, ticks, type TimeScale, type TimeUnit } from '../scales/time';
import { en } from '../text/languages/en';
import type { PageLanguage } from '../text/languages/language';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

/** Grid lines that lie closer are more to look at than they help, in points. */
const GRID_STEP = 24;

/** A time scale on the page. */
export interface Axis {
  nodes: SceneNode[];
  /** Moments at which lines run down the plot. */
  grid: number[];
  /** The ground rule. */
  bottom: number;
  /** How many tiers it has. */
  tiers: number;
  /** Tiers that were asked for and have no room. */
  tiersCut: number;
}

/** What a time scale is asked to be. */
export interface AxisStyle {
  language: PageLanguage;
  /** Its tiers from coarse to fine; without any, two that are as fine as fits. */
  tiers: readonly TimeUnit[];
  /** The month in which fiscal years begin. */
  fiscal: number;
}

const PLAIN: AxisStyle = { language: en, tiers: [], fiscal: 1 };

/** From the middle of one tier to that of the next, in type sizes. */
export const TIER = 1.55;

/**
 * The tiers of the time scale and its ground rule, which runs from `ruleLeft` to `ruleRight`. Tiers whose names have no
 * room are left out, and counted.
 */
export function timeAxis(
  scale: TimeScale,
  frame: Pick<PageFrame, 'scaleSize'>,
  measure: Measure,
  top: number,
  ruleLeft: number,
  ruleRight: number,
  style: AxisStyle = PLAIN,
): Axis {
  const size = frame.scaleSize;
  const { language, fiscal } = style;
  const days = (scale.to - scale.from) / 1440;
  const auto = chooseTiers((scale.right - scale.left) / days, size, days);
  const x = (moment: number) => Math.min(scale.right, Math.max(scale.left, scale.x(moment)));
  const ticksOf = (unit: TimeUnit) => ticks(scale.from, scale.to, unit, language, fiscal);
  const strongRoom = (t: Tick, name: string) =>
    measure.width('textStrong', size + 0.5, name) <= x(t.to) - x(t.from) - 5.5;
  const room = (t: Tick, name: string) => measure.width('label', size, name) <= x(t.to) - x(t.from) - 3;
  // A tier is told where the shortest names of most of its whole intervals have room.
  const told = (unit: TimeUnit) => {
    if (((scale.right - scale.left) / days) * ROUGH_DAYS[unit] < ROUGH_DAYS.least) return false;
    const whole = ticksOf(unit).filter((t) => t.whole);
    return whole.length === 0 || whole.filter((t) => room(t, t.names.at(-1)!)).length > whole.length / 2;
  };
  const asked = style.tiers.length === 0 ? [auto.upper, auto.lower] : style.tiers.filter(told);
  const units = asked.length === 0 ? [auto.lower] : asked;
  const lowest = units.at(-1)!;
  const bases = units.map((_, k) => top + size * (1.15 + k * TIER));
  const bottom = bases.at(-1)! + size * 0.55;
  const nodes: SceneNode[] = [];
  const write = (left: number, base: number, text: string, strong: boolean) =>
    nodes.push({
      type: 'text',
      x: round(left),
      y: round(base),
      size: strong ? size + 0.5 : size,
      runs: [{ text, face: strong ? 'textStrong' : 'label', fill: strong ? INK : SOFT_INK }],
      role: 'scale',
    });
  const tick = (at: number, y1: number, y2: number, strokeWidth: number) =>
    nodes.push({
      type: 'line',
      x1: round(at),
      y1: round(y1),
      x2: round(at),
      y2: round(y2),
      stroke: SOFT_INK,
      strokeWidth,
      role: 'scale',
    });

  const tiers = units.map(ticksOf);
  const begun = tiers.map((tier) => new Set(tier.map((t) => t.from)));
  // Weeks run across the ends of months: a line stops above a tier that has none there.
  const endOf = (k: number, at: number): number => {
    const across = begun.findIndex((b, n) => n > k && !b.has(at));
    return across < 0 ? bottom : bases[across - 1]! + size * 0.35;
  };
  for (const [k, unit] of units.slice(0, -1).entries()) {
    const tier = tiers[k]!;
    if (unit === 'day') for (const t of tier) t.names = dayNames(t, language);
    const form = nameForm(tier, strongRoom);
    const above = k === 0 ? top : bases[k - 1]! + size * 0.35;
    for (const t of tier) {
      const begins = t.from > scale.from;
      const text = t.names.slice(form).find((name) => strongRoom(t, name));
      if (text !== undefined) write(x(t.from) + (begins ? 3.5 : 0), bases[k]!, text, true);
      if (begins && !begun.slice(0, k).some((b) => b.has(t.from))) tick(x(t.from), above, endOf(k, t.from), 0.6);
    }
  }

  const lower = tiers.at(-1)!;
  const lowerBase = bases.at(-1)!;
  // The year of a month stands above it.
  const yearAbove = units.some((u) => u.startsWith('year') || u.startsWith('decade') || u === 'fiscalYear');
  const lowerForm = lowest === 'month' && yearAbove ? -1 : nameForm(lower, room);
  for (const t of lower) {
    const text = t.names.at(lowerForm)!;
    const width = measure.width('label', size, text);
    if (room(t, text)) write((x(t.from) + x(t.to) - width) / 2, lowerBase, text, false);
    if (t.from > scale.from) tick(x(t.from), bottom - size * 0.4, bottom, 0.5);
  }
  nodes.push({
    type: 'line',
    x1: round(ruleLeft),
    y1: round(bottom),
    x2: round(ruleRight),
    y2: round(bottom),
    stroke: INK,
    strokeWidth: 0.9,
    role: 'scale',
  });
  const width = (scale.right - scale.left) / Math.max(1, lower.length);
  const upper = tiers.slice(0, -1).reverse();
  const grid =
    width >= GRID_STEP
      ? lower
      : lowest === 'day'
        ? ticksOf('week')
        : (upper.map((t) => coarse(t, scale)).find((t) => t.length > 0) ?? []);
  return {
    nodes,
    grid: grid.map((t) => t.from).filter((m) => m > scale.from),
    bottom,
    tiers: units.length,
    tiersCut: style.tiers.length - (style.tiers.length === 0 ? 0 : asked.length),
  };
}

/** About how many days a unit has; `least` is the points below which none of its names has room. */
const ROUGH_DAYS: Readonly<Record<TimeUnit, number>> & { least: number } = {
  hour: 1 / 24,
  hours3: 1 / 8,
  hours6: 1 / 4,
  day: 1,
  week: 7,
  weekDate: 7,
  month: 30,
  quarter: 91,
  fiscalQuarter: 91,
  year: 365,
  fiscalYear: 365,
  years2: 730,
  years5: 1826,
  decade: 3652,
  least: 4,
};

/** An upper tier whose lines would stand too close has none. */
const coarse = (upper: Tick[], scale: TimeScale): Tick[] =>
  (scale.right - scale.left) / Math.max(1, upper.length) >= GRID_STEP ? upper : [];
