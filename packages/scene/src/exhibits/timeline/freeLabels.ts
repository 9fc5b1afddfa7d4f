import { Occupancy } from '../../labels/occupancy';
import type { Measure } from '../../text/measure';
import { labelFace, labelText, labelWidth } from './geometry';
import { LABEL_GAP, type Placed } from './rows';

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

export interface Area {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

const PLACES = 8;

/**
 * Places labels where there is room: to the right, to the left, above or below, whole or shortened; what finds
 * none gets a number into a key, as long as the key has room. Milestones come first, then what is critical,
 * then by date. (Eight candidate places, first fit: J. Christensen, J. Marks & S. Shieber, "An empirical study
 * of algorithms for point-feature label placement", ACM TOG 14 (3), 1995.)
 */
export function placeFreeLabels(
  boxes: BarBox[],
  area: Area,
  size: number,
  measure: Measure,
  keyCapacity: number,
): FreeLabels {
  const taken = new Occupancy(area.right, area.bottom);
  for (const b of boxes) taken.add(b.placed.x0, b.top, b.placed.x1, b.bottom);
  const result: FreeLabels = { places: [], shortened: 0, keyed: [], without: [] };
  const take = (b: BarBox, places: number, label: string, detail: string, width: number): boolean => {
    const place = freePlace(taken, b, places, area, size, width);
    if (place < 0) return false;
    const x = placeX(place, b, width);
    const y = placeY(place, b, size);
    taken.add(x, y - size * 0.74, x + width, y + size * 0.24);
    result.places.push({ placed: b.placed, x, y, label, detail });
    return true;
  };
  for (const b of inOrder(boxes)) {
    const { item } = b.placed;
    if (item.label === '') continue;
    const face = labelFace(item);
    const text = labelText(item);
    const bare = measure.width(face, size, text);
    const number = String(result.keyed.length + 1);
    const numberWidth = measure.width(face, size, number);
    // At each place a narrow label lies within a wide one: where a number does not fit, nothing does.
    const places = freePlaces(taken, b, area, size, Math.min(numberWidth, bare));
    if (places !== 0) {
      if (item.detail !== '' && take(b, places, text, item.detail, labelWidth(measure, size, item, text, item.detail)))
        continue;
      if (take(b, places, text, '', bare)) continue;
      const cut = measure.shorten(face, size, text, Math.min(bare * 0.6, 60));
      if (cut.length >= 6 && take(b, places, cut, '', measure.width(face, size, cut))) {
        result.shortened++;
        continue;
      }
      if (result.keyed.length < keyCapacity && take(b, places, number, '', numberWidth)) {
        result.keyed.push({ placed: b.placed, number: Number(number) });
        continue;
      }
    }
    result.without.push(b.placed);
  }
  return result;
}

function inOrder(boxes: BarBox[]): BarBox[] {
  const rank = ({ placed: { item } }: BarBox) => (item.form === 'milestone' ? 0 : item.critical ? 1 : 2);
  return [...boxes].sort(
    (a, b) =>
      rank(a) - rank(b) || a.placed.item.start - b.placed.item.start || a.placed.item.index - b.placed.item.index,
  );
}

/** The places round a thing at which so wide a label is free, as bits. */
function freePlaces(taken: Occupancy, b: BarBox, area: Area, size: number, width: number): number {
  let places = 0;
  for (let place = 0; place < PLACES; place++)
    if (isFreePlace(taken, b, place, area, size, width)) places |= 1 << place;
  return places;
}

/** The first of some places at which so wide a label is free, or -1. */
function freePlace(taken: Occupancy, b: BarBox, places: number, area: Area, size: number, width: number): number {
  for (let place = 0; place < PLACES; place++) {
    if (places & (1 << place) && isFreePlace(taken, b, place, area, size, width)) return place;
  }
  return -1;
}

function isFreePlace(taken: Occupancy, b: BarBox, place: number, area: Area, size: number, width: number): boolean {
  const x = placeX(place, b, width);
  const y = placeY(place, b, size);
  if (x < area.left || x + width > area.right || y - size * 0.74 < area.top || y + size * 0.24 > area.bottom)
    return false;
  return taken.isFree(x, y - size * 0.74, x + width, y + size * 0.24);
}

/** Right, left; flush left above and below; flush right above and below; centred above and below. */
function placeX(place: number, { placed: { x0, x1 } }: BarBox, width: number): number {
  switch (place) {
    case 0:
      return x1 + LABEL_GAP;
    case 1:
      return x0 - LABEL_GAP - width;
    case 2:
    case 3:
      return x0;
    case 4:
    case 5:
      return x1 - width;
    default:
      return (x0 + x1 - width) / 2;
  }
}

function placeY(place: number, b: BarBox, size: number): number {
  if (place < 2) return (b.top + b.bottom) / 2 + size * 0.25;
  return place % 2 === 0 ? b.top - size * 0.24 - 0.4 : b.bottom + size * 0.74 + 0.4;
}
