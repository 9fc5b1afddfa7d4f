import { describe, expect, test } from '@jest/globals';
import {
  FIVE_DAY,
  makeActivity,
  makeField,
  makeLink,
  makePlan,
  makeValue,
  type Plan,
  selectFields,
  schedulePlan,
  startOfDay,
} from '@clembo/core';
import { demoPlans } from '../../../demo/index';
import {
  type Brief,
  composeExhibit,
  laidOver,
  portable,
  readyNetworks,
  readyTimelines,
  regroupings,
  type TimelineBrief,
} from '../src/index';
import { measure, plainAmounts, randomPlan } from './fixtures';

const demos = demoPlans().map((d) => {
  const editions = [
    ...d.earlier.map((e, k) => ({ id: `e${k}`, name: e.name, baseline: false, plan: e.plan })),
    { id: 'base', name: d.baselineEdition, baseline: true, plan: d.baseline },
  ];
  return { key: d.key, plan: d.current, editions };
});
const stranger = { key: 'a stranger', plan: randomPlan(4, 90), editions: [] as (typeof demos)[number]['editions'] };

const compose = ({ plan, editions }: (typeof demos)[number], brief: Brief) => {
  const e = editions.find((x) => (brief.compare === 'promised' ? x.baseline : x.id === brief.compare));
  return composeExhibit({
    plan,
    schedule: schedulePlan(plan),
    brief,
    measure,
    amounts: plainAmounts,
    edition: '',
    promised: brief.compare !== null && e ? { plan: e.plan, schedule: schedulePlan(e.plan), name: e.name } : null,
    editions: [],
  });
};

describe('what is offered to a plan that is little or odd', () => {
  const timelines = (plan: Plan) => readyTimelines(plan, schedulePlan(plan), []);
  const work = (ref: string, part: object = {}) =>
    makeActivity({ ref, name: ref, start: startOfDay(20_000), finish: startOfDay(20_005), ...part });
  const little = (activities: Plan['activities'], part: Partial<Plan> = {}) =>
    makePlan({ name: 'Little', calendars: [FIVE_DAY], calendar: FIVE_DAY.id, activities, ...part });

  test('one group that holds everything is opened', () => {
    const plan = little([work('P', { kind: 'summary' }), work('A', { parent: 'P' }), work('B', { parent: 'P' })]);
    const [summary] = timelines(plan);
    expect((summary!.brief as TimelineBrief).level).toBe(2);
    const groups = [...plan.activities, work('Q', { kind: 'summary' }), work('C', { parent: 'Q' })];
    expect((timelines(little(groups))[0]!.brief as TimelineBrief).level).toBe(1);
  });

  test('answers are no lanes where anything else is', () => {
    const field = (id: string, codes: string[]) =>
      makeField({ id, name: id, values: codes.map((code) => makeValue({ code })) });
    const plan = little(
      ['Yes', 'No', 'n/a', 'no'].map((asked, k) =>
        work(`A${k}`, { codes: { asked, stage: ['out', 'in', 'back'][k % 3] } }),
      ),
      { codeFields: [field('asked', ['Yes', 'No', 'n/a', 'no']), field('stage', ['out', 'in', 'back'])] },
    );
    const lanes = timelines(plan).map((r) => (r.brief as TimelineBrief).lanes[0]);
    expect(new Set(lanes.filter(Boolean))).toEqual(new Set(['stage']));
  });

  test('a path of one is no path', () => {
    // B and C are over long before A is.
    const day = (n: number) => startOfDay(20_000 + n);
    const alone = little(
      [work('A', { finish: day(40) }), work('B', { finish: day(2) }), work('C', { start: day(2), finish: day(4) })],
      { links: [makeLink({ from: 'B', to: 'C' })] },
    );
    const names = (plan: Plan) =>
      [...timelines(plan), ...readyNetworks(plan, schedulePlan(plan))].map((r) => r.name).filter((n) => /path/.test(n));
    expect(schedulePlan(alone).critical.filter((c) => c === 1)).toHaveLength(0);
    expect(names(alone)).toEqual([]);
    const chain = little([work('A'), work('B', { start: startOfDay(20_005), finish: startOfDay(20_009) })], {
      links: [makeLink({ from: 'A', to: 'B' })],
    });
    expect(names(chain)).toEqual(['The critical path', 'The critical path as a network']);
  });
});

describe.each([...demos, stranger])('ready-made pages of $key', (demo) => {
  const schedule = schedulePlan(demo.plan);
  const ready = [...readyTimelines(demo.plan, schedule, demo.editions), ...readyNetworks(demo.plan, schedule)];

  test('can be read, and ask for fields that there are', () => {
    expect(ready.length).toBeGreaterThanOrEqual(demo === stranger ? 5 : 10);
    const fields = new Set(selectFields(demo.plan).map((f) => f.id));
    for (const { name, brief } of ready) {
      const scene = compose(demo, brief);
      expect([name, scene.fit.readable]).toEqual([name, true]);
      if (brief.kind === 'timeline') for (const id of brief.columns) expect([id, fields.has(id)]).toEqual([id, true]);
    }
    expect(new Set(ready.map((r) => r.name)).size).toBe(ready.length);
  });

  test('are regrouped otherwise than they are', () => {
    const brief = ready[0]!.brief as TimelineBrief;
    const ways = regroupings(demo.plan, schedule, { ...brief, lanes: [], folded: [['x']] });
    expect(ways.length).toBeGreaterThan(1);
    for (const { change } of ways) {
      expect(change.lanes).not.toEqual([]);
      expect(change.folded).toEqual([]);
    }
  });
});

describe('a kept brief', () => {
  const { plan } = demos[0]!;
  const brief: TimelineBrief = {
    ...(readyTimelines(plan, schedulePlan(plan), demos[0]!.editions)[3]!.brief as TimelineBrief),
    title: 'Ours',
    from: 30_000_000,
    looks: [{ ref: 'T110', strong: true }],
    compare: 'e0',
    columns: ['finish', 'code.contractor'],
  };

  test('leaves behind what belongs to its plan alone', () => {
    const kept = portable(brief) as TimelineBrief;
    expect([kept.title, kept.from, kept.looks, kept.compare]).toEqual([null, null, [], 'promised']);
    expect(kept.lanes).toEqual(brief.lanes);
  });

  test('finds fields by their names, and says which the plan does not have', () => {
    const kept = portable(brief);
    const other = { codeFields: [{ ...plan.codeFields[0]!, id: 'firm', name: 'Contractor' }], periods: [], levels: 1 };
    const names = Object.fromEntries(plan.codeFields.map((f) => [f.id, f.name]));
    const { brief: laid, lost } = laidOver(kept, other, names);
    expect((laid as TimelineBrief).lanes).toEqual(['firm']);
    expect((laid as TimelineBrief).columns).toEqual(['finish', 'code.firm']);
    expect(lost).toEqual(['Phase']);
    expect((laid as TimelineBrief).colour).toBeNull();
  });
});
