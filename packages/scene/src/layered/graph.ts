/**
 * A directed graph whose nodes stand in columns. Nodes are numbers; edges are kept as two arrays, and by node in
 * compressed rows (CSR).
 */
export interface Edges {
  from: Int32Array;
  to: Int32Array;
}

/** Neighbours of every node in one array: those of node i are `list[first[i]..first[i + 1]]`. */
export interface Rows {
  first: Int32Array;
  list: Int32Array;
}

/** The edges by the node at one of their ends: for each node the numbers of its edges. */
export function rowsBy(count: number, ends: Int32Array): Rows {
  const first = new Int32Array(count + 1);
  for (const i of ends) first[i + 1]!++;
  for (let i = 0; i < count; i++) first[i + 1]! += first[i]!;
  const list = new Int32Array(ends.length);
  const next = first.slice(0, count);
  ends.forEach((i, e) => {
    list[next[i]!++] = e;
  });
  return { first, list };
}
