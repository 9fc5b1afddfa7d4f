import { type Edges, type Rows, rowsBy } from './graph';

/** Nodes and bends of long edges in columns, from the top down. */
export interface Columns {
  /** Of each column, its nodes in their order. */
  columns: number[][];
  /** Edges between neighbouring columns. */
  edges: Edges;
  /** How many nodes there are, with bends: those from `real` on are bends. */
  count: number;
  real: number;
  /** The edge that a bend belongs to, by the number of the bend. */
  edgeOf: number[];
  /** The nodes on the way of every edge, with both ends. */
  ways: number[][];
}

/** More nodes and bends than these are not laid out. */
const MOST_NODES = 2 ** 25;

/**
 * Puts bends where edges pass columns, so that every edge leads from one column to the next. The way of an edge that
 * leads back is kept from its end to its beginning, and shares its bends with no edge that leads forward.
 *
 * @param drawn whether an edge has a line at all
 */
export function withBends(
  rank: Int32Array,
  { from, to }: Edges,
  forward: Uint8Array,
  drawn: (edge: number) => boolean = (e) => forward[e] === 1,
): Columns {
  const count = rank.length;
  const columns: number[][] = [];
  for (let i = 0; i < count; i++) (columns[rank[i]!] ??= []).push(i);
  for (let c = 0; c < columns.length; c++) columns[c] ??= [];
  const [a, b]: [number[], number[]] = [[], []];
  const edgeOf: number[] = [];
  const ways: number[][] = [];
  let next = count;
  // What leaves one node runs together until it must part: its bends in a column are one.
  const shared = new Map<number, number>();
  const joined = new Set<number>();
  for (let e = 0; e < from.length; e++) {
    const [begin, end] = forward[e] || !drawn(e) ? [from[e]!, to[e]!] : [to[e]!, from[e]!];
    const way = [begin];
    ways.push(way);
    if (!drawn(e)) continue;
    let at = begin;
    const step = (j: number) => {
      const key = at * MOST_NODES + j;
      if (!joined.has(key)) {
        joined.add(key);
        a.push(at);
        b.push(j);
      }
      at = j;
      way.push(j);
    };
    for (let c = rank[begin]! + 1; c < rank[end]!; c++) {
      const key = (begin * MOST_NODES + c) * 2 + forward[e]!;
      let bend = shared.get(key);
      if (bend === undefined) {
        bend = next++;
        shared.set(key, bend);
        edgeOf.push(e);
        columns[c]!.push(bend);
      }
      step(bend);
    }
    step(end);
  }
  return {
    columns,
    edges: { from: Int32Array.from(a), to: Int32Array.from(b) },
    count: next,
    real: count,
    edgeOf,
    ways,
  };
}

const SWEEPS = 12;
/** After so many sweeps that take nothing away it ends. */
const PATIENCE = 6;

/**
 * Orders the nodes of every column so that few edges cross: barycentres of neighbours, downwards and upwards in turn
 * (Sugiyama, Tagawa and Toda 1981), then neighbours are swapped as long as that takes crossings away. The best order
 * that was seen is kept. Nodes of a lane stay together, lanes in their order; the order that it begins with is that of
 * the numbers, so that a small change of the graph changes little.
 *
 * @param lane the lane of every node and bend
 * @param pin which of them stay at the upper (-1) or the lower (1) end of their lane
 */
export function orderColumns(c: Columns, lane: Int32Array, pin: Int8Array = new Int8Array(c.count)): number[][] {
  const down = rowsBy(c.count, c.edges.to);
  const up = rowsBy(c.count, c.edges.from);
  const place = new Float64Array(c.count);
  const columns = c.columns.map((list) =>
    [...list].sort((i, j) => lane[i]! - lane[j]! || pin[i]! - pin[j]! || seed(c, i) - seed(c, j)),
  );
  const settle = (list: number[]) => {
    list.forEach((i, k) => {
      place[i] = k;
    });
  };
  columns.forEach(settle);
  let best = columns.map((l) => [...l]);
  let least = crossings(c, columns, place, up);
  const centre = new Float64Array(c.count);
  for (let sweep = 0, idle = 0; sweep < SWEEPS && idle < PATIENCE && least > 0; sweep++, idle++) {
    const downwards = sweep % 2 === 0;
    const [rows, ends] = downwards ? [down, c.edges.from] : [up, c.edges.to];
    for (let k = 0; k < columns.length; k++) {
      const list = columns[downwards ? k : columns.length - 1 - k]!;
      for (const i of list) centre[i] = barycentre(rows, ends, i, place);
      list.sort((i, j) => lane[i]! - lane[j]! || pin[i]! - pin[j]! || centre[i]! - centre[j]! || place[i]! - place[j]!);
      settle(list);
    }
    swapNeighbours(c, columns, place, lane, pin, down, up);
    const now = crossings(c, columns, place, up);
    if (now < least) {
      least = now;
      idle = 0;
      best = columns.map((l) => [...l]);
    }
  }
  return best;
}

/** A bend begins where the edge that it belongs to begins; what has neither goes last. */
const seed = (c: Columns, i: number): number =>
  i < c.real ? i : (c.ways[c.edgeOf[i - c.real] ?? -1]?.[0] ?? c.count) + 0.5;

/** The mean place of a node's neighbours; its own place where it has none. */
function barycentre(rows: Rows, ends: Int32Array, i: number, place: Float64Array): number {
  const [first, last] = [rows.first[i]!, rows.first[i + 1]!];
  if (first === last) return place[i]!;
  let sum = 0;
  for (let k = first; k < last; k++) sum += place[ends[rows.list[k]!]!]!;
  return sum / (last - first);
}

/** How many crossings go when two nodes of a column, of which one stands above the other, change places. */
function gain(rows: Rows, ends: Int32Array, upper: number, lower: number, place: Float64Array): number {
  let n = 0;
  for (let a = rows.first[upper]!; a < rows.first[upper + 1]!; a++) {
    const x = place[ends[rows.list[a]!]!]!;
    for (let b = rows.first[lower]!; b < rows.first[lower + 1]!; b++) n += Math.sign(x - place[ends[rows.list[b]!]!]!);
  }
  return n;
}

function swapNeighbours(
  c: Columns,
  columns: number[][],
  place: Float64Array,
  lane: Int32Array,
  pin: Int8Array,
  down: Rows,
  up: Rows,
): void {
  for (const list of columns)
    for (let better = true, rounds = 0; better && rounds < 8; rounds++) {
      better = false;
      for (let k = 0; k + 1 < list.length; k++) {
        const [i, j] = [list[k]!, list[k + 1]!];
        if (lane[i] !== lane[j] || pin[i] !== pin[j]) continue;
        if (gain(down, c.edges.from, i, j, place) + gain(up, c.edges.to, i, j, place) <= 0) continue;
        list[k] = j;
        list[k + 1] = i;
        place[i] = k + 1;
        place[j] = k;
        better = true;
      }
    }
}

/**
 * How many edges cross: inversions between each pair of neighbouring columns, counted in a tree of sums (Barth, Mutzel
 * and Jünger 2004).
 */
export function crossings(
  c: Columns,
  columns: readonly number[][],
  place: Float64Array,
  up: Rows = rowsBy(c.count, c.edges.from),
): number {
  const tree = new Int32Array(columns.reduce((most, list) => Math.max(most, list.length), 0) + 1);
  const targets = new Float64Array(c.edges.to.length);
  let total = 0;
  for (let k = 0; k + 1 < columns.length; k++) {
    const size = columns[k + 1]!.length;
    tree.fill(0, 0, size + 1);
    let seen = 0;
    for (const i of columns[k]!) {
      const [first, last] = [up.first[i]!, up.first[i + 1]!];
      for (let e = first; e < last; e++) targets[e - first] = place[c.edges.to[up.list[e]!]!]!;
      const count = last - first;
      for (let t = 0; t < count; t++) {
        let below = 0;
        for (let x = targets[t]! + 1; x > 0; x -= x & -x) below += tree[x]!;
        total += seen - below;
      }
      for (let t = 0; t < count; t++) for (let x = targets[t]! + 1; x <= size; x += x & -x) tree[x]!++;
      seen += count;
    }
  }
  return total;
}
