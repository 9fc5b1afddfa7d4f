import type { Resolution, WorkingTime } from '../calendar/workingTime';
import type { Finding } from '../findings/finding';
import type { Outline } from '../outline/outline';
import type { Link, Plan } from '../plan/schema';
import { MINUTES_PER_DAY } from '../time/civil';
import type { LinkArrays } from './model';

export const FS = 0;
export const SS = 1;
export const FF = 2;
export const SF = 3;
const TYPE_CODE = { FS, SS, FF, SF } as const;

/** The lag of a link counts elapsed time. */
export const ELAPSED = -1;

/** Positions of the ends of every link in `plan.activities`; -1 where the plan has none by that reference. */
export interface LinkEnds {
  from: Int32Array;
  to: Int32Array;
}

export function findLinkEnds(plan: Plan, outline: Outline): LinkEnds {
  const n = plan.links.length;
  const ends: LinkEnds = { from: new Int32Array(n), to: new Int32Array(n) };
  const { indexOf } = outline;
  let row = -1;
  for (let l = 0; l < n; l++) {
    const link = plan.links[l]!;
    ends.from[l] = indexOf.get(link.from) ?? -1;
    // Sources list predecessors row by row: the next link mostly leads to the same row or to the one below it.
    if (row < 0 || plan.activities[row]!.ref !== link.to || outline.isDouble[row]) {
      row = row + 1 < plan.activities.length && plan.activities[row + 1]!.ref === link.to ? row + 1 : -1;
      if (row < 0 || outline.isDouble[row]) row = indexOf.get(link.to) ?? -1;
    }
    ends.to[l] = row;
  }
  return ends;
}

/** Positions in `plan.calendars`: of the plan's own calendar, and of that of every activity. */
export interface CalendarPositions {
  own: number;
  of: Uint16Array;
}

interface LinkInput {
  plan: Plan;
  outline: Outline;
  nodeOf: Int32Array;
  ends: LinkEnds;
  positions: CalendarPositions;
  times: WorkingTime[];
  resolution: Resolution;
  findings: Finding[];
}

/** How many links those to and from summaries may become. */
const MOST_MADE = 2_000_000;

/** Reads the links of a plan; broken ones are findings and are left out. */
export function readLinks(input: LinkInput): LinkArrays {
  const { plan, outline, nodeOf, ends, findings } = input;
  const list = new LinkList(plan.links.length);
  const summaryEnd = summaryEnds(outline, nodeOf, ends);
  let made = 0;
  for (let l = 0; l < plan.links.length; l++) {
    const link = plan.links[l]!;
    const [a, b] = [ends.from[l]!, ends.to[l]!];
    if (a < 0 || b < 0) {
      const [known, missing] = a < 0 ? [link.to, link.from] : [link.from, link.to];
      findings.push({ code: 'linkToNothing', severity: 'error', refs: [known], facts: { missing } });
      continue;
    }
    if (a === b) {
      findings.push({ code: 'linkToItself', severity: 'error', refs: [link.from] });
      continue;
    }
    const type = TYPE_CODE[link.type];
    const clock = lagClock(link, a, b, input.positions);
    const lag = lagSlots(link, clock, input);
    const [s, t] = [nodeOf[a]!, nodeOf[b]!];
    if (s >= 0 && t >= 0) {
      list.add(s, t, type, lag, clock, l);
      continue;
    }
    if (!outline.isSummary[a] && !outline.isSummary[b]) continue; // supporting work: placed after everything else
    findings.push({ code: 'linkToSummary', severity: 'warning', refs: [link.from, link.to] });
    const sources = s >= 0 ? [s] : summaryEnd(a, type === FS || type === FF ? 'last' : 'first');
    const targets = t >= 0 ? [t] : summaryEnd(b, type === FS || type === SS ? 'first' : 'last');
    made += sources.length * targets.length;
    if (made > MOST_MADE) {
      made -= sources.length * targets.length;
      const facts = { links: sources.length * targets.length };
      findings.push({ code: 'linkTooWide', severity: 'error', refs: [link.from, link.to], facts });
      continue;
    }
    for (const from of sources) for (const to of targets) if (from !== to) list.add(from, to, type, lag, clock, l);
  }
  return list.arrays();
}

/** Links in typed arrays that grow when summaries turn one link into many. */
class LinkList {
  private count = 0;
  private from: Int32Array;
  private to: Int32Array;
  private type: Uint8Array;
  private lag: Int32Array;
  private clock: Int16Array;
  private link: Int32Array;

  constructor(capacity: number) {
    this.from = new Int32Array(capacity);
    this.to = new Int32Array(capacity);
    this.type = new Uint8Array(capacity);
    this.lag = new Int32Array(capacity);
    this.clock = new Int16Array(capacity);
    this.link = new Int32Array(capacity);
  }

  add(from: number, to: number, type: number, lag: number, clock: number, link: number): void {
    if (this.count === this.from.length) this.grow();
    const k = this.count++;
    this.from[k] = from;
    this.to[k] = to;
    this.type[k] = type;
    this.lag[k] = lag;
    this.clock[k] = clock;
    this.link[k] = link;
  }

  private grow(): void {
    const capacity = Math.max(16, this.count * 2);
    const larger = <T extends Int32Array | Uint8Array | Int16Array>(old: T, next: T): T => {
      next.set(old);
      return next;
    };
    this.from = larger(this.from, new Int32Array(capacity));
    this.to = larger(this.to, new Int32Array(capacity));
    this.type = larger(this.type, new Uint8Array(capacity));
    this.lag = larger(this.lag, new Int32Array(capacity));
    this.clock = larger(this.clock, new Int16Array(capacity));
    this.link = larger(this.link, new Int32Array(capacity));
  }

  arrays(): LinkArrays {
    const n = this.count;
    return {
      linkCount: n,
      linkFrom: this.from.subarray(0, n),
      linkTo: this.to.subarray(0, n),
      linkType: this.type.subarray(0, n),
      linkLag: this.lag.subarray(0, n),
      linkCalendar: this.clock.subarray(0, n),
      linkOf: this.link.subarray(0, n),
    };
  }
}

/** Position in `plan.calendars` of the calendar that a lag is counted in, or ELAPSED. */
export function lagClock(link: Link, a: number, b: number, positions: CalendarPositions): number {
  switch (link.lagCalendar) {
    case 'elapsed':
      return ELAPSED;
    case 'plan':
      return positions.own;
    case 'predecessor':
      return positions.of[a]!;
    case 'successor':
      return positions.of[b]!;
  }
}

function lagSlots(link: Link, clock: number, { times, resolution }: LinkInput): number {
  if (link.lag === 0 || resolution === 'minute') return link.lag;
  return Math.round(link.lag / (clock === ELAPSED ? MINUTES_PER_DAY : times[clock]!.spec.minutesPerDay));
}

/**
 * The nodes that stand for a summary in a link: of what it contains, those that nothing within it leads to
 * (its first), or those that lead to nothing within it (its last). Found once for each summary.
 */
function summaryEnds(
  outline: Outline,
  nodeOf: Int32Array,
  ends: LinkEnds,
): (summary: number, side: 'first' | 'last') => number[] {
  const known = new Map<string, number[]>();
  let tree: { rank: Int32Array; after: Int32Array } | null = null;
  const linksAt = {
    first: lazily(() => groupLinks(ends.to, nodeOf.length)),
    last: lazily(() => groupLinks(ends.from, nodeOf.length)),
  };
  return (summary, side) => {
    const key = `${summary} ${side}`;
    const had = known.get(key);
    if (had) return had;
    tree ??= ranks(outline);
    const { rank, after } = tree;
    const [low, high] = [rank[summary]!, after[summary]!];
    const { starts, links } = linksAt[side]();
    const far = side === 'first' ? ends.from : ends.to;
    const isHeld = (i: number): boolean => {
      for (let k = starts[i]!; k < starts[i + 1]!; k++) {
        const other = far[links[k]!]!;
        if (other >= 0 && other !== i && nodeOf[other]! >= 0 && rank[other]! > low && rank[other]! < high) return true;
      }
      return false;
    };
    const found: number[] = [];
    for (let r = low + 1; r < high; r++) {
      const i = outline.order[r]!;
      if (nodeOf[i]! >= 0 && !isHeld(i)) found.push(nodeOf[i]!);
    }
    known.set(key, found);
    return found;
  };
}

const lazily = <T>(make: () => T): (() => T) => {
  let made: T | undefined;
  return () => (made ??= make());
};

/** The place of every activity in the order of the outline, and the place after all that it holds. */
function ranks({ order, parent }: Outline): { rank: Int32Array; after: Int32Array } {
  const rank = new Int32Array(order.length);
  const after = new Int32Array(order.length);
  for (let r = 0; r < order.length; r++) rank[order[r]!] = r;
  for (let r = order.length - 1; r >= 0; r--) {
    const i = order[r]!;
    after[i] = Math.max(after[i]!, r + 1);
    const p = parent[i]!;
    if (p !== -1) after[p] = Math.max(after[p]!, after[i]!);
  }
  return { rank, after };
}

/** The positions of links by the activity at one of their ends, in one array. */
function groupLinks(end: Int32Array, count: number): { starts: Int32Array; links: Int32Array } {
  const starts = new Int32Array(count + 1);
  for (const i of end) if (i >= 0) starts[i + 1]!++;
  for (let i = 0; i < count; i++) starts[i + 1]! += starts[i]!;
  const links = new Int32Array(starts[count]!);
  const next = starts.slice();
  end.forEach((i, l) => {
    if (i >= 0) links[next[i]!++] = l;
  });
  return { starts, links };
}
