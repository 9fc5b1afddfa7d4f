import { z } from 'zod';

/** Where a card or a step was put by hand. It stays there when the plan changes, as far as the logic allows. */
export const Placed = z.object({
  ref: z.string().min(1).max(200),
  /** So many columns later than the logic has it. */
  later: z.int().min(0).max(200).default(0),
  /** Its middle below the top of its lane, in sizes of the type; null where the layout chooses. */
  y: z.number().min(0).max(5000).nullable().default(null),
});
export type Placed = z.infer<typeof Placed>;

export const placedByHand = z.array(Placed).max(500).default([]);

/** The places with one of them changed. */
export const withPlaced = (list: readonly Placed[], place: Placed): Placed[] => [
  ...list.filter((p) => p.ref !== place.ref),
  ...(place.later > 0 || place.y !== null ? [place] : []),
];
