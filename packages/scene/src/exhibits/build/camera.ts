import type { Look } from '@clembo/core';

type Vector = readonly [x: number, y: number, z: number];

/** Where a model is seen from: what is in the middle, the directions of the picture, and how wide it is in metres. */
export interface Camera {
  middle: Vector;
  right: Vector;
  up: Vector;
  /** Away from the eye. */
  ahead: Vector;
  /** Metres from left to right, in the plane through the middle. */
  width: number;
  height: number;
  /** Metres from the eye to the middle; null for a view whose lines stay parallel. */
  distance: number | null;
}

/** What is seen: its least and its greatest corner, and the corners of the boxes that it is made of (x, y, z each). */
export interface Bounds {
  least: Vector;
  greatest: Vector;
  corners: Float32Array;
}

const RADIANS = Math.PI / 180;
/** How far the eye is from the middle, in spans of what is seen. */
const FAR = 1.8;
/** Some air about what is seen. */
const AIR = 1.04;

/** The directions of a look: right and up in the picture, and ahead. */
export function directionsOf({ turn, height }: Pick<Look, 'turn' | 'height'>): Pick<Camera, 'right' | 'up' | 'ahead'> {
  const [t, h] = [turn * RADIANS, height * RADIANS];
  const ahead: Vector = [-Math.sin(t) * Math.cos(h), Math.cos(t) * Math.cos(h), -Math.sin(h)];
  const right: Vector = [Math.cos(t), Math.sin(t), 0];
  const up: Vector = [
    right[1] * ahead[2] - right[2] * ahead[1],
    right[2] * ahead[0] - right[0] * ahead[2],
    right[0] * ahead[1] - right[1] * ahead[0],
  ];
  return { right, up, ahead };
}

const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * The camera of a look at what lies within bounds, for a picture of some proportion.
 *
 * Requires: width and height are positive. Ensures: all of the bounds is in the picture unless the look says what is
 * in its middle.
 */
export function cameraOf(look: Look, { least, greatest, corners }: Bounds, width: number, height: number): Camera {
  const directions = directionsOf(look);
  const { right, up, ahead } = directions;
  const centre: Vector = [0, 1, 2].map((k) => (least[k]! + greatest[k]!) / 2) as unknown as Vector;
  const middle = look.middle ?? centre;
  const radius = Math.hypot(...greatest.map((v, k) => v - least[k]!)) / 2 || 1;
  const distance = look.perspective ? FAR * 2 * (look.span === null ? radius : look.span / 2) : null;
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let k = 0; k < corners.length; k += 3) {
    const d: Vector = [corners[k]! - middle[0], corners[k + 1]! - middle[1], corners[k + 2]! - middle[2]];
    const w = distance === null ? 1 : Math.max(0.05, (distance + dot(d, ahead)) / distance);
    const [x, y] = [dot(d, right) / w, dot(d, up) / w];
    [x0, x1, y0, y1] = [Math.min(x0, x), Math.max(x1, x), Math.min(y0, y), Math.max(y1, y)];
  }
  if (look.middle !== null && look.span !== null) {
    const wide = Math.max(look.span, (look.span * width) / height);
    return { ...directions, middle, width: wide, height: (wide * height) / width, distance };
  }
  // The middle of the picture is the middle of what is seen in it.
  const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const shifted: Vector = [0, 1, 2].map((k) => middle[k]! + cx * right[k]! + cy * up[k]!) as unknown as Vector;
  const wide = Math.max(x1 - x0, ((y1 - y0) * width) / height, 0.01) * AIR;
  return { ...directions, middle: shifted, width: wide, height: (wide * height) / width, distance };
}

/**
 * Where a place of the model is in a picture of some width in pixels, from its left upper corner, and how deep: a
 * number that grows away from the eye and is even over the picture.
 */
export function projector(
  camera: Camera,
  pixels: number,
): (x: number, y: number, z: number, into: Float64Array) => void {
  const { middle: m, right: r, up: u, ahead: a, width, height, distance } = camera;
  const scale = pixels / width;
  const [left, top] = [(width / 2) * scale, (height / 2) * scale];
  return (x, y, z, into) => {
    const [dx, dy, dz] = [x - m[0], y - m[1], z - m[2]];
    const deep = dx * a[0] + dy * a[1] + dz * a[2];
    const across = dx * r[0] + dy * r[1] + dz * r[2];
    const high = dx * u[0] + dy * u[1] + dz * u[2];
    if (distance === null) {
      into[0] = left + across * scale;
      into[1] = top - high * scale;
      into[2] = deep;
      return;
    }
    const w = Math.max(1e-3, (distance + deep) / distance);
    into[0] = left + (across / w) * scale;
    into[1] = top - (high / w) * scale;
    into[2] = -distance / w;
  };
}
