import type { ElementLook } from './look';

/** Bytes that the look of one element takes. */
export const LOOK_BYTES = 16;

/**
 * Looks as bytes, four by four: face, above and edge (red, green, blue, 255 where it is drawn), then the share of the
 * height that is filled (255 for all), and 255 for hatched, strong and dashed.
 */
export function packLooks(looks: readonly ElementLook[]): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(looks.length * LOOK_BYTES);
  looks.forEach((look, e) => {
    const at = e * LOOK_BYTES;
    [look.face, look.above, look.edge].forEach((colour, k) => {
      if (colour === null) return;
      const v = Number.parseInt(colour.slice(1), 16);
      bytes[at + k * 4] = v >> 16;
      bytes[at + k * 4 + 1] = (v >> 8) & 255;
      bytes[at + k * 4 + 2] = v & 255;
      bytes[at + k * 4 + 3] = 255;
    });
    bytes[at + 12] = Math.round(Math.max(0, Math.min(1, look.fill)) * 255);
    bytes[at + 13] = look.hatched ? 255 : 0;
    bytes[at + 14] = look.strong ? 255 : 0;
    bytes[at + 15] = look.dashed ? 255 : 0;
  });
  return bytes;
}
