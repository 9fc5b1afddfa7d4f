import { TITLE_WORDS, type TitleWords } from '../../text/languages/titles';
import { ConditionRefused, AS_PROMISED, EXPECTED } from '@clembo/core';
import { PAPER } from '../../graph/ink';
import { eachLeaf, type Fit, type Handles, type Scene, type SceneNode } from '../../graph/scene';
import { fitWords, NOTHING_SHOWN, shownWords } from '../../graph/shown';
import { type Foot, footNodes, footOf } from '../../page/foot';
import { pageFrame } from '../../page/frame';
import { laneNodes } from '../../page/lanes';
import { periodNodes } from '../../page/periods';
import { shadeNodes } from '../../page/shades';
import { LANGUAGES } from '../../text/languages/index';
import { MISSING } from '../../text/measure';
import { fitAdvice } from './advice';
import { type Body, bodyNodes, brokenLine, DATE_PAINT, GRID_PAINT, STATUS_PAINT, strandNodes } from './body';
import { blindSpots, blindWords } from './blind';
import { columnNodes } from './columns';
import { contentRows } from './content';
import { fieldTexts } from './fieldTexts';
import { type FittedPage, fitPage, fitsWhole } from './fitPage';
import { blankLabels, isHopeless } from './hopeless';
import { keyNodes } from './key';
import { linkNodes } from './links';
import { type Label, needsYear, writeLabels } from './labels';
import { handlesOf } from './handles';
import { noteNodes } from '../notes';
import { crowdedWords, emptyWords, noticeNodes } from './notices';
import { type Regions, regionsOf, footMore, sourceWords, subtitle, type TimelineInput } from './regions';
import { selectItems, type Selection, type Item } from './select';
import { MOST_SHEETS, onSheet, type Sheet, sheetsOf } from './sheets';
import { titleOf } from './title';

/**
 * Composes a timeline.
 *
 *   brief + plan → selection → labels → regions of the page → rows that fit → marks and labels → lines around them
 *
 * The same input gives the same scene.
 */
export function composeTimeline(input: TimelineInput): Scene {
  const { plan, schedule, brief, measure, promised } = input;
  const language = LANGUAGES[brief.language];
  const { selection: whole, refused } = chosen(input);
  const hopeless = brief.pages === 'one' && isHopeless(whole, brief);
  const all = hopeless ? blankLabels(whole) : writeLabels(whole, input, fieldTexts(input, needsYear(whole)));
  const wanted = brief.title !== null && brief.title.trim() !== '' ? brief.title : titleOf(input, whole);
  const title = measure.clean(wanted).trim() || 'A plan without a name';
  const sheets = brief.pages === 'one' || whole.items.length === 0 ? [] : shared(input, whole, all, title);
  const number = Math.min(Math.max(1, input.sheet ?? 1), Math.max(1, sheets.length));
  const several = sheets.length > 1 && sheets.length <= MOST_SHEETS;
  const { selection, labels } = several ? onSheet(whole, all, sheets[number - 1]!) : { selection: whole, labels: all };
  const sheet = several ? { number, of: sheets.length } : undefined;
  const page = selection.items.length === 0 || hopeless ? null : laidOut(input, selection, labels, title);
  const regions = page ?? regionsOf(input, selection, labels, title, 1);
  const { frame } = regions;
  const body = page ? plotNodes(page) : null;
  const notice = page
    ? []
    : noticeNodes(
        refused ?? (selection.items.length === 0 ? emptyWords(input, selection) : crowdedWords(input, selection)),
        regions,
      );
  const nodes: SceneNode[] = [...regions.head.nodes, ...(body?.nodes ?? notice)];
  const fit = fitOf(input, selection, regions, page, body?.body ?? null, nodes);
  const blind = blindSpots(plan, schedule, selection, promised);
  const hidden = brief.blind ? blindWords(blind, language) : '';
  const about = [
    shownWords(selection.counts, language),
    ...softEnds(selection.items, TITLE_WORDS[brief.language]),
    hidden === '' ? '' : language.notSeen(hidden),
    ...fitWords(fit, language),
  ];
  const foot = footOf(about, sourceWords(input), frame, measure, footMore(input, sheet));
  nodes.push(...footNodes(trimmed(foot, regions.foot), frame, measure));
  return {
    width: frame.width,
    height: frame.height,
    title,
    description: `Timeline of ${plan.name}. ${shownWords(selection.counts, language)}. ${subtitle(input, selection)}`,
    language: brief.language,
    paper: PAPER,
    nodes,
    ...(sheet === undefined ? {} : { sheet }),
    ...(body ? { handles: body.handles } : {}),
    content: contentRows(selection, regions.lanes, language),
    undated: selection.undated.map((i) => ({ ref: plan.activities[i]!.ref, name: plan.activities[i]!.name })),
    fit,
    blind,
  };
}

/** How many ends on the page nobody stated: worked out, or taken from the promise. */
function softEnds(items: readonly Item[], w: TitleWords): string[] {
  const counts = { [EXPECTED]: 0, [AS_PROMISED]: 0 };
  const count = (from: number) => {
    if (from === EXPECTED || from === AS_PROMISED) counts[from]++;
  };
  for (const i of items) {
    if (i.complete || i.gone || i.form === 'group' || i.form === 'summary') continue;
    count(i.from.finish);
    if (i.start !== i.finish) count(i.from.start);
  }
  return [
    counts[EXPECTED] > 0 ? w.workedOut(counts[EXPECTED]) : '',
    counts[AS_PROMISED] > 0 ? w.takenAsPromised(counts[AS_PROMISED]) : '',
  ];
}

/** What the brief asks for, or why it cannot be answered. */
function chosen({ plan, schedule, brief, promised }: TimelineInput): { selection: Selection; refused: string | null } {
  try {
    return { selection: selectItems(plan, schedule, brief, promised), refused: null };
  } catch (error) {
    if (!(error instanceof ConditionRefused)) throw error;
    // Nothing is known of the activities then but that they are left out.
    const none = {
      ...brief,
      where: { match: 'all' as const, tests: [] },
      include: 'both' as const,
      only: 'all' as const,
    };
    const selection = selectItems(plan, schedule, none, promised);
    const { of } = selection.counts;
    const counts = { ...NOTHING_SHOWN, of, leftOut: of };
    return { selection: { ...selection, items: [], undated: [], counts }, refused: error.message };
  }
}

interface LaidPage extends Regions {
  fitted: FittedPage;
}

/** How much larger than usual type may be on a page with little on it. */
const GROWN = [2.5, 2, 1.75, 1.5, 1.25];
const FEW = 70;
/** How small scale and lane titles become before a page is called unreadable: as small as its labels. */
const SMALLEST = 0.7;

/** The page at the largest type that holds all of it; null where nothing that can be read holds it. */
function laidOut(input: TimelineInput, selection: Selection, labels: Label[], title: string): LaidPage | null {
  const { brief } = input;
  const each = brief.rows === 'each' ? selection.items.filter((i) => i.form !== 'milestone').length : 1;
  // Pages of one exhibit are alike.
  for (const grown of selection.items.length <= FEW && selection.continued === undefined ? GROWN : []) {
    // Rows of one each that take more than the page need not be tried.
    const { labelSize, height } = pageFrame(brief.page, grown, brief.size);
    if (each * labelSize * 1.5 > height) continue;
    const regions = regionsOf(input, selection, labels, title, grown);
    const fitted =
      regions.gutter.cut > 0 || regions.columns.cut > 0 || regions.columns.shortened > 0
        ? null
        : fitsWhole(regions.geometry, roomOf(regions));
    if (fitted) return { ...regions, fitted };
  }
  for (const grown of [1, SMALLEST]) {
    const regions = regionsOf(input, selection, labels, title, grown);
    const fitted = fitPage(regions.geometry, roomOf(regions));
    if (fitted) return { ...regions, fitted };
  }
  return null;
}

/** The rows of an exhibit shared out among pages. */
function shared(input: TimelineInput, selection: Selection, labels: Label[], title: string): Sheet[] {
  const regions = regionsOf({ ...input, brief: { ...input.brief, emptyLanes: false } }, selection, labels, title, 1);
  return sheetsOf(regions, regions.bottom - regions.top);
}

const roomOf = (r: Regions) => ({
  lanes: r.lanes,
  gutter: r.gutter,
  frame: r.frame,
  top: r.top,
  height: r.bottom - r.top,
  brief: r.input.brief,
  columns: r.columns,
});

/** The plot: shades, lines, lanes, rows, and around them the scale, the key and the legend. */
function plotNodes(page: LaidPage): { nodes: SceneNode[]; body: Body; handles: Handles } {
  const { input, frame, scale, strip, gutter, geometry: g, fitted, legend } = page;
  const { brief, measure } = input;
  const right = frame.width - frame.margin;
  const { columns, axis, flags } = page;
  const beside = columns.at === 'left' ? frame.margin + gutter.width : right - columns.width + frame.labelSize * 1.4;
  const body = bodyNodes(g, fitted, brief);
  const end = fitted.placed.bottom;
  const keyTop = end + strip.height;
  const lines = axis.grid.flatMap((m) => brokenLine(scale.x(m), page.top, end, body.boxes, GRID_PAINT));
  const flagLines = flags.lines.flatMap(({ x, status }) =>
    brokenLine(x, page.top, end, body.boxes, status ? STATUS_PAINT : DATE_PAINT),
  );
  const nodes = [
    ...shadeNodes(page.elapsed, scale, axis.bottom, end, 'elapsed'),
    ...shadeNodes(page.off, scale, page.top, end, 'dayOff'),
    ...periodNodes(page.periods, strip, scale, axis.bottom, end),
    ...lines,
    ...laneNodes(fitted.placed.lanes, gutter, frame, measure, right),
    ...linkNodes(page.links, g, fitted, body.boxes, frame.height),
    ...strandNodes(g, fitted),
    ...flagLines,
    ...body.nodes,
    ...axis.nodes,
    ...columnNodes(columns, fitted.placed, brief, frame, measure, beside, axis.bottom, fitted.cells.style.size),
    ...flags.nodes(axis.bottom),
    ...(fitted.key ? keyNodes(fitted.key, g, frame, keyTop) : []),
    ...legend.nodes(keyTop + fitted.keyHeight + frame.smallSize * 0.8),
  ];
  const rows = new Map<string, number>();
  g.items.forEach(({ ref }, i) => {
    if (!rows.has(ref)) rows.set(ref, i);
  });
  const notes = noteNodes(brief.marks, {
    size: fitted.cells.style.size,
    measure: g.measure,
    frame,
    place: (ref) => {
      const i = rows.get(ref);
      return i === undefined ? null : { x0: g.x0[i]!, x1: g.x1[i]!, y: fitted.placed.middle[i]! };
    },
    across: (moment) => (moment < scale.from || moment > scale.to ? null : scale.x(moment)),
  });
  return { nodes: [...nodes, ...notes], body, handles: handlesOf(page, fitted, new Set(notes.map((n) => n.note!))) };
}

/** No more lines than there is room for. */
const trimmed = (foot: Foot, room: Foot): Foot => ({ ...foot, lines: foot.lines.slice(0, room.lines.length) });

function fitOf(
  { plan, schedule, brief }: TimelineInput,
  selection: Selection,
  regions: Regions,
  page: LaidPage | null,
  body: Body | null,
  nodes: SceneNode[],
): Fit {
  const { frame } = regions;
  let smallest = frame.smallSize;
  let missing = 0;
  eachLeaf(nodes, (n) => {
    if (n.type !== 'text') return;
    smallest = Math.min(smallest, n.size);
    for (const run of n.runs) for (const c of run.text) if (c === MISSING) missing++;
  });
  const inKey = page?.fitted.key?.items.length ?? 0;
  const readable = page !== null || selection.items.length === 0;
  const crowded =
    !readable ||
    inKey > 0 ||
    regions.columns.cut > 0 ||
    regions.axis.tiersCut > 0 ||
    (body?.shortened ?? 0) > 0 ||
    (body?.datesLost ?? 0) > 0 ||
    smallest < frame.leastType + 0.5;
  return {
    smallestType: smallest,
    leastType: frame.leastType,
    rows: page?.fitted.rows ?? 0,
    counts: selection.counts,
    labelsShortened: (body?.shortened ?? 0) + (page ? regions.columns.shortened : 0),
    labelsInKey: inKey,
    datesWithoutRoom: body?.datesLost ?? 0,
    laneTitlesCut: page ? regions.gutter.cut : 0,
    tiersCut: page ? regions.axis.tiersCut : 0,
    columnsCut: page ? regions.columns.cut : 0,
    periodsWithoutName: page ? regions.strip.withoutName : 0,
    charactersMissing: missing,
    readable,
    advice: crowded && selection.items.length > 0 ? fitAdvice(plan, schedule, brief, selection.items.length) : [],
  };
}
