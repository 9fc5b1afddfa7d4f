import type { Edges } from './graph';
import { type Columns, orderColumns, withBends } from './order';
import { straighten } from './straighten';
import { type Trunk, tracksOf } from './tracks';

/** What is laid out: nodes in columns with edges between them, all lengths in one unit. */
export interface Layering {
  /** The column of every node, from 0. */
  rank: Int32Array;
  edges: Edges;
  /** Whether each edge leads from a column to a later one. */
  forward: Uint8Array;
  card: { width: number; height: number };
  /** The first and the last lane of every node; it stands in the first, and reaches to the last where it can. */
  lanes: { first: Int32Array; last: Int32Array; count: number };
  /** Room beside the card of a node, for what is drawn at its edge. */
  before(node: number): number;
  after(node: number): number;
  /** Room before the cards of every column, for words of links. */
  words: Float64Array;
  /** Whether edges that lead back have lines; they need columns of their own ends that differ. */
  back: boolean;
  /** Heights that are wanted by hand, from the top of the lane. */
  wanted?: ReadonlyMap<number, number>;
}

/** A point of a line; `below` is a distance that stays as it is where rows are drawn apart. */
export type RoutePoint = readonly [x: number, y: number, below?: number];

/** A layout, from the top left of what it needs. */
export interface Layered {
  width: number;
  height: number;
  /** Left edges of the columns, and their widths. */
  columns: { x: number; width: number }[];
  /** Left edge and middle of every node. */
  x: Float64Array;
  y: Float64Array;
  /** The middle of a node's part in its last lane, where it reaches there; else that in its first. */
  reach: Float64Array;
  /** Points that the line of every edge bends at, from its beginning to its end; null for one without a line. */
  routes: (RoutePoint[] | null)[];
  lanes: { top: number; bottom: number }[];
}

const CARD_ROOM = 1.1;
const BEND_ROOM = 0.7;
const LANE_ROOM = 1.2;
/** From a card to the first track, between tracks, and from the last track to the next card. */
const OUT = 0.9;
const TRACK = 0.6;
const IN = 1.5;
/** How far below the middle of a card a line that leads back begins and ends, in heights of the card. */
export const BACK = 0.3;

/**
 * Lays out nodes in columns: order, heights, channels. The same graph gives the same layout. Lines leave a card at its
 * right and enter the next at its left; those that lead back the other way about.
 */
export function layered(g: Layering): Layered {
  const n = g.rank.length;
  const drawn = (e: number) => g.forward[e] === 1 || (g.back && g.rank[g.edges.from[e]!]! > g.rank[g.edges.to[e]!]!);
  const c = withBends(g.rank, g.edges, g.forward, drawn);
  const reaching = reachingOf(c, g);
  const { lane, pin, half, count } = reaching;
  let columns = orderColumns(c, lane, pin);
  let set = straighten(c, columns, half, lane, g.lanes.count, pin);
  if (g.wanted && g.wanted.size > 0) {
    columns = putAt(columns, set, reaching, g.wanted);
    set = straighten(c, columns, half, lane, g.lanes.count, pin, g.wanted);
  }
  const y = Float64Array.from(set.y, (v, i) => v + lane[i]! * LANE_ROOM);

  const x = new Float64Array(n);
  const placed: Layered['columns'] = [];
  const ports = portsOf(c, g, y);
  const trunkX = new Map<number, number>();
  const isCard = (i: number) => i < n;
  const most = (k: number, room: (node: number) => number) =>
    Math.max(0, ...columns[k]!.map((i) => (isCard(i) ? room(i) : 0)));
  let next = columns.length === 0 ? 0 : most(0, g.before);
  columns.forEach((list, k) => {
    const width = list.some((i) => isCard(i) || i >= count) ? g.card.width : 0.4;
    for (const i of list) if (isCard(i)) x[i] = next;
    placed.push({ x: next, width });
    next += width;
    if (k === columns.length - 1) return;
    const sources = list.flatMap((i) => ports.leaving(i));
    const trunks = sources.map(({ enters, leaves }): Trunk => {
      return { enters, leaves, top: Math.min(enters, ...leaves), bottom: Math.max(enters, ...leaves) };
    });
    const { track, count: tracks } = tracksOf(trunks, 0.35);
    const out = Math.max(OUT, most(k, g.after));
    sources.forEach(({ key }, s) => trunkX.set(key, next + out + track[s]! * TRACK));
    next += out + Math.max(0, tracks - 1) * TRACK + Math.max(IN, g.words[k + 1] ?? 0, most(k + 1, g.before));
  });
  const routes = c.ways.map((way, e) => {
    if (!drawn(e)) return null;
    const [a, b] = [way[0]!, way.at(-1)!];
    const below = (i: number) => (isCard(i) && !g.forward[e] ? BACK * g.card.height : 0);
    const level = (i: number) => y[i]! + below(i);
    const at = (px: number, i: number): RoutePoint => (below(i) === 0 ? [px, y[i]!] : [px, y[i]!, below(i)]);
    const points: RoutePoint[] = [at(x[a]! + g.card.width, a)];
    for (let k = 0; k + 1 < way.length; k++) {
      const [i, j] = [way[k]!, way[k + 1]!];
      if (Math.abs(level(i) - level(j)) < 1e-6) continue;
      const trunk = trunkX.get(ports.key(i, e))!;
      points.push(at(trunk, i), at(trunk, j));
    }
    points.push(at(x[b]!, b));
    return g.forward[e] ? points : points.reverse();
  });
  const last = Math.max(1, g.lanes.count) - 1;
  return {
    width: next + (columns.length === 0 ? 0 : most(columns.length - 1, g.after)),
    height: (set.bottom[last] ?? 0) + last * LANE_ROOM,
    columns: placed,
    x,
    y: y.slice(0, n),
    reach: Float64Array.from({ length: n }, (_, i) => y[reaching.foot.get(i) ?? i]!),
    routes,
    lanes: Array.from(set.top, (top, k) => ({ top: top + k * LANE_ROOM, bottom: set.bottom[k]! + k * LANE_ROOM })),
  };
}

/**
 * The lanes of nodes and bends. A node of several lanes stands at the lower end of its column in the first of them, and
 * its foot, a node without edges, at the upper end in the last; the second of two that want the same end stays in its
 * first lane, and so does one with anything of its column in the lanes between.
 */
function reachingOf(c: Columns, g: Layering) {
  const lane: number[] = [];
  for (let i = 0; i < c.count; i++) lane.push(g.lanes.first[ownerOf(c, i)]!);
  const pin = new Map<number, -1 | 1>();
  const foot = new Map<number, number>();
  const count = c.count;
  for (const column of c.columns) {
    /** By lane, whether its upper and its lower end in this column are taken. */
    const taken = new Set<string>();
    for (const i of [...column]) {
      if (i >= c.real) continue;
      const [first, last] = [g.lanes.first[i]!, g.lanes.last[i]!];
      if (last <= first) continue;
      const between = column.some((j) => lane[j]! > first && lane[j]! < last);
      if (between || taken.has(`${first} lower`) || taken.has(`${last} upper`)) continue;
      taken.add(`${first} lower`);
      taken.add(`${last} upper`);
      const own = c.count++;
      foot.set(i, own);
      lane.push(last);
      pin.set(i, 1);
      pin.set(own, -1);
      column.push(own);
    }
  }
  const all = (of: (i: number) => number) => Array.from({ length: c.count }, (_, i) => of(i));
  return {
    lane: Int32Array.from(lane),
    pin: Int8Array.from(all((i) => pin.get(i) ?? 0)),
    half: Float64Array.from(all((i) => (i < c.real || i >= count ? (g.card.height + CARD_ROOM) / 2 : BEND_ROOM / 2))),
    foot,
    /** Feet are numbered from here. */
    count,
  };
}

/** The node that a bend belongs to: the one that it is drawn from. */
const ownerOf = (c: Columns, i: number): number => (i < c.real ? i : c.ways[c.edgeOf[i - c.real]!]![0]!);

/** Where lines leave nodes and bends to the right: forward ones at the middle, those that lead back below it. */
function portsOf(c: Columns, g: Layering, y: Float64Array) {
  const back = (i: number) => y[i]! + BACK * g.card.height;
  const key = (i: number, e: number) => i * 2 + (i < c.real && !g.forward[e] ? 1 : 0);
  const leaves = new Map<number, Set<number>>();
  c.ways.forEach((way, e) => {
    for (let k = 0; k + 1 < way.length; k++) {
      const [i, j] = [way[k]!, way[k + 1]!];
      const level = j < c.real && !g.forward[e] ? back(j) : y[j]!;
      const own = key(i, e);
      const known = leaves.get(own);
      if (known) known.add(level);
      else leaves.set(own, new Set([level]));
    }
  });
  return {
    key,
    back,
    leaving: (i: number) =>
      [i * 2, i * 2 + 1].flatMap((own) => {
        const list = leaves.get(own);
        return list ? [{ key: own, enters: own % 2 === 0 ? y[i]! : back(i), leaves: [...list] }] : [];
      }),
  };
}

/** Columns with what is wanted elsewhere by hand put in where it is wanted, among the heights of the others. */
function putAt(
  columns: readonly number[][],
  { y, top }: { y: Float64Array; top: Float64Array },
  { lane, pin }: { lane: Int32Array; pin: Int8Array },
  wanted: ReadonlyMap<number, number>,
): number[][] {
  const height = (i: number) => {
    const own = wanted.get(i);
    return own === undefined ? y[i]! : top[lane[i]!]! + own;
  };
  return columns.map((list) =>
    list.some((i) => wanted.has(i))
      ? [...list].sort((i, j) => lane[i]! - lane[j]! || pin[i]! - pin[j]! || height(i) - height(j))
      : list,
  );
}
