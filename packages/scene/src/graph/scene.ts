import type { Face } from '../text/faces';

/** Text set in one face on one line; x is its left end, y its baseline. */
export interface TextNode {
  type: 'text';
  x: number;
  y: number;
  text: string;
  face: Face;
  size: number;
  fill: string;
  ref?: string;
  role?: Role;
}

export interface RectNode {
  type: 'rect';
  x: number;
  y: number;
  width: number;
  height: number;
  radius?: number;
  fill?: string;
  /** 0 to 1 */
  opacity?: number;
  stroke?: string;
  strokeWidth?: number;
  /** Fades out towards both ends. */
  fade?: boolean;
  ref?: string;
  role?: Role;
}

export interface LineNode {
  type: 'line';
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  stroke: string;
  strokeWidth: number;
  ref?: string;
  role?: Role;
}

/** A closed outline of straight edges. */
export interface PolygonNode {
  type: 'polygon';
  points: [x: number, y: number][];
  fill?: string;
  stroke?: string;
  strokeWidth?: number;
  ref?: string;
  role?: Role;
}

export interface CircleNode {
  type: 'circle';
  x: number;
  y: number;
  radius: number;
  fill?: string;
  stroke?: string;
  strokeWidth?: number;
  ref?: string;
  role?: Role;
}

export type SceneNode = TextNode | RectNode | LineNode | PolygonNode | CircleNode;

/** What a node is to its reader; the interface and the tests find nodes by it. */
export type Role =
  | 'title'
  | 'subtitle'
  | 'source'
  | 'legend'
  | 'scale'
  | 'grid'
  | 'status'
  | 'lane'
  | 'laneRule'
  | 'period'
  | 'bar'
  | 'progress'
  | 'critical'
  | 'summary'
  | 'milestone'
  | 'label'
  | 'key';

/** A row of the table that holds the same content for people who do not see the page. */
export interface ContentRow {
  ref: string;
  name: string;
  lane: string;
  start: string;
  finish: string;
  note: string;
}

/** How well the exhibit sits on its page. */
export interface Fit {
  /** Smallest type on the page in points. */
  smallestType: number;
  /** Least type that the page should have. */
  leastType: number;
  rows: number;
  shown: number;
  of: number;
  labelsShortened: number;
  labelsInKey: number;
  labelsWithoutPlace: number;
  /** Texts with characters that the fonts of the page do not have. */
  textsBeyondFonts: number;
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
  content: ContentRow[];
  fit: Fit;
}

/** Coordinates are kept to hundredths of a point, so that the same page is the same bytes. */
export const round = (value: number): number => Math.round(value * 100) / 100;
