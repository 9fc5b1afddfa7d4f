import { z } from 'zod';
import { Condition } from '../select/condition';

/** From where a model is seen. Angles in degrees; height is what the eye looks down by. */
export const Look = z.object({
  /** Where the eye stands around the model: 0 in the south, 90 in the east. */
  turn: z.number().min(-360).max(360).default(35),
  height: z.number().min(-90).max(90).default(30),
  /** With lines that meet far off, or straight. */
  perspective: z.boolean().default(false),
  /** What is in the middle, in metres of the model, and how much of it is seen; null for all of it. */
  middle: z.tuple([z.number(), z.number(), z.number()]).nullable().default(null),
  span: z.number().positive().nullable().default(null),
  /** Storeys stand apart by so many metres. */
  lift: z.number().min(0).max(1000).default(0),
  /** All above a height is cut away. */
  cut: z.number().nullable().default(null),
});
export type Look = z.infer<typeof Look>;

/** A place to look from, with what is looked at and when, under a name. */
export const BuildView = z.object({
  id: z.string().min(1).max(100),
  name: z.string().min(1).max(200),
  look: Look,
  where: Condition,
  /** A day number; null for the status date. */
  day: z.int().nullable().default(null),
});
export type BuildView = z.infer<typeof BuildView>;
