/** A line that runs upright in the channel between two columns, from one height to others. */
export interface Trunk {
  top: number;
  bottom: number;
  /** The height at which it comes in from the left, and those at which it leaves to the right. */
  enters: number;
  leaves: readonly number[];
}

/**
 * Tracks for upright lines in a channel, from the left, as few as keep them apart (left edge: Hashimoto and Stevens
 * 1971). Where one leaves at the height at which another comes in, the one that comes in lies to the left, so that the
 * level pieces do not run over each other.
 *
 * @param apart lines on one track are at least so far from each other
 * @returns the track of each, from 0, and how many there are
 */
export function tracksOf(trunks: readonly Trunk[], apart: number): { track: Int32Array; count: number } {
  const n = trunks.length;
  const track = new Int32Array(n).fill(-1);
  /** Who has to lie to the left of each. */
  const before: number[][] = trunks.map((t, i) =>
    trunks.flatMap((other, j) => (j !== i && t.leaves.some((y) => Math.abs(y - other.enters) < apart) ? [j] : [])),
  );
  const order = trunks.map((_, i) => i).sort((i, j) => trunks[i]!.top - trunks[j]!.top || i - j);
  const left = new Set(order);
  const ends: [top: number, bottom: number][][] = [];
  for (let now = 0; left.size > 0; now++) {
    const taken = (ends[now] ??= []);
    let put = false;
    for (const i of order) {
      if (!left.has(i) || before[i]!.some((j) => left.has(j) || track[j] === now)) continue;
      const { top, bottom } = trunks[i]!;
      if (taken.some(([a, b]) => top < b + apart && bottom > a - apart)) continue;
      taken.push([top, bottom]);
      track[i] = now;
      put = true;
    }
    for (const i of order) if (track[i] === now) left.delete(i);
    // Lines that each have to lie left of the other: the first of them goes where it may.
    if (!put) {
      const first = order.find((i) => left.has(i))!;
      track[first] = now;
      left.delete(first);
    }
  }
  return { track, count: ends.length };
}
