import type { Finding } from '../findings/finding';
import type { Activity, Plan } from '../plan/schema';
import { endOf } from './drawn';
import { floatNode, floatPass } from './float';
import { FF, FS } from './links';
import type { Schedule } from './model';
import { defaultStart, FOLLOWED_FIELDS, readNode, startKnown } from './network';
import { NONE, startSlot } from './slots';
import { backwardNode, backwardPass, forwardNode } from './passes';
import { findingsOf, scheduleDates, takeChanges, takeLeads } from './schedule';

/**
 * A schedule that follows edits: after a change of one activity only what is affected is computed again, with the
 * result of a full run. Nodes wait in a set of bits by their place in the order, so each is computed once, after
 * everything it depends on; where its dates turn out as they were, nothing behind it is touched.
 */
export class LiveSchedule {
  private held: Schedule;
  private rank: Int32Array;
  private fresh = true;

  /** The plan as it stands; its list of activities belongs to this object. */
  readonly plan: Plan;

  /** @param computed the schedule of the plan, where it is known already; it is changed in place */
  constructor(plan: Plan, computed?: Schedule) {
    this.plan = { ...plan, activities: [...plan.activities] };
    this.held = computed ?? scheduleDates(this.plan);
    this.fresh = computed !== undefined;
    this.rank = this.rankNodes();
  }

  get schedule(): Schedule {
    return this.held;
  }

  /** Findings of the schedule as it stands. */
  get findings(): Finding[] {
    if (!this.fresh) this.held.findings = findingsOf(this.plan, this.held);
    this.fresh = true;
    return this.held.findings;
  }

  /**
   * Changes an activity. Durations, remaining durations, percents and constraints of a plan as computed are followed
   * step by step; every other change, and one that changes how finely the plan is computed, is a full run.
   * @returns how many nodes were computed again
   */
  change(position: number, part: Partial<Activity>): number {
    return this.changeAll([{ position, part }]);
  }

  /** As {@link change}, of several activities: at most one full run for all of them. */
  changeAll(changes: readonly { position: number; part: Partial<Activity> }[]): number {
    let computed = 0;
    for (let k = 0; k < changes.length; k++) {
      const { position, part } = changes[k]!;
      const before = this.plan.activities[position];
      if (!before) throw new RangeError(`there is no activity at position ${position}`);
      const after = { ...before, ...part };
      const v = this.held.network.nodeOf[position]!;
      if (changesNoDate(before, after)) {
        this.plan.activities[position] = after;
        this.fresh = false;
      } else if (v >= 0 && this.canFollow(before, after, v)) {
        this.plan.activities[position] = after;
        computed += this.follow(v);
      } else {
        for (const rest of changes.slice(k))
          this.plan.activities[rest.position] = { ...this.plan.activities[rest.position]!, ...rest.part };
        return this.runFully();
      }
    }
    return computed;
  }

  private runFully(): number {
    this.held = scheduleDates(this.plan);
    this.rank = this.rankNodes();
    this.fresh = false;
    return this.held.network.count;
  }

  private rankNodes(): Int32Array {
    const rank = new Int32Array(this.held.network.count).fill(-1);
    this.held.order.sequence.forEach((v, k) => {
      rank[v] = k;
    });
    return rank;
  }

  private canFollow(before: Activity, after: Activity, v: number): boolean {
    const { network: net } = this.held;
    if (this.plan.source === 'given') return false;
    if (this.rank[v]! < 0 || net.asLate.includes(1) || after.constraint?.kind === 'asLateAsPossible') return false;
    for (const key of Object.keys(after) as (keyof Activity)[]) {
      if (before[key] !== after[key] && !FOLLOWED_FIELDS.has(key)) return false;
    }
    if (before.duration === null || after.duration === null) return false;
    // Without a start of its own or a status date, a plan may take its start from what is edited.
    if (before.constraint !== after.constraint && this.plan.start === null && this.plan.statusDate === null) {
      if (!startKnown(this.plan) || startSlot(defaultStart(this.plan), net.slotMinutes) !== net.planStart) return false;
    }
    if (net.resolution === 'minute') return this.plan.inHours;
    const perDay = net.times[net.calendar[v]!]!.spec.minutesPerDay;
    return (
      after.duration % perDay === 0 &&
      (after.remaining ?? 0) % perDay === 0 &&
      (after.constraint?.moment ?? 0) % 1440 === 0
    );
  }

  private follow(v: number): number {
    const { network: net, adjacency: adj, order, nodeDates: dates, floats } = this.held;
    const { sequence, blocked } = order;
    let heldByFinish = false;
    for (let k = adj.intoAt[v]!; k < adj.intoAt[v + 1]!; k++) {
      const type = net.linkType[adj.into[k]!]!;
      if (type === FS || type === FF) heldByFinish = true;
    }
    const was = [net.role[v], net.begun[v], net.actualStart[v], net.actualFinish[v]];
    readNode(net, v, this.plan, heldByFinish);
    // What a link demands, and whether it says anything, hangs on what both of its ends are.
    const turned =
      was[0] !== net.role[v] ||
      was[1] !== net.begun[v] ||
      (was[2] === NONE) !== (net.actualStart[v] === NONE) ||
      (was[3] === NONE) !== (net.actualFinish[v] === NONE);

    const waiting = new BitSet(sequence.length);
    const touched = new Set<number>([v]);
    const moved: number[] = [];
    let mayEndEarlier = false;
    /** Whether what ends the plan, or what is open, may be something else than before. */
    let leadsElsewhere = turned;
    const turnedPoints: number[] = turned ? [v] : [];
    let finish = dates.finish;
    waiting.add(this.rank[v]!);
    if (turned)
      for (let i = adj.outAt[v]!; i < adj.outAt[v + 1]!; i++) waiting.add(this.rank[net.linkTo[adj.out[i]!]!]!);
    for (let k = waiting.next(0); k >= 0; k = waiting.next(k)) {
      waiting.delete(k);
      const u = sequence[k]!;
      const [start, end, logic, side] = [
        dates.earlyStart[u]!,
        dates.earlyFinish[u]!,
        dates.logicFinish[u]!,
        dates.atFinish[u]!,
      ];
      const ended = endOf(net, dates, u);
      forwardNode(net, adj, dates, u);
      if (
        start === dates.earlyStart[u] &&
        end === dates.earlyFinish[u] &&
        logic === dates.logicFinish[u] &&
        side === dates.atFinish[u]
      )
        continue;
      moved.push(u);
      if (side !== dates.atFinish[u] && u !== v) turnedPoints.push(u);
      const ends = endOf(net, dates, u);
      if (ended === dates.finish && ends < ended) mayEndEarlier = true;
      if (ended === dates.finish || ends === dates.finish) leadsElsewhere = true;
      finish = Math.max(finish, ends);
      for (let i = adj.outAt[u]!; i < adj.outAt[u + 1]!; i++) waiting.add(this.rank[net.linkTo[adj.out[i]!]!]!);
    }
    if (mayEndEarlier && finish === dates.finish) {
      finish = NONE;
      for (let k = 0; k < sequence.length; k++) finish = Math.max(finish, endOf(net, dates, sequence[k]!));
    }

    const endMoves = finish !== dates.finish;
    dates.finish = finish;
    if (endMoves) {
      // The end of the plan bounds everything that is not done.
      backwardPass(net, adj, dates, sequence, blocked);
      floatPass(net, adj, dates, floats, sequence, blocked);
      takeChanges(this.plan, this.held, sequence, v);
      takeLeads(this.plan, this.held);
      this.fresh = false;
      return sequence.length;
    }

    waiting.add(this.rank[v]!);
    for (const u of moved) {
      touched.add(u);
      waiting.add(this.rank[u]!);
    }
    for (const u of turnedPoints)
      for (let i = adj.intoAt[u]!; i < adj.intoAt[u + 1]!; i++) waiting.add(this.rank[net.linkFrom[adj.into[i]!]!]!);
    for (let k = waiting.previous(sequence.length - 1); k >= 0; k = waiting.previous(k)) {
      waiting.delete(k);
      const u = sequence[k]!;
      const [start, end] = [dates.lateStart[u]!, dates.lateFinish[u]!];
      backwardNode(net, adj, dates, u, blocked);
      if (start === dates.lateStart[u] && end === dates.lateFinish[u]) continue;
      touched.add(u);
      for (let i = adj.intoAt[u]!; i < adj.intoAt[u + 1]!; i++) waiting.add(this.rank[net.linkFrom[adj.into[i]!]!]!);
    }
    // Slack and free float of a predecessor hang on the early dates of what follows it.
    for (const u of [v, ...moved])
      for (let i = adj.intoAt[u]!; i < adj.intoAt[u + 1]!; i++) touched.add(net.linkFrom[adj.into[i]!]!);
    for (const u of touched) floatNode(net, adj, dates, floats, u, blocked);
    takeChanges(this.plan, this.held, touched, v);
    if (leadsElsewhere) takeLeads(this.plan, this.held);
    this.fresh = false;
    return touched.size;
  }
}

/** Fields that no date, length or float hangs on. */
const WITHOUT_DATES = new Set<string>([
  'name',
  'codes',
  'notes',
  'responsible',
  'effort',
  'actualEffort',
  'cost',
  'actualCost',
  'onHold',
]);

const changesNoDate = (before: Activity, after: Activity): boolean =>
  (Object.keys(after) as (keyof Activity)[]).every((key) => before[key] === after[key] || WITHOUT_DATES.has(key));

/** A set of small whole numbers that can be walked upwards and downwards. */
class BitSet {
  private readonly words: Int32Array;

  constructor(size: number) {
    this.words = new Int32Array((size >> 5) + 1);
  }

  /** Numbers below 0 are no members and are passed over. */
  add(n: number): void {
    if (n >= 0) this.words[n >> 5]! |= 1 << (n & 31);
  }

  delete(n: number): void {
    this.words[n >> 5]! &= ~(1 << (n & 31));
  }

  /** The least member at or above n, or -1. */
  next(n: number): number {
    let w = n >> 5;
    let word = this.words[w]! & (-1 << (n & 31));
    while (word === 0) {
      if (++w >= this.words.length) return -1;
      word = this.words[w]!;
    }
    return (w << 5) + 31 - Math.clz32(word & -word);
  }

  /** The greatest member at or below n, or -1. */
  previous(n: number): number {
    if (n < 0) return -1;
    let w = n >> 5;
    const bit = n & 31;
    let word = this.words[w]! & (bit === 31 ? -1 : (1 << (bit + 1)) - 1);
    while (word === 0) {
      if (--w < 0) return -1;
      word = this.words[w]!;
    }
    return (w << 5) + 31 - Math.clz32(word);
  }
}
