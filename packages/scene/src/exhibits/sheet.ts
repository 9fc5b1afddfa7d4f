import { ConditionRefused } from '@clembo/core';
import { LARGER, type PageName } from '../brief/pages';
import { PAPER } from '../graph/ink';
import {
  type BlindSpots,
  type CardHandles,
  type Handles,
  type ContentTable,
  eachLeaf,
  type FitAdvice,
  type PlaneShape,
  type PlayFrame,
  type Scene,
  type SceneNode,
  type Shown,
} from '../graph/scene';
import type { ProcessShapes } from '../graph/process';
import { en } from '../text/languages/en';
import { fitWords, longestFitWords, NOTHING_SHOWN, shownWords } from '../graph/shown';
import { footNodes, footOf } from '../page/foot';
import { type PageFrame, pageFrame } from '../page/frame';
import { headNodes } from '../page/head';
import { type LegendEntry, legendOf } from '../page/legend';
import { formatDay } from '../text/dates';
import { noticeLines } from '../page/notice';
import { MISSING, type Measure } from '../text/measure';
import type { ComposeInput } from './composed';
import { dayOf } from '@clembo/core';

/** Where the body of a page may stand. */
export interface Room {
  frame: PageFrame;
  measure: Measure;
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Nothing smaller is tried: what does not fit is left out and said. */
  last: boolean;
}

/** What stands in the body of a page. */
export interface Drawn {
  nodes: SceneNode[];
  rows: number;
  /** Activities that have no room, and in how many rows. */
  noRoom?: { activities: number; grouped: number };
  /** Names that are cut with a sign. */
  shortened: number;
  /** What had no room, in words; an empty text where all has. */
  without: string;
  /** What can be taken hold of. */
  cards?: CardHandles;
  process?: ProcessShapes;
  handles?: Handles;
  plane?: PlaneShape;
}

/** All of a page but its place on the paper. */
export interface Sheet {
  /** What is shown, for those who do not see it: `Slips`. */
  kind: string;
  /** What the data says, where the person has not said it. */
  statement: string;
  counts: Shown;
  /** What is shown, in words, where that is not activities of the plan. */
  shown?: string;
  content: ContentTable;
  undated: { ref: string; name: string }[];
  legend(frame: PageFrame): LegendEntry[];
  /** A sentence in place of the body, where there is nothing to show. */
  notice: string | null;
  /** The largest type that suits it, in shares of the usual one; a page with little on it grows to it. */
  largest?: number;
  /** The smallest type that is tried, in shares of the usual one; never below what the page can bear. */
  smallest?: number;
  /** What it hides that its reader would want to know of; null for kinds that hide nothing. */
  blind?: BlindSpots | null;
  /** Pictures that play, where they were asked for. */
  play?: PlayFrame[];
  /** What would help where not all fits. */
  advice: FitAdvice[];
  /** Draws the body at one size; null where it does not fit. */
  draw(room: Room): Drawn | null;
}

interface Paged {
  title: string | null;
  page: PageName;
}

/** Sizes of type that are tried, the largest first, in shares of the usual one. */
const SIZES = [2.6, 2.2, 1.9, 1.6, 1.35, 1.2, 1.1, 1, 0.85, 0.7, 0.55, 0.45];
/** The largest that is tried where a page does not say that more suits it. */
const LARGEST = 1.6;
/** Of pages that are a list of rows, which grow with few of them. */
export const LARGEST_OF_ROWS = 2.2;
/** On large paper the usual type is large: smaller than this only what would not be seen at all otherwise. */
const SMALLEST = 0.7;
/** The smallest share that is tried at all. */
export const TINY = SIZES.at(-1)!;

/** How high rows of a list may be, in sizes of the type: higher where there are few of them. */
export const rowReach = (rows: number): number => Math.min(4.2, Math.max(2.6, 26 / Math.max(1, rows)));

/**
 * Sets a page: head, body at the largest type that holds all of it, legend and foot.
 *
 * @param alone says something without an edition to compare with
 */
export function composeSheet<Brief extends Paged>(
  input: ComposeInput<Brief>,
  make: () => Sheet,
  { alone = false }: { alone?: boolean } = {},
): Scene {
  const sheet = asked(input, make, alone);
  const { plan, brief, measure, promised, edition } = input;
  const wanted = brief.title !== null && brief.title.trim() !== '' ? brief.title : sheet.statement;
  const title = measure.clean(wanted).trim() || 'A plan without a name';
  const under = measure.clean(
    [
      plan.name,
      plan.statusDate === null ? '' : `status ${formatDay(dayOf(plan.statusDate), 'long')}`,
      promised ? `measured against ${promised.name}` : '',
    ]
      .filter(Boolean)
      .join(' · '),
  );
  const source = [measure.clean(edition), plan.source === 'given' ? en.given : en.computed];
  const laid = (grown: number, last: boolean) => {
    const frame = pageFrame(brief.page, grown);
    const head = headNodes(title, under, frame, measure);
    const legend = legendOf(sheet.notice === null ? sheet.legend(frame) : [], frame, measure);
    const longest = footOf([sheet.shown ?? shownWords(sheet.counts), longestFitWords(en)], source, frame, measure);
    const bottom = frame.height - frame.margin - longest.height - frame.smallSize * 1.4 - legend.height;
    const room: Room = {
      frame,
      measure,
      left: frame.margin,
      right: frame.width - frame.margin,
      top: head.bottom,
      bottom,
      last,
    };
    return { frame, head, legend, room, drawn: sheet.notice === null ? sheet.draw(room) : null };
  };
  const sizes = SIZES.filter((x) => x <= (sheet.largest ?? LARGEST) && x >= (sheet.smallest ?? SMALLEST));
  let page = laid(sizes[0]!, false);
  if (sheet.notice === null) {
    for (const grown of sizes.slice(1)) if (page.drawn === null) page = laid(grown, false);
    if (page.drawn === null) page = laid(sizes.at(-1)!, true);
  } else page = laid(1, true);
  const { frame, head, legend, room, drawn } = page;
  const words =
    sheet.notice ??
    (drawn === null ? 'This cannot be read on one page. Leave out some of it, or use a larger page.' : null);
  const nodes: SceneNode[] = [
    ...head.nodes,
    ...(drawn ? drawn.nodes : noticeLines(measure.clean(words!), frame, measure, room.top, room.bottom)),
    ...(drawn ? legend.nodes(room.bottom + frame.smallSize * 0.8) : []),
  ];
  let [smallest, missing] = [frame.smallSize, 0];
  eachLeaf(nodes, (n) => {
    if (n.type !== 'text') return;
    smallest = Math.min(smallest, n.size);
    for (const run of n.runs) for (const c of run.text) if (c === MISSING) missing++;
  });
  const { counts: all } = sheet;
  const { activities = 0, grouped = 0 } = drawn?.noRoom ?? {};
  const counts: Shown = {
    ...all,
    shown: all.shown - activities,
    inGroups: all.inGroups - grouped,
    noRoom: activities + grouped,
  };
  const larger = LARGER[brief.page];
  const crowded = drawn === null ? sheet.notice === null : drawn.without !== '' || smallest < frame.leastType + 0.5;
  const fit = {
    smallestType: smallest,
    leastType: frame.leastType,
    rows: drawn?.rows ?? 0,
    counts,
    ...(sheet.shown === undefined ? {} : { shown: sheet.shown }),
    labelsShortened: drawn?.shortened ?? 0,
    labelsInKey: 0,
    datesWithoutRoom: 0,
    laneTitlesCut: 0,
    periodsWithoutName: 0,
    charactersMissing: missing,
    readable: drawn !== null || sheet.notice !== null,
    advice: crowded ? [...sheet.advice, ...(larger ? [{ words: `use ${larger}`, change: { page: larger } }] : [])] : [],
  };
  const foot = footOf(
    [sheet.shown ?? shownWords(counts), drawn?.without ?? '', ...fitWords(fit)],
    source,
    frame,
    measure,
  );
  nodes.push(...footNodes(foot, frame, measure));
  return {
    width: frame.width,
    height: frame.height,
    title,
    description: `${sheet.kind} of ${plan.name}. ${sheet.shown ?? shownWords(sheet.counts)}. ${under}`,
    language: 'en',
    paper: PAPER,
    nodes,
    content: sheet.content,
    undated: sheet.undated,
    fit,
    ...(drawn?.cards ? { cards: drawn.cards } : {}),
    ...(drawn?.handles ? { handles: drawn.handles } : {}),
    ...(drawn?.plane ? { plane: drawn.plane } : {}),
    ...(sheet.play ? { play: sheet.play } : {}),
    ...(drawn?.process ? { process: drawn.process } : {}),
    blind: sheet.blind ?? null,
  };
}

/** What is asked may not be answerable: then the page says why. */
function asked<Brief extends Paged>(input: ComposeInput<Brief>, make: () => Sheet, alone: boolean): Sheet {
  const without = (notice: string): Sheet => ({
    kind: 'Page',
    statement: input.plan.name,
    counts: { ...NOTHING_SHOWN, of: input.schedule.outline.isSummary.filter((x) => !x).length },
    content: { heads: [], named: 0, rows: [] },
    undated: [],
    legend: () => [],
    notice,
    advice: [],
    draw: () => null,
  });
  if (input.promised === null && !alone)
    return without(
      'There is no edition to measure against. Keep one as what was promised, and this page will compare with it.',
    );
  try {
    return make();
  } catch (error) {
    if (error instanceof ConditionRefused) return without(error.message);
    throw error;
  }
}
