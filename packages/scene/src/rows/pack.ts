/** Coordinates are compared to 1/64 of a unit; places of one order are then told apart by their number. */
const GRAIN = 64;
const NUMBERS = 2 ** 20;

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
  if (n > NUMBERS) throw new RangeError(`at most ${NUMBERS} intervals can be packed`);
  const order = new Float64Array(n);
  for (let i = 0; i < n; i++) order[i] = Math.round(left[i]! * GRAIN) * NUMBERS + i;
  order.sort();

  const row = new Int32Array(n);
  const endOf = new Float64Array(n);
  const busy = new Int32Array(n); // heap of rows by where they end
  const free = new Int32Array(n); // heap of rows by their number
  let [busySize, freeSize, rows] = [0, 0, 0];
  for (let k = 0; k < n; k++) {
    const start = Math.floor(order[k]! / NUMBERS);
    const i = order[k]! - start * NUMBERS;
    while (busySize > 0 && endOf[busy[0]!]! <= start) {
      const ended = busy[0]!;
      sinkByEnd(busy, endOf, --busySize);
      riseByNumber(free, freeSize++, ended);
    }
    let r: number;
    if (freeSize > 0) {
      r = free[0]!;
      sinkByNumber(free, --freeSize);
    } else r = rows++;
    row[i] = r;
    endOf[r] = Math.round(right[i]! * GRAIN);
    riseByEnd(busy, endOf, busySize++, r);
  }
  return { row, rows };
}

function riseByEnd(heap: Int32Array, endOf: Float64Array, at: number, item: number): void {
  const key = endOf[item]!;
  let i = at;
  while (i > 0) {
    const parent = (i - 1) >> 1;
    if (endOf[heap[parent]!]! <= key) break;
    heap[i] = heap[parent]!;
    i = parent;
  }
  heap[i] = item;
}

function sinkByEnd(heap: Int32Array, endOf: Float64Array, size: number): void {
  const last = heap[size]!;
  const key = endOf[last]!;
  let i = 0;
  for (let child = 1; child < size; child = 2 * i + 1) {
    if (child + 1 < size && endOf[heap[child + 1]!]! < endOf[heap[child]!]!) child++;
    if (endOf[heap[child]!]! >= key) break;
    heap[i] = heap[child]!;
    i = child;
  }
  heap[i] = last;
}

function riseByNumber(heap: Int32Array, at: number, item: number): void {
  let i = at;
  while (i > 0) {
    const parent = (i - 1) >> 1;
    if (heap[parent]! <= item) break;
    heap[i] = heap[parent]!;
    i = parent;
  }
  heap[i] = item;
}

function sinkByNumber(heap: Int32Array, size: number): void {
  const last = heap[size]!;
  let i = 0;
  for (let child = 1; child < size; child = 2 * i + 1) {
    if (child + 1 < size && heap[child + 1]! < heap[child]!) child++;
    if (heap[child]! >= last) break;
    heap[i] = heap[child]!;
    i = child;
  }
  heap[i] = last;
}
