import type { SPREAD_SHAPES } from '../plan/schema';

/** How an amount lies over the time of an activity. */
export type SpreadShape = (typeof SPREAD_SHAPES)[number];

/** Share of an amount that is reached when a share of the time is over: 0 at 0, 1 at 1, never falling. */
export function shareReached(shape: SpreadShape, t: number): number {
  const x = Math.min(1, Math.max(0, t));
  switch (shape) {
    case 'uniform':
      return x;
    case 'front':
      return 1 - (1 - x) * (1 - x);
    case 'back':
      return x * x;
    case 'bell':
      return x * x * (3 - 2 * x);
  }
}

/**
 * Spreads a whole amount over steps of working time so that the parts add up to it exactly: parts are rounded
 * down and what is left goes to the largest remainders (the largest remainder method of Hamilton).
 *
 * @param amount a whole number: minutes, hundredths
 * @param weights working time of each step, at least 0; where all are 0 the first step takes everything
 */
export function spreadExactly(amount: number, weights: readonly number[], shape: SpreadShape = 'uniform'): number[] {
  if (!Number.isInteger(amount)) throw new RangeError(`only whole amounts can be spread exactly, not ${amount}`);
  const total = weights.reduce((a, b) => a + b, 0);
  if (weights.length === 0) return [];
  if (total === 0) return weights.map((_, i) => (i === 0 ? amount : 0));
  const sign = amount < 0 ? -1 : 1;
  const whole = Math.abs(amount);
  const parts: number[] = [];
  const remainders: { i: number; part: number }[] = [];
  let [gone, given] = [0, 0];
  weights.forEach((w, i) => {
    const share = shareReached(shape, (gone + w) / total) - shareReached(shape, gone / total);
    gone += w;
    const exact = whole * share;
    const part = Math.floor(exact + 1e-9);
    parts.push(part);
    given += part;
    // Equal shares have equal remainders, whatever the last bits of their fractions.
    remainders.push({ i, part: Math.round((exact - part) * 1e9) });
  });
  remainders.sort((a, b) => b.part - a.part || a.i - b.i);
  for (let k = 0; given < whole; k = (k + 1) % remainders.length, given++) parts[remainders[k]!.i]!++;
  for (let k = remainders.length - 1; given > whole; k = (k - 1 + remainders.length) % remainders.length) {
    if (parts[remainders[k]!.i]! === 0) continue;
    parts[remainders[k]!.i]!--;
    given--;
  }
  return parts.map((p) => p * sign + 0);
}
