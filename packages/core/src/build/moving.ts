import type { Day } from '../time/civil';
import { type BuildTimes, stageAt } from './times';

/**
 * How all elements stand on a day, found from how they stood on another: only those that something happens to in
 * between are looked at (events sorted by their days).
 */
export class StandingModel {
  readonly stages: Uint8Array;
  day: Day;
  private readonly days: Int32Array;
  private readonly elements: Int32Array;

  constructor(
    private readonly times: BuildTimes,
    day: Day,
  ) {
    this.day = day;
    this.stages = new Uint8Array(times.count);
    const events: [Day, number][] = [];
    for (let e = 0; e < times.count; e++) {
      this.stages[e] = stageAt(times, e, day);
      if (times.isLoose[e] || times.isUndated[e]) continue;
      const days = [times.from[e]!, times.built[e]!, times.leaves[e]!, times.gone[e]!];
      for (const [from, to] of times.stays.get(e) ?? []) days.push(from, to + 1);
      for (const d of new Set(days)) events.push([d, e]);
    }
    events.sort((a, b) => a[0] - b[0]);
    this.days = Int32Array.from(events, ([d]) => d);
    this.elements = Int32Array.from(events, ([, e]) => e);
  }

  /** Goes to a day; gives the elements that stand otherwise there. */
  go(day: Day): number[] {
    const [from, to] = day > this.day ? [this.day, day] : [day, this.day];
    const changed: number[] = [];
    // What happens on a day shows at its end: events behind `from` and up to `to`.
    for (let k = after(this.days, from); k < this.days.length && this.days[k]! <= to; k++) {
      const e = this.elements[k]!;
      const stage = stageAt(this.times, e, day);
      if (stage === this.stages[e]) continue;
      this.stages[e] = stage;
      changed.push(e);
    }
    this.day = day;
    return changed;
  }
}

/** The first position of a sorted list whose value is more than some value. */
function after(sorted: Int32Array, value: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! > value) high = middle;
    else low = middle + 1;
  }
  return low;
}
