import { basename } from 'node:path';
import {
  bodyOf,
  type BuildElement,
  caughtByRules,
  elementFields,
  type MatchRule,
  mergedMatches,
  type Plan,
  schedulePlan,
  selectFields,
  unpackGeometry,
} from '@clembo/core';
import { modelKey, readModel } from '@clembo/formats';
import { UsageError } from './fail';
import { type Loaded, readBytes } from './load';

export interface ModelOptions {
  /** A model beside those that the file holds. */
  model?: string | undefined;
  /** Elements belong to the activities with the same value: `work code=reference`. */
  same?: string | undefined;
}

/** The models of a file, and one more, with the plan matched to them by its rules and by what is said. */
export async function withModels(
  { plan, models }: Loaded,
  { model: file, same }: ModelOptions,
): Promise<{ plan: Plan; elements: BuildElement[]; body: ReturnType<typeof bodyOf> }> {
  const all = models.map((m) => ({ elements: m.elements, geometry: unpackGeometry(m.geometry) }));
  if (file !== undefined) {
    const name = basename(file);
    const { elements, geometry } = await readModel(await readBytes(file), name, modelKey(name));
    all.push({ elements, geometry });
  }
  const elements = all.flatMap((m) => m.elements);
  const rules: MatchRule[] = [...plan.matchRules, ...(same === undefined ? [] : [sameRule(plan, elements, same)])];
  const caught = caughtByRules(plan, schedulePlan(plan), elements, rules).flatMap((c) => c.matches);
  const matches = mergedMatches([...plan.matches, ...caught]);
  return {
    plan: { ...plan, matches },
    elements,
    body: bodyOf(all.map((m) => ({ count: m.elements.length, geometry: m.geometry }))),
  };
}

/** `work code=reference` as a rule: fields by what they are called. */
function sameRule(plan: Plan, elements: readonly BuildElement[], said: string): MatchRule {
  const at = said.indexOf('=');
  const [element, activity] = [said.slice(0, at).trim(), said.slice(at + 1).trim()];
  if (at < 0 || element === '' || activity === '')
    throw new UsageError('--same takes a field of elements and one of activities, such as "Work: Code=reference".');
  const find = (list: readonly { id: string; name: string }[], name: string, of: string): string => {
    const found = list.find((f) => f.name.toLowerCase() === name.toLowerCase() || f.id === name);
    if (!found)
      throw new UsageError(
        `--same: ${of} have no field “${name}”. They have: ${list
          .map((f) => f.name)
          .slice(0, 40)
          .join(', ')}.`,
      );
    return found.id;
  };
  return {
    id: 'said',
    name: '',
    where: { match: 'all', tests: [] },
    effect: 'builds',
    to: null,
    same: {
      element: find(elementFields(elements), element, 'elements'),
      activity: find(selectFields(plan), activity, 'activities'),
    },
  };
}
