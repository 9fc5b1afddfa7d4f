import {
  type BuildElement,
  caughtByRules,
  type ElementMatch,
  type MatchRule,
  mergedMatches,
  type Plan,
  type Schedule,
} from '../packages/core/src/index';

const is = (field: string, ...values: string[]) => ({ field, is: 'is' as const, values });
const rule = (id: string, said: Partial<MatchRule> & Pick<MatchRule, 'where'>): MatchRule => ({
  id,
  name: '',
  effect: 'builds',
  to: null,
  same: null,
  ...said,
});

/** Works that are left to be matched by whoever looks at the demo: their elements wait. */
const LEFT = ['L200', 'L240', 'W308'];

/** Who builds, removes and needs what of the station. */
export const STATION_RULES: MatchRule[] = [
  rule('old', {
    name: 'The old boathouse goes',
    where: { match: 'all', tests: [is('element.type', 'Old boathouse, brick')] },
    effect: 'removes',
    to: 'L100',
  }),
  rule('rig', {
    name: 'The rig stands for the piling',
    where: { match: 'all', tests: [is('element.type', 'Rig')] },
    effect: 'stands',
    to: 'L110',
  }),
  rule('cabins', {
    name: 'Cabins for as long as the site is managed',
    where: { match: 'all', tests: [is('element.type', 'Cabin 6 m')] },
    effect: 'stands',
    to: 'L300',
  }),
  rule('codes', {
    name: 'The code of the work',
    where: {
      match: 'all',
      tests: [
        { field: 'property.Work: Code', is: 'filled', values: [] },
        { field: 'property.Work: Code', is: 'isNot', values: LEFT },
      ],
    },
    same: { element: 'property.Work: Code', activity: 'ref' },
  }),
];

/** What these rules match. */
export function stationMatches(plan: Plan, schedule: Schedule, elements: readonly BuildElement[]): ElementMatch[] {
  return mergedMatches(caughtByRules(plan, schedule, elements, STATION_RULES).flatMap((c) => c.matches));
}
