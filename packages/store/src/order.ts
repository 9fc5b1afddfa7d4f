import { KEY_STEP } from './rows';

/** What has to move so that one order becomes the other: all that is not in the longest run that keeps its order. */
export function displaced(from: readonly string[], to: readonly string[]): string[] {
  const rank = new Map(from.map((ref, i) => [ref, i]));
  const kept: number[] = [];
  const tails: number[] = [];
  const previous = new Map<number, number>();
  const list = to.filter((ref) => rank.has(ref));
  list.forEach((ref, i) => {
    const r = rank.get(ref)!;
    let [low, high] = [0, tails.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (rank.get(list[tails[middle]!]!)! < r) low = middle + 1;
      else high = middle;
    }
    if (low > 0) previous.set(i, tails[low - 1]!);
    tails[low] = i;
  });
  for (let at: number | undefined = tails.at(-1); at !== undefined; at = previous.get(at)) kept.push(at);
  const stays = new Set(kept);
  return list.filter((_, i) => !stays.has(i));
}

/** Fills the gaps in a list of rising keys with keys between their neighbours; null where two stand too close. */
export function orderKeys(list: readonly (number | null)[]): number[] | null {
  const keys: number[] = [];
  for (let i = 0; i < list.length; ) {
    if (list[i] !== null) {
      keys.push(list[i]!);
      i++;
      continue;
    }
    let end = i;
    while (end < list.length && list[end] === null) end++;
    const count = end - i;
    const below = keys.at(-1) ?? (end < list.length ? list[end]! - (count + 1) * KEY_STEP : 0);
    const above = end < list.length ? list[end]! : below + (count + 1) * KEY_STEP;
    const step = (above - below) / (count + 1);
    for (let k = 1; k <= count; k++) {
      const key = below + step * k;
      if (!(key > (keys.at(-1) ?? Number.NEGATIVE_INFINITY)) || !(key < above)) return null;
      keys.push(key);
    }
    i = end;
  }
  return keys;
}
