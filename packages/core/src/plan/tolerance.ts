import { z } from 'zod';

const Least = z.number().min(0).max(100_000);

/** How far off something may be: up to `watch` is normal, from `breach` on it is far off, between them it is watched. */
export const Bounds = z
  .object({ watch: Least, breach: Least })
  .refine((b) => b.watch <= b.breach, 'what is normal must not reach beyond what is far off');
export type Bounds = z.infer<typeof Bounds>;

/** How far off is normal, and how far is a risk: dates in working days late, amounts in shares of what was promised. */
export const Tolerance = z.object({ days: Bounds, effort: Bounds, cost: Bounds });
export type Tolerance = z.infer<typeof Tolerance>;

/** Common practice: five days and ten percent off are normal, five weeks and fifty percent are far off. */
export const DEFAULT_TOLERANCE: Tolerance = {
  days: { watch: 5, breach: 25 },
  effort: { watch: 0.1, breach: 0.5 },
  cost: { watch: 0.1, breach: 0.5 },
};

/** A tolerance of its own for what has a value of a code field. */
export const PartTolerance = z.object({
  field: z.string().min(1).max(100),
  code: z.string().max(300),
  tolerance: Tolerance,
});
export type PartTolerance = z.infer<typeof PartTolerance>;

interface Tolerant {
  tolerance: Tolerance;
  tolerances: readonly PartTolerance[];
}

/** The tolerance of what has codes: that of the first part of the plan that it belongs to, else the plan's. */
export const toleranceOf = (plan: Tolerant, { codes }: { codes: Readonly<Record<string, string>> }): Tolerance =>
  plan.tolerances.find((p) => codes[p.field] === p.code)?.tolerance ?? plan.tolerance;

/** How something stands against its promise. */
export const BANDS = ['ahead', 'inTolerance', 'watch', 'breach'] as const;
export type Band = (typeof BANDS)[number];

/** The worst of several bands; null where there is none. */
export const worstBand = (bands: readonly (Band | null)[]): Band | null =>
  bands.reduce<Band | null>(
    (a, b) => (b === null || (a !== null && BANDS.indexOf(a) >= BANDS.indexOf(b)) ? a : b),
    null,
  );

/** The band of working days late; early is negative. */
export function bandOfDays(days: number, { days: t }: Pick<Tolerance, 'days'>): Band {
  if (days < 0) return 'ahead';
  if (days <= t.watch) return 'inTolerance';
  return days < t.breach ? 'watch' : 'breach';
}

/** The band of an amount as a ratio to what was promised: 1.5 is half as much again. */
export function bandOfRatio(ratio: number, t: Bounds): Band {
  if (ratio < 1) return 'ahead';
  // Shares are compared to a millionth: 66 of 60 hours are ten percent over, not a hair more.
  const over = Math.round((ratio - 1) * 1e6) / 1e6;
  if (over <= t.watch) return 'inTolerance';
  return over < t.breach ? 'watch' : 'breach';
}
