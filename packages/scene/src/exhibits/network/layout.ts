import type { NetworkBrief } from '../../brief/network';
import type { Placed } from '../../brief/placed';
import type { Measure } from '../../text/measure';
import { type Layered, layered } from '../../layered/layout';
import { ranksOf } from '../../layered/ranks';
import { MONTHS } from '../../text/dates';
import { neighbourly, spanOf } from '../lanesOf';
import { monthOf } from './months';
import { type Card, least, type Line, type NetworkSelection } from './select';

/** What a card says, and whether it is slim: taller, for networks that are longer than they are high. */
export type CardKind = 'full' | 'dates' | 'datesSlim' | 'float' | 'floatSlim' | 'dot';

/** Sizes of cards, in sizes of the type. */
export const CARD_SIZE: Record<CardKind, { width: number; height: number }> = {
  full: { width: 13, height: 5.7 },
  dates: { width: 11.5, height: 4.2 },
  datesSlim: { width: 7.4, height: 6.7 },
  float: { width: 9, height: 2.9 },
  floatSlim: { width: 6.9, height: 5.4 },
  dot: { width: 6.6, height: 2.5 },
};

/** A network laid out, all in sizes of the type, from the top left of its plot. */
export interface NetworkLayout extends Omit<Layered, 'lanes'> {
  kind: CardKind;
  /** The column and the lane of every card, and the first column that the logic allows. */
  rank: Int32Array;
  least: Int32Array;
  first: Int32Array;
  /** Lanes of every card that it does not reach. */
  rest: string[][];
  /** Links of every card that are no lines: they leave the page, or lead back. */
  rings: { before: Int32Array; after: Int32Array };
  lanes: { code: string; top: number; bottom: number }[];
  /** Months over columns, for cards that stand by time. */
  months: { name: string; from: number; to: number }[];
}

/**
 * Lays out a network: columns, order, heights, channels. The same network gives the same layout, and a moved date
 * changes it only where cards stand by time.
 */
export function layoutNetwork(
  { cards, lines }: NetworkSelection,
  brief: NetworkBrief,
  kind: CardKind,
  measure: Measure,
  laneOrder: readonly string[],
): NetworkLayout {
  const edges = { from: Int32Array.from(lines, (l) => l.from), to: Int32Array.from(lines, (l) => l.to) };
  const byTime = brief.place === 'time';
  const logic = byTime ? timeRanks(cards, edges) : ranksOf(cards.length, edges);
  const { rank, forward } = byTime ? logic : ranksOf(cards.length, edges, laterBy(cards, logic.rank, brief.placed));
  const used = laneOrder.filter((code) => cards.some((card) => card.lanes.includes(code)));
  const codes = neighbourly(
    used,
    cards.map((card) => card.lanes),
  );
  const spans = cards.map((card) => spanOf(card.lanes, codes));
  const rings = ringsOf(cards, lines, forward);
  const beside = (count: number) => (count === 0 ? 0 : RING + measure.width('label', 1, String(count)) + 0.4);
  const set = layered({
    rank,
    edges,
    forward,
    card: CARD_SIZE[kind],
    lanes: {
      first: Int32Array.from(spans, (s) => s.first),
      last: Int32Array.from(spans, (s) => s.last),
      count: Math.max(1, codes.length),
    },
    before: (i) => beside(rings.before[i]!),
    after: (i) => beside(rings.after[i]!),
    words: wordsBefore(lines, rank, measure),
    back: false,
    wanted: wantedOf(cards, brief.placed),
  });
  return {
    ...set,
    kind,
    rank,
    least: logic.rank,
    first: Int32Array.from(spans, (s) => s.first),
    rest: spans.map((s, i) =>
      s.last > s.first && set.reach[i] === set.y[i] ? codes.slice(s.first + 1, s.last + 1) : s.rest,
    ),
    rings,
    lanes: codes.map((code, k) => ({ code, ...set.lanes[k]! })),
    months: byTime ? monthsOver(cards, rank, set.columns) : [],
  };
}

/** The first column of every card, by what was put later by hand. */
function laterBy(cards: readonly Card[], rank: Int32Array, placed: readonly Placed[]): Int32Array {
  const later = new Map(placed.map((p) => [p.ref, p.later]));
  return Int32Array.from(cards, (card, i) => {
    const own = later.get(card.ref) ?? 0;
    return own === 0 ? 0 : rank[i]! + own;
  });
}

/** Heights that were chosen by hand. */
export const wantedOf = (cards: readonly { ref: string }[], placed: readonly Placed[]): Map<number, number> => {
  const heights = new Map(placed.flatMap((p): [string, number][] => (p.y === null ? [] : [[p.ref, p.y]])));
  return new Map(
    cards.flatMap((card, i): [number, number][] => {
      const y = heights.get(card.ref);
      return y === undefined ? [] : [[i, y]];
    }),
  );
};

/** A ring at the edge of a card, in sizes of the type. */
const RING = 0.72;

/** How many links of every card are no lines. */
function ringsOf(cards: readonly Card[], lines: readonly Line[], forward: Uint8Array): NetworkLayout['rings'] {
  const before = Int32Array.from(cards, (c) => c.before);
  const after = Int32Array.from(cards, (c) => c.after);
  lines.forEach((l, e) => {
    if (forward[e]) return;
    before[l.to]!++;
    after[l.from]!++;
  });
  return { before, after };
}

/** Room for the words of links before the cards of each column. */
function wordsBefore(lines: readonly Line[], rank: Int32Array, measure: Measure): Float64Array {
  const room = new Float64Array(rank.reduce((a, b) => Math.max(a, b), 0) + 1);
  const words = new Map<number, string[]>();
  for (const l of lines) if (l.words !== '') words.set(l.to, [...(words.get(l.to) ?? []), l.words]);
  for (const [to, list] of words)
    room[rank[to]!] = Math.max(room[rank[to]!]!, measure.width('label', 1, list.join(', ')) + 1.6);
  return room;
}

/** Columns by months: within one, by the longest way of the links within it. */
function timeRanks(
  cards: readonly Card[],
  { from, to }: { from: Int32Array; to: Int32Array },
): { rank: Int32Array; forward: Uint8Array } {
  const dated = cards.flatMap((card) => (card.start === null ? [] : [monthOf(card.start)]));
  const first = dated.length === 0 ? 0 : least(dated);
  // What has no dates stands before all.
  const month = Int32Array.from(cards, (card) => (card.start === null ? first - 1 : monthOf(card.start)));
  const inside = [...from.keys()].filter((e) => month[from[e]!] === month[to[e]!]);
  const depth = ranksOf(cards.length, {
    from: Int32Array.from(inside, (e) => from[e]!),
    to: Int32Array.from(inside, (e) => to[e]!),
  }).rank;
  const widths = new Map<number, number>();
  month.forEach((m, i) => widths.set(m, Math.max(widths.get(m) ?? 0, depth[i]! + 1)));
  const base = new Map<number, number>();
  let next = 0;
  for (const m of [...widths.keys()].sort((a, b) => a - b)) {
    base.set(m, next);
    next += widths.get(m)!;
  }
  const rank = Int32Array.from(month, (m, i) => base.get(m)! + depth[i]!);
  return { rank, forward: Uint8Array.from(from, (i, e) => (rank[i]! < rank[to[e]!]! ? 1 : 0)) };
}

function monthsOver(
  cards: readonly Card[],
  rank: Int32Array,
  columns: NetworkLayout['columns'],
): NetworkLayout['months'] {
  const found = new Map<number, { from: number; to: number }>();
  cards.forEach((card, i) => {
    if (card.start === null) return;
    const m = monthOf(card.start);
    const { x, width } = columns[rank[i]!]!;
    const known = found.get(m);
    if (known) [known.from, known.to] = [Math.min(known.from, x), Math.max(known.to, x + width)];
    else found.set(m, { from: x, to: x + width });
  });
  return [...found].sort(([a], [b]) => a - b).map(([m, span]) => ({ name: monthName(m), ...span }));
}

const monthName = (m: number): string => `${MONTHS[m % 12]} ${Math.floor(m / 12)}`;
