import { isMilestone, type Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { fieldReader, type FieldValue, fieldType, valueText } from '../select/fields';
import type { BuildElement, ElementMatch } from './element';
import { elementReader, elementsHold } from './elementFields';
import type { MatchRule } from './rule';

/** What rules catch. */
export interface RuleCatch {
  rule: MatchRule;
  /** Positions of the elements that its condition catches. */
  caught: number[];
  /** Matches that are new: of elements that no earlier rule took, and that had none of this effect. */
  matches: ElementMatch[];
  /** Elements that it catches and that have work of this effect already, or that an earlier rule takes. */
  taken: number;
  /** Elements that it catches and whose value no activity has. */
  without: number;
}

const valuesOf = (value: FieldValue, type: 'text' | 'number' | 'day'): string[] =>
  (Array.isArray(value) ? value : [valueText(value, type)]).map((v) => v.trim().toLowerCase()).filter((v) => v !== '');

/** Positions of the activities that have a value in a field, without regard to case; nobody builds by a summary or a milestone. */
export function activitiesByValue(plan: Plan, s: Schedule, field: string): Map<string, number[]> {
  const by = new Map<string, number[]>();
  const read = fieldReader(plan, s, field);
  if (!read) return by;
  plan.activities.forEach((a, i) => {
    if (s.outline.isSummary[i] || isMilestone(a.kind)) return;
    for (const v of valuesOf(read(i), fieldType(field))) {
      const own = by.get(v);
      if (own) own.push(i);
      else by.set(v, [i]);
    }
  });
  return by;
}

/**
 * What rules catch, in their order: of several rules with the same effect, the first one that catches an element takes
 * it, and what is matched by that effect already stays as it is.
 *
 * @throws ConditionRefused
 */
export function caughtByRules(
  plan: Plan,
  s: Schedule,
  elements: readonly BuildElement[],
  rules: readonly MatchRule[],
): RuleCatch[] {
  const known = new Set<string>();
  for (const m of plan.matches)
    if (s.outline.indexOf.has(m.activity)) for (const e of m.elements) known.add(`${m.effect}\n${e}`);
  return rules.map((rule) => {
    const holds = elementsHold(elements, plan.elementCodes, rule.where);
    const caught = elements.flatMap((_, i) => (holds(i) ? [i] : []));
    const read = rule.same && elementReader(elements, plan.elementCodes, rule.same.element);
    const by = rule.same && activitiesByValue(plan, s, rule.same.activity);
    const to = new Map<string, string[]>();
    let [taken, without] = [0, 0];
    for (const i of caught) {
      const { ref } = elements[i]!;
      const own = rule.same
        ? read
          ? valuesOf(read(i), fieldType(rule.same.element)).flatMap((v) =>
              (by!.get(v) ?? []).map((a) => plan.activities[a]!.ref),
            )
          : []
        : rule.to !== null && s.outline.indexOf.has(rule.to)
          ? [rule.to]
          : [];
      if (own.length === 0) without++;
      else if (known.has(`${rule.effect}\n${ref}`)) taken++;
      else {
        known.add(`${rule.effect}\n${ref}`);
        for (const activity of new Set(own)) {
          const refs = to.get(activity);
          if (refs) refs.push(ref);
          else to.set(activity, [ref]);
        }
      }
    }
    const matches = [...to].map(([activity, refs]) => ({ activity, effect: rule.effect, elements: refs }));
    return { rule, caught, matches, taken, without };
  });
}

/** A value that elements and activities share, and how many of either it would pair. */
export interface Pairing {
  element: string;
  activity: string;
  /** Values that both have, and how many elements and activities without a partner have them. */
  values: number;
  elements: number;
  activities: number;
}

/**
 * Fields of elements and of activities whose values agree: the pairing that gives the most elements work comes first.
 * Only what waits for a partner is counted, and only fields where every shared value means few activities.
 *
 * @param most activities that one value may mean
 */
export function likelyPairings(
  plan: Plan,
  s: Schedule,
  elements: readonly BuildElement[],
  fields: { element: readonly string[]; activity: readonly string[] },
  most = 1,
): Pairing[] {
  const matchedNow = new Set(plan.matches.flatMap((m) => (s.outline.indexOf.has(m.activity) ? m.elements : [])));
  const free = elements.flatMap((e, i) => (matchedNow.has(e.ref) ? [] : [i]));
  const pairings: Pairing[] = [];
  for (const activity of fields.activity) {
    const by = activitiesByValue(plan, s, activity);
    for (const element of fields.element) {
      const read = elementReader(elements, plan.elementCodes, element);
      if (!read) continue;
      const shared = new Set<string>();
      let count = 0;
      for (const i of free) {
        const found = valuesOf(read(i), fieldType(element)).filter((v) => (by.get(v)?.length ?? most + 1) <= most);
        if (found.length === 0) continue;
        count++;
        for (const v of found) shared.add(v);
      }
      if (count === 0) continue;
      const activities = new Set([...shared].flatMap((v) => by.get(v)!)).size;
      pairings.push({ element, activity, values: shared.size, elements: count, activities });
    }
  }
  return pairings.sort((a, b) => b.elements - a.elements || b.values - a.values);
}
