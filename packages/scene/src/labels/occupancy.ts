/**
 * Which places of a page are taken: boxes in a grid of cells, so that asking whether a box is free looks only
 * at its neighbours. Boxes that touch do not overlap.
 */
export class Occupancy {
  private readonly columns: number;
  private readonly rows: number;
  private readonly head: Int32Array;
  private next = new Int32Array(1024);
  private boxOf = new Int32Array(1024);
  private boxes = new Float64Array(1024);
  private entries = 0;
  private count = 0;

  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly cellWidth = 36,
    private readonly cellHeight = 10,
  ) {
    this.columns = Math.max(1, Math.ceil(width / cellWidth));
    this.rows = Math.max(1, Math.ceil(height / cellHeight));
    this.head = new Int32Array(this.columns * this.rows).fill(-1);
  }

  /** True when the box lies on the page and overlaps nothing that was added. */
  isFree(left: number, top: number, right: number, bottom: number): boolean {
    if (left < 0 || top < 0 || right > this.width || bottom > this.height) return false;
    const { boxes, next, head, boxOf } = this;
    const c1 = this.column(right);
    const r1 = this.row(bottom);
    for (let r = this.row(top); r <= r1; r++) {
      for (let c = this.column(left); c <= c1; c++) {
        for (let e = head[r * this.columns + c]!; e >= 0; e = next[e]!) {
          const b = boxOf[e]! * 4;
          if (boxes[b]! < right && boxes[b + 2]! > left && boxes[b + 1]! < bottom && boxes[b + 3]! > top) return false;
        }
      }
    }
    return true;
  }

  add(left: number, top: number, right: number, bottom: number): void {
    const b = this.count++;
    if (b * 4 + 4 > this.boxes.length) this.boxes = grown(this.boxes);
    const { boxes } = this;
    boxes[b * 4] = left;
    boxes[b * 4 + 1] = top;
    boxes[b * 4 + 2] = right;
    boxes[b * 4 + 3] = bottom;
    const c1 = this.column(right);
    const r1 = this.row(bottom);
    for (let r = this.row(top); r <= r1; r++) {
      for (let c = this.column(left); c <= c1; c++) {
        if (this.entries === this.next.length) {
          this.next = grown(this.next);
          this.boxOf = grown(this.boxOf);
        }
        const cell = r * this.columns + c;
        this.boxOf[this.entries] = b;
        this.next[this.entries] = this.head[cell]!;
        this.head[cell] = this.entries++;
      }
    }
  }

  private column(x: number): number {
    const c = Math.floor(x / this.cellWidth);
    return c < 0 ? 0 : c >= this.columns ? this.columns - 1 : c;
  }

  private row(y: number): number {
    const r = Math.floor(y / this.cellHeight);
    return r < 0 ? 0 : r >= this.rows ? this.rows - 1 : r;
  }
}

function grown<T extends Int32Array | Float64Array>(array: T): T {
  const larger = new (array.constructor as new (n: number) => T)(array.length * 2);
  larger.set(array as never);
  return larger;
}
