import { type Block, blockClashes, type Buffer, clashesOf, inOrder, meetsBlock, placesOf } from './buffers';
import { crossingsOf } from './crossings';
import type { FlowPoint } from './flowline';

/**
 * Where two works on a line meet, or one meets a stretch that the other holds: a clash, at the place and on the day
 * where both are. Where they only come closer than the buffer, that is another thing, at its worst place.
 */
export interface LineClash {
  kind: 'close' | 'crossing' | 'held' | 'bothHold';
  refs: [string, string];
  place: number;
  /** Days, as fractions of a day number. */
  time: number;
  /** Days or distance that lie between two that come too close; null where they meet. */
  gap: number | null;
  measure: 'days' | 'distance' | null;
}

interface Flow {
  ref: string;
  points: FlowPoint[];
}

const spanOf = (points: readonly FlowPoint[]): [number, number] => [points[0]!.time, points.at(-1)!.time];

/**
 * All clashes of the work on one line, the earliest first: every place where two flowlines meet, else where they keep
 * less than the buffer; flowlines that meet a block; blocks that hold the same place at the same time.
 */
export function lineClashes(flows: readonly Flow[], blocks: readonly Block[], buffer: Buffer): LineClash[] {
  const found: LineClash[] = [];
  const spans = flows.map((f) => ({ time: spanOf(f.points), place: placesOf(f.points) }));
  flows.forEach((a, k) => {
    const [[startA, endA], [lowA, highA]] = [spans[k]!.time, spans[k]!.place];
    for (let j = k + 1; j < flows.length; j++) {
      const [[startB, endB], [lowB, highB]] = [spans[j]!.time, spans[j]!.place];
      if (buffer.distance <= 0 && (lowA >= highB || lowB >= highA)) continue;
      const b = flows[j]!;
      // Works that are further apart in time than the buffer keep it everywhere.
      if (buffer.distance <= 0 && (startB - endA >= buffer.days || startA - endB >= buffer.days)) continue;
      const [leader, follower] = inOrder(a, b);
      const crossings = crossingsOf(a.points, b.points);
      for (const { place, time } of crossings)
        found.push({ kind: 'crossing', refs: [leader.ref, follower.ref], place, time, gap: null, measure: null });
      if (crossings.length > 0) continue;
      for (const c of clashesOf(leader, follower, buffer))
        found.push({
          kind: 'close',
          refs: [c.leader, c.follower],
          place: c.place,
          time: c.time,
          gap: c.gap,
          measure: c.measure,
        });
    }
    for (const block of blocks) {
      const met = meetsBlock(a.points, block);
      if (met) found.push({ kind: 'held', refs: [a.ref, block.ref], ...met, gap: null, measure: null });
    }
  });
  for (const c of blockClashes(blocks))
    found.push({ kind: 'bothHold', refs: c.refs, place: c.from, time: c.start, gap: null, measure: null });
  return found.sort((x, y) => x.time - y.time || x.place - y.place);
}
