/** FNV-1a (Fowler, Noll, Vo) over UTF-16 units, its upper bits mixed into the lower ones. */
function hashOf(text: string): number {
  let h = 0x811c9dc5 | 0;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h ^ (h >>> 15);
}

/**
 * Positions of items by their unique reference; of several with the same one, the first. Open addressing over
 * arrays of the size that is needed: built some four times as fast as a Map of the same content.
 */
export class RefIndex {
  private readonly mask: number;
  /** Position plus one, 0 for a free place. */
  private readonly places: Int32Array;
  private readonly hashes: Int32Array;
  /** 1 for an item whose reference stands before it already. */
  readonly isDouble: Uint8Array;

  constructor(private readonly items: readonly { ref: string }[]) {
    let size = 16;
    while (size < items.length * 2) size *= 2;
    this.mask = size - 1;
    this.places = new Int32Array(size);
    this.hashes = new Int32Array(items.length);
    this.isDouble = new Uint8Array(items.length);
    for (let i = 0; i < items.length; i++) {
      const hash = hashOf(items[i]!.ref);
      this.hashes[i] = hash;
      const place = this.placeOf(items[i]!.ref, hash);
      if (this.places[place] === 0) this.places[place] = i + 1;
      else this.isDouble[i] = 1;
    }
  }

  get(ref: string): number | undefined {
    const found = this.places[this.placeOf(ref, hashOf(ref))]!;
    return found === 0 ? undefined : found - 1;
  }

  has(ref: string): boolean {
    return this.get(ref) !== undefined;
  }

  /** The place that holds the reference, or the free one where the search for it ends. */
  private placeOf(ref: string, hash: number): number {
    const { mask, places, hashes, items } = this;
    for (let k = hash & mask; ; k = (k + 1) & mask) {
      const at = places[k]! - 1;
      if (at < 0 || (hashes[at] === hash && items[at]!.ref === ref)) return k;
    }
  }
}
