import type { Adjacency, Network, Order } from './model';

export function buildAdjacency(network: Network): Adjacency {
  const { count, linkCount, linkFrom, linkTo } = network;
  const rows = (end: Int32Array): [Int32Array, Int32Array] => {
    const at = new Int32Array(count + 1);
    for (let l = 0; l < linkCount; l++) at[end[l]! + 1]!++;
    for (let v = 0; v < count; v++) at[v + 1]! += at[v]!;
    const next = at.slice(0, count);
    const links = new Int32Array(linkCount);
    for (let l = 0; l < linkCount; l++) links[next[end[l]!]!++] = l;
    return [at, links];
  };
  const [intoAt, into] = rows(linkTo);
  const [outAt, out] = rows(linkFrom);
  return { intoAt, into, outAt, out };
}

/** Orders the nodes (A. B. Kahn, "Topological sorting of large networks", CACM 5 (11), 1962) and finds the loops. */
export function orderNodes(network: Network, adjacency: Adjacency): Order {
  const { count, linkTo } = network;
  const { intoAt, outAt, out } = adjacency;
  const waiting = new Int32Array(count);
  const sequence = new Int32Array(count);
  let tail = 0;
  for (let v = 0; v < count; v++) {
    waiting[v] = intoAt[v + 1]! - intoAt[v]!;
    if (waiting[v] === 0) sequence[tail++] = v;
  }
  for (let head = 0; head < tail; head++) {
    const v = sequence[head]!;
    for (let k = outAt[v]!; k < outAt[v + 1]!; k++) {
      const w = linkTo[out[k]!]!;
      if (--waiting[w]! === 0) sequence[tail++] = w;
    }
  }
  const blocked = new Uint8Array(count);
  if (tail === count) return { sequence, loops: [], blocked };
  for (let v = 0; v < count; v++) if (waiting[v]! > 0) blocked[v] = 1;
  return { sequence: sequence.subarray(0, tail), loops: findLoops(network, adjacency, blocked), blocked };
}

/**
 * One loop for each knot of nodes that reach each other: a walk back along links among the blocked nodes
 * must come to a node it has seen. Every blocked node has a predecessor that is blocked.
 */
function findLoops(network: Network, { intoAt, into }: Adjacency, blocked: Uint8Array): number[][] {
  const { linkFrom } = network;
  const seenBy = new Int32Array(network.count).fill(-1);
  const loops: number[][] = [];
  for (let start = 0; start < network.count; start++) {
    if (!blocked[start] || seenBy[start] !== -1) continue;
    const path: number[] = [];
    let v = start;
    while (seenBy[v] === -1) {
      seenBy[v] = start;
      path.push(v);
      for (let k = intoAt[v]!; k < intoAt[v + 1]!; k++) {
        const u = linkFrom[into[k]!]!;
        if (blocked[u]) {
          v = u;
          break;
        }
      }
    }
    if (seenBy[v] === start) loops.push(path.slice(path.indexOf(v)).reverse());
  }
  return loops;
}
