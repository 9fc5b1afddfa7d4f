/**
 * A shape that elements share, in metres, as triangles. Edges are the lines that a person would draw: where two faces
 * meet at an angle, and where a face ends.
 */
export interface Shape {
  /** x, y, z of each corner; z is up. */
  corners: Float32Array;
  /** Three corners a triangle. */
  triangles: Uint32Array;
  /** Two corners an edge. */
  edges: Uint32Array;
}

/** A shape where an element has it: its position, and the columns of an affine transformation (3 × 4). */
export interface Part {
  element: number;
  shape: number;
  place: Float64Array;
}

/** The bodies of all elements of a model. Places are about an origin, so that large coordinates lose nothing. */
export interface ModelGeometry {
  origin: [x: number, y: number, z: number];
  shapes: Shape[];
  parts: Part[];
}

/** All bodies of one or several models in the same place: element by element, corners where they stand. */
export interface Body {
  corners: Float32Array;
  triangles: Uint32Array;
  edges: Uint32Array;
  /** Behind the last element, by element, in corners, triangles (times three) and edges (times two). */
  cornersOf: Uint32Array;
  trianglesOf: Uint32Array;
  edgesOf: Uint32Array;
  /** Least and greatest x, y, z by element; NaN where it has no body. */
  boxes: Float32Array;
}

/** Angles below this between two faces are no edge, so that the side of a pipe is one: cosine of 40 degrees. */
const SMOOTH = Math.cos((40 * Math.PI) / 180);
/** Corners that are nearer than this are the same, in metres. */
const SAME = 1e-4;

/** Finds the edges of triangles: where faces meet at an angle of 40 degrees and more, or where a face ends. */
export function edgesOf(corners: Float32Array, triangles: Uint32Array): Uint32Array {
  // Corners in the same place are one, whatever normals or colours they had.
  const same = new Uint32Array(corners.length / 3);
  const known = new Map<string, number>();
  for (let c = 0; c < same.length; c++) {
    const key = `${Math.round(corners[c * 3]! / SAME)},${Math.round(corners[c * 3 + 1]! / SAME)},${Math.round(corners[c * 3 + 2]! / SAME)}`;
    const first = known.get(key);
    if (first === undefined) known.set(key, c);
    same[c] = first ?? c;
  }
  const faces = triangles.length / 3;
  const normals = new Float64Array(faces * 3);
  const sides = new Map<number, number[]>();
  const ends: [number, number][] = [];
  const index = new Map<number, number>();
  for (let f = 0; f < faces; f++) {
    const [a, b, c] = [same[triangles[f * 3]!]!, same[triangles[f * 3 + 1]!]!, same[triangles[f * 3 + 2]!]!];
    const n = normalOf(corners, a, b, c);
    normals.set(n, f * 3);
    if (n[0] === 0 && n[1] === 0 && n[2] === 0) continue;
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const key = Math.min(p, q) * same.length + Math.max(p, q);
      let at = index.get(key);
      if (at === undefined) {
        at = ends.length;
        index.set(key, at);
        ends.push([Math.min(p, q), Math.max(p, q)]);
        sides.set(at, []);
      }
      sides.get(at)!.push(f);
    }
  }
  const edges: number[] = [];
  ends.forEach(([p, q], at) => {
    const own = sides.get(at)!;
    const [f, g] = own as [number, number];
    const flat =
      own.length === 2 &&
      normals[f * 3]! * normals[g * 3]! +
        normals[f * 3 + 1]! * normals[g * 3 + 1]! +
        normals[f * 3 + 2]! * normals[g * 3 + 2]! >
        SMOOTH;
    if (!flat) edges.push(p, q);
  });
  return Uint32Array.from(edges);
}

function normalOf(c: Float32Array, i: number, j: number, k: number): [number, number, number] {
  const [ux, uy, uz] = [c[j * 3]! - c[i * 3]!, c[j * 3 + 1]! - c[i * 3 + 1]!, c[j * 3 + 2]! - c[i * 3 + 2]!];
  const [vx, vy, vz] = [c[k * 3]! - c[i * 3]!, c[k * 3 + 1]! - c[i * 3 + 1]!, c[k * 3 + 2]! - c[i * 3 + 2]!];
  const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const;
  const length = Math.hypot(...n);
  return length < 1e-12 ? [0, 0, 0] : [n[0] / length, n[1] / length, n[2] / length];
}

/** A box from a least to a greatest corner. */
export function boxShape([x0, y0, z0]: readonly number[], [x1, y1, z1]: readonly number[]): Shape {
  const at = (k: number) => [k & 1 ? x1! : x0!, k & 2 ? y1! : y0!, k & 4 ? z1! : z0!];
  const corners = Float32Array.from([0, 1, 2, 3, 4, 5, 6, 7].flatMap(at));
  const triangles = Uint32Array.from([
    0, 2, 3, 0, 3, 1, 4, 5, 7, 4, 7, 6, 0, 1, 5, 0, 5, 4, 2, 6, 7, 2, 7, 3, 0, 4, 6, 0, 6, 2, 1, 3, 7, 1, 7, 5,
  ]);
  return { corners, triangles, edges: edgesOf(corners, triangles) };
}

/** A transformation that leaves everything where it is. */
export const STAYS = (): Float64Array => Float64Array.from([1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0]);

/** A model and how many elements it has. */
export interface ModelBody {
  count: number;
  geometry: ModelGeometry;
}

/**
 * The bodies of models as one, elements numbered through from model to model. The first model's origin is everybody's:
 * what is far from it is where it is in the world.
 */
export function bodyOf(models: readonly ModelBody[]): Body {
  const count = models.reduce((n, m) => n + m.count, 0);
  const [cornersOf, trianglesOf, edges] = [
    new Uint32Array(count + 1),
    new Uint32Array(count + 1),
    new Uint32Array(count + 1),
  ];
  let base = 0;
  for (const { count: own, geometry } of models) {
    for (const { element, shape } of geometry.parts) {
      const s = geometry.shapes[shape]!;
      cornersOf[base + element + 1]! += s.corners.length / 3;
      trianglesOf[base + element + 1]! += s.triangles.length;
      edges[base + element + 1]! += s.edges.length;
    }
    base += own;
  }
  for (const starts of [cornersOf, trianglesOf, edges]) for (let e = 0; e < count; e++) starts[e + 1]! += starts[e]!;
  const body: Body = {
    corners: new Float32Array(cornersOf[count]! * 3),
    triangles: new Uint32Array(trianglesOf[count]!),
    edges: new Uint32Array(edges[count]!),
    cornersOf,
    trianglesOf,
    edgesOf: edges,
    boxes: new Float32Array(count * 6).fill(Number.NaN),
  };
  const [cornerAt, triangleAt, edgeAt] = [cornersOf.slice(), trianglesOf.slice(), edges.slice()];
  const first = models[0]?.geometry.origin ?? [0, 0, 0];
  base = 0;
  for (const { count: own, geometry } of models) {
    const [dx, dy, dz] = geometry.origin.map((v, k) => v - first[k]!) as [number, number, number];
    for (const { element, shape, place: m } of geometry.parts) {
      const e = base + element;
      const s = geometry.shapes[shape]!;
      const at = cornerAt[e]!;
      const box = e * 6;
      for (let c = 0; c < s.corners.length; c += 3) {
        const [x, y, z] = [s.corners[c]!, s.corners[c + 1]!, s.corners[c + 2]!];
        const o = at * 3 + c;
        const px = (body.corners[o] = m[0]! * x + m[3]! * y + m[6]! * z + m[9]! + dx);
        const py = (body.corners[o + 1] = m[1]! * x + m[4]! * y + m[7]! * z + m[10]! + dy);
        const pz = (body.corners[o + 2] = m[2]! * x + m[5]! * y + m[8]! * z + m[11]! + dz);
        if (!(px >= body.boxes[box]!)) body.boxes[box] = px;
        if (!(py >= body.boxes[box + 1]!)) body.boxes[box + 1] = py;
        if (!(pz >= body.boxes[box + 2]!)) body.boxes[box + 2] = pz;
        if (!(px <= body.boxes[box + 3]!)) body.boxes[box + 3] = px;
        if (!(py <= body.boxes[box + 4]!)) body.boxes[box + 4] = py;
        if (!(pz <= body.boxes[box + 5]!)) body.boxes[box + 5] = pz;
      }
      for (let k = 0; k < s.triangles.length; k++) body.triangles[triangleAt[e]! + k] = at + s.triangles[k]!;
      for (let k = 0; k < s.edges.length; k++) body.edges[edgeAt[e]! + k] = at + s.edges[k]!;
      cornerAt[e]! += s.corners.length / 3;
      triangleAt[e]! += s.triangles.length;
      edgeAt[e]! += s.edges.length;
    }
    base += own;
  }
  return body;
}

const MAGIC = 0x4d424c43;

/**
 * A geometry as bytes: numbers of shapes and parts, then each array with its length before it, all in the byte order
 * of little-endian machines. Equal shapes stand there once.
 */
export function packGeometry({ origin, shapes, parts }: ModelGeometry): Uint8Array {
  const size =
    8 * 4 +
    shapes.reduce((n, s) => n + 12 + s.corners.byteLength + s.triangles.byteLength + s.edges.byteLength, 0) +
    parts.length * (8 + 12 * 8);
  const bytes = new Uint8Array(size + 16);
  const view = new DataView(bytes.buffer);
  let at = 0;
  const whole = (v: number) => {
    view.setUint32(at, v, true);
    at += 4;
  };
  const real = (v: number) => {
    view.setFloat64(at, v, true);
    at += 8;
  };
  whole(MAGIC);
  whole(shapes.length);
  whole(parts.length);
  for (const v of origin) real(v);
  for (const s of shapes) {
    whole(s.corners.length);
    whole(s.triangles.length);
    whole(s.edges.length);
    for (const v of s.corners) {
      view.setFloat32(at, v, true);
      at += 4;
    }
    for (const v of s.triangles) whole(v);
    for (const v of s.edges) whole(v);
  }
  for (const p of parts) {
    whole(p.element);
    whole(p.shape);
    for (const v of p.place) real(v);
  }
  return bytes.subarray(0, at);
}

/** Why bytes are no geometry. */
export class GeometryRefused extends Error {}

/** @throws GeometryRefused */
export function unpackGeometry(bytes: Uint8Array): ModelGeometry {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  const need = (n: number) => {
    if (at + n > bytes.length) throw new GeometryRefused('The geometry ends before it is complete.');
  };
  const whole = () => {
    need(4);
    at += 4;
    return view.getUint32(at - 4, true);
  };
  const real = () => {
    need(8);
    at += 8;
    return view.getFloat64(at - 8, true);
  };
  if (whole() !== MAGIC) throw new GeometryRefused('These bytes are no geometry.');
  const [shapeCount, partCount] = [whole(), whole()];
  const origin: [number, number, number] = [real(), real(), real()];
  const shapes: Shape[] = [];
  for (let k = 0; k < shapeCount; k++) {
    const [c, t, e] = [whole(), whole(), whole()];
    need((c + t + e) * 4);
    const corners = new Float32Array(c);
    for (let i = 0; i < c; i++, at += 4) corners[i] = view.getFloat32(at, true);
    const triangles = new Uint32Array(t);
    for (let i = 0; i < t; i++) triangles[i] = whole();
    const edges = new Uint32Array(e);
    for (let i = 0; i < e; i++) edges[i] = whole();
    shapes.push({ corners, triangles, edges });
  }
  const parts: Part[] = [];
  for (let k = 0; k < partCount; k++) {
    const [element, shape] = [whole(), whole()];
    const place = new Float64Array(12);
    for (let i = 0; i < 12; i++) place[i] = real();
    parts.push({ element, shape, place });
  }
  return { origin, shapes, parts };
}
