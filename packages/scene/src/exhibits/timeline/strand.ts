import type { TimelineBrief } from '../../brief/timeline';
import { packRows } from '../../rows/pack';
import { placeOnStems } from '../../rows/strand';
import { type Cells, type Geometry, halfHeight, STEM, STEM_LEFT, TEXT_DOWN, TEXT_UP } from './cells';

/** A row of a lane: what stands in it, and how far that reaches above and below the middle of the bars. */
export interface Row {
  members: number[];
  up: number;
  down: number;
}

/** From one level of labels to the next, and from a mark to the first, in shares of the type size. */
const LEVEL = 1.28;
const STEM_LENGTH = 0.55;
/** The least room between two stems, in points: marks that are closer stand on a further line. */
const APART = 3;

/**
 * What is strung on one line: as many lines as keep the marks apart, labels on stems above, or in turn above and below.
 * Gives the labels their places.
 */
export function strandRows(items: number[], g: Geometry, cells: Cells, brief: TimelineBrief): Row[] {
  if (items.length === 0) return [];
  const { size } = cells.style;
  // Phases touch each other and the point before them; bars may overlap where that is allowed; points may not.
  const free = brief.rows === 'packed' && brief.overlaps === 'allowed';
  const phases = items.some((i) => g.items[i]!.phase);
  const ends = (i: number): [number, number] => {
    if (free && cells.place[i] === STEM) return [cells.stemX[i]!, cells.stemX[i]! + APART];
    if (!phases) return [cells.left[i]!, cells.right[i]! + 1];
    const stem = cells.place[i] === STEM ? APART / 2 : Number.NEGATIVE_INFINITY;
    return [Math.min(g.x0[i]!, cells.stemX[i]! - stem), Math.max(g.x1[i]!, cells.stemX[i]! + stem)];
  };
  const { row, rows } = packRows(
    Float64Array.from(items, (i) => ends(i)[0]),
    Float64Array.from(items, (i) => ends(i)[1]),
  );
  return Array.from({ length: rows }, (_, r) =>
    strung(
      items.filter((_, k) => row[k] === r),
      g,
      cells,
      brief,
      size,
    ),
  );
}

function strung(members: number[], g: Geometry, cells: Cells, brief: TimelineBrief, size: number): Row {
  members.sort((i, j) => g.x0[i]! - g.x0[j]! || i - j);
  const onStems = members.filter((i) => cells.place[i] === STEM).sort((i, j) => cells.stemX[i]! - cells.stemX[j]!);
  const promises = members.some((i) => !Number.isNaN(g.promised0[i]!));
  const places = placeOnStems({
    x: Float64Array.from(onStems, (i) => cells.stemX[i]!),
    width: Float64Array.from(onStems, (i) => cells.room[i]!),
    left: g.left,
    right: g.right,
    avoid: g.statusX,
    // Below the line stands what was promised.
    inTurn: brief.stems === 'turns' && !promises,
    room: size * 0.5,
  });
  if (!places.clear) cells.clear = false;
  const half = Math.max(...members.map((i) => halfHeight(g, cells.style, i)));
  const reach = (levels: number) => (levels === 0 ? 0 : half + size * (STEM_LENGTH + (levels - 1) * LEVEL));
  onStems.forEach((i, k) => {
    const level = places.level[k]!;
    const label = places.label[k]!;
    cells.labelX[i] = label;
    // A label that ends at its stem keeps its end there when it is shortened.
    if (label + cells.room[i]! < cells.stemX[i]! + 3) cells.place[i] = STEM_LEFT;
    cells.labelY[i] = level > 0 ? -reach(level) - size * TEXT_DOWN : reach(-level) + size * TEXT_UP;
    if (g.statusX > label - 1.5 && g.statusX < label + cells.room[i]! + 1.5) cells.crossings++;
  });
  const text = size * (TEXT_UP + TEXT_DOWN);
  const up = Math.max(...members.map((i) => cells.up[i]!), places.above > 0 ? reach(places.above) + text : 0);
  const down = Math.max(...members.map((i) => cells.down[i]!), places.below > 0 ? reach(places.below) + text : 0);
  return { members, up, down };
}
