import type { CodeField, Plan } from '../plan/schema';
import { schedulePlan } from '../schedule/schedule';
import type { Schedule } from '../schedule/model';
import { ConditionRefused, conditionHolds } from '../select/select';
import { fieldReader, fieldType, valueText } from '../select/fields';

/** What a field's rules, or its first characters, say of each activity. */
export interface Filled {
  /** By position: the code, or an empty text where nothing says one. */
  codes: string[];
  /** By rule: how many activities it decides, and how many it would catch if it stood first. */
  caught: { decides: number; catches: number }[];
  /** Positions of activities that no rule catches. Summaries are not counted. */
  none: number[];
}

/**
 * Works out the codes that a field is filled with; of several rules the first that catches decides. Groups are coded
 * like activities, and not counted.
 *
 * @throws ConditionRefused when a rule speaks of something that the plan does not have
 */
export function fillCodes(plan: Plan, s: Schedule, field: CodeField): Filled {
  const codes: string[] = Array(plan.activities.length).fill('');
  const { fill } = field;
  if (fill === null) return { codes, caught: [], none: [] };
  const counts = (i: number): number => (s.outline.isSummary[i] ? 0 : 1);
  let caught: Filled['caught'] = [];
  if (fill.by === 'characters') {
    const read = fieldReader(plan, s, fill.of);
    if (!read)
      throw new ConditionRefused(`The field “${fill.of}”, whose first characters are taken, is not in the plan.`);
    const type = fieldType(fill.of);
    for (let i = 0; i < codes.length; i++)
      codes[i] = [...valueText(read(i), type)].slice(0, fill.count).join('').trim();
  } else {
    const rules = fill.rules.map((r) => ({ code: r.code, holds: conditionHolds(plan, s, r.when) }));
    caught = rules.map(() => ({ decides: 0, catches: 0 }));
    for (let i = 0; i < codes.length; i++)
      for (const [k, { code, holds }] of rules.entries()) {
        if (!holds(i)) continue;
        caught[k]!.catches += counts(i);
        if (codes[i] !== '') continue;
        codes[i] = code;
        caught[k]!.decides += counts(i);
      }
  }
  return { codes, caught, none: codes.flatMap((code, i) => (code === '' && counts(i) === 1 ? [i] : [])) };
}

/** The codes of activities that their field's filling would change: reference and new code. Nothing filled stays. */
export function fillChanges(plan: Plan, s: Schedule, field: CodeField): [ref: string, code: string][] {
  const { codes } = fillCodes(plan, s, field);
  return plan.activities.flatMap((a, i): [string, string][] =>
    codes[i] !== '' && codes[i] !== (a.codes[field.id] ?? '') ? [[a.ref, codes[i]!]] : [],
  );
}

/**
 * Runs what fills code fields again after the plan has changed: what is new or empty is filled, what was filled by the
 * rules before follows them; a value that a person gave otherwise stays. A field whose rules do not fit the plan any
 * more is left as it is.
 */
export function refillCodes(before: Plan, after: Plan): Plan {
  const fields = after.codeFields.filter((f) => f.fill !== null);
  if (fields.length === 0) return after;
  const [was, now] = [schedulePlan(before), schedulePlan(after)];
  const held = new Map(before.activities.map((a, i) => [a.ref, i]));
  let activities = after.activities;
  for (const field of fields) {
    let old: string[];
    let next: string[];
    try {
      old = fillCodes(before, was, field).codes;
      next = fillCodes({ ...after, activities }, now, field).codes;
    } catch (error) {
      if (error instanceof ConditionRefused) continue;
      throw error;
    }
    activities = activities.map((a, i) => {
      const code = a.codes[field.id] ?? '';
      const at = held.get(a.ref);
      const follows = code === '' || at === undefined || old[at] === code;
      return !follows || next[i] === '' || next[i] === code ? a : { ...a, codes: { ...a.codes, [field.id]: next[i]! } };
    });
  }
  return { ...after, activities };
}
