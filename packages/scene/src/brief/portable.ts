import { type Condition, codeFieldId, codeOfFieldId, isTest } from '@clembo/core';
import { BY_HAND } from './hand';
import { OWN_PHASE } from './handoffs';
import { type Brief, spoken } from './kinds';
import { PROMISED, RESPONSIBLE } from './parts';
import { COLOUR_STATES } from './states';
import type { PlanWords } from './words';

/** What belongs to one plan alone: what is set by hand, days, a title, activities by their references. */
const BOUND = new Set<string>([
  ...BY_HAND,
  'from',
  'to',
  'dates',
  'laneFirst',
  'refs',
  'title',
  'placed',
  'fromPlace',
  'toPlace',
  // A part of one model, enlarged.
  'middle',
  'span',
]);

/** A brief without what belongs to one plan alone; an edition that it compares with becomes the promise. */
export function portable(brief: Brief): Brief {
  const own = Object.fromEntries(Object.entries(brief).filter(([part]) => !BOUND.has(part)));
  return spoken(brief.kind).schema.parse({ ...own, compare: brief.compare === null ? null : PROMISED });
}

export interface LaidBrief {
  brief: Brief;
  /** Names of fields that the brief asks for and the plan does not have. */
  lost: string[];
}

/** Fields that every brief may name without a plan having them: rows of one each, the outline, and states. */
const EVERYWHERE = new Set(['each', 'outline', RESPONSIBLE, ...Object.keys(COLOUR_STATES)]);

/**
 * A kept brief for another plan: its code fields are found again by their ids, else by the names that they had; what
 * the plan does not have is left out, and listed.
 *
 * @param names of the fields of the plan that the brief was kept from, by their ids
 */
export function laidOver(brief: Brief, plan: PlanWords, names: Readonly<Record<string, string>> = {}): LaidBrief {
  const known = new Set(plan.codeFields.map((f) => f.id));
  const byName = new Map(plan.codeFields.map((f) => [f.name.toLowerCase(), f.id]));
  const lost = new Set<string>();
  const field = (id: string): string | null => {
    if (EVERYWHERE.has(id) || known.has(id)) return id;
    const found = byName.get((names[id] ?? id).toLowerCase());
    if (found === undefined) lost.add(names[id] ?? id);
    return found ?? null;
  };
  const asked = (id: string): string | null => {
    const code = codeOfFieldId(id);
    if (code === null) return id;
    const own = field(code);
    return own === null ? null : codeFieldId(own);
  };
  const condition = ({ match, tests }: Condition): Condition => ({
    match,
    tests: tests.flatMap((t): Condition['tests'] => {
      if (!isTest(t)) return [condition(t)];
      const own = asked(t.field);
      return own === null ? [] : [{ ...t, field: own }];
    }),
  });
  const all = (ids: readonly string[], of: (id: string) => string | null) => ids.map(of).filter((id) => id !== null);
  const parts = (): object => {
    switch (brief.kind) {
      case 'timeline':
        return {
          lanes: all(brief.lanes, field),
          colour: brief.colour && field(brief.colour),
          shape: brief.shape && field(brief.shape),
          packBy: brief.packBy && field(brief.packBy),
          together: brief.together && field(brief.together),
          columns: all(brief.columns, asked),
          labels: all(brief.labels, asked),
          level: brief.level !== null && brief.level >= (plan.levels ?? 1) ? null : brief.level,
        };
      case 'slips':
      case 'bars':
      case 'amounts':
        return 'of' in brief ? { of: field(brief.of) ?? 'each' } : {};
      case 'build':
        return {
          colour: brief.colour && field(brief.colour),
          ...(brief.when === 'own' ? { when: 'status' as const } : {}),
        };
      case 'network':
        return {
          around: null,
          lanes: brief.lanes && field(brief.lanes),
          colour: brief.colour && field(brief.colour),
        };
      case 'handoffs':
        return {
          lanes: field(brief.lanes) ?? RESPONSIBLE,
          phases: brief.phases && (brief.phases === OWN_PHASE ? OWN_PHASE : field(brief.phases)),
          kinds: brief.kinds && field(brief.kinds),
        };
      case 'linear':
        return {
          line: plan.lines?.some((l) => l.id === brief.line) ? brief.line : null,
          need: plan.resources?.some((r) => r.id === brief.need) ? brief.need : null,
          colour: brief.colour && field(brief.colour),
        };
      case 'snapshot':
        return { by: brief.by && field(brief.by) };
      default:
        return {};
    }
  };
  const laid = { ...brief, ...parts(), where: condition(brief.where) };
  return { brief: spoken(brief.kind).schema.parse(laid), lost: [...lost] };
}
