import type { CardHandles, Placed } from '@clembo/scene';

const hundredth = (n: number): number => Math.round(n * 100) / 100;

/**
 * Where a card comes to stand that was carried so many points: in the nearest column that the logic allows, at its
 * height in its lane.
 */
export function placedAt(h: CardHandles, ref: string, dx: number, dy: number): Placed | null {
  const card = h.cards.find((c) => c.ref === ref);
  if (!card) return null;
  const along = h.down ? card.top + dy : card.left + dx;
  const height = h.down ? card.width : Math.min(card.height, smallest(h));
  const across = h.down ? card.left + dx + height / 2 : card.top + dy + height / 2;
  const columns = h.columns.map((c) => Math.abs(c.from - along));
  let column = columns.indexOf(Math.min(...columns));
  const last = h.columns.at(-1);
  if (last && along > last.to) column = h.columns.length;
  return {
    ref,
    later: Math.max(0, column - card.least),
    y: Math.max(0, hundredth((across - (h.lanes[card.lane]?.top ?? 0)) / h.unit)),
  };
}

/** The height of a card that stands in one lane. */
const smallest = (h: CardHandles): number => Math.min(...h.cards.map((c) => c.height));

/** What leads to a card and what it leads to, all the way, with the card itself. */
export function pathsThrough({ links }: CardHandles, ref: string): Set<string> {
  const found = new Set([ref]);
  for (const [at, to] of [
    ['to', 'from'],
    ['from', 'to'],
  ] as const) {
    const next = new Map<string, string[]>();
    for (const l of links) next.set(l[at], [...(next.get(l[at]) ?? []), l[to]]);
    const seen = new Set([ref]);
    for (const own of seen) for (const other of next.get(own) ?? []) seen.add(other);
    for (const own of seen) found.add(own);
  }
  return found;
}
