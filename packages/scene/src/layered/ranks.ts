import { type Edges, rowsBy } from './graph';

/**
 * The column of every node: the longest way to it (Kahn 1962), never before a column that it is bound to. Edges that
 * would lead back, which only circles have, count for nothing.
 *
 * @param least the first column in which each node may stand
 * @returns columns from 0, which edges lead forward, and the order in which nodes were taken up
 */
export function ranksOf(
  count: number,
  { from, to }: Edges,
  least?: Int32Array,
): { rank: Int32Array; forward: Uint8Array; order: Int32Array } {
  const rank = least ? Int32Array.from(least) : new Int32Array(count);
  const waiting = new Int32Array(count);
  for (const i of to) waiting[i]!++;
  const out = rowsBy(count, from);
  const done = new Uint8Array(count);
  const reached = new Uint8Array(count);
  const order = new Int32Array(count);
  const queue: number[] = [];
  for (let i = 0; i < count; i++) if (waiting[i] === 0) queue.push(i);
  let next = 0;
  for (let settled = 0; settled < count; settled++) {
    // Where all that is left waits for each other, the first begins that something done leads to.
    if (next === queue.length) {
      const entered = done.findIndex((d, j) => d === 0 && reached[j] === 1);
      queue.push(entered >= 0 ? entered : done.indexOf(0));
    }
    const i = queue[next++]!;
    if (done[i]) {
      settled--;
      continue;
    }
    done[i] = 1;
    order[i] = settled;
    for (let k = out.first[i]!; k < out.first[i + 1]!; k++) {
      const j = to[out.list[k]!]!;
      if (done[j]) continue;
      reached[j] = 1;
      rank[j] = Math.max(rank[j]!, rank[i]! + 1);
      if (--waiting[j]! === 0) queue.push(j);
    }
  }
  const forward = Uint8Array.from(from, (i, e) => (rank[i]! < rank[to[e]!]! ? 1 : 0));
  return { rank, forward, order };
}

/** As `ranksOf`, with edges that lead back turned round for it: every edge joins two columns. */
export function ranksBothWays(
  count: number,
  { from, to }: Edges,
  least?: Int32Array,
): { rank: Int32Array; forward: Uint8Array } {
  const { order } = ranksOf(count, { from, to });
  const forward = Uint8Array.from(from, (i, e) => (order[i]! < order[to[e]!]! ? 1 : 0));
  const turned = {
    from: Int32Array.from(from, (i, e) => (forward[e] ? i : to[e]!)),
    to: Int32Array.from(to, (j, e) => (forward[e] ? j : from[e]!)),
  };
  return { rank: ranksOf(count, turned, least).rank, forward };
}
