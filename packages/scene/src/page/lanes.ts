import { HAIRLINE, INK, SOFT_INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

/** A band of rows that share a code value, or the bands within it. */
export interface Lane {
  title: string;
  code: string;
  colour: string | null;
  /** How many rows high it is at least; null for as many as it needs. */
  height: number | null;
  depth: number;
  lanes: Lane[];
  /** What lies in it itself, by number, in the order of its rows; empty where it holds lanes. */
  items: number[];
}

/** How the codes of one level of lanes are called and ordered. */
export interface LaneLevel {
  title(code: string): string;
  rank(code: string): number;
  /** Codes that have a lane although nothing has them. */
  always?: readonly string[];
  /** The colour of a lane's title; null for none. */
  colour?(code: string): string | null;
  /** How many rows high its lane is at least; null for as many as it needs. */
  height?(code: string): number | null;
}

/** Sorts things into a tree of lanes by their codes, outermost first. Without levels there is one lane without a title. */
export function laneTree(codes: readonly (readonly string[])[], levels: readonly LaneLevel[], depth = 0): Lane[] {
  const all = codes.map((_, i) => i);
  if (levels.length === 0)
    return all.length === 0
      ? []
      : [{ title: '', code: '', colour: null, height: null, depth: 0, lanes: [], items: all }];
  const split = (items: number[], at: number): Lane[] => {
    const level = levels[at]!;
    const byCode = new Map<string, number[]>();
    for (const i of items) {
      const code = codes[i]![at] ?? '';
      const list = byCode.get(code);
      if (list) list.push(i);
      else byCode.set(code, [i]);
    }
    for (const code of level.always ?? []) if (!byCode.has(code)) byCode.set(code, []);
    return [...byCode]
      .map(([code, list], seen) => ({ code, list, seen }))
      .sort((a, b) => level.rank(a.code) - level.rank(b.code) || a.seen - b.seen)
      .map(({ code, list }): Lane => {
        const last = at === levels.length - 1;
        return {
          title: level.title(code),
          code,
          colour: level.colour?.(code) ?? null,
          height: level.height?.(code) ?? null,
          depth: at + depth,
          lanes: last || list.length === 0 ? [] : split(list, at + 1),
          items: last ? list : [],
        };
      });
  };
  return split(all, 0);
}

/** Visits the lanes that hold things themselves, in the order in which they stand. */
export function eachLeafLane(lanes: readonly Lane[], visit: (lane: Lane) => void): void {
  for (const lane of lanes) {
    if (lane.lanes.length > 0) eachLeafLane(lane.lanes, visit);
    else visit(lane);
  }
}

/** Where the titles of lanes stand: a column for each level, and the lines of each title. */
export interface Gutter {
  width: number;
  columns: { x: number; width: number }[];
  lines: Map<Lane, string[]>;
  cut: number;
  /** Whether titles of the outermost lanes run upwards. */
  turned: boolean;
}

/** Titles take at most this share of the page, in so many lines; more where they would be cut otherwise. */
const LOOSE = [
  { share: 0.13, lines: 3 },
  { share: 0.2, lines: 3 },
  { share: 0.28, lines: 4 },
];
/** On a crowded page they take width rather than height. */
const TIGHT = [
  { share: 0.16, lines: 1 },
  { share: 0.28, lines: 1 },
  { share: 0.28, lines: 2 },
];

/** A turned title takes at most this share of the height of the page. */
const LONGEST_TURNED = 0.22;

/** The type of a lane's title: the outermost in the stronger face. */
const titleStyle = (depth: number, frame: PageFrame) =>
  depth === 0
    ? ({ face: 'textStrong', size: frame.laneSize, fill: INK } as const)
    : ({
        face: 'text',
        size: Math.max(frame.labelSize, frame.laneSize * 0.9),
        fill: depth === 1 ? INK : SOFT_INK,
      } as const);

/** Breaks the titles of all lanes into lines, in columns as narrow as they can be. */
export function laneGutter(
  lanes: readonly Lane[],
  frame: PageFrame,
  measure: Measure,
  tight = false,
  turned = false,
): Gutter {
  const byDepth: Lane[][] = [];
  const collect = (list: readonly Lane[]) => {
    for (const lane of list) {
      if (lane.title !== '') (byDepth[lane.depth] ??= []).push(lane);
      collect(lane.lanes);
    }
  };
  collect(lanes);
  if (byDepth.length === 0) return { width: 0, columns: [], lines: new Map(), cut: 0, turned };
  let gutter: Gutter | null = null;
  for (const { share, lines } of tight ? TIGHT : LOOSE) {
    gutter = breakTitles(byDepth, (frame.width * share) / Math.sqrt(byDepth.length), lines, frame, measure, turned);
    if (gutter.cut === 0) break;
  }
  return gutter!;
}

function breakTitles(
  byDepth: Lane[][],
  widest: number,
  most: number,
  frame: PageFrame,
  measure: Measure,
  turned: boolean,
): Gutter {
  const gutter: Gutter = { width: 0, columns: [], lines: new Map(), cut: 0, turned };
  byDepth.forEach((list, depth) => {
    const { face, size } = titleStyle(depth, frame);
    if (turned && depth === 0) {
      gutter.columns.push({ x: 0, width: size * 1.2 });
      gutter.width += size * 2.2;
      for (const lane of list) {
        const title = measure.clean(lane.title);
        const text = measure.shorten(face, size, title, frame.height * LONGEST_TURNED);
        if (text !== title) gutter.cut++;
        gutter.lines.set(lane, [text]);
      }
      return;
    }
    const longest = Math.max(...list.map((l) => measure.width(face, size, measure.clean(l.title))));
    const width = Math.min(longest + 0.5, widest);
    gutter.columns.push({ x: gutter.width, width });
    gutter.width += width + size * (depth === byDepth.length - 1 ? 1.2 : 1);
    for (const lane of list) {
      const lines = measure.wrap(face, size, measure.clean(lane.title), width, most);
      if (lines.some((l) => l.endsWith('…'))) gutter.cut++;
      gutter.lines.set(lane, lines);
    }
  });
  return gutter;
}

/** Height that a lane's title takes. */
export function titleHeight(lane: Lane, gutter: Gutter, frame: PageFrame, measure: Measure): number {
  if (gutter.turned && lane.depth === 0) {
    const { face, size } = titleStyle(0, frame);
    return measure.width(face, size, gutter.lines.get(lane)?.[0] ?? '') + size * 0.8;
  }
  const lines = gutter.lines.get(lane)?.length ?? 0;
  return lines === 0 ? 0 : lines * titleStyle(lane.depth, frame).size * 1.2 + frame.laneSize * 0.3;
}

/** A lane with its place on the page. */
export interface PlacedLane {
  lane: Lane;
  top: number;
  bottom: number;
  /** Where the first row of it stands, so that its title stands level with it; null where there is none. */
  firstRow: number | null;
}

/** How wide the edge in a lane's own colour is, in points. */
const LANE_EDGE = 3;

/** Titles of lanes, and a rule below each: from the margin for the outermost, from its own title for the others. */
export function laneNodes(
  placed: PlacedLane[],
  gutter: Gutter,
  frame: PageFrame,
  measure: Measure,
  right: number,
): SceneNode[] {
  const last = placed.reduce((most, p) => Math.max(most, p.bottom), 0);
  const nodes: SceneNode[] = [];
  for (const { lane, top, bottom, firstRow } of placed) {
    const { face, size, fill } = titleStyle(lane.depth, frame);
    const x = frame.margin + (gutter.columns[lane.depth]?.x ?? 0);
    const lines = gutter.lines.get(lane) ?? [];
    if (lane.colour !== null && lane.depth === 0)
      nodes.push({
        type: 'rect',
        x: round(frame.margin - LANE_EDGE * 2),
        y: round(top + LANE_EDGE),
        width: LANE_EDGE,
        height: round(Math.max(1, bottom - top - 2 * LANE_EDGE)),
        radius: LANE_EDGE / 2,
        fill: lane.colour,
        role: 'laneEdge',
      });
    if (gutter.turned && lane.depth === 0) {
      const [text = ''] = lines;
      const length = measure.width(face, size, text);
      if (text !== '')
        nodes.push({
          type: 'text',
          x: round(x + size * 0.95),
          y: round((top + bottom + length) / 2),
          size,
          turn: -90,
          runs: [{ text, face, fill }],
          role: 'lane',
        });
    }
    const highest = top + size * 1.05;
    const lowest = bottom - size * 0.45 - (lines.length - 1) * size * 1.2;
    const level = firstRow === null ? highest : firstRow + size * 0.34;
    const first = Math.min(Math.max(level, highest), Math.max(highest, lowest));
    (gutter.turned && lane.depth === 0 ? [] : lines).forEach((text, k) =>
      nodes.push({
        type: 'text',
        x: round(x),
        y: round(first + k * size * 1.2),
        size,
        runs: [{ text, face, fill }],
        role: 'lane',
      }),
    );
    if (lane.title === '' || (lane.depth > 0 && bottom >= last - 0.01)) continue;
    nodes.push({
      type: 'line',
      x1: round(x),
      y1: round(bottom),
      x2: round(right),
      y2: round(bottom),
      stroke: HAIRLINE,
      strokeWidth: lane.depth === 0 ? 0.8 : 0.4,
      role: 'laneRule',
    });
  }
  return nodes;
}
