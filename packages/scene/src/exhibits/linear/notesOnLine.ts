import type { Note } from '../../brief/hand';
import { type GroupNode, type Handles, round } from '../../graph/scene';
import { noteNodes, unplacedOf } from '../notes';
import type { Room } from '../sheet';
import { isOn, type Plane, pointOn } from './plane';
import type { LineSelection } from './select';

/** Notes on a page of linear work: held by the beginning or the end of a work, or by a
 * place and a moment, wherever those are on the page. */
export function notesOnLine(
  marks: readonly Note[],
  { flows, blocks, points }: LineSelection,
  plane: Plane,
  size: number,
  { frame, measure }: Room,
  isKnown: (ref: string) => boolean,
): { nodes: GroupNode[]; handles: Handles } {
  const item = (ref: string, place0: number, day0: number, place1: number, day1: number): Handles['items'] => {
    const [[x0, y], [x1, y1]] = [pointOn(plane, place0, day0), pointOn(plane, place1, day1)];
    return isOn(plane, x0, y) || isOn(plane, x1, y1)
      ? [{ ref, x0: round(x0), x1: round(x1), y: round(y), y1: round(y1) }]
      : [];
  };
  const items = [
    ...flows.flatMap((f) => {
      const [a, b] = [f.points[0]!, f.points.at(-1)!];
      return item(f.ref, a.place, a.time, b.place, b.time);
    }),
    ...blocks.flatMap(({ ref, block: b }) => item(ref, b.from, b.start, b.to, b.finish)),
    ...points.flatMap((p) => item(p.ref, p.place, p.time, p.place, p.time)),
  ];
  const byRef = new Map(items.map((i) => [i.ref, i]));
  const nodes = noteNodes(marks, {
    size,
    measure,
    frame,
    place: (ref) => byRef.get(ref) ?? null,
    across: () => null,
    spot: ({ place, at }) => {
      const [x, y] = pointOn(plane, place / 1000, at / 1440);
      return isOn(plane, x, y) ? { x, y } : null;
    },
  });
  const drawn = new Set(nodes.map((n) => n.note!));
  return {
    nodes,
    handles: {
      size,
      left: plane.left,
      right: plane.right,
      from: 0,
      to: 0,
      items,
      lanes: [],
      unplaced: unplacedOf({ marks }, items, isKnown, drawn),
    },
  };
}
