import { EFFECTS, type Effect, type ElementMatch } from '../../build/element';
import { matchKey } from '../../build/matches';

/**
 * What activities do to building elements, in a plan that is being changed: one group for each activity and effect,
 * in the order of these and each with its elements in their order, however they came.
 */
export class DraftMatches {
  private groups: Map<string, ElementMatch> | null = null;
  private elements = new Map<string, Set<string>>();

  constructor(private readonly from: readonly ElementMatch[]) {}

  /** @returns those elements that had not been matched so before */
  add({ activity, effect, elements }: ElementMatch): string[] {
    const own = this.open(activity, effect);
    const added = [...new Set(elements)].filter((e) => !own.has(e)).sort();
    for (const e of added) own.add(e);
    return added;
  }

  /** @returns those elements that had been matched so */
  remove({ activity, effect, elements }: ElementMatch): string[] {
    const own = this.open(activity, effect);
    return [...new Set(elements)].filter((e) => own.delete(e)).sort();
  }

  /** @returns all that an activity did to elements */
  removeOf(activity: string): ElementMatch[] {
    if (this.from.length === 0 && !this.groups) return [];
    return EFFECTS.flatMap((effect) => {
      const key = matchKey({ activity, effect });
      if (!this.opened().has(key) && !this.elements.has(key)) return [];
      const own = this.open(activity, effect);
      const elements = [...own].sort();
      own.clear();
      return elements.length > 0 ? [{ activity, effect, elements }] : [];
    });
  }

  finished(): ElementMatch[] {
    if (!this.groups) return this.from as ElementMatch[];
    const groups = new Map(this.groups);
    for (const [key, elements] of this.elements) {
      const [activity, effect] = [key.slice(0, key.lastIndexOf('\n')), key.slice(key.lastIndexOf('\n') + 1)];
      if (elements.size === 0) groups.delete(key);
      else groups.set(key, { activity, effect: effect as Effect, elements: [...elements].sort() });
    }
    return [...groups].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, group]) => group);
  }

  private opened(): Map<string, ElementMatch> {
    return (this.groups ??= new Map(this.from.map((m) => [matchKey(m), m])));
  }

  private open(activity: string, effect: Effect): Set<string> {
    const key = matchKey({ activity, effect });
    let own = this.elements.get(key);
    if (!own) {
      own = new Set(this.opened().get(key)?.elements);
      this.elements.set(key, own);
    }
    return own;
  }
}
