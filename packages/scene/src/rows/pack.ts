/**
 * Packs intervals into the least number of rows in which none overlap, and returns the row of each and how
 * many rows there are. Intervals are taken by their left end, and each goes to the topmost free row; any free
 * row keeps the number least, because a new one is opened only when as many intervals overlap at that place
 * (interval partitioning: J. Kleinberg & É. Tardos, Algorithm Design, 4.1).
 *
 * @param left left ends
 * @param right right ends; an interval that ends where another begins does not overlap it
 */
export function packRows(left: Float64Array, right: Float64Array): { row: Int32Array; rows: number } {
  const n = left.length;
  const order = sortedOrder(left);
  const row = new Int32Array(n);
  const busy = new Heap(n, (r) => endOf[r]!);
  const free = new Heap(n, (r) => r);
  const endOf = new Float64Array(n);
  let rows = 0;
  for (let k = 0; k < n; k++) {
    const i = order[k]!;
    while (busy.size > 0 && endOf[busy.top()]! <= left[i]!) free.push(busy.pop());
    const r = free.size > 0 ? free.pop() : rows++;
    row[i] = r;
    endOf[r] = right[i]!;
    busy.push(r);
  }
  return { row, rows };
}

/** Positions by value, equal values in their own order. */
function sortedOrder(values: Float64Array): Int32Array {
  const order = Int32Array.from(values.keys());
  return order.sort((a, b) => values[a]! - values[b]! || a - b);
}

/** A binary heap of small whole numbers, least key first. */
class Heap {
  size = 0;
  private readonly items: Int32Array;

  constructor(
    capacity: number,
    private readonly key: (item: number) => number,
  ) {
    this.items = new Int32Array(capacity);
  }

  top(): number {
    return this.items[0]!;
  }

  push(item: number): void {
    const { items, key } = this;
    let i = this.size++;
    const k = key(item);
    while (i > 0) {
      const parent = (i - 1) >> 1;
      if (key(items[parent]!) <= k) break;
      items[i] = items[parent]!;
      i = parent;
    }
    items[i] = item;
  }

  pop(): number {
    const { items, key } = this;
    const top = items[0]!;
    const last = items[--this.size]!;
    const k = key(last);
    let i = 0;
    for (;;) {
      let child = 2 * i + 1;
      if (child >= this.size) break;
      if (child + 1 < this.size && key(items[child + 1]!) < key(items[child]!)) child++;
      if (key(items[child]!) >= k) break;
      items[i] = items[child]!;
      i = child;
    }
    items[i] = last;
    return top;
  }
}
