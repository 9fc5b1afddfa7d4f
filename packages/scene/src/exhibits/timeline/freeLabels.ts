import { Occupancy } from '../../labels/occupancy';
import type { Measure } from '../../text/measure';
import { LABEL_GAP, labelFace, labelWidth, type Placed } from './rows';

/** A label that found its place: baseline and left end. */
export interface LabelPlace {
  placed: Placed;
  x: number;
  y: number;
  label: string;
  detail: string;
}

export interface FreeLabels {
  places: LabelPlace[];
  shortened: number;
  /** Things whose label is a number into the key. */
  keyed: { placed: Placed; number: number }[];
  /** Things that found no place even for a number. */
  without: Placed[];
}

/** Where on its row a thing stands. */
export interface BarBox {
  placed: Placed;
  top: number;
  bottom: number;
}

/**
 * Places labels where there is room: to the right, to the left, above or below, whole or shortened; what finds
 * none gets a number into a key, as long as the key has room. Milestones come first, then what is critical,
 * then by date. (Eight candidate places, first fit: J. Christensen, J. Marks & S. Shieber, "An empirical study
 * of algorithms for point-feature label placement", ACM TOG 14 (3), 1995.)
 */
export function placeFreeLabels(
  boxes: BarBox[],
  area: { left: number; top: number; right: number; bottom: number },
  size: number,
  measure: Measure,
  keyCapacity: number,
): FreeLabels {
  const taken = new Occupancy(area.right, area.bottom);
  for (const b of boxes) taken.add(b.placed.x0, b.top, b.placed.x1, b.bottom);
  const ascent = size * 0.74;
  const descent = size * 0.24;
  const fits = (x: number, baseline: number, width: number) =>
    x >= area.left &&
    x + width <= area.right &&
    baseline - ascent >= area.top &&
    baseline + descent <= area.bottom &&
    taken.isFree(x, baseline - ascent, x + width, baseline + descent);

  const rank = ({ placed: { item } }: BarBox) => (item.form === 'milestone' ? 0 : item.critical ? 1 : 2);
  const order = [...boxes].sort(
    (a, b) =>
      rank(a) - rank(b) || a.placed.item.start - b.placed.item.start || a.placed.item.index - b.placed.item.index,
  );
  const result: FreeLabels = { places: [], shortened: 0, keyed: [], without: [] };

  /** The first free one of eight places round the thing, or null. */
  const find = (b: BarBox, width: number): [number, number] | null => {
    const { x0, x1 } = b.placed;
    const middle = (b.top + b.bottom) / 2 + size * 0.25;
    const above = b.top - descent - 0.4;
    const below = b.bottom + ascent + 0.4;
    const centre = (x0 + x1 - width) / 2;
    const candidates: [number, number][] = [
      [x1 + LABEL_GAP, middle],
      [x0 - LABEL_GAP - width, middle],
      [x0, above],
      [x0, below],
      [x1 - width, above],
      [x1 - width, below],
      [centre, above],
      [centre, below],
    ];
    return candidates.find(([x, y]) => fits(x, y, width)) ?? null;
  };

  const take = (b: BarBox, label: string, detail: string, width: number): boolean => {
    const place = find(b, width);
    if (!place) return false;
    const [x, y] = place;
    taken.add(x, y - ascent, x + width, y + descent);
    result.places.push({ placed: b.placed, x, y, label, detail });
    return true;
  };

  for (const b of order) {
    const { item } = b.placed;
    const face = labelFace(item);
    if (item.label === '') continue;
    const full = labelWidth(measure, size, item, item.label, item.detail);
    if (take(b, item.label, item.detail, full)) continue;
    const bare = measure.width(face, size, item.label);
    if (item.detail !== '' && take(b, item.label, '', bare)) continue;
    const short = measure.shorten(face, size, item.label, Math.min(bare * 0.6, 60));
    if (short.length >= 6 && take(b, short, '', measure.width(face, size, short))) {
      result.shortened++;
      continue;
    }
    const number = String(result.keyed.length + 1);
    if (result.keyed.length < keyCapacity && take(b, number, '', measure.width(face, size, number))) {
      result.keyed.push({ placed: b.placed, number: result.keyed.length + 1 });
    } else {
      result.without.push(b.placed);
    }
  }
  return result;
}
