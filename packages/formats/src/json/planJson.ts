import { findUnusableText, Plan, usableText } from '@clembo/core';
import { z } from 'zod';
import type { Problem } from '../intake/problems';
import { UnreadableFile } from '../table/table';

/** Our own file: a plan as core states it, under a header that says what it is. Moments are minutes since 1970. */
export const PlanFile = z.object({ format: z.literal('clembo-plan'), version: z.literal(1), plan: Plan });

export interface ReadJson {
  plan: Plan;
  problems: Problem[];
  /** Position of every activity, from 1, by reference. */
  rowOf: Map<string, number>;
}

/**
 * Reads a plan from our JSON. A value of an activity that cannot be used is a problem with its place, and is left
 * out; so is a link. Anything else that is wrong makes the document unreadable.
 *
 * @throws UnreadableFile with the places in the document
 */
export function readPlanJson(text: string, source: string): ReadJson {
  if (depthOf(text) > MAX_DEPTH)
    throw new UnreadableFile(`${source} is nested more than ${MAX_DEPTH} deep; no plan of Clembo's own format is.`);
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new UnreadableFile(`${source} is not JSON: ${(error as Error).message}.`);
  }
  const unusable = findUnusableText(document);
  if (unusable)
    throw new UnreadableFile(
      `${source}, ${unusable
        .map(String)
        .map((p) => usableText(p).slice(0, 50))
        .join('.')}: the text holds a character that cannot be kept (U+0000, or half a character). Take it out.`,
    );
  let result = PlanFile.safeParse(document);
  const problems: Problem[] = [];
  if (!result.success) {
    problems.push(...leaveOut(document, result.error.issues, source));
    if (problems.length > 0) result = PlanFile.safeParse(document);
  }
  if (!result.success) {
    const places = result.error.issues.slice(0, 5).map((i) => `${i.path.join('.') || 'the document'}: ${i.message}`);
    throw new UnreadableFile(`${source} is not a plan of Clembo's own format. ${places.join('; ')}.`);
  }
  const { plan } = result.data;
  return { plan, problems, rowOf: new Map(plan.activities.map((a, i) => [a.ref, i + 1])) };
}

/** Deeper than any plan is nested. */
const MAX_DEPTH = 60;

/** How deep the brackets of a JSON text are nested; those within texts do not count. */
export function depthOf(text: string): number {
  let [depth, deepest, inText] = [0, 0, false];
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (inText) {
      if (c === 92) i++;
      else if (c === 34) inText = false;
    } else if (c === 34) inText = true;
    else if (c === 91 || c === 123) deepest = Math.max(deepest, ++depth);
    else if (c === 93 || c === 125) depth--;
  }
  return deepest;
}

/** Removes the values that the issues are about from the document, if it stays a plan without all of them. */
function leaveOut(document: unknown, issues: z.core.$ZodIssue[], source: string): Problem[] {
  const places = issues.map(({ path, message }) => ({ path, message }));
  const spared = ({ path: [plan, list, position, field] }: { path: PropertyKey[] }) =>
    plan === 'plan' &&
    typeof position === 'number' &&
    (list === 'links' || (list === 'activities' && typeof field === 'string' && field !== 'ref'));
  if (!places.every(spared)) return [];
  const { activities, links } = (document as { plan: { activities: Record<string, unknown>[]; links: unknown[] } })
    .plan;
  const problems: Problem[] = [];
  const linksGone = new Set<number>();
  for (const { path, message } of places) {
    const [, list, position, name] = path as [string, string, number, string];
    if (list === 'links') linksGone.add(position);
    const value = list === 'links' ? links[position] : activities[position]![name];
    problems.push({
      code: name === 'duration' && typeof value === 'number' && value < 0 ? 'negativeDuration' : 'notUsable',
      source: `${source}, ${path.join('.')}`,
      sheet: null,
      row: position + 1,
      column: -1,
      heading: name ?? 'link',
      value: JSON.stringify(value) ?? '',
      detail: message,
      ...(list === 'links' && { refs: endsOf(value) }),
    });
  }
  for (const { path } of places) if (path[1] === 'activities') delete activities[path[2] as number]![path[3] as string];
  if (linksGone.size > 0)
    (document as { plan: { links: unknown[] } }).plan.links = links.filter((_, k) => !linksGone.has(k));
  return problems;
}

/** The references at the ends of something that ought to be a link. */
const endsOf = (link: unknown): string[] =>
  typeof link === 'object' && link !== null
    ? ['from', 'to'].map((end) => (link as Record<string, unknown>)[end]).filter((ref) => typeof ref === 'string')
    : [];

export const writePlanJson = (plan: Plan): string =>
  `${JSON.stringify({ format: 'clembo-plan', version: 1, plan }, null, 1)}\n`;
