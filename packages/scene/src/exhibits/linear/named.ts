import type { PlaceStyle } from '@clembo/core';

/** Points and stretches of a line that the page names, in its unit. */
export interface Named {
  stations: { name: string; at: number; colour?: string; style?: PlaceStyle }[];
  zones: { name: string; from: number; to: number; colour?: string; style?: PlaceStyle }[];
}
