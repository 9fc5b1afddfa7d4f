import { describe, expect, test } from '@jest/globals';
import { selectFields, schedulePlan } from '@clembo/core';
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
