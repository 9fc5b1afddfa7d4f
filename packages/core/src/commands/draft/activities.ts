import type { Activity } from '../../plan/schema';
import { CommandRefused } from '../refused';
import { type Item, Sequence } from './sequence';

/** Where references stand in lists of activities that are in use. */
const known = new WeakMap<readonly Activity[], ReadonlyMap<string, number>>();

function positionsIn(activities: readonly Activity[]): ReadonlyMap<string, number> {
  let positions = known.get(activities);
  if (!positions) {
    positions = new Map(activities.map((a, i) => [a.ref, i]));
    known.set(activities, positions);
  }
  return positions;
}

/**
 * The activities of a plan that is being changed, by their references. While activities only say something else, they
 * stand in a copy of the list; once one comes, goes or moves, in a sequence.
 */
export class DraftActivities {
  /** References of the activities that came or say something else, since the draft was made. */
  readonly changed = new Set<string>();
  /** Whether one has gone, though it may have come back. */
  hasLost = false;
  private list: Activity[] | null = null;
  private sequence: Sequence<Activity> | null = null;
  private items = new Map<string, Item<Activity>>();
  private children: Map<string, Set<string>> | null = null;

  constructor(private readonly from: readonly Activity[]) {}

  has(ref: string): boolean {
    return this.sequence ? this.items.has(ref) : positionsIn(this.from).has(ref);
  }

  /** @throws CommandRefused where there is none */
  get(ref: string): Activity {
    const found = this.sequence
      ? this.items.get(ref)?.value
      : (this.list ?? this.from)[positionsIn(this.from).get(ref) ?? -1];
    if (!found) throw new CommandRefused(`There is no activity ${ref} in the plan (any more).`);
    return found;
  }

  /** What an activity said when the draft was made; null where it was not there. */
  before(ref: string): Activity | null {
    return this.from[positionsIn(this.from).get(ref) ?? -1] ?? null;
  }

  /** The reference of the activity behind another; null at the end. */
  behind(ref: string): string | null {
    this.get(ref);
    if (this.sequence) return this.sequence.behind(this.items.get(ref)!)?.value.ref ?? null;
    return this.from[positionsIn(this.from).get(ref)! + 1]?.ref ?? null;
  }

  /** References of what a group holds. */
  heldBy(ref: string): string[] {
    if (!this.children) {
      this.children = new Map();
      for (const a of this.values()) this.hang(a);
    }
    return [...(this.children.get(ref) ?? [])];
  }

  /** An activity in the place of the one with its reference. */
  put(activity: Activity): void {
    const was = this.get(activity.ref);
    if (this.children && was.parent !== activity.parent) {
      this.unhang(was);
      this.hang(activity);
    }
    this.changed.add(activity.ref);
    if (this.sequence) this.items.get(activity.ref)!.value = activity;
    else (this.list ??= [...this.from])[positionsIn(this.from).get(activity.ref)!] = activity;
  }

  insert(activity: Activity, before: string | null): void {
    const sequence = this.opened();
    if (before !== null) this.get(before);
    this.items.set(activity.ref, sequence.insert(activity, before === null ? null : this.items.get(before)!));
    if (this.children) this.hang(activity);
    this.changed.add(activity.ref);
  }

  remove(ref: string): void {
    const gone = this.get(ref);
    this.opened().remove(this.items.get(ref)!);
    this.items.delete(ref);
    if (this.children) this.unhang(gone);
    this.changed.delete(ref);
    this.hasLost = true;
  }

  move(ref: string, before: string | null): void {
    const activity = this.get(ref);
    if (before === ref) return;
    const sequence = this.opened();
    if (before !== null) this.get(before);
    sequence.remove(this.items.get(ref)!);
    this.items.set(ref, sequence.insert(activity, before === null ? null : this.items.get(before)!));
  }

  /** All in their order; the list itself that the draft began with where nothing is different. */
  values(): readonly Activity[] {
    return this.sequence ? this.sequence.values() : (this.list ?? this.from);
  }

  /** As {@link values}, and where each stands is known to the next draft. */
  finished(): Activity[] {
    const values = this.values() as Activity[];
    if (!this.sequence && values !== this.from && known.has(this.from)) known.set(values, known.get(this.from)!);
    return values;
  }

  private opened(): Sequence<Activity> {
    if (!this.sequence) {
      this.sequence = new Sequence(this.values());
      for (const item of this.sequence.items()) this.items.set(item.value.ref, item);
    }
    return this.sequence;
  }

  private hang({ ref, parent }: Activity): void {
    if (parent === null) return;
    const held = this.children!.get(parent);
    if (held) held.add(ref);
    else this.children!.set(parent, new Set([ref]));
  }

  private unhang({ ref, parent }: Activity): void {
    if (parent !== null) this.children!.get(parent)?.delete(ref);
  }
}
