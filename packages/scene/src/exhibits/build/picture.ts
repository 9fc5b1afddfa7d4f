import type { Body } from '@clembo/core';
import { encode } from 'fast-png';
import { PAPER } from '../../graph/ink';
import { type Bounds, type Camera, projector } from './camera';
import type { ElementLook } from './look';
import { Raster } from './raster';

/** A model to be drawn: its bodies, which elements are meant, and by how much each is lifted. */
export interface ModelScene {
  body: Body;
  /** 1 for each element that is meant. */
  meant: Uint8Array;
  /** Metres that an element is lifted by; null where none is. */
  lifted: Float32Array | null;
  /** All above this height is cut away; null cuts nothing. */
  cut: number | null;
}

/** The bounds of what is meant; null where none of it has a body. */
export function boundsOf({ body, meant, lifted }: Omit<ModelScene, 'cut'>): Bounds | null {
  const least = [Infinity, Infinity, Infinity];
  const greatest = [-Infinity, -Infinity, -Infinity];
  const corners: number[] = [];
  for (let e = 0; e < meant.length; e++) {
    if (!meant[e] || Number.isNaN(body.boxes[e * 6]!)) continue;
    const up = lifted ? lifted[e]! : 0;
    const box = Array.from({ length: 6 }, (_, k) => body.boxes[e * 6 + k]! + (k % 3 === 2 ? up : 0));
    for (let k = 0; k < 3; k++) {
      least[k] = Math.min(least[k]!, box[k]!);
      greatest[k] = Math.max(greatest[k]!, box[k + 3]!);
    }
    for (let k = 0; k < 8; k++) corners.push(box[k & 1 ? 3 : 0]!, box[k & 2 ? 4 : 1]!, box[k & 4 ? 5 : 2]!);
  }
  if (corners.length === 0) return null;
  return {
    least: least as [number, number, number],
    greatest: greatest as [number, number, number],
    corners: Float32Array.from(corners),
  };
}

/**
 * Metres that elements are lifted by, so that storeys stand apart: the lowest stays, each next one goes up once more.
 * Storeys are in the order of the heights of their lowest element; what has none goes with the ground.
 */
export function liftedBy(storeys: readonly string[], body: Body, lift: number): Float32Array | null {
  if (lift === 0) return null;
  const lowest = new Map<string, number[]>();
  storeys.forEach((s, e) => {
    const z = body.boxes[e * 6 + 2]!;
    if (s === '' || Number.isNaN(z)) return;
    const own = lowest.get(s);
    if (own) own.push(z);
    else lowest.set(s, [z]);
  });
  const middle = (list: number[]) => list.sort((a, b) => a - b)[list.length >> 1]!;
  const order = [...lowest].map(([s, list]) => [s, middle(list)] as const).sort((a, b) => a[1] - b[1]);
  const level = new Map(order.map(([s], k) => [s, k]));
  return Float32Array.from(storeys, (s) => (level.get(s) ?? 0) * lift);
}

const number = (colour: string): number => Number.parseInt(colour.slice(1), 16);

/** A colour of a face that looks into some direction: the more it looks away from the light, the darker. */
function shaded(colour: number, light: number): number {
  const channel = (shift: number) => Math.round(((colour >> shift) & 255) * light) << shift;
  return channel(16) | channel(8) | channel(0);
}

/** Draws a model: faces first, then edges, faint ones before those that matter. */
export function drawModel(
  scene: ModelScene,
  looks: readonly ElementLook[],
  camera: Camera,
  width: number,
  height: number,
): Raster {
  const raster = new Raster(width, height, number(PAPER));
  const { body, meant, lifted, cut } = scene;
  const { corners, triangles, edges } = body;
  const project = projector(camera, width);
  const places = new Float64Array(corners.length);
  const at = new Float64Array(3);
  for (let e = 0; e < meant.length; e++) {
    if (!meant[e] || (looks[e]!.face === null && looks[e]!.edge === null)) continue;
    const up = lifted ? lifted[e]! : 0;
    for (let c = body.cornersOf[e]!; c < body.cornersOf[e + 1]!; c++) {
      project(corners[c * 3]!, corners[c * 3 + 1]!, corners[c * 3 + 2]! + up, at);
      places.set(at, c * 3);
    }
  }
  const lightOf = lightFrom(camera);
  const P = places;
  const [a, b, c] = [new Float64Array(3), new Float64Array(3), new Float64Array(3)];
  for (let e = 0; e < meant.length; e++) {
    const look = looks[e]!;
    if (!meant[e] || look.face === null) continue;
    const up = lifted ? lifted[e]! : 0;
    const [low, high] = [body.boxes[e * 6 + 2]!, body.boxes[e * 6 + 5]!];
    const level = look.fill >= 1 ? Number.POSITIVE_INFINITY : low + (high - low) * Math.max(0, look.fill);
    const isCut = cut !== null && high > cut;
    const [face, above] = [number(look.face), look.above === null ? -1 : number(look.above)];
    const hatched = look.hatched ? 4 : 0;
    for (let t = body.trianglesOf[e]!; t < body.trianglesOf[e + 1]!; t += 3) {
      const [i, j, k] = [triangles[t]! * 3, triangles[t + 1]! * 3, triangles[t + 2]! * 3];
      const light = lightOf(corners, i, j, k);
      const whole = level === Number.POSITIVE_INFINITY && !isCut;
      if (whole) {
        raster.triangle(P[i]!, P[i + 1]!, P[i + 2]!, P[j]!, P[j + 1]!, P[j + 2]!, P[k]!, P[k + 1]!, P[k + 2]!, shaded(face, light), hatched); // biome-ignore format: one call
        continue;
      }
      const all = [point(corners, i), point(corners, j), point(corners, k)];
      const kept = isCut ? below(all, cut!, true) : all;
      for (const [polygon, colour] of [
        [below(kept, level, true), face],
        [below(kept, level, false), above],
      ] as const) {
        if (colour < 0 || polygon.length < 3) continue;
        for (let n = 1; n + 1 < polygon.length; n++) {
          project(...raised(polygon[n]!, up), b);
          project(...raised(polygon[n + 1]!, up), c);
          project(...raised(polygon[0]!, up), a);
          raster.triangle(
            a[0]!,
            a[1]!,
            a[2]!,
            b[0]!,
            b[1]!,
            b[2]!,
            c[0]!,
            c[1]!,
            c[2]!,
            shaded(colour, light),
            hatched,
          );
        }
      }
    }
  }
  // Lines stand a little before the faces that they bound.
  const deep = Math.max(camera.width, camera.height);
  const little = camera.distance === null ? deep * 0.002 : (deep * 0.002) / camera.distance;
  for (const wanted of [false, true])
    for (let e = 0; e < meant.length; e++) {
      const look = looks[e]!;
      if (!meant[e] || look.edge === null || look.strong !== wanted) continue;
      const colour = number(look.edge);
      const thick = look.strong ? 4 : 2;
      const up = lifted ? lifted[e]! : 0;
      const isCut = cut !== null && body.boxes[e * 6 + 5]! > cut;
      for (let t = body.edgesOf[e]!; t < body.edgesOf[e + 1]!; t += 2) {
        const [i, j] = [edges[t]! * 3, edges[t + 1]! * 3];
        if (isCut) {
          const line = below([point(corners, i), point(corners, j)], cut!, true, false);
          if (line.length < 2) continue;
          project(...raised(line[0]!, up), a);
          project(...raised(line[1]!, up), b);
          raster.line(a[0]!, a[1]!, a[2]!, b[0]!, b[1]!, b[2]!, colour, thick, little, look.dashed ? 6 : 0);
          continue;
        }
        raster.line(P[i]!, P[i + 1]!, P[i + 2]!, P[j]!, P[j + 1]!, P[j + 2]!, colour, thick, little, look.dashed ? 6 : 0); // biome-ignore format: one call
      }
    }
  return raster;
}

type Corner = [number, number, number];
const point = (c: Float32Array, i: number): Corner => [c[i]!, c[i + 1]!, c[i + 2]!];
const raised = ([x, y, z]: Corner, up: number): Corner => [x, y, z + up];

/** The part of a polygon, or of a line, below a height or above it (Sutherland and Hodgman 1974). */
function below(polygon: readonly Corner[], height: number, isBelow: boolean, closed = true): Corner[] {
  if (height === Number.POSITIVE_INFINITY) return isBelow ? [...polygon] : [];
  const out: Corner[] = [];
  const inside = (p: Corner) => (isBelow ? p[2] <= height : p[2] >= height);
  for (let n = 0; n < polygon.length; n++) {
    const [p, q] = [polygon[n]!, polygon[(n + 1) % polygon.length]!];
    if (inside(p)) out.push(p);
    if (n === polygon.length - 1 && !closed) break;
    if (inside(p) !== inside(q)) {
      const t = (height - p[2]) / (q[2] - p[2]);
      out.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, height]);
    }
  }
  return out;
}

/** How bright faces are: light comes from above, over the left shoulder of who looks. */
function lightFrom({ right, up, ahead }: Camera) {
  const l = [0, 1, 2].map((k) => -0.35 * right[k]! + 0.5 * up[k]! - 0.45 * ahead[k]! + (k === 2 ? 0.6 : 0));
  const long = Math.hypot(...l);
  const [lx, ly, lz] = l.map((v) => v / long) as Corner;
  const [ax, ay, az] = ahead;
  return (c: Float32Array, i: number, j: number, k: number): number => {
    const ux = c[j]! - c[i]!;
    const uy = c[j + 1]! - c[i + 1]!;
    const uz = c[j + 2]! - c[i + 2]!;
    const vx = c[k]! - c[i]!;
    const vy = c[k + 1]! - c[i + 1]!;
    const vz = c[k + 2]! - c[i + 2]!;
    const nx = uy * vz - uz * vy;
    const ny = uz * vx - ux * vz;
    const nz = ux * vy - uy * vx;
    const length = Math.sqrt(nx * nx + ny * ny + nz * nz);
    if (length === 0) return 1;
    // Either side of a face may be seen; the one that is looks at the eye.
    const side = nx * ax + ny * ay + nz * az > 0 ? -1 : 1;
    const light = 0.7 + 0.3 * Math.max(0, (side * (nx * lx + ny * ly + nz * lz)) / length);
    // Few steps of light: the same face is the same colour in all its triangles.
    return Math.round(light * 64) / 64;
  };
}

/** A picture as a PNG in a data URL. */
export function pngOf(raster: Raster): { data: string; width: number; height: number } {
  const { width, height, data } = raster.halved();
  const png = encode({ width, height, data, channels: 3, depth: 8 });
  let text = '';
  for (let k = 0; k < png.length; k += 0x8000) text += String.fromCharCode(...png.subarray(k, k + 0x8000));
  return { data: `data:image/png;base64,${btoa(text)}`, width, height };
}
