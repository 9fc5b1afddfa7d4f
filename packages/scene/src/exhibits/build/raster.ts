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
    const { width, depth, colour: points } = this;
    // How far each side goes across for a step down; a level side bounds no row.
    const ab = by === ay ? 0 : (bx - ax) / (by - ay);
    const bc = cy === by ? 0 : (cx - bx) / (cy - by);
    const ca = ay === cy ? 0 : (ax - cx) / (ay - cy);
    for (let row = first; row <= last; row++) {
      const y = row + 0.5;
      let left = Number.POSITIVE_INFINITY;
      let right = Number.NEGATIVE_INFINITY;
      if (ay <= y !== by <= y || (ay !== by && (y === ay || y === by))) {
        const x = ax + ab * (y - ay);
        if (x < left) left = x;
        if (x > right) right = x;
      }
      if (by <= y !== cy <= y || (by !== cy && (y === by || y === cy))) {
        const x = bx + bc * (y - by);
        if (x < left) left = x;
        if (x > right) right = x;
      }
      if (cy <= y !== ay <= y || (cy !== ay && (y === cy || y === ay))) {
        const x = cx + ca * (y - cy);
        if (x < left) left = x;
        if (x > right) right = x;
      }
      const from = Math.max(0, Math.ceil(left - 0.5));
      const to = Math.min(width - 1, Math.floor(right - 0.5));
      let at = row * width + from;
      let d = ad + across * (from + 0.5 - ax) + down * (y - ay);
      if (hatched === 0)
        for (let column = from; column <= to; column++, at++, d += across) {
          if (d >= depth[at]!) continue;
          depth[at] = d;
          points[at] = colour;
        }
      else
        for (let column = from; column <= to; column++, at++, d += across) {
          if (d >= depth[at]! || (column + row) % (hatched * 4) >= hatched) continue;
          depth[at] = d;
          points[at] = colour;
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
    let first = 0;
    let last = 1;
    const dx = bx - ax;
    const dy = by - ay;
    if (dx === 0) {
      if (ax < -thick || ax > this.width + thick) return;
    } else {
      const p = (-thick - ax) / dx;
      const q = (this.width + thick - ax) / dx;
      first = Math.max(first, Math.min(p, q));
      last = Math.min(last, Math.max(p, q));
    }
    if (dy === 0) {
      if (ay < -thick || ay > this.height + thick) return;
    } else {
      const p = (-thick - ay) / dy;
      const q = (this.height + thick - ay) / dy;
      first = Math.max(first, Math.min(p, q));
      last = Math.min(last, Math.max(p, q));
    }
    const from = Math.floor(first * long);
    const to = Math.ceil(last * long);
    const { width, height, depth, colour: points } = this;
    const half = (thick - 1) / 2;
    for (let k = from; k <= to; k++) {
      if (dashed > 0 && k % (dashed * 2) >= dashed) continue;
      const t = k / long;
      const x = Math.round(ax + dx * t - 0.5 - half);
      const y = Math.round(ay + dy * t - 0.5 - half);
      const d = ad + (bd - ad) * t - little;
      for (let row = Math.max(0, y); row < Math.min(height, y + thick); row++)
        for (let column = Math.max(0, x); column < Math.min(width, x + thick); column++) {
          const at = row * width + column;
          if (d <= depth[at]!) points[at] = colour;
        }
    }
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
