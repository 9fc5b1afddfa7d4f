/** Labels that hang on stems of a line of markers. Lengths in points. */
export interface Stems {
  /** Where each stem stands, from left to right. */
  x: Float64Array;
  /** How wide each label is. */
  width: Float64Array;
  /** No label reaches beyond these. */
  left: number;
  right: number;
  /** A line that labels keep clear of where they can, such as that of the status date; NaN for none. */
  avoid: number;
  /** Whether labels stand in turn above and below the line; else all of them above. */
  inTurn: boolean;
  /** The least room between two labels of a level, and between a label and the stem of another. */
  room: number;
}

/** Where labels stand. */
export interface StemPlaces {
  /** 1, 2 … above the line, -1, -2 … below it, counted from the line. */
  level: Int32Array;
  /** Left ends of labels. */
  label: Float64Array;
  /** Levels above and below the line. */
  above: number;
  below: number;
  /** False where two labels would each cover the stem of the other: then they need to be shorter. */
  clear: boolean;
}

/** How far a label reaches beyond its stem on the side to which it does not hang. */
const OVERHANG = 1.2;
/** More than these are not moved over the middle of their stems. */
const FEW = 300;

/**
 * Gives every label a level and a place, such that no label is on another label or on the stem of another.
 *
 * Requires stems that stand apart and labels that fit on one side of their stem at least. Labels hang to the right,
 * like flags, and are levelled from the right to the left: each one level above all those whose stems it covers. Where
 * the page (or the line to be kept clear of) ends, they hang to the left, and so do those that would cover the stem of
 * one that does; these are levelled from the left to the right after the others. So a label covers only stems that end
 * below it (own method; the levels of each side are as many as the longest chain of covered stems).
 */
export function placeOnStems(s: Stems): StemPlaces {
  const n = s.x.length;
  const places: StemPlaces = { level: new Int32Array(n), label: new Float64Array(n), above: 0, below: 0, clear: true };
  const sides = s.inTurn && n > 1 ? 2 : 1;
  for (let side = 0; side < sides; side++) {
    const members: number[] = [];
    for (let i = side; i < n; i += sides) members.push(i);
    for (const [from, to, part] of segments(s, members)) levelSegment(s, places, part, from, to, side === 0 ? 1 : -1);
    if (members.length <= FEW) centre(s, places, members);
  }
  for (let i = 0; i < n; i++) {
    places.above = Math.max(places.above, places.level[i]!);
    places.below = Math.max(places.below, -places.level[i]!);
  }
  return places;
}

/** The parts of the page at both sides of the line to be kept clear of; the whole page where a label fits neither. */
function segments(s: Stems, members: number[]): [from: number, to: number, members: number[]][] {
  const whole: [number, number, number[]][] = [[s.left, s.right, members]];
  if (!(s.avoid > s.left && s.avoid < s.right)) return whole;
  const before = members.filter((i) => s.x[i]! <= s.avoid);
  const after = members.filter((i) => s.x[i]! > s.avoid);
  const parts: [number, number, number[]][] = [
    [s.left, s.avoid - 2, before],
    [s.avoid + 2, s.right, after],
  ];
  const fits = (i: number, from: number, to: number) =>
    s.width[i]! <= to - Math.max(from, s.x[i]! - OVERHANG) || s.width[i]! <= Math.min(to, s.x[i]! + OVERHANG) - from;
  return parts.every(([from, to, list]) => list.every((i) => fits(i, from, to))) ? parts : whole;
}

function levelSegment(s: Stems, p: StemPlaces, members: number[], from: number, to: number, way: 1 | -1): void {
  const endOf = (i: number): number => Math.max(s.x[i]!, Math.min(to, s.x[i]! + OVERHANG));
  const reach = (i: number): [number, number] => {
    const left = Math.min(s.x[i]!, Math.max(from, s.x[i]! - OVERHANG));
    return [left, left + s.width[i]!];
  };
  // Those that hang to the left: all from the first on that has no room at its right.
  let split = members.length;
  for (let k = members.length - 1; k >= 0; k--) {
    const [, end] = reach(members[k]!);
    const covers = split < members.length && s.x[members[split]!]! < end + s.room;
    if (end > to + 0.01 || covers) split = k;
  }
  for (; split < members.length; split++) {
    const i = members[split]!;
    if (s.width[i]! <= endOf(i) - from + 0.01) break;
    const next = members[split + 1];
    if (next !== undefined && s.x[next]! < reach(i)[1] + s.room) p.clear = false;
  }
  const done: number[] = [];
  const put = (i: number, left: number) => {
    p.label[i] = left;
    const right = left + s.width[i]!;
    let level = 1;
    for (const j of done) {
      const touches = p.label[j]! < right + s.room && p.label[j]! + s.width[j]! > left - s.room;
      const covers = s.x[j]! > left - s.room && s.x[j]! < right + s.room;
      if (touches || covers) level = Math.max(level, Math.abs(p.level[j]!) + 1);
    }
    p.level[i] = level * way;
    done.push(i);
  };
  for (let k = split - 1; k >= 0; k--) put(members[k]!, reach(members[k]!)[0]);
  for (let k = split; k < members.length; k++) {
    const i = members[k]!;
    put(i, Math.max(Math.min(from, s.x[i]!), endOf(i) - s.width[i]!));
    // One that is too long for its side lies on stems that are still to come.
    const next = members[k + 1];
    if (next !== undefined && s.x[next]! < p.label[i]! + s.width[i]!) p.clear = false;
  }
}

/** Moves labels over the middle of their stems, and down to the lowest level, where that covers nothing. */
function centre(s: Stems, p: StemPlaces, members: number[]): void {
  for (const i of members) {
    const x = s.x[i]!;
    const middle = Math.min(Math.max(x - s.width[i]! / 2, s.left), s.right - s.width[i]!);
    const now = Math.abs(p.level[i]!);
    const isFree = (left: number, level: number): boolean => {
      const right = left + s.width[i]!;
      return members.every((j) => {
        if (j === i) return true;
        const other = Math.abs(p.level[j]!);
        if (other > level && s.x[j]! > left - s.room && s.x[j]! < right + s.room) return false;
        return other !== level || p.label[j]! >= right + s.room || p.label[j]! + s.width[j]! <= left - s.room;
      });
    };
    const crosses = s.avoid > middle - 2 && s.avoid < middle + s.width[i]! + 2;
    const places = crosses ? [p.label[i]!] : [middle, p.label[i]!];
    const [level, left] = lowest(now, places, isFree);
    p.label[i] = left;
    p.level[i] = level * Math.sign(p.level[i]!);
  }
}

/** The lowest level with a free place, the first of the places that is free there; the last place as it is without. */
function lowest(
  now: number,
  places: number[],
  isFree: (left: number, level: number) => boolean,
): [level: number, left: number] {
  for (let level = 1; level <= now; level++) for (const left of places) if (isFree(left, level)) return [level, left];
  return [now, places.at(-1)!];
}
