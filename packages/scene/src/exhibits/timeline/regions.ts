import { byText, dayOf, statusEnd } from '@clembo/core';
import type { NamedDate } from '../../brief/parts';
import type { TimelineBrief } from '../../brief/timeline';
import type { SceneNode } from '../../graph/scene';
import { longestBlindWords, longestFitWords, shownWords } from '../../graph/shown';
import { type Axis, timeAxis } from '../../page/axis';
import { type Flag, type Flags, flagOf, flagStrip } from '../../page/flags';
import { type Foot, footOf } from '../../page/foot';
import { type PageFrame, pageFrame } from '../../page/frame';
import { headNodes } from '../../page/head';
import { eachLeafLane, type Gutter, type Lane, laneGutter, laneTree } from '../../page/lanes';
import { type Legend, legendOf } from '../../page/legend';
import { type PeriodStrip, periodStrip, type ShownPeriod } from '../../page/periods';
import { daysOff } from '../../page/shades';
import { niceRange, timeScale, type TimeScale } from '../../scales/time';
import { LANGUAGES } from '../../text/languages/index';
import { dayWords, type PageLanguage } from '../../text/languages/language';
import { laneKey } from './laneKey';
import type { ComposeInput } from '../composed';
import { type Geometry, LINE, measureItems } from './cells';
import { bookOf, codeTitles } from './codes';
import { type Columns, layColumns, NO_COLUMNS } from './columns';
import { fieldTexts } from './fieldTexts';
import { type DrawnLink, linksOf } from './links';
import { type Label, needsYear } from './labels';
import { legendEntries } from './legend';
import { isFolded, type Item, type Selection } from './item';

export type TimelineInput = ComposeInput<TimelineBrief>;

/** Everything of a page but its rows: what stands above, beside and below them. */
export interface Regions {
  input: TimelineInput;
  selection: Selection;
  frame: PageFrame;
  head: { nodes: SceneNode[]; bottom: number };
  lanes: Lane[];
  gutter: Gutter;
  columns: Columns;
  scale: TimeScale;
  statusX: number | null;
  axis: Axis;
  flags: Flags;
  links: DrawnLink[];
  /** Days off that are wide enough to be seen. */
  off: { start: number; finish: number }[];
  /** The time before the status date, where that is shaded. */
  elapsed: { start: number; finish: number }[];
  /** Periods of the plan, and those of the page itself. */
  periods: ShownPeriod[];
  geometry: Geometry;
  legend: Legend;
  strip: PeriodStrip;
  foot: Foot;
  /** Where the rows begin and end at the most. */
  top: number;
  bottom: number;
}

function columnsOf(input: TimelineInput, selection: Selection, lanes: Lane[], frame: PageFrame): Columns {
  const { brief, measure } = input;
  if (brief.columns.length === 0) return NO_COLUMNS;
  const texts = fieldTexts(input, needsYear(selection));
  const fields = brief.columns.map(texts).filter((f) => f !== null);
  return layColumns(fields, selection.items, lanes, brief, frame, measure);
}

/** Lays out the regions of a page, from the top down and from the outside in. */
export function regionsOf(
  input: TimelineInput,
  selection: Selection,
  labels: Label[],
  title: string,
  grown: number,
): Regions {
  const { plan, schedule, brief, measure } = input;
  const language = LANGUAGES[brief.language];
  const frame = pageFrame(brief.page, grown, brief.size);
  const head = headNodes(title, subtitle(input, selection), frame, measure, brief.logo);
  const levels = brief.lanes.map((field) => ({
    ...codeTitles(plan, field, schedule.outline.roots, language),
    // Colours of lanes would be taken for those of another field.
    ...(brief.colour === null || brief.colour === field ? {} : { colour: () => null }),
    ...(brief.emptyLanes && selection.continued === undefined ? { always: bookOf(plan, field) } : {}),
  }));
  const lanes = laneTree(
    selection.items.map((i) => i.lane),
    levels,
  );
  sortLanes(lanes, selection.items, brief);
  orderLanes(lanes, selection.items, brief);
  putFirst(lanes, brief);
  foldLanes(lanes, [], brief);
  if (selection.continued) sayContinued(lanes, [], selection.continued, language);
  const gutter = laneGutter(lanes, frame, measure, grown < 1, brief.laneTitles === 'turned');
  const columns = columnsOf(input, selection, lanes, frame);
  const range = withNiceEnds(selection, brief);
  // Marks reach beyond their moment: the scale keeps them within the plot.
  const inset = selection.items.some((i) => i.form === 'milestone' || i.promised) ? frame.labelSize * 0.75 : 1;
  const scale = timeScale(
    range.from,
    range.to,
    frame.margin + gutter.width + (columns.at === 'left' ? columns.width : 0) + inset,
    frame.width - frame.margin - (columns.at === 'right' ? columns.width : 0) - inset,
  );
  // What happened on the status date has happened: its line stands at the end of its day.
  const status = statusEnd(plan);
  const statusX = status !== null && status >= range.from && status <= range.to ? scale.x(status) : null;
  const geometry = measureItems(selection.items, labels, scale, statusX, measure, brief);
  const periods = [...(brief.periods ? plan.periods : []), ...brief.dates.filter(isPeriod)];
  const links = linksOf(plan, schedule, geometry, brief);
  const strip = periodStrip(periods, scale, frame, measure);
  const elapsed =
    brief.elapsed && status !== null && scale.x(status) - scale.left > 0.3
      ? [{ start: scale.from, finish: status }]
      : [];
  const off = brief.daysOff ? daysOff(schedule, plan.calendar, scale) : [];
  const cut = geometry.cutLeft.includes(1) || geometry.cutRight.includes(1);
  const legend = legendOf(
    legendEntries(
      selection.items,
      geometry,
      brief,
      {
        cut,
        status: statusX !== null,
        elapsed: elapsed.length > 0,
        off: off.length > 0,
        links: links.some((l) => !l.critical),
        criticalLinks: links.some((l) => l.critical),
        letters: strip.letters,
      },
      frame,
      measure,
    ),
    frame,
    measure,
  );
  const foot = footOf(
    [shownWords(selection.counts, language), brief.blind ? longestBlindWords(language) : '', longestFitWords(language)],
    sourceWords(input),
    frame,
    measure,
    // As long as the number of a page can be.
    footMore(input, brief.pages === 'several' ? { number: 88, of: 88 } : undefined),
  );
  const inner = frame.margin + gutter.width + (columns.at === 'left' ? columns.width : 0);
  const outer = frame.width - frame.margin - (columns.at === 'right' ? columns.width : 0);
  const tiers = { language, tiers: brief.scale, fiscal: brief.fiscal };
  const axisAt = (top: number) => timeAxis(scale, frame, measure, top, inner, outer, tiers);
  let axis = axisAt(head.bottom);
  // Headings of columns stand on the rule, and may be taller than the scale.
  const taller = (columns.headLines - axis.tiers) * frame.labelSize * LINE;
  if (taller > 0) axis = axisAt(head.bottom + taller);
  const flags = flagStrip(flagsOf(input, scale), scale, frame, measure);
  const footTop = frame.height - frame.margin - foot.height - frame.smallSize * 0.6;
  return {
    input,
    selection,
    frame,
    head,
    lanes,
    gutter,
    columns,
    scale,
    statusX,
    axis,
    flags,
    links,
    off,
    elapsed,
    periods,
    geometry,
    legend,
    strip,
    foot,
    top: axis.bottom + flags.height,
    bottom: footTop - legend.height - frame.smallSize * 0.8 - strip.height,
  };
}

const isPeriod = (d: NamedDate): d is NamedDate & { finish: number } => d.finish !== null;

/** The status date, and the days that the page marks by name. */
function flagsOf({ plan, brief }: TimelineInput, scale: TimeScale): Flag[] {
  const language = LANGUAGES[brief.language];
  const withYear = needsYear(scale);
  const days = brief.dates.filter((d) => d.finish === null);
  const named = days
    .map((d) => ({ ...flagOf(d.start, withYear, language), moment: d.start, status: false }))
    .map((flag, k) => ({ ...flag, text: `${days[k]!.name} ${flag.text}` }));
  return [...(plan.statusDate === null ? [] : [flagOf(plan.statusDate, withYear, language)]), ...named];
}

/** Rows are read by time, then by outline; rows of one each without other lanes keep the order of the outline. */
function sortLanes(lanes: Lane[], items: readonly Item[], brief: TimelineBrief): void {
  if (brief.rows === 'each' && brief.lanes.every((l) => l === 'outline')) return;
  for (const lane of lanes) {
    sortLanes(lane.lanes, items, brief);
    lane.items.sort((i, j) => items[i]!.start - items[j]!.start || i - j);
  }
}

/** The first start of what a lane holds. */
const firstOf = (lane: Lane, items: readonly Item[]): number =>
  Math.min(...lane.items.map((i) => items[i]!.start), ...lane.lanes.map((l) => firstOf(l, items)));

/** Lanes in the order that the brief asks for; that of the book they have already. */
function orderLanes(lanes: Lane[], items: readonly Item[], brief: TimelineBrief): void {
  for (const lane of lanes) orderLanes(lane.lanes, items, brief);
  if (brief.laneOrder === 'time') lanes.sort((a, b) => firstOf(a, items) - firstOf(b, items));
  if (brief.laneOrder === 'name') lanes.sort((a, b) => byText(a.title, b.title));
}

/** Lanes that the brief names come first, in its order. */
function putFirst(lanes: Lane[], { laneFirst }: TimelineBrief): void {
  if (laneFirst.length === 0) return;
  const rank = (lane: Lane) => {
    const k = laneFirst.indexOf(lane.code);
    return k < 0 ? laneFirst.length : k;
  };
  lanes.sort((a, b) => rank(a) - rank(b));
}

/** A folded lane holds what the lanes within it held, and says how much that is. */
function foldLanes(lanes: Lane[], above: string[], brief: TimelineBrief): void {
  for (const lane of lanes) {
    const path = [...above, lane.code];
    if (isFolded(brief.folded, path)) {
      eachLeafLane(lane.lanes, ({ items }) => lane.items.push(...items));
      lane.lanes = [];
      lane.title = `${lane.title} (${lane.items.length})`;
    } else foldLanes(lane.lanes, path, brief);
  }
}

/** A lane that begins on an earlier page says so. */
function sayContinued(lanes: Lane[], above: string[], continued: ReadonlySet<string>, l: PageLanguage): void {
  for (const lane of lanes) {
    const path = [...above, lane.code];
    if (lane.title !== '' && continued.has(laneKey(path))) lane.title = l.continued(lane.title);
    sayContinued(lane.lanes, path, continued, l);
  }
}

/** A range that the brief leaves open is widened to whole units. */
function withNiceEnds(selection: Selection, brief: TimelineBrief): { from: number; to: number } {
  const nice = niceRange(selection.from, selection.to);
  return { from: brief.from ?? nice.from, to: brief.to ?? nice.to };
}

export function subtitle({ plan, promised, measure, brief }: TimelineInput, { firstDay, lastDay }: Selection): string {
  const l = LANGUAGES[brief.language];
  const parts = [plan.name];
  if (firstDay !== null && lastDay !== null)
    parts.push(l.span(dayWords(l, firstDay, 'long'), dayWords(l, lastDay, 'long')));
  if (plan.statusDate !== null) parts.push(l.status(dayWords(l, dayOf(plan.statusDate), 'long')));
  if (promised) parts.push(l.promised(promised.name));
  return measure.clean(parts.join(' · '));
}

/** Notes, and the number of the page. */
export const footMore = ({ brief }: TimelineInput, sheet?: { number: number; of: number }) => ({
  notes: brief.notes,
  number: sheet || brief.numbered ? LANGUAGES[brief.language].page(sheet?.number ?? 1, sheet?.of ?? 1) : '',
});

export const sourceWords = ({ plan, edition, measure, brief }: TimelineInput): string[] => [
  measure.clean(edition),
  plan.source === 'given' ? LANGUAGES[brief.language].given : LANGUAGES[brief.language].computed,
];
