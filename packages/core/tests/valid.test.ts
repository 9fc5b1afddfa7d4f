import { describe, expect, test } from '@jest/globals';
import {
  FIVE_DAY,
  isAboutParts,
  makeActivity,
  makeField,
  makeLink,
  makePlan,
  type Plan,
  planFault,
} from '../src/index';

const plan = (part: Partial<Plan> = {}): Plan =>
  makePlan({
    name: 'Valid',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    codeFields: [makeField({ id: 'crew', name: 'Crew' })],
    resources: [{ id: 'rig', name: 'Rig', unit: 'hour', rate: null, limit: null, calendar: null }],
    activities: [
      makeActivity({ ref: 'G', kind: 'summary' }),
      makeActivity({ ref: 'A', parent: 'G', codes: { crew: 'x' }, assignments: [{ resource: 'rig', effort: 60 }] }),
      makeActivity({ ref: 'B', calendar: FIVE_DAY.id }),
    ],
    links: [makeLink({ from: 'A', to: 'B' })],
    ...part,
  });
const withPart = (ref: string, part: object): Plan => {
  const p = plan();
  return { ...p, activities: p.activities.map((a) => (a.ref === ref ? { ...a, ...part } : a)) };
};

describe('a plan that holds together', () => {
  test('has no fault', () => expect(planFault(plan())).toBeNull());

  test.each<[string, Plan]>([
    ['The reference “A” stands twice', withPart('B', { ref: 'A' })],
    ['The group “no” of activity “B”', withPart('B', { parent: 'no' })],
    ['The calendar “no” of activity “B”', withPart('B', { calendar: 'no' })],
    ['The code field “no” of activity “B”', withPart('B', { codes: { no: '1' } })],
    ['The resource “no” of activity “B”', withPart('B', { assignments: [{ resource: 'no', effort: 1 }] })],
    ['The link A → no needs activity “no”', plan({ links: [makeLink({ from: 'A', to: 'no' })] })],
    ['The link no → A needs activity “no”', plan({ links: [makeLink({ from: 'no', to: 'A' })] })],
    ['The plan’s own calendar “no”', plan({ calendar: 'no' })],
    ['The calendar “no” of the resource “Rig”', plan({ resources: [{ ...plan().resources[0]!, calendar: 'no' }] })],
    ['a group that is in itself', withPart('G', { parent: 'A' })],
    ['a group that is in itself', withPart('B', { parent: 'B' })],
  ])('%s', (words, faulty) => expect(planFault(faulty)).toContain(words));

  test('groups within groups: a circle is found wherever it closes, and nothing else is one', () => {
    // Against following each parent for as many steps as there are activities.
    let seed = 7;
    const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
    let circles = 0;
    for (let k = 0; k < 500; k++) {
      const n = 2 + Math.floor(random() * 8);
      const parents = Array.from({ length: n }, () => (random() < 0.35 ? null : Math.floor(random() * n)));
      const closes = parents.some((_, i) => {
        let at: number | null = i;
        for (let step = 0; step <= n && at !== null; step++) at = parents[at]!;
        return at !== null;
      });
      circles += closes ? 1 : 0;
      const activities = parents.map((p, i) => makeActivity({ ref: `R${i}`, parent: p === null ? null : `R${p}` }));
      expect(planFault(plan({ activities, links: [] })) !== null).toBe(closes);
    }
    expect(circles).toBeGreaterThan(100);
    expect(circles).toBeLessThan(450);
  });

  test('is looked at again only where a change is about its parts', () => {
    const p = plan();
    const named = { ...p, activities: p.activities.map((a) => (a.ref === 'A' ? { ...a, name: 'Other' } : a)) };
    expect([isAboutParts(p, p), isAboutParts(p, named), isAboutParts(p, { ...p, name: 'Other' })]).toEqual([
      false,
      false,
      false,
    ]);
    const changes: Partial<Plan>[] = [
      { activities: withPart('B', { parent: 'G' }).activities },
      { activities: p.activities.slice(1) },
      { links: [] },
      { resources: [] },
      { codeFields: [] },
    ];
    for (const part of changes) expect(isAboutParts(p, { ...p, ...part })).toBe(true);
  });
});
