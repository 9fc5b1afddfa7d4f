import { dayOf } from '@clembo/core';
import { INK, KELP, PAPER, SOFT_INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import { chooseTiers, dayNames, nameForm, type Tick, ticks, type TimeScale, type TimeUnit } from '../scales/time';
import { en } from '../text/languages/en';
import { dayWords, type PageLanguage } from '../text/languages/language';
import type { Measure } from '../text/measure';
import { placeOnStems } from '../rows/strand';
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
const TIER = 1.55;

/**
 * The tiers of the time scale and its ground rule, which runs from `ruleLeft` to `ruleRight`. Tiers whose names have no
 * room are left out, and counted.
 */
export function timeAxis(
  scale: TimeScale,
  frame: PageFrame,
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

/** Hangs flags from the ground rule, in as many rows as keep each clear of the lines of the others. */
export function flagStrip(flags: readonly Flag[], scale: TimeScale, frame: PageFrame, measure: Measure): Flags {
  const size = frame.scaleSize;
  const shown = flags
    .filter((f) => f.moment >= scale.from && f.moment <= scale.to)
    .map((f) => ({ ...f, x: scale.x(f.moment) }))
    .sort((a, b) => a.x - b.x);
  const most = (scale.right - scale.left) * 0.5;
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
  moment,
  text: dayWords(language, dayOf(moment), withYear ? 'medium' : 'short'),
  status: true,
});
