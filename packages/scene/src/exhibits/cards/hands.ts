import { type CardHandles, round } from '../../graph/scene';
import type { Layered } from '../../layered/layout';
import type { Placed } from '../../brief/placed';
import type { Placer } from './placer';

/** What hands need to know of the cards on a page. */
export function cardHandles(
  cards: readonly { ref: string; name: string }[],
  links: readonly { from: number; to: number }[],
  layout: Pick<Layered, 'columns' | 'lanes' | 'x' | 'y' | 'reach'>,
  at: { rank: Int32Array; least: Int32Array; lane: Int32Array },
  card: { width: number; height: number },
  p: Placer,
  titles: readonly string[],
  placed: readonly Placed[],
): CardHandles {
  const known = new Set(cards.map((c) => c.ref));
  return {
    size: p.size,
    unit: p.unit,
    down: p.down,
    columns: layout.columns.map((c) => ({ from: round(p.along(c.x)), to: round(p.along(c.x + c.width)) })),
    lanes: layout.lanes.map((l, k) => ({ title: titles[k] ?? '', top: round(p.within(l.top)) })),
    cards: cards.map(({ ref, name }, i) => {
      const box = cardBox(layout, i, card, p);
      return {
        ref,
        name,
        left: round(box.left),
        top: round(box.top),
        width: round(box.width),
        height: round(box.height),
        lane: at.lane[i]!,
        column: at.rank[i]!,
        least: at.least[i]!,
      };
    }),
    links: links.map((l) => ({ from: cards[l.from]!.ref, to: cards[l.to]!.ref })),
    unplaced: placed.map((own) => own.ref).filter((ref) => !known.has(ref)),
  };
}

/**
 * Where a card is drawn. On a page whose columns run down, the card that is wide in the layout is high.
 *
 * @param card its size in the layout, in sizes of the type
 */
export function cardBox(
  layout: Pick<Layered, 'x' | 'y' | 'reach'>,
  i: number,
  card: { width: number; height: number },
  p: Placer,
): { left: number; top: number; width: number; height: number } {
  const half = (card.height * p.size) / 2;
  const [from, to] = [p.within(layout.y[i]!) - half, p.within(layout.reach[i]!) + half];
  const begin = p.along(layout.x[i]!);
  const long = card.width * p.size;
  return p.down
    ? { left: from, top: begin, width: to - from, height: long }
    : { left: begin, top: from, width: long, height: to - from };
}
