import { AS_PROMISED, EXPECTED, UNKNOWN } from '@clembo/core';
import { ELAPSED } from '../../page/shades';
import { HAIRLINE, HAREBELL, INK, KELP, MADDER, MIST, NEUTRAL } from '../../graph/ink';
import { polygon, round, type SceneNode } from '../../graph/scene';
import type { TimelineBrief } from '../../brief/timeline';
import { LANGUAGES } from '../../text/languages/index';
import type { PageFrame } from '../../page/frame';
import { type LegendEntry, sampleHeight } from '../../page/legend';
import type { PeriodStrip } from '../../page/periods';
import {
  barMark,
  deadlineMark,
  goneMark,
  type BarPlace,
  type MarkLook,
  milestoneMark,
  promisedMark,
  slipMark,
  stretchedMark,
  summaryMark,
  supportMark,
} from './marks';
import type { Measure } from '../../text/measure';
import type { Geometry } from './cells';
import type { Item } from './select';

/** What is on the page beside its items. */
interface LegendFacts {
  cut: boolean;
  status: boolean;
  elapsed: boolean;
  off: boolean;
  links: boolean;
  criticalLinks: boolean;
  letters: PeriodStrip['letters'];
}

/** What is on the page and needs to be explained, drawn by what draws it on the page. */
export function legendEntries(
  items: readonly Item[],
  g: Geometry,
  { print, language }: TimelineBrief,
  { cut, status, elapsed, off, links, criticalLinks, letters }: LegendFacts,
  frame: PageFrame,
  measure: Measure,
): LegendEntry[] {
  const words = LANGUAGES[language].legend;
  const height = sampleHeight(frame);
  const wide = frame.smallSize * 2.8;
  const entries: LegendEntry[] = [];
  const has = (test: (i: Item) => boolean) => items.some(test);
  const now = items.filter((i) => !i.gone);
  const hasNow = (test: (i: Item) => boolean) => now.some(test);
  const add = (when: boolean, title: string, width: number, draw: LegendEntry['draw']) => {
    if (when) entries.push({ title, width, draw });
  };
  const outlined = (test: (i: Item) => boolean) => items.some((i, k) => !Number.isNaN(g.outline0[k]!) && test(i));
  const slipped = (way: 1 | -1) => items.some((i, k) => !Number.isNaN(g.arrow0[k]!) && Math.sign(i.off ?? 0) === way);
  const arrow = (way: 1 | -1) => (x: number, y: number) =>
    slipMark(
      way > 0 ? x : x + wide,
      way > 0 ? x + wide : x,
      y,
      height * 0.6,
      print === 'grey' ? INK : way > 0 ? MADDER : HAREBELL,
    );
  const isWork = (i: Item) => i.form === 'bar' || i.form === 'group';
  const neutral = neutralLook(now);
  const place = (x: number, y: number, part: Partial<BarPlace> = {}): BarPlace => ({
    x0: x,
    x1: x + wide,
    done: x,
    top: y - height / 2,
    height,
    cutLeft: false,
    cutRight: false,
    group: false,
    ...part,
  });
  const diamond = (look: MarkLook) => (x: number, y: number) => milestoneMark(x + height / 2, y, height * 0.52, look);

  const shapes = shapesOn(items);
  for (const sample of categories(items)) {
    const { colour, shape, pattern } = sample;
    const look: MarkLook = { colour, shape, pattern, critical: false, complete: true };
    const title = sample.category!;
    // Where shapes say something else, the colour of a point is told without one.
    const bare = sample.form === 'milestone' && shapes.length > 0;
    if (isWork(sample) || bare) add(true, title, wide, (x, y) => barMark(place(x, y), look));
    else if (sample.form === 'support') add(true, title, wide, (x, y) => supportMark(place(x, y), look));
    else add(true, title, height, diamond(look));
  }
  const said = new Set(entries.map((e) => e.title));
  for (const { shape, shaped } of shapes) {
    // Two fields may have values of one name.
    const title = said.has(shaped!.title) ? `${shaped!.of}: ${shaped!.title}` : shaped!.title;
    add(true, title, height, diamond({ ...neutral, shape, complete: true }));
  }
  add(
    hasNow((i) => i.form === 'milestone' && !i.complete),
    words.toCome,
    height,
    diamond(neutral),
  );
  add(
    has((i) => i.form === 'milestone' && i.complete),
    words.reached,
    height,
    diamond({ ...neutral, complete: true }),
  );
  add(
    has((i) => isWork(i) && i.progress > 0),
    words.done,
    wide,
    (x, y) => barMark(place(x, y, { done: x + wide * 0.5 }), neutral),
  );
  add(
    has((i) => i.form === 'group'),
    words.group,
    wide,
    (x, y) => barMark(place(x, y, { group: true }), neutral),
  );
  add(
    has((i) => i.form === 'summary'),
    words.summary,
    wide,
    (x, y) => summaryMark(x, x + wide, y, height * 0.18),
  );
  add(
    has((i) => i.form === 'support'),
    words.support,
    wide,
    (x, y) => supportMark(place(x, y), neutral),
  );
  add(
    has((i) => (i.stretches?.length ?? 0) > 1),
    words.interrupted,
    wide,
    (x, y) =>
      stretchedMark(
        [
          [x, x + wide * 0.4],
          [x + wide * 0.65, x + wide],
        ],
        place(x, y),
        neutral,
      ),
  );
  add(
    has((i) => i.critical && isWork(i)),
    words.critical,
    wide,
    (x, y) => barMark(place(x, y), { ...neutral, critical: true }),
  );
  add(
    has((i) => i.critical && i.form === 'milestone') && !has((i) => i.critical && isWork(i)),
    words.critical,
    height,
    diamond({ ...neutral, critical: true }),
  );
  add(slipped(1), words.slippedLater, wide, arrow(1));
  add(slipped(-1), words.slippedEarlier, wide, arrow(-1));
  add(
    outlined((i) => i.form !== 'milestone'),
    words.promised,
    wide,
    (x, y): SceneNode[] => [promisedMark(x, x + wide, y - height * 0.3, height * 0.6, false)],
  );
  add(
    outlined((i) => i.form === 'milestone'),
    words.promisedDate,
    height,
    (x, y): SceneNode[] => [promisedMark(x + height / 2, x + height / 2, y - height * 0.35, height * 0.7, true)],
  );
  add(
    has((i) => i.gone),
    words.gone,
    wide,
    (x, y): SceneNode[] => [goneMark(x, x + wide, y, height, height * 0.5, false)],
  );
  add(
    has((i) => i.said !== null && isWork(i)),
    words.vague,
    wide,
    (x, y) => barMark(place(x, y, { softLeft: true, softRight: true }), neutral),
  );
  const origins = new Set<number>();
  for (const i of items) if (!i.complete && i.said === null && isWork(i)) origins.add(i.from.start).add(i.from.finish);
  const soft = (x: number, y: number) => barMark(place(x, y, { softRight: true }), neutral);
  add(origins.has(EXPECTED) || origins.has(UNKNOWN), words.expected, wide, soft);
  add(origins.has(AS_PROMISED), words.asPromised, wide, soft);
  add(cut, words.runsOn, wide, (x, y) => barMark(place(x, y, { cutRight: true }), neutral));
  add(
    g.deadline.some((x) => !Number.isNaN(x)),
    words.deadline,
    height * 0.6,
    (x, y) => deadlineMark(x + height * 0.3, y, height * 0.55),
  );
  const shade =
    (fill: string) =>
    (x: number, y: number): SceneNode[] => [
      {
        type: 'rect',
        x: round(x),
        y: round(y - height / 2),
        width: round(wide * 0.6),
        height: round(height),
        fill,
        stroke: HAIRLINE,
        strokeWidth: 0.4,
      },
    ];
  const line =
    (stroke: string, strokeWidth: number) =>
    (x: number, y: number): SceneNode[] => [
      { type: 'line', x1: round(x), y1: round(y), x2: round(x + wide * 0.7), y2: round(y), stroke, strokeWidth },
      polygon(
        [
          [round(x + wide * 0.8), round(y)],
          [round(x + wide * 0.7), round(y - 1.6)],
          [round(x + wide * 0.7), round(y + 1.6)],
        ],
        { fill: stroke },
      ),
    ];
  add(links, words.link, wide * 0.8, line(NEUTRAL, 0.6));
  add(criticalLinks, words.criticalLink, wide * 0.8, line(INK, 1.1));
  add(off, words.nonWorking, wide * 0.6, shade(MIST));
  add(elapsed, words.elapsed, wide * 0.6, shade(ELAPSED));
  add(status, words.statusDate, height * 0.6, (x, y) => [
    {
      type: 'line',
      x1: round(x + height * 0.3),
      y1: round(y - height * 0.55),
      x2: round(x + height * 0.3),
      y2: round(y + height * 0.55),
      stroke: KELP,
      strokeWidth: 1.2,
    },
  ]);
  for (const { letter, name } of letters) {
    const width = measure.width('labelStrong', frame.smallSize, letter);
    add(true, name, width, (x, y) => [
      {
        type: 'text',
        x: round(x),
        y: round(y + frame.smallSize * 0.3),
        size: frame.smallSize,
        runs: [{ text: letter, face: 'labelStrong', fill: NEUTRAL }],
      },
    ]);
  }
  return entries;
}

/** Marks that say nothing of a category are shown in the one colour of the page, else in grey. */
function neutralLook(items: readonly Item[]): MarkLook {
  const first = items.find((i) => !i.own?.colour) ?? items[0];
  const one = first !== undefined && items.every((i) => i.category === null);
  return {
    colour: one ? first.colour : NEUTRAL,
    shape: 'diamond',
    pattern: 0,
    critical: false,
    complete: false,
  };
}

/** One item of each value that the shapes of the page tell apart. */
function shapesOn(items: readonly Item[]): Item[] {
  const found = new Map<string, Item>();
  for (const i of items)
    if (i.form === 'milestone' && i.shaped && !found.has(i.shaped.title)) found.set(i.shaped.title, i);
  return [...found.values()].sort((a, b) => a.shaped!.rank - b.shaped!.rank);
}

/** One item of each category that is on the page: work before points in time, in the order in which they first stand there. */
function categories(items: readonly Item[]): Item[] {
  const found = new Map<string, Item>();
  const rank = (i: Item) => (i.form === 'milestone' ? 2 : i.form === 'support' ? 1 : 0);
  for (const item of items) {
    if (item.category === null || item.form === 'summary') continue;
    const known = found.get(item.category);
    if (!known || rank(item) < rank(known)) found.set(item.category, item);
  }
  return [...found.values()].sort((a, b) => a.categoryRank - b.categoryRank);
}
