import type { Note } from '../../brief/hand';
import type { CardHandles, GroupNode, Handles } from '../../graph/scene';
import { noteNodes, unplacedOf } from '../notes';
import type { Room } from '../sheet';

/** Notes on a page of cards, and what hands need to know to put more of them there. */
export function notesOnCards(
  marks: readonly Note[],
  { size, cards }: CardHandles,
  { frame, measure, left, right }: Room,
  isKnown: (ref: string) => boolean,
): { nodes: GroupNode[]; handles: Handles } {
  const items = cards.map((c) => ({ ref: c.ref, x0: c.left, x1: c.left + c.width, y: c.top + c.height / 2 }));
  const byRef = new Map(items.map((i) => [i.ref, i]));
  const nodes = noteNodes(marks, {
    size,
    measure,
    frame,
    place: (ref) => byRef.get(ref) ?? null,
    across: () => null,
  });
  const drawn = new Set(nodes.map((n) => n.note!));
  return {
    nodes,
    // Such a page has no dates along it.
    handles: {
      size,
      left,
      right,
      from: 0,
      to: 0,
      items,
      lanes: [],
      unplaced: unplacedOf({ marks }, items, isKnown, drawn),
    },
  };
}
