import {
  Activity,
  bareBits,
  findUnusableText,
  isAboutParts,
  Link,
  mergedCodes,
  mergedMatches,
  MOST_ACTIVITIES,
  MOST_LINKS,
  type PackedPlan,
  packPlan,
  planFault,
  PictureRefused,
  Plan,
  type PlanPicture,
  unpackPlan,
} from '@clembo/core';
import { acceptColumns, unusableIn, valueAt } from './acceptColumns';

/** A plan that the store does not take in; the message says what is wrong, and where. */
export class PlanRefused extends Error {}

const Head = Plan.omit({ activities: true, links: true });

/** How many faults a refusal lists. */
const LISTED = 5;

/**
 * Checks a plan at the store's edge: nothing enters that its schema does not accept, and what its parts say of each
 * other holds together.
 *
 * @throws PlanRefused with the places in words
 */
export const acceptPlan = (data: Plan): Plan => unpackPlan(acceptPacked(packPlan(data)));

/**
 * As {@link acceptPlan}, for a plan that came as columns: each is looked at as a whole, in a fraction of the time.
 *
 * @param isWhole whether it is a whole plan, whose parts have to hold together, or only what is new in one
 */
export function acceptPacked(data: PackedPlan, isWhole = true): PackedPlan {
  const { activities, links, ...head } = data;
  const ofHead = Head.safeParse(head);
  const ofActivities = acceptColumns('activities', Activity.shape, activities, MOST_ACTIVITIES);
  const ofLinks = acceptColumns('links', Link.shape, links, MOST_LINKS);
  const faults = [...(ofHead.error?.issues ?? []), ...ofActivities.faults, ...ofLinks.faults];
  if (faults.length > 0 || !ofHead.data) {
    const places = faults.slice(0, LISTED).map((f) => `${placeWords(data, f.path)}: ${f.message}`);
    const more = faults.length - places.length;
    throw new PlanRefused(`The plan cannot be kept. ${places.join('; ')}${more > 0 ? `; and ${more} more` : ''}.`);
  }
  const accepted: PackedPlan = {
    ...ofHead.data,
    matches: mergedMatches(ofHead.data.matches),
    elementCodes: mergedCodes(ofHead.data.elementCodes),
    activities: ofActivities.columns,
    links: ofLinks.columns,
  };
  const unusable =
    findUnusableText(ofHead.data) ??
    unusableIn('activities', accepted.activities) ??
    unusableIn('links', accepted.links);
  if (unusable)
    throw new PlanRefused(
      `The plan cannot be kept. ${placeWords(
        data,
        unusable.map((p) => (/^\d+$/.test(String(p)) ? Number(p) : p)),
      )}: the text holds a character that cannot be kept (U+0000, or half a character).`,
    );
  unique('Code fields', accepted.codeFields);
  unique('Calendars', accepted.calendars);
  unique('Lines', accepted.lines);
  unique('Pictures', accepted.pictures);
  const seen = new Map<unknown, number>();
  for (let i = 0; i < accepted.activities.count; i++) {
    const ref = valueAt(accepted.activities, 'ref', i);
    const before = seen.get(ref);
    if (before !== undefined)
      throw new PlanRefused(
        `The plan cannot be kept. Activities ${before + 1} and ${i + 1} have the same reference “${ref}”; give each one of its own.`,
      );
    seen.set(ref, i);
  }
  const fault = isWhole ? planFault(unpackPlan(accepted)) : null;
  if (fault !== null) throw new PlanRefused(`The plan cannot be kept. ${fault}`);
  return { ...accepted, pictures: accepted.pictures.map(acceptPicture) };
}

/** A picture without anything that is not pixels. */
function acceptPicture(picture: PlanPicture): PlanPicture {
  try {
    return { ...picture, data: bareBits(picture.data) };
  } catch (error) {
    if (!(error instanceof PictureRefused)) throw error;
    throw new PlanRefused(`The picture “${picture.name}” cannot be kept: ${error.message}.`);
  }
}

/**
 * As {@link acceptPlan}, for what a command made of a plan that was accepted: what is the same object is not looked
 * at again. The whole has to hold together as well: two changes that each fit may not fit one another.
 *
 * @throws PlanRefused with the places in words
 */
export function acceptChange(before: Plan, after: Plan): Plan {
  const isOther = (list: List) => after[list] !== before[list];
  const known = new Set<object>(LISTS.filter(isOther).flatMap((list) => itemsOf(before, list)));
  const fresh = eachList((list) => (isOther(list) ? itemsOf(after, list).filter((x) => !known.has(x)) : []));
  const accepted = unpackPlan(acceptPacked(packPlan({ ...after, ...fresh }), false));
  if (after.activities !== before.activities) {
    const refs = new Set(after.activities.map((a) => a.ref));
    // Only when something is wrong is the whole looked at, for the words.
    if (refs.size !== after.activities.length) return acceptPlan(after);
  }
  const fault = isAboutParts(before, after) ? planFault(after) : null;
  // What was kept before this was looked at can be mended step by step.
  if (fault !== null && planFault(before) === null)
    throw new PlanRefused(
      `This cannot be kept. ${fault} Somebody may have changed it meanwhile; look at it, then do it again.`,
    );
  const whole = eachList((list) => {
    if (!isOther(list)) return itemsOf(before, list);
    let k = 0;
    return itemsOf(after, list).map((x) => (known.has(x) ? x : itemsOf(accepted, list)[k++]!));
  });
  return { ...accepted, ...whole };
}

/** The long lists of a plan, of which a change leaves most as it is. */
const LISTS = ['activities', 'links', 'pictures', 'matches', 'elementCodes'] as const;
type List = (typeof LISTS)[number];
const itemsOf = (plan: Plan, list: List): readonly object[] => plan[list];
const eachList = (make: (list: List) => readonly object[]): Pick<Plan, List> =>
  Object.fromEntries(LISTS.map((list) => [list, make(list)])) as unknown as Pick<Plan, List>;

function unique(what: string, list: readonly { id: string }[]): void {
  const at = list.findIndex(({ id }, i) => list.findIndex((other) => other.id === id) < i);
  if (at >= 0)
    throw new PlanRefused(
      `The plan cannot be kept. ${what}: “${list[at]!.id}” stands twice (place ${at + 1}); give each one a name of its own.`,
    );
}

/** A place in a plan as a person would name it: the activity by its reference, then the field. */
function placeWords(data: PackedPlan, path: PropertyKey[]): string {
  const [list, at, ...field] = path;
  if (list === 'activities' && typeof at === 'number') {
    const ref = valueAt(data.activities, 'ref', at);
    return [`activity ${ref ? `“${ref}”` : at + 1}`, ...field.map(String)].join(', ');
  }
  if (list === 'links' && typeof at === 'number') {
    const [from, to] = [valueAt(data.links, 'from', at), valueAt(data.links, 'to', at)];
    return [`link ${from && to ? `${from} → ${to}` : at + 1}`, ...field.map(String)].join(', ');
  }
  return path.map(String).join(', ') || 'the plan';
}
