/** A value in a sequence, by which it is found again. */
export interface Item<T> {
  value: T;
  chunk: Item<T>[];
}

const MOST = 512;

/**
 * A long list that values join and leave at any place. It is kept in chunks, so that each step takes time by the
 * square root of the length and not by the length.
 */
export class Sequence<T> {
  private chunks: Item<T>[][] = [];
  private count = 0;

  constructor(values: readonly T[]) {
    for (let k = 0; k < values.length; k += MOST) {
      const chunk: Item<T>[] = [];
      for (const value of values.slice(k, k + MOST)) chunk.push({ value, chunk });
      this.chunks.push(chunk);
    }
    this.count = values.length;
  }

  get length(): number {
    return this.count;
  }

  *items(): Generator<Item<T>> {
    for (const chunk of this.chunks) yield* chunk;
  }

  values(): T[] {
    return this.chunks.flatMap((chunk) => chunk.map((item) => item.value));
  }

  indexOf(item: Item<T>): number {
    let at = 0;
    for (const chunk of this.chunks) {
      if (chunk === item.chunk) return at + chunk.indexOf(item);
      at += chunk.length;
    }
    return -1;
  }

  /** The item at a place; null behind the end. */
  at(index: number): Item<T> | null {
    let left = index;
    for (const chunk of this.chunks) {
      if (left < chunk.length) return chunk[left]!;
      left -= chunk.length;
    }
    return null;
  }

  /** The item behind another; null where that is the last. */
  behind(item: Item<T>): Item<T> | null {
    const own = item.chunk[item.chunk.indexOf(item) + 1];
    if (own) return own;
    for (let k = this.chunks.indexOf(item.chunk) + 1; k < this.chunks.length; k++)
      if (this.chunks[k]!.length > 0) return this.chunks[k]![0]!;
    return null;
  }

  /** Puts a value before an item, or at the end. */
  insert(value: T, before: Item<T> | null): Item<T> {
    if (this.chunks.length === 0) this.chunks.push([]);
    const chunk = before ? before.chunk : this.chunks.at(-1)!;
    const item: Item<T> = { value, chunk };
    chunk.splice(before ? chunk.indexOf(before) : chunk.length, 0, item);
    this.count++;
    if (chunk.length > 2 * MOST) this.split(chunk);
    return item;
  }

  remove(item: Item<T>): void {
    item.chunk.splice(item.chunk.indexOf(item), 1);
    this.count--;
  }

  private split(chunk: Item<T>[]): void {
    const half = chunk.splice(MOST);
    for (const item of half) item.chunk = half;
    this.chunks.splice(this.chunks.indexOf(chunk) + 1, 0, half);
  }
}
