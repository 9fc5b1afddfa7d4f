/**
 * A picture of triangles and lines, hidden where something is before them: a z-buffer over plain arrays, the same
 * wherever it runs (Catmull 1974; scan conversion as in Foley and van Dam, chapter 15).
 */
export class Raster {
  /** One number a point: red, green and blue, eight bits each. */
  readonly colour: Uint32Array;
  private readonly depth: Float32Array;

  constructor(
    readonly width: number,
    readonly height: number,
    private readonly paper: number,
  ) {
    this.colour = new Uint32Array(width * height).fill(paper);
    this.depth = new Float32Array(width * height).fill(Number.POSITIVE_INFINITY);
  }

  /**
   * Fills a triangle. Depths grow away from the eye and are even over the picture.
   * @param hatched only slanting stripes of it are filled, so many points wide; 0 fills all of it
   */
  triangle(
    ax: number,
    ay: number,
    ad: number,
    bx: number,
    by: number,
    bd: number,
    cx: number,
    cy: number,
    cd: number,
    colour: number,
    hatched = 0,
  ): void {
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (area === 0 || !Number.isFinite(area)) return;
    // Depth is even: how it grows across and down.
    const across = ((bd - ad) * (cy - ay) - (cd - ad) * (by - ay)) / area;
    const down = ((cd - ad) * (bx - ax) - (bd - ad) * (cx - ax)) / area;
    const first = Math.max(0, Math.ceil(Math.min(ay, by, cy) - 0.5));
    const last = Math.min(this.height - 1, Math.floor(Math.max(ay, by, cy) - 0.5));
    const { width, depth } = this;
    for (let row = first; row <= last; row++) {
      const y = row + 0.5;
      let [left, right] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
      for (let side = 0; side < 3; side++) {
        const [px, py, qx, qy] = side === 0 ? [ax, ay, bx, by] : side === 1 ? [bx, by, cx, cy] : [cx, cy, ax, ay];
        if (py === qy || (y < py && y < qy) || (y > py && y > qy)) continue;
        const x = px + ((qx - px) * (y - py)) / (qy - py);
        if (x < left) left = x;
        if (x > right) right = x;
      }
      const from = Math.max(0, Math.ceil(left - 0.5));
      const to = Math.min(width - 1, Math.floor(right - 0.5));
      let at = row * width + from;
      let d = ad + across * (from + 0.5 - ax) + down * (y - ay);
      for (let column = from; column <= to; column++, at++, d += across) {
        if (d >= depth[at]! || (hatched > 0 && (column + row) % (hatched * 4) >= hatched)) continue;
        depth[at] = d;
        this.colour[at] = colour;
      }
    }
  }

  /** Draws a line where nothing is before it by more than a little. */
  line(
    ax: number,
    ay: number,
    ad: number,
    bx: number,
    by: number,
    bd: number,
    colour: number,
    thick: number,
    little: number,
    dashed = 0,
  ): void {
    const steps = Math.ceil(Math.max(Math.abs(bx - ax), Math.abs(by - ay)));
    if (!Number.isFinite(steps)) return;
    const long = Math.max(1, steps);
    // Of a line that leaves the picture far behind, only what is near it is walked.
    const [from, to] = this.within(ax, ay, bx, by, long, thick);
    const { width, height, depth } = this;
    const half = (thick - 1) / 2;
    for (let k = from; k <= to; k++) {
      if (dashed > 0 && k % (dashed * 2) >= dashed) continue;
      const t = k / long;
      const [x, y] = [Math.round(ax + (bx - ax) * t - 0.5 - half), Math.round(ay + (by - ay) * t - 0.5 - half)];
      const d = ad + (bd - ad) * t - little;
      for (let j = 0; j < thick; j++)
        for (let i = 0; i < thick; i++) {
          const [column, row] = [x + i, y + j];
          if (column < 0 || row < 0 || column >= width || row >= height) continue;
          const at = row * width + column;
          if (d > depth[at]!) continue;
          this.colour[at] = colour;
        }
    }
  }

  private within(ax: number, ay: number, bx: number, by: number, long: number, thick: number): [number, number] {
    let [from, to] = [0, 1];
    for (const [p, d, most] of [
      [ax, bx - ax, this.width],
      [ay, by - ay, this.height],
    ] as const) {
      if (d === 0) {
        if (p < -thick || p > most + thick) return [1, 0];
        continue;
      }
      const [a, b] = [(-thick - p) / d, (most + thick - p) / d];
      from = Math.max(from, Math.min(a, b));
      to = Math.min(to, Math.max(a, b));
    }
    return [Math.floor(from * long), Math.ceil(to * long)];
  }

  /** The picture at half its width and height, each point the middle of four: red, green, blue, a byte each. */
  halved(): { width: number; height: number; data: Uint8Array } {
    const [width, height] = [this.width >> 1, this.height >> 1];
    const data = new Uint8Array(width * height * 3);
    const { colour } = this;
    for (let row = 0, at = 0; row < height; row++)
      for (let column = 0; column < width; column++, at += 3) {
        const k = row * 2 * this.width + column * 2;
        const [a, b, c, d] = [colour[k]!, colour[k + 1]!, colour[k + this.width]!, colour[k + this.width + 1]!];
        if (a === b && a === c && a === d) {
          data[at] = a >> 16;
          data[at + 1] = (a >> 8) & 255;
          data[at + 2] = a & 255;
          continue;
        }
        data[at] = ((a >> 16) + (b >> 16) + (c >> 16) + (d >> 16)) >> 2;
        data[at + 1] = (((a >> 8) & 255) + ((b >> 8) & 255) + ((c >> 8) & 255) + ((d >> 8) & 255)) >> 2;
        data[at + 2] = ((a & 255) + (b & 255) + (c & 255) + (d & 255)) >> 2;
      }
    return { width, height, data };
  }

  /** Whether anything was drawn at all. */
  get isEmpty(): boolean {
    return this.colour.every((c) => c === this.paper);
  }
}
