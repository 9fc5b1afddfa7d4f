import { rowsBy } from './graph';
import type { Columns } from './order';

const SWEEPS = 24;
/** How much two bends of one line hold to each other, and two nodes, against a bend and a node: long lines are straight. */
const BENDS = 24;
const NODES = 3;
/** Where nothing moves by more than this, in sizes of the type, it is done. */
const STILL = 0.02;
/** How much a height that a person wants counts. */
const BY_HAND = 10_000;

/**
 * Heights at which nodes stand, so that lines are straight where they can be: in turn from the left and from the right,
 * each column moves to the mean of its neighbours and keeps its order and distances. That is least squares under an
 * order, solved by pooling adjacent violators (Ayer et al. 1955).
 *
 * @param half half the height of every node and bend, with half the room to the next
 * @param lane the lane of every node; lanes lie below each other
 * @param pin those that go to the upper end (-1) of their lane where nothing pulls them
 * @param byHand heights that are wanted, from the top of the lane
 * @returns the middle of every node, from 0, and where lanes begin and end
 */
export function straighten(
  c: Columns,
  columns: readonly number[][],
  half: Float64Array,
  lane: Int32Array,
  lanes: number,
  pin: Int8Array = new Int8Array(c.count),
  byHand: ReadonlyMap<number, number> = new Map(),
): { y: Float64Array; top: Float64Array; bottom: Float64Array } {
  const y = new Float64Array(c.count);
  const down = rowsBy(c.count, c.edges.to);
  const up = rowsBy(c.count, c.edges.from);
  const top = new Float64Array(lanes);
  const bottom = new Float64Array(lanes);
  // Each lane by itself: as high as its fullest column.
  const parts = Array.from({ length: lanes }, (_, l) => columns.map((list) => list.filter((i) => lane[i] === l)));
  let at = 0;
  for (let l = 0; l < lanes; l++) {
    const heights = parts[l]!.map((list) => list.reduce((sum, i) => sum + 2 * half[i]!, 0));
    let height = heights.reduce((a, b) => Math.max(a, b), 0);
    for (const [i, y] of byHand) if (lane[i] === l) height = Math.max(height, y + half[i]!);
    [top[l], bottom[l]] = [at, at + height];
    parts[l]!.forEach((list, k) => {
      let next = at + (height - heights[k]!) / 2;
      for (const i of list) {
        y[i] = next + half[i]!;
        next += 2 * half[i]!;
      }
    });
    at += height;
  }
  const room = new Scratch(columns.reduce((most, list) => Math.max(most, list.length), 0));
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    const fromLeft = sweep % 2 === 0;
    let moved = 0;
    for (let k = 0; k < columns.length; k++) {
      const column = fromLeft ? k : columns.length - 1 - k;
      for (let l = 0; l < lanes; l++) {
        const list = parts[l]![column]!;
        if (list.length === 0) continue;
        for (let n = 0; n < list.length; n++) {
          const i = list[n]!;
          const asked = byHand.get(i);
          let [sum, weight] = asked === undefined ? [0, 0] : [(top[l]! + asked) * BY_HAND, BY_HAND];
          const bend = i >= c.real;
          for (let e = down.first[i]!; e < down.first[i + 1]!; e++) {
            const j = c.edges.from[down.list[e]!]!;
            const w = pull(bend, j >= c.real);
            sum += y[j]! * w;
            weight += w;
          }
          for (let e = up.first[i]!; e < up.first[i + 1]!; e++) {
            const j = c.edges.to[up.list[e]!]!;
            const w = pull(bend, j >= c.real);
            sum += y[j]! * w;
            weight += w;
          }
          room.half[n] = half[i]!;
          room.wanted[n] = weight > 0 ? sum / weight : pin[i] === -1 ? top[l]! : y[i]!;
        }
        settle(room, list.length, top[l]!, bottom[l]!);
        for (let n = 0; n < list.length; n++) {
          moved = Math.max(moved, Math.abs(y[list[n]!]! - room.placed[n]!));
          y[list[n]!] = room.placed[n]!;
        }
      }
    }
    if (moved < STILL) break;
  }
  snap(c, columns, y, half, lane, byHand);
  closeUp(y, half, lane, top, bottom);
  return { y, top, bottom };
}

/** Lines that bend by less than this, in sizes of the type, are made straight where there is room. */
const JOG = 1.6;

/**
 * Takes small bends out of lines: from the left and then from the right, each node goes to the height of one of its
 * neighbours before it where that is near and nothing of its column lies in between.
 */
function snap(
  c: Columns,
  columns: readonly number[][],
  y: Float64Array,
  half: Float64Array,
  lane: Int32Array,
  byHand: ReadonlyMap<number, number>,
): void {
  const sides = [
    [rowsBy(c.count, c.edges.to), c.edges.from],
    [rowsBy(c.count, c.edges.from), c.edges.to],
  ] as const;
  for (const fromLeft of [true, false, true]) {
    const [rows, ends] = sides[fromLeft ? 0 : 1];
    for (let k = 0; k < columns.length; k++) {
      const list = columns[fromLeft ? k : columns.length - 1 - k]!;
      list.forEach((i, n) => {
        if (byHand.has(i)) return;
        const beside = (j: number | undefined, way: 1 | -1) =>
          j === undefined || lane[j] !== lane[i] ? way * Number.NEGATIVE_INFINITY : y[j]! + way * (half[j]! + half[i]!);
        const [least, most] = [beside(list[n - 1], 1), beside(list[n + 1], -1)];
        let best = Number.NaN;
        for (let e = rows.first[i]!; e < rows.first[i + 1]!; e++) {
          const wanted = y[ends[rows.list[e]!]!]!;
          const far = Math.abs(wanted - y[i]!);
          if (far < JOG && wanted >= least && wanted <= most && !(Math.abs(best - y[i]!) <= far)) best = wanted;
        }
        if (!Number.isNaN(best)) y[i] = best;
      });
    }
  }
}

/** Lanes are as high as what stands in them, and lie below each other without gaps. */
function closeUp(y: Float64Array, half: Float64Array, lane: Int32Array, top: Float64Array, bottom: Float64Array): void {
  const first = new Float64Array(top.length).fill(Number.POSITIVE_INFINITY);
  const last = new Float64Array(top.length).fill(Number.NEGATIVE_INFINITY);
  y.forEach((v, i) => {
    first[lane[i]!] = Math.min(first[lane[i]!]!, v - half[i]!);
    last[lane[i]!] = Math.max(last[lane[i]!]!, v + half[i]!);
  });
  let at = 0;
  for (let l = 0; l < top.length; l++) {
    const height = Math.max(0, last[l]! - first[l]!);
    [top[l], bottom[l]] = [at, at + height];
    at += height;
  }
  y.forEach((v, i) => {
    y[i] = v - first[lane[i]!]! + top[lane[i]!]!;
  });
}

/** How much a node or a bend is drawn to its neighbour. */
const pull = (bend: boolean, other: boolean): number => (bend && other ? BENDS : !bend && !other ? NODES : 1);

/** Places of one column while they are worked out. */
class Scratch {
  readonly wanted: Float64Array;
  readonly half: Float64Array;
  readonly placed: Float64Array;
  readonly offset: Float64Array;
  /** Blocks of neighbours that move together: the sum of what they want, and how many they are. */
  readonly sum: Float64Array;
  readonly many: Int32Array;
  constructor(size: number) {
    this.wanted = new Float64Array(size);
    this.half = new Float64Array(size);
    this.placed = new Float64Array(size);
    this.offset = new Float64Array(size);
    this.sum = new Float64Array(size);
    this.many = new Int32Array(size);
  }
}

/** The places nearest to those that are wanted, in the given order, apart by their halves, between two bounds. */
export function inOrder(wanted: readonly number[], half: readonly number[], top: number, bottom: number): number[] {
  const room = new Scratch(wanted.length);
  room.wanted.set(wanted);
  room.half.set(half);
  settle(room, wanted.length, top, bottom);
  return Array.from(room.placed);
}

function settle(
  { wanted, half, placed, offset, sum, many }: Scratch,
  count: number,
  top: number,
  bottom: number,
): void {
  // With the room before each taken off, apart means no less than the one before.
  let room = 0;
  let blocks = 0;
  for (let k = 0; k < count; k++) {
    room += k === 0 ? half[k]! : half[k - 1]! + half[k]!;
    offset[k] = room;
    sum[blocks] = wanted[k]! - room;
    many[blocks] = 1;
    blocks++;
    while (blocks > 1 && sum[blocks - 2]! / many[blocks - 2]! > sum[blocks - 1]! / many[blocks - 1]!) {
      blocks--;
      sum[blocks - 1]! += sum[blocks]!;
      many[blocks - 1]! += many[blocks]!;
    }
  }
  const most = Math.max(top, bottom - room - half[count - 1]!);
  let next = 0;
  for (let b = 0; b < blocks; b++) {
    const at = Math.min(Math.max(sum[b]! / many[b]!, top), most);
    for (let n = 0; n < many[b]!; n++, next++) placed[next] = at + offset[next]!;
  }
}
