import { describe, expect, test } from '@jest/globals';
import { type Plan, schedulePlan } from '@clembo/core';
import { demoPlans } from '../../../demo/index';
import { looksLikeJson, readPlanJson, UnreadableFile, writePlanJson } from '../src/index';

describe('our own JSON', () => {
  test.each(
    demoPlans().flatMap((d): [string, Plan][] => [
      [d.key, d.current],
      [`${d.key}, promised`, d.baseline],
    ]),
  )('%s comes back as it was written', (_, plan) => {
    const text = writePlanJson(plan);
    expect(looksLikeJson(new TextEncoder().encode(text))).toBe(true);
    const { plan: read, problems, rowOf } = readPlanJson(text, 'plan.json');
    expect([read, problems]).toEqual([plan, []]);
    expect(rowOf.get(plan.activities[3]!.ref)).toBe(4);
  });

  const broken = (change: (plan: Record<string, never>) => void): string => {
    const document = JSON.parse(writePlanJson(demoPlans()[1]!.current));
    change(document.plan);
    return JSON.stringify(document);
  };
  test('values of activities and links that cannot be used are left out and named', () => {
    const text = broken((plan: Record<string, unknown[]>) => {
      Object.assign(plan.activities![2]!, { percent: 140, duration: -480 });
      Object.assign(plan.links![0]!, { type: 'AFTER' });
    });
    const { plan, problems } = readPlanJson(text, 'own.json');
    expect(problems.map((p) => [p.code, p.row, p.heading, p.source])).toEqual(
      expect.arrayContaining([
        ['notUsable', 3, 'percent', 'own.json, plan.activities.2.percent'],
        ['negativeDuration', 3, 'duration', 'own.json, plan.activities.2.duration'],
        ['notUsable', 1, 'type', 'own.json, plan.links.0.type'],
      ]),
    );
    const whole = demoPlans()[1]!.current;
    expect(plan.activities.length).toBe(whole.activities.length);
    expect(plan.activities[2]).toMatchObject({ percent: null, duration: null });
    expect(plan.links.length).toBe(whole.links.length - 1);
    expect(schedulePlan(plan).planFinish).toBeGreaterThan(0);
  });
  test.each<[string, string, RegExp]>([
    ['no JSON', '{"format": ', /own\.json is not JSON/],
    ['another format', '{"format": "other", "version": 1, "plan": {}}', /not a plan of Clembo's own format. format/],
    ['a later version', writePlanJson(demoPlans()[0]!.current).replace('"version": 1', '"version": 2'), /version/],
    [
      'no reference',
      broken((p: Record<string, unknown[]>) => Object.assign(p.activities![0]!, { ref: '' })),
      /activities\.0\.ref/,
    ],
    ['no calendar', broken((p: Record<string, unknown>) => Object.assign(p, { calendars: [] })), /plan\.calendars/],
  ])('%s is refused with the place', (_, text, message) => {
    expect(() => readPlanJson(text, 'own.json')).toThrow(UnreadableFile);
    expect(() => readPlanJson(text, 'own.json')).toThrow(message);
  });
});
