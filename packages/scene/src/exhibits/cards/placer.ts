import type { Layered, RoutePoint } from '../../layered/layout';

/** Where a layout stands on its page: points for a size of the type, and how far it is drawn out. */
export interface Placing {
  left: number;
  top: number;
  size: number;
  /** Factors of the distances between columns, and within them. */
  wide: number;
  high: number;
  /** Columns follow each other down the page. */
  down: boolean;
}

/** Places of a layout on a page. Cards keep their size, whatever is between them. */
export function placer(
  { columns, width }: Pick<Layered, 'columns' | 'width'>,
  { left, top, size, wide, high, down }: Placing,
) {
  const [begin, side] = down ? [top, left] : [left, top];
  // Columns keep their width; what is between them is drawn out.
  const starts: number[] = [];
  let from = 0;
  let to = begin;
  for (const c of columns) {
    to += (c.x - from) * size * wide;
    starts.push(to);
    to += c.width * size;
    from = c.x + c.width;
  }
  /** The place of an x of the layout in the direction in which columns follow each other. */
  const along = (x: number): number => {
    let k = columns.length - 1;
    while (k > 0 && columns[k]!.x > x + 1e-6) k--;
    const c = columns[k]!;
    if (x < c.x) return begin + x * size * wide;
    if (x <= c.x + c.width) return starts[k]! + (x - c.x) * size;
    return starts[k]! + c.width * size + (x - c.x - c.width) * size * wide;
  };
  const within = (y: number) => side + y * size * high;
  const at = ([x, y, below = 0]: RoutePoint): [x: number, y: number] => {
    const across = within(y) + below * size;
    return down ? [across, along(x)] : [along(x), across];
  };
  return { along, within, at, size, unit: size * high, down, end: along(width) };
}
export type Placer = ReturnType<typeof placer>;
