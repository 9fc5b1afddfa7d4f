import { placeWords } from '@clembo/core';
import type { LinearBrief } from '../../brief/linear';
import { formatDay } from '../../text/dates';
import type { Room } from '../sheet';
import { NAME_TIER, PLACE_TIER, TIME_GUTTER } from './axes';
import { CLASH_LINE } from './clashes';
import { STRIP } from './overTime';
import { STRIP_GAP, stripHeight } from './strips';
import { BETWEEN, type ByPlace, PLACE_STRIP } from './byPlace';
import type { Named } from './named';
import type { Plane } from './plane';
import type { LineSelection, Range } from './select';

/** Where everything of a page of a line stands. */
export interface LineRegions {
  plane: Plane;
  /** Baselines of the tiers of stations above the plot. */
  stationTops: number[];
  /** Where the names of zones stand: their baseline above the plot, or their right end beside it. */
  zonesAt: number;
  /** The bands of the pictures along the line: the edge that is further from the plot, and the nearer one. */
  strips: [from: number, to: number][];
  /** The bands of what is told of places, beside the plot. */
  byPlace: { kind: ByPlace; band: [from: number, to: number] }[];
  /** What the scales of the axes leave no room for, in words. */
  beyond: string;
  /** The top of the clashes that are told. */
  clashTop: number;
}

/** The plot is at least so large, in sizes of the type. */
const LEAST = { wide: 18, high: 12 };
/** Names beside the plot take so much room at most, in sizes of the type. */
const ASIDE = 11;
/** Two tiers of time stand above a plot whose time runs across, and the flag of the status date above them. */
const TIME_TIERS = 3;
const FLAG = 1.4;

/**
 * Lays out a page of a line in a room; null where the plot would be too small.
 *
 * @param beside how many lines clashes take under the plot, what is told of places, and how many strips beside time
 */
export function regionsOf(
  room: Room,
  selection: LineSelection,
  { stations, zones }: Named,
  brief: LinearBrief,
  range: Range,
  status: number | null,
  { told, byPlace, overTime }: { told: number; byPlace: readonly ByPlace[]; overTime: number },
): LineRegions | null {
  const { frame, measure } = room;
  const size = frame.scaleSize;
  const unit = selection.line?.unit ?? '';
  const across = brief.axes === 'across';
  const widest = (face: 'label' | 'textStrong', names: readonly string[]) =>
    Math.max(0, ...names.map((n) => measure.width(face, size, measure.clean(n))));
  const aside = (face: 'label' | 'textStrong', names: readonly string[]) =>
    names.length === 0 ? 0 : Math.min(ASIDE * size, widest(face, names) + size);
  const places = range.to - range.from;
  const heights = (long: number) => selection.strips.map((s) => stripHeight(s, long / size, places) * size);
  const worked = byPlace.length * (PLACE_STRIP + BETWEEN) * size;
  const bandsBeside = (from: number): LineRegions['byPlace'] =>
    byPlace.map((kind, k) => {
      const at = from + k * (PLACE_STRIP + BETWEEN) * size;
      return { kind, band: [at, at + PLACE_STRIP * size] };
    });
  const strip = overTime * STRIP * size;
  const foot = told === 0 ? 0 : (told * CLASH_LINE + 0.6) * size;
  const flag = status === null ? 0 : widest('label', [formatDay(status - 1, 'short')]) + size * 1.4;
  const [place0, place1] = runsBackwards(selection, brief) ? [range.to, range.from] : [range.from, range.to];
  const axes = { across, place0, place1, day0: range.day0, day1: range.day1 };
  const usable = ({ left, right, top, bottom }: Omit<Plane, keyof typeof axes>) =>
    right - left >= size * LEAST.wide && bottom - top >= size * LEAST.high;
  if (across) {
    const long = room.right - room.left - TIME_GUTTER * size;
    const tiers =
      stations.length === 0 ? 0 : areCrowded(stations, long / (range.to - range.from), size, measure) ? 2 : 1;
    const zonesAt = room.top + (tiers + (zones.length > 0 ? 1 : 0)) * NAME_TIER * size - size * 0.5;
    const above = zonesAt + STRIP_GAP * size;
    const bands = stacked(above, heights(long - strip - flag), size);
    const box = {
      left: room.left + TIME_GUTTER * size,
      right: room.right - (strip > 0 ? strip + size * 1.5 : 0) - flag,
      top: (bands.at(-1)?.[1] ?? zonesAt) + (PLACE_TIER + 0.5) * size,
      bottom: room.bottom - foot - (worked > 0 ? worked + size : 0),
    };
    const { plane, beyond } = scaled({ ...box, ...axes }, brief, unit);
    if (!usable(plane)) return null;
    const stationTops = Array.from({ length: tiers }, (_, k) => room.top + (k + 1) * NAME_TIER * size - size * 0.4);
    const under = plane.bottom + size;
    return {
      plane,
      beyond,
      stationTops,
      zonesAt,
      strips: bands,
      byPlace: bandsBeside(plane.bottom + size * 0.5),
      clashTop: under + (worked > 0 ? worked + size * 0.5 : 0),
    };
  }
  const zonesAt =
    room.left +
    aside(
      'textStrong',
      zones.map((z) => z.name),
    );
  const numbers = widest(
    'label',
    [range.from, range.to].map((p) => placeWords(Math.round(p * 1000), unit)),
  );
  const top = room.top + size * (TIME_TIERS + (status === null ? 0 : FLAG));
  const bottom = room.bottom - foot - (strip > 0 ? strip + size : 0);
  const bands = stacked(zonesAt + (zones.length > 0 ? STRIP_GAP * size : 0), heights(bottom - top), size);
  const names = aside(
    'label',
    stations.map((s) => s.name),
  );
  const box = {
    left: (bands.at(-1)?.[1] ?? zonesAt) + numbers + size * 1.2,
    right: room.right - names - (worked > 0 ? worked + size * 0.5 : 0),
    top,
    bottom,
  };
  const { plane, beyond } = scaled({ ...box, ...axes }, brief, unit);
  if (!usable(plane)) return null;
  const aft = plane.right + names + size * 0.5;
  return {
    plane,
    beyond,
    stationTops: [],
    zonesAt,
    strips: bands,
    byPlace: bandsBeside(aft),
    clashTop: plane.bottom + size + (strip > 0 ? strip + size : 0),
  };
}

/** Bands of so many heights, one behind the other. */
function stacked(from: number, heights: readonly number[], size: number): [number, number][] {
  let at = from;
  return heights.map((height) => {
    const band: [number, number] = [at, at + height];
    at += height + STRIP_GAP * size;
    return band;
  });
}

const POINTS_PER_MM = 72 / 25.4;

/** A plane with the scales that its brief asks for: smaller than its room, or with less of the line or of the time. */
function scaled(plane: Plane, brief: LinearBrief, unit: string): { plane: Plane; beyond: string } {
  let p = { ...plane };
  const beyond: string[] = [];
  const long = (place: boolean) => (place === p.across ? p.right - p.left : p.bottom - p.top);
  const shorten = (place: boolean, to: number): void => {
    if (place === p.across) p = { ...p, right: p.left + to };
    else if (place) p = { ...p, top: p.bottom - to };
    else p = { ...p, bottom: p.top + to };
  };
  if (brief.placeScale !== null) {
    const each = brief.placeScale * POINTS_PER_MM;
    const wanted = Math.abs(p.place1 - p.place0) * each;
    if (wanted > long(true) + 1e-6) {
      p = { ...p, place1: p.place0 + Math.sign(p.place1 - p.place0) * (long(true) / each) };
      beyond.push(`the page ends at place ${placeWords(Math.round(p.place1) * 1000, unit)} at this scale`);
    } else shorten(true, wanted);
  }
  if (brief.timeScale !== null) {
    const each = brief.timeScale * POINTS_PER_MM;
    const wanted = (p.day1 - p.day0) * each;
    if (wanted > long(false) + 1e-6) {
      p = { ...p, day1: p.day0 + long(false) / each };
      beyond.push(`the page ends on ${formatDay(Math.floor(p.day1), 'medium')} at this scale`);
    } else shorten(false, wanted);
  }
  return { plane: p, beyond: beyond.join(' · ') };
}

/** A line that goes from a larger place to a smaller one runs that way on the page, unless the brief turns it round. */
const runsBackwards = ({ line }: LineSelection, brief: LinearBrief): boolean =>
  (line !== null && line.from > line.to) !== brief.backwards;

/** Whether names of stations that stand in one tier would lie over each other. */
function areCrowded(stations: Named['stations'], perUnit: number, size: number, measure: Room['measure']): boolean {
  const wide = (name: string) => measure.width('label', size, measure.clean(name));
  const sorted = [...stations].sort((a, b) => a.at - b.at);
  return sorted.some((s, k) => {
    const next = sorted[k + 1];
    return next !== undefined && (next.at - s.at) * perUnit < (wide(s.name) + wide(next.name)) / 2 + size;
  });
}
