import { dayOf, type Plan, type Schedule } from '@clembo/core';
import type { TimelineBrief } from '../../brief/brief';
import { HAIRLINE, INK, KELP, PAPER, SOFT_INK } from '../../graph/ink';
import { type ContentRow, round, type Scene, type SceneNode } from '../../graph/scene';
import { niceRange, timeScale } from '../../scales/time';
import { formatDay } from '../../text/dates';
import type { Measure } from '../../text/measure';
import { flagPlace, scaleNodes, statusFlag } from './axis';
import { brokenLine, itemNodes, labelNodes, type Plot, periodNodes, type TextBox } from './draw';
import { type FittedRows, fitRows } from './fitPage';
import { labelWidth, measureItems } from './geometry';
import { type PageFrame, pageFrame } from './frame';
import { type FreeLabels, placeFreeLabels } from './freeLabels';
import { type Selection, selectItems } from './items';
import { legendNodes } from './legend';
import { halfMarker, type Placed, placeItems } from './rows';

export interface TimelineInput {
  plan: Plan;
  schedule: Schedule;
  brief: TimelineBrief;
  measure: Measure;
  /** Name of the edition, for the source line. */
  edition: string;
}

/**
 * Composes a timeline.
 *
 *   brief + plan → selection → frame → time scale → rows that fit → items → labels → lines around the labels
 *
 * The same input gives the same scene.
 */
export function composeTimeline(input: TimelineInput): Scene {
  const { plan, schedule, brief, measure } = input;
  const selection = selectItems(plan, schedule, brief);
  const frame = pageFrame(brief);
  const title = brief.title ?? statement(plan, selection);
  const head = headNodes(title, subtitle(plan, selection), frame, measure);
  const legend = legendNodes(selection, frame, measure, statusInRange(plan, selection));

  const gutter = laneGutter(selection, frame, measure);
  const range = brief.from !== null && brief.to !== null ? selection : withNiceEnds(selection, brief);
  const scale = timeScale(range.from, range.to, frame.margin + gutter, frame.width - frame.margin);
  const statusX = statusInRange(plan, selection) ? scale.x(plan.statusDate!) : null;
  const flag = statusX === null ? null : flagPlace(statusX, dayOf(plan.statusDate!), frame, measure, scale);
  const axis = scaleNodes(scale, frame, measure, head.bottom, flag);
  const footTop = frame.height - frame.margin - frame.smallSize * 1.6 - legend.height;
  const periods = brief.periods ? plan.periods.filter((p) => p.start < range.to && p.finish > range.from) : [];
  const periodLine = periods.length > 0 ? frame.smallSize * 1.7 : 0;
  const most: Plot = {
    left: scale.left,
    right: scale.right,
    top: axis.bottom,
    bottom: footTop - frame.smallSize * 0.8,
  };
  const bodyBottom = most.bottom - periodLine;

  const titles = laneTitles(selection, frame, measure, gutter);
  const titleHeights = titles.map((lines) => lines.length * frame.laneSize * 1.2);
  const each = brief.rows === 'each';
  const byTime = each && brief.lanes !== null && brief.lanes !== 'outline';
  const geometry = measureItems(selection, scale, measure, byTime ? 'time' : 'given');
  const bodyHeight = bodyBottom - most.top;
  let rows = fitRows(geometry, frame, bodyHeight, titleHeights, each);
  let placed = placeItems(geometry, rows, measure);
  let free: FreeLabels | null = null;
  let keyHeight = 0;
  if (rows.style === 'free') {
    const key = keyShape(frame, bodyHeight);
    const place = (capacity: number) =>
      placeFreeLabels(
        barBoxes(placed, rows, most),
        { ...most, bottom: bodyBottom - keyHeight },
        frame.leastType,
        measure,
        capacity,
      );
    free = place(key.most);
    if (free.keyed.length > 0) {
      keyHeight = (Math.ceil(Math.min(key.most, free.keyed.length * 1.3) / key.columns) + 1) * key.line;
      rows = fitRows(geometry, frame, bodyHeight - keyHeight, titleHeights, each);
      placed = placeItems(geometry, rows, measure);
      free = rows.style === 'free' ? place((Math.round(keyHeight / key.line) - 1) * key.columns) : null;
    }
  }

  // A page with little on it ends where its rows end; the legend follows them.
  const end = most.top + rows.laneTops[rows.laneTops.length - 1]!;
  const plot: Plot = {
    ...most,
    bottom: free ? most.bottom : Math.min(most.bottom, Math.max(end, most.top + 40) + periodLine),
  };
  const shades = periodNodes(periods, scale, plot, frame, measure);
  const body = bodyNodes(placed, rows, free, plot, measure);
  const lanes = laneNodes(titles, rows, frame, plot, selection);
  const boxes = [...body.boxes, ...shades.boxes];
  const lines = axis.gridDays.flatMap((d) =>
    brokenLine(scale.x(d * 1440), plot.top, plot.bottom - keyHeight, boxes, HAIRLINE, 0.5, 'grid'),
  );
  const key = free ? keyNodes(free, frame, measure, bodyBottom - keyHeight) : [];
  const without = free?.without.length ?? 0;
  const foot = footNodes(input, selection, without, frame, measure, legend.nodes, plot.bottom + frame.smallSize * 0.8);

  const nodes: SceneNode[] = [
    ...shades.nodes,
    ...lines,
    ...lanes,
    ...(statusX === null ? [] : brokenLine(statusX, plot.top, plot.bottom - keyHeight, boxes, KELP, 1.2, 'status')),
    ...body.nodes,
    ...axis.nodes,
    ...(flag === null ? [] : statusFlag(flag, frame, plot.top)),
    ...key,
    ...head.nodes,
    ...foot,
  ];
  const shortened = placed.filter((p) => p.label !== '' && p.label.endsWith('…') && !p.item.label.endsWith('…')).length;
  return {
    width: frame.width,
    height: frame.height,
    title,
    description: `Timeline of ${plan.name}: ${selection.items.length} of ${selection.of} activities and milestones from ${formatDay(dayOf(selection.from), 'long')} to ${formatDay(selection.lastDay, 'long')}.`,
    language: 'en',
    paper: PAPER,
    nodes,
    content: contentRows(selection),
    fit: {
      smallestType: nodes.reduce((least, n) => (n.type === 'text' && n.size < least ? n.size : least), frame.titleSize),
      leastType: frame.leastType,
      rows: rows.rows,
      shown: selection.items.length,
      of: selection.of,
      labelsShortened: free ? free.shortened : shortened,
      labelsInKey: free?.keyed.length ?? 0,
      labelsWithoutPlace: without,
      textsBeyondFonts: nodes.filter((n) => n.type === 'text' && !measure.has(n.face, n.text)).length,
    },
  };
}

/** A range that the brief leaves open is widened to whole weeks or months. */
function withNiceEnds(selection: Selection, brief: TimelineBrief): { from: number; to: number } {
  const nice = niceRange(selection.from, selection.to);
  return { from: brief.from ?? nice.from, to: brief.to ?? nice.to };
}

const statusInRange = (plan: Plan, { from, to }: Selection): boolean =>
  plan.statusDate !== null && plan.statusDate >= from && plan.statusDate <= to;

/**
 * What the dates say, when the person has not said it: when the plan finishes, and how much of it is done. It is
 * said of the whole plan, also where the page shows a part.
 */
function statement(plan: Plan, { planFinish, percentDone }: Selection): string {
  if (planFinish === null) return plan.name;
  const progress = plan.statusDate !== null && percentDone >= 0.5 ? `; ${Math.round(percentDone)} % complete` : '';
  return `${plan.name} runs to ${formatDay(planFinish, 'long')}${progress}`;
}

function subtitle(plan: Plan, selection: Selection): string {
  const parts = [`${formatDay(dayOf(selection.from), 'long')} to ${formatDay(selection.lastDay, 'long')}`];
  if (plan.statusDate !== null) parts.push(`status ${formatDay(dayOf(plan.statusDate), 'long')}`);
  return [plan.name, ...parts].join(' · ');
}

function headNodes(
  title: string,
  under: string,
  frame: PageFrame,
  measure: Measure,
): { nodes: SceneNode[]; bottom: number } {
  const width = frame.width - 2 * frame.margin;
  const lines = measure.wrap('title', frame.titleSize, title, width, 2);
  const nodes: SceneNode[] = lines.map((text, k) => ({
    type: 'text',
    x: frame.margin,
    y: round(frame.margin + frame.titleSize * (0.82 + 1.18 * k)),
    text,
    face: 'title',
    size: frame.titleSize,
    fill: INK,
    role: 'title',
  }));
  const y = frame.margin + frame.titleSize * (0.82 + 1.18 * (lines.length - 1)) + frame.subtitleSize * 1.75;
  nodes.push({
    type: 'text',
    x: frame.margin,
    y: round(y),
    text: measure.shorten('text', frame.subtitleSize, under, width),
    face: 'text',
    size: frame.subtitleSize,
    fill: SOFT_INK,
    role: 'subtitle',
  });
  return { nodes, bottom: round(y + frame.subtitleSize * 1.1) };
}

/** Room for the titles of lanes at the left. */
function laneGutter(selection: Selection, frame: PageFrame, measure: Measure): number {
  const widest = Math.max(0, ...selection.lanes.map((l) => measure.width('textStrong', frame.laneSize, l.title)));
  return widest === 0 ? 0 : Math.min(widest, frame.width * 0.15) + frame.laneSize * 1.6;
}

const laneTitles = (selection: Selection, frame: PageFrame, measure: Measure, gutter: number): string[][] =>
  selection.lanes.map((l) =>
    l.title === '' ? [] : measure.wrap('textStrong', frame.laneSize, l.title, gutter - frame.laneSize, 3),
  );

function laneNodes(
  titles: string[][],
  rows: FittedRows,
  frame: PageFrame,
  plot: Plot,
  selection: Selection,
): SceneNode[] {
  return titles.flatMap((lines, k): SceneNode[] => {
    const top = plot.top + rows.laneTops[k]!;
    const y = round(plot.top + rows.laneTops[k + 1]!);
    // The title stands level with the first row, where there is a row to stand level with.
    const level = rows.style === 'free' ? 0 : rowCentre(rows, plot, k, 0) + frame.laneSize * 0.34;
    const first = Math.max(level, top + Math.min(rows.lanePadding, frame.laneSize * 0.4) + frame.laneSize * 0.86);
    return [
      ...lines.map(
        (text, i): SceneNode => ({
          type: 'text',
          x: frame.margin,
          y: round(first + i * frame.laneSize * 1.2),
          text,
          face: 'textStrong',
          size: frame.laneSize,
          fill: INK,
          role: 'lane',
        }),
      ),
      ...(selection.lanes.length > 1
        ? [
            {
              type: 'line',
              x1: frame.margin,
              y1: y,
              x2: round(plot.right),
              y2: y,
              stroke: HAIRLINE,
              strokeWidth: 0.7,
              role: 'laneRule',
            } as SceneNode,
          ]
        : []),
    ];
  });
}

/** The vertical centre of a row's bars. */
function rowCentre(rows: FittedRows, plot: Plot, lane: number, row: number): number {
  const top = plot.top + rows.laneTops[lane]! + rows.lanePadding + row * rows.pitch;
  return rows.style === 'above'
    ? top + rows.pitch - rows.barHeight * 0.9 - (rows.pitch - rows.barHeight - rows.size * 1.2) / 2
    : top + rows.pitch / 2;
}

const barBoxes = (placed: Placed[], rows: FittedRows, plot: Plot) =>
  placed.map((p) => {
    const y = rowCentre(rows, plot, p.lane, p.row);
    const half = p.item.form === 'milestone' ? halfMarker(rows.barHeight) : rows.barHeight / 2;
    return { placed: p, top: y - half, bottom: y + half };
  });

function bodyNodes(
  placed: Placed[],
  rows: FittedRows,
  free: FreeLabels | null,
  plot: Plot,
  measure: Measure,
): { nodes: SceneNode[]; boxes: TextBox[] } {
  const nodes: SceneNode[] = [];
  const boxes: TextBox[] = [];
  const { size } = rows;
  for (const p of placed) nodes.push(...itemNodes(p, rowCentre(rows, plot, p.lane, p.row), rows.barHeight));
  const write = (p: Placed, label: string, detail: string, x: number, y: number) => {
    nodes.push(...labelNodes(p.item, label, detail, x, y, size, measure));
    boxes.push({
      left: x,
      right: x + labelWidth(measure, size, p.item, label, detail),
      top: y - size * 0.78,
      bottom: y + size * 0.26,
    });
  };
  if (free) {
    for (const place of free.places) write(place.placed, place.label, place.detail, place.x, place.y);
    return { nodes, boxes };
  }
  for (const p of placed) {
    if (p.label === '') continue;
    const centre = rowCentre(rows, plot, p.lane, p.row);
    const above = (rows.style === 'above' && p.item.form !== 'milestone') || p.item.form === 'summary';
    const lift = p.item.form === 'summary' && rows.style !== 'above' ? -size * 0.12 : rows.barHeight / 2 + size * 0.32;
    write(p, p.label, p.detail, p.labelX, above ? centre - lift : centre + size * 0.33);
  }
  return { nodes, boxes };
}

/** Room for a key: its columns, the height of its lines, and how many names it can hold at the most. */
function keyShape(frame: PageFrame, bodyHeight: number): { columns: number; line: number; most: number } {
  const columns = Math.max(1, Math.floor((frame.width - 2 * frame.margin) / 120));
  const line = frame.leastType * 1.25;
  return { columns, line, most: Math.floor((bodyHeight * 0.2) / line) * columns };
}

/** Names that found room only for a number, in columns at the foot of the page. */
function keyNodes(free: FreeLabels, frame: PageFrame, measure: Measure, top: number): SceneNode[] {
  const size = frame.leastType;
  const { columns } = keyShape(frame, 0);
  const width = (frame.width - 2 * frame.margin) / columns;
  const perColumn = Math.ceil(free.keyed.length / columns);
  return free.keyed.map(
    ({ placed, number }, k): SceneNode => ({
      type: 'text',
      x: round(frame.margin + Math.floor(k / perColumn) * width),
      y: round(top + size * 1.3 + (k % perColumn) * size * 1.25),
      text: measure.shorten(
        'label',
        size,
        `${number}  ${placed.item.label} ${placed.item.detail}`.trimEnd(),
        width - 8,
      ),
      face: 'label',
      size,
      fill: SOFT_INK,
      ref: placed.item.ref,
      role: 'key',
    }),
  );
}

function footNodes(
  input: TimelineInput,
  selection: Selection,
  without: number,
  frame: PageFrame,
  measure: Measure,
  legend: SceneNode[],
  top: number,
): SceneNode[] {
  const { plan, edition } = input;
  const size = frame.smallSize;
  const parts = [
    edition,
    `${selection.items.length} of ${selection.of} activities shown`,
    plan.source === 'given' ? 'dates as given' : 'computed dates',
    ...(without > 0 ? [`${without} names have no room on this page`] : []),
  ].filter((p) => p !== '');
  const text = measure.shorten('label', size, parts.join(' · '), frame.width - 2 * frame.margin);
  const source: SceneNode = {
    type: 'text',
    x: round(frame.width - frame.margin - measure.width('label', size, text)),
    y: round(frame.height - frame.margin),
    text,
    face: 'label',
    size,
    fill: SOFT_INK,
    role: 'source',
  };
  return [...legend.map((n) => movedDown(n, top)), source];
}

function movedDown(node: SceneNode, by: number): SceneNode {
  switch (node.type) {
    case 'line':
      return { ...node, y1: round(node.y1 + by), y2: round(node.y2 + by) };
    case 'polygon':
      return { ...node, points: node.points.map(([x, y]) => [x, round(y + by)]) };
    default:
      return { ...node, y: round(node.y + by) };
  }
}

function contentRows({ items, lanes }: Selection): ContentRow[] {
  const titles = new Map(lanes.map((l) => [l.id, l.title]));
  const order = new Map(lanes.map((l, k) => [l.id, k]));
  return [...items]
    .sort((a, b) => order.get(a.lane)! - order.get(b.lane)! || a.start - b.start || a.index - b.index)
    .map((i) => ({
      ref: i.ref,
      name: i.name,
      lane: titles.get(i.lane) ?? '',
      start: i.startText,
      finish: i.finishText,
      note: [
        i.form === 'milestone' ? 'milestone' : `${Math.round(i.progress * 100)} % complete`,
        i.critical ? 'critical' : '',
      ]
        .filter(Boolean)
        .join(', '),
    }));
}
