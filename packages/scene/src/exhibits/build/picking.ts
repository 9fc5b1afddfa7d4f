import type { Body } from '@clembo/core';
import type { Camera } from './camera';
import { projector } from './camera';

type Vector = [number, number, number];

/** What is seen of a model: which elements are, where they are lifted to, and what is cut away. */
export interface Seen {
  body: Body;
  /** 1 for each element that can be pointed at. */
  solid: Uint8Array;
  lifted: Float32Array | null;
  cut: number | null;
}

/** The ray through a point of a picture; x and y as shares of its width and height, from its left upper corner. */
function rayOf(camera: Camera, x: number, y: number): { from: Vector; along: Vector } {
  const { middle: m, right: r, up: u, ahead: a, width, height, distance } = camera;
  const [sx, sy] = [(x - 0.5) * width, (0.5 - y) * height];
  const at = (k: 0 | 1 | 2) => m[k] + r[k] * sx + u[k] * sy;
  if (distance === null) {
    const far = 1e5;
    return { from: [at(0) - a[0] * far, at(1) - a[1] * far, at(2) - a[2] * far], along: [a[0], a[1], a[2]] };
  }
  const eye: Vector = [m[0] - a[0] * distance, m[1] - a[1] * distance, m[2] - a[2] * distance];
  return { from: eye, along: [at(0) - eye[0], at(1) - eye[1], at(2) - eye[2]] };
}

/** The element that is seen at a point of a picture; −1 where there is none. Triangles: Möller and Trumbore 1997. */
export function elementAt({ body, solid, lifted, cut }: Seen, camera: Camera, x: number, y: number): number {
  const { from, along } = rayOf(camera, x, y);
  let [best, nearest] = [-1, Number.POSITIVE_INFINITY];
  for (let e = 0; e < solid.length; e++) {
    if (!solid[e]) continue;
    const up = lifted ? lifted[e]! : 0;
    const o: Vector = [from[0], from[1], from[2] - up];
    if (!meetsBox(body.boxes, e * 6, o, along, nearest)) continue;
    for (let t = body.trianglesOf[e]!; t < body.trianglesOf[e + 1]!; t += 3) {
      const d = meetsTriangle(body, t, o, along);
      if (d <= 0 || d >= nearest) continue;
      if (cut !== null && o[2] + along[2] * d > cut) continue;
      [best, nearest] = [e, d];
    }
  }
  return best;
}

function meetsBox(boxes: Float32Array, at: number, o: Vector, d: Vector, nearest: number): boolean {
  let [near, far] = [0, nearest];
  for (let k = 0; k < 3; k++) {
    const [low, high] = [boxes[at + k]! - 1e-4, boxes[at + 3 + k]! + 1e-4];
    if (Number.isNaN(low)) return false;
    if (d[k] === 0) {
      if (o[k]! < low || o[k]! > high) return false;
      continue;
    }
    const [a, b] = [(low - o[k]!) / d[k]!, (high - o[k]!) / d[k]!];
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
    if (near > far) return false;
  }
  return true;
}

/** How far along a ray a triangle is; −1 where it is not met. */
function meetsTriangle({ corners: c, triangles }: Body, t: number, o: Vector, d: Vector): number {
  const [i, j, k] = [triangles[t]! * 3, triangles[t + 1]! * 3, triangles[t + 2]! * 3];
  const [ux, uy, uz] = [c[j]! - c[i]!, c[j + 1]! - c[i + 1]!, c[j + 2]! - c[i + 2]!];
  const [vx, vy, vz] = [c[k]! - c[i]!, c[k + 1]! - c[i + 1]!, c[k + 2]! - c[i + 2]!];
  const [px, py, pz] = [d[1] * vz - d[2] * vy, d[2] * vx - d[0] * vz, d[0] * vy - d[1] * vx];
  const det = ux * px + uy * py + uz * pz;
  if (Math.abs(det) < 1e-12) return -1;
  const [sx, sy, sz] = [o[0] - c[i]!, o[1] - c[i + 1]!, o[2] - c[i + 2]!];
  const u = (sx * px + sy * py + sz * pz) / det;
  if (u < 0 || u > 1) return -1;
  const [qx, qy, qz] = [sy * uz - sz * uy, sz * ux - sx * uz, sx * uy - sy * ux];
  const v = (d[0] * qx + d[1] * qy + d[2] * qz) / det;
  if (v < 0 || u + v > 1) return -1;
  return (vx * qx + vy * qy + vz * qz) / det;
}

/** The elements whose middles lie in a rectangle of a picture, in shares of its width and height. */
export function elementsIn(
  { body, solid, lifted }: Seen,
  camera: Camera,
  box: { x0: number; y0: number; x1: number; y1: number },
): number[] {
  const project = projector(camera, 1);
  const proportion = camera.height / camera.width;
  const at = new Float64Array(3);
  const found: number[] = [];
  for (let e = 0; e < solid.length; e++) {
    const b = e * 6;
    if (!solid[e] || Number.isNaN(body.boxes[b]!)) continue;
    const middle = [0, 1, 2].map((k) => (body.boxes[b + k]! + body.boxes[b + 3 + k]!) / 2) as Vector;
    project(middle[0], middle[1], middle[2] + (lifted ? lifted[e]! : 0), at);
    const [x, y] = [at[0]!, at[1]! / proportion];
    if (x >= box.x0 && x <= box.x1 && y >= box.y0 && y <= box.y1) found.push(e);
  }
  return found;
}
