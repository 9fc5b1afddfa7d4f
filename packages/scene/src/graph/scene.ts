import type { ProcessShapes } from './process';
import type { Face } from '../text/faces';

/** How a shape is filled and edged. One model for all shapes and all writers. */
export interface Paint {
  fill?: string;
  /** Of the fill, 0 to 1. */
  opacity?: number;
  stroke?: string;
  strokeWidth?: number;
  /** The fill fades out towards these of its ends. */
  fade?: 'left' | 'right' | 'both';
}

/** What a node is about: the reference of what it shows, and what it is to its reader. */
export interface About {
  ref?: string;
  /** Of a link, the references of what it leads from and to. */
  between?: readonly [from: string, to: string];
  role?: Role;
}

/** A piece of a text in one face and one colour. */
export interface TextRun {
  text: string;
  face: Face;
  fill: string;
}

/** Text on one line: its runs follow each other from x, the left end, on the baseline y. */
export interface TextNode extends About {
  type: 'text';
  x: number;
  y: number;
  size: number;
  runs: TextRun[];
  /** Degrees by which the line is turned clockwise around its left end. */
  turn?: number;
}

export interface RectNode extends About, Paint {
  type: 'rect';
  x: number;
  y: number;
  width: number;
  height: number;
  radius?: number;
}

export interface LineNode extends About {
  type: 'line';
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  stroke: string;
  strokeWidth: number;
}

/** A step of a path: move, line, cubic curve, close. */
export type PathStep =
  | [to: 'M' | 'L', x: number, y: number]
  | [to: 'C', x1: number, y1: number, x2: number, y2: number, x: number, y: number]
  | [to: 'Z'];

export interface PathNode extends About, Paint {
  type: 'path';
  steps: PathStep[];
}

export interface CircleNode extends About, Paint {
  type: 'circle';
  x: number;
  y: number;
  radius: number;
}

/** A picture of pixels, as a data URL of PNG or JPEG. */
export interface ImageNode extends About {
  type: 'image';
  x: number;
  y: number;
  width: number;
  height: number;
  data: string;
  alt: string;
  /** The part of the picture that is shown, stretched to the box, in fractions of it; all of it where nothing is said. */
  part?: { x: number; y: number; width: number; height: number };
  /** The picture is turned clockwise about the middle of its box, which is the one that it has then. */
  turn?: 90 | 180 | 270;
}

/** The parts of one thing, in the order in which they are painted. */
export interface GroupNode extends About {
  type: 'group';
  /** What the thing is called. */
  name?: string;
  /** What someone who does not see it needs to know of it. */
  alt?: string;
  /** Nothing of it is drawn outside this rectangle. */
  clip?: { x: number; y: number; width: number; height: number };
  /** The id of what a person has put there. */
  note?: string;
  /** Where a click leads: an address. */
  link?: string;
  children: SceneNode[];
}

export type LeafNode = TextNode | RectNode | LineNode | PathNode | CircleNode | ImageNode;
export type SceneNode = LeafNode | GroupNode;

/** What a node is to its reader; the interface and the tests find nodes by it. */
export type Role =
  | 'title'
  | 'subtitle'
  | 'logo'
  | 'source'
  | 'legend'
  | 'scale'
  | 'strip'
  | 'grid'
  | 'status'
  | 'lane'
  | 'laneRule'
  | 'laneEdge'
  | 'period'
  | 'item'
  | 'bar'
  | 'progress'
  | 'critical'
  | 'promised'
  | 'pattern'
  | 'summary'
  | 'milestone'
  | 'label'
  | 'stem'
  | 'strand'
  | 'link'
  | 'date'
  | 'deadline'
  | 'dayOff'
  | 'elapsed'
  | 'key'
  | 'notice'
  | 'mark'
  | 'band'
  | 'curve'
  | 'cell'
  | 'head'
  | 'note';

/** A place of a page that leads to another page of the same file, or to a place on it, enlarged. Points. */
export interface SceneLink {
  x: number;
  y: number;
  width: number;
  height: number;
  /** Counted from 0. */
  page: number;
  to: { x: number; y: number; width: number; height: number } | null;
}

/** One of several pictures that play: when it is, and what it shows in words. */
export interface PlayFrame {
  title: string;
  words: string;
  data: string;
}

/** The same content as a table, for people who do not see the page. */
export interface ContentTable {
  heads: string[];
  /** Which column says what a row is about. */
  named: number;
  rows: ContentRow[];
}

/** What a cell of the content is beside its words: a day (days since 1970-01-01), a number, or a share of one. */
export type ContentValue = { day: number } | { number: number } | { share: number };

export interface ContentRow {
  /** The activity that the row is about, where it is about one. */
  ref: string | null;
  cells: string[];
  /** For outputs that can count with them; null, or nothing at all, for what is only words. */
  values?: (ContentValue | null)[];
}

/** What is shown of a plan's activities and milestones, and where the others are. They add up to `of`. */
export interface Shown {
  of: number;
  /** On the page as themselves. */
  shown: number;
  /** On the page within groups, and how many groups and milestones those are. */
  inGroups: number;
  groups: number;
  milestonesInGroups: number;
  undated: number;
  /** Before or after the dates of the page. */
  outside: number;
  /** Left out by the brief: by its filter, its kinds, its level. */
  leftOut: number;
  /** What the brief asks for and has no room on the page. */
  noRoom?: number;
}

/** Something that a page does not show, and why. */
export interface BlindSpot {
  ref: string;
  name: string;
  why: 'in a group' | 'left out by the brief' | 'without dates' | 'before or after these dates';
}

/** What a page hides that its reader would want to know of. */
export interface BlindSpots {
  critical: BlindSpot[];
  late: BlindSpot[];
  milestones: BlindSpot[];
  /** Links that begin or end at something that is not on the page itself, and those of them that are critical. */
  links: number;
  criticalLinks: number;
  /** Changes of the brief that show it. */
  mends: FitAdvice[];
}

/** A part of the brief that would make the page fit better. */
export interface FitAdvice {
  words: string;
  /** What to change in the brief. */
  change: Record<string, unknown>;
}

/** What of a page was set by hand and is not on it, since its activity is not. */
export interface Unplaced {
  /** The activity; an empty text for a note that a place holds, which the page does not show. */
  ref: string;
  /** The note that is not drawn; null for looks of the activity. */
  note: string | null;
  words: string;
  /** Whether the activity is in the plan at all. */
  gone: boolean;
}

/** What hands need to know of a page: where its things, lanes and dates are, in points. */
export interface Handles {
  /** The size of its labels. */
  size: number;
  /** The plot, and the moments of its left and right end. */
  left: number;
  right: number;
  from: number;
  to: number;
  /** Ends of things along the page, and their middle; `y1` is the height of the second end where that is another. */
  items: { ref: string; x0: number; x1: number; y: number; y1?: number }[];
  lanes: { codes: string[]; title: string; top: number; bottom: number; right: number; folded: boolean }[];
  unplaced: Unplaced[];
}

/** What hands need to know of a page of cards and lines, in points. */
export interface CardHandles {
  /** The size of its type, and how many points a size of it is in height. */
  size: number;
  unit: number;
  /** Columns run across the page, or down it. */
  down: boolean;
  columns: { from: number; to: number }[];
  lanes: { title: string; top: number }[];
  cards: {
    ref: string;
    name: string;
    left: number;
    top: number;
    width: number;
    height: number;
    lane: number;
    column: number;
    /** The first column that the logic allows. */
    least: number;
  }[];
  links: { from: string; to: string }[];
  /** Things that were put somewhere by hand and are not on the page. */
  unplaced: string[];
}

/** Place and time on a page, in points: places in the unit of the line, days as fractions of a day number. */
export interface PlaneShape {
  /** Places run across and time down; else places up and time across. */
  across: boolean;
  left: number;
  right: number;
  top: number;
  bottom: number;
  place0: number;
  place1: number;
  day0: number;
  day1: number;
  unit: string;
}

/** How well the exhibit sits on its page. */
export interface Fit {
  /** Smallest type on the page in points. */
  smallestType: number;
  /** Least type that the page should have. */
  leastType: number;
  rows: number;
  counts: Shown;
  /** What is shown, in words, where that is not activities of the plan. */
  shown?: string;
  labelsShortened: number;
  labelsInKey: number;
  /** Labels that lost their dates and amounts for want of room. */
  datesWithoutRoom: number;
  laneTitlesCut: number;
  periodsWithoutName: number;
  /** Tiers of the time scale that had no room. */
  tiersCut?: number;
  /** Columns beside the rows that had no room. */
  columnsCut?: number;
  /** Characters that the fonts of the page do not have; they are drawn as empty boxes. */
  charactersMissing: number;
  /** False when the page cannot be read and says so instead. */
  readable: boolean;
  advice: FitAdvice[];
}

/**
 * A composed page: primitive shapes in points from the top left corner, in the order in which they are
 * painted. Every output is written from this and from nothing else.
 */
export interface Scene {
  width: number;
  height: number;
  title: string;
  description: string;
  language: string;
  paper: string;
  nodes: SceneNode[];
  content: ContentTable;
  /** Which page it is of how many, for an exhibit that runs over several. */
  sheet?: { number: number; of: number };
  /** What has no dates and so no place on a time axis. */
  undated: { ref: string; name: string }[];
  fit: Fit;
  /** Where it leads, in a file of several pages. */
  links?: SceneLink[];
  /** Pictures that play one after the other, for outputs that can; only where they were asked for. */
  play?: PlayFrame[];
  /** What can be taken hold of; only on pages that are set by hand. */
  handles?: Handles;
  /** Cards and the links between them; only on pages that are made of those. */
  cards?: CardHandles;
  /** Where places and days lie, on pages of linear work. */
  plane?: PlaneShape;
  /** The process that the page shows, where it shows one. */
  process?: ProcessShapes;
  /** What the page hides; null for kinds of exhibits that hide nothing. */
  blind: BlindSpots | null;
}

/** Coordinates are kept to hundredths of a point, so that the same page is the same bytes. */
export const round = (value: number): number => Math.round(value * 100) / 100;

/** Visits every node that is no group, in the order of painting. */
export function eachLeaf(nodes: readonly SceneNode[], visit: (leaf: LeafNode) => void): void {
  for (const node of nodes) {
    if (node.type === 'group') eachLeaf(node.children, visit);
    else visit(node);
  }
}

/** All nodes that are no groups. */
export function leavesOf(nodes: readonly SceneNode[]): LeafNode[] {
  const list: LeafNode[] = [];
  eachLeaf(nodes, (leaf) => list.push(leaf));
  return list;
}

/** What a text says. */
export const textOf = (node: TextNode): string => node.runs.map((r) => r.text).join('');

/** A closed outline of straight edges. */
export const polygon = (points: [x: number, y: number][], about: Paint & About): PathNode => ({
  type: 'path',
  steps: [...points.map(([x, y], k): PathStep => [k === 0 ? 'M' : 'L', x, y]), ['Z']],
  ...about,
});
