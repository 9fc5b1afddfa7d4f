import { Plan } from '@clembo/core';

/** A plan that the store does not take in; the message says what is wrong, and where. */
export class PlanRefused extends Error {}

/** How many faults a refusal lists. */
const LISTED = 5;

/**
 * Checks a plan at the store's edge: nothing enters that its schema does not accept, and every reference names one
 * activity.
 *
 * @throws PlanRefused with the places in words
 */
export function acceptPlan(data: Plan): Plan {
  const result = Plan.safeParse(data);
  if (!result.success) {
    const places = result.error.issues.slice(0, LISTED).map((i) => `${placeWords(data, i.path)}: ${i.message}`);
    const more = result.error.issues.length - places.length;
    throw new PlanRefused(`The plan cannot be kept. ${places.join('; ')}${more > 0 ? `; and ${more} more` : ''}.`);
  }
  const seen = new Map<string, number>();
  data.activities.forEach((a, i) => {
    const before = seen.get(a.ref);
    if (before !== undefined)
      throw new PlanRefused(
        `The plan cannot be kept. Activities ${before + 1} and ${i + 1} have the same reference “${a.ref}”; give each one of its own.`,
      );
    seen.set(a.ref, i);
  });
  return result.data;
}

/** A place in a plan as a person would name it: the activity by its reference, then the field. */
function placeWords(data: Plan, path: PropertyKey[]): string {
  const [list, at, ...field] = path;
  if (list === 'activities' && typeof at === 'number') {
    const ref = data.activities[at]?.ref;
    return [`activity ${ref ? `“${ref}”` : at + 1}`, ...field.map(String)].join(', ');
  }
  if (list === 'links' && typeof at === 'number') {
    const link = data.links[at];
    return [`link ${link ? `${link.from} → ${link.to}` : at + 1}`, ...field.map(String)].join(', ');
  }
  return path.map(String).join(', ') || 'the plan';
}
