import type { Link } from '../../plan/schema';
import { CommandRefused } from '../refused';
import { type Item, Sequence } from './sequence';

const isSameLink = (a: Link, b: Link): boolean =>
  a.from === b.from && a.to === b.to && a.type === b.type && a.lag === b.lag && a.lagCalendar === b.lagCalendar;

/** The links of a plan that is being changed. Where they stand in the list matters to nothing but how it is read. */
export class DraftLinks {
  /** Links that came since the draft was made. */
  readonly added = new Set<Link>();
  private list: Link[] | null = null;
  private sequence: Sequence<Link> | null = null;
  private ends = new Map<string, Set<Item<Link>>>();

  constructor(private readonly from: readonly Link[]) {}

  /** Puts a link at a place of the list, at the end where none is said. */
  add(link: Link, at: number | undefined): void {
    this.added.add(link);
    if (!this.sequence && (at === undefined || at >= (this.list ?? this.from).length)) {
      (this.list ??= [...this.from]).push(link);
      return;
    }
    const sequence = this.opened();
    this.join(sequence.insert(link, at === undefined ? null : sequence.at(at)));
  }

  /**
   * Of a link that stands several times, the one at a place goes, or else the last.
   * @returns where it stood
   */
  remove(link: Link, at: number | undefined): number {
    const sequence = this.opened();
    const alike = [...(this.ends.get(link.from) ?? [])]
      .filter((item) => isSameLink(item.value, link))
      .map((item) => ({ item, at: sequence.indexOf(item) }))
      .sort((a, b) => a.at - b.at);
    const found = alike.find((x) => x.at === at) ?? alike.at(-1);
    if (!found) throw new CommandRefused(`There is no such link ${link.from} → ${link.to} in the plan (any more).`);
    this.leave(found.item);
    return found.at;
  }

  /**
   * All links of an activity go.
   * @returns them with the places at which they stood, in their order
   */
  removeOf(ref: string): { link: Link; at: number }[] {
    if (!this.sequence && !(this.list ?? this.from).some((l) => l.from === ref || l.to === ref)) return [];
    const sequence = this.opened();
    const own = [...(this.ends.get(ref) ?? [])]
      .map((item) => ({ item, at: sequence.indexOf(item) }))
      .sort((a, b) => a.at - b.at);
    for (const { item } of own) this.leave(item);
    return own.map(({ item, at }) => ({ link: item.value, at }));
  }

  finished(): Link[] {
    return this.sequence ? this.sequence.values() : (this.list ?? (this.from as Link[]));
  }

  private opened(): Sequence<Link> {
    if (!this.sequence) {
      this.sequence = new Sequence(this.list ?? this.from);
      for (const item of this.sequence.items()) this.join(item);
    }
    return this.sequence;
  }

  private join(item: Item<Link>): void {
    for (const end of new Set([item.value.from, item.value.to])) {
      const own = this.ends.get(end);
      if (own) own.add(item);
      else this.ends.set(end, new Set([item]));
    }
  }

  private leave(item: Item<Link>): void {
    this.sequence!.remove(item);
    this.added.delete(item.value);
    for (const end of [item.value.from, item.value.to]) this.ends.get(end)?.delete(item);
  }
}
