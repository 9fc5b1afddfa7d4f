import { describe, expect, test } from '@jest/globals';
import { applyCommand, conditionHolds, monthStart, type Plan, schedulePlan, statusAt } from '@clembo/core';
import { demoPlans } from '../../../demo/index';
import { conditionOf } from '../src/features/measure/exhibits';
import { everything } from '../src/features/measure/everything';
import { editionsShown } from '../src/workers/answers/editions';
import { type Measuring, rowsBehind, standingShown } from '../src/workers/answers/measure';
import { roundShown, roundWould } from '../src/workers/answers/round';

const [wall] = demoPlans() as [ReturnType<typeof demoPlans>[number]];
const keep = (plan: Plan, name: string) => ({ id: name, plan, schedule: schedulePlan(plan), name });
const held = { plan: wall.current, schedule: schedulePlan(wall.current) };
const promised = keep(wall.baseline, 'The promise');
const status = wall.current.statusDate!;
const all = everything('code.phase');

describe('what is measured', () => {
  const november = monthStart(Date.UTC(2026, 10, 1) / 86_400_000);
  const choices: [name: string, part: Partial<Measuring>][] = [
    ['everything', {}],
    ['late', { off: 'late' }],
    ['ahead', { off: 'ahead' }],
    ['beyond tolerance', { off: 'beyond' }],
    ['in progress or complete', { statuses: ['inProgress', 'complete'] }],
    ['not started', { statuses: ['notStarted'] }],
    ['late to start', { statuses: ['lateToStart'] }],
    ['a month', { months: [november] }],
    ['two chosen ones', { refs: wall.current.activities.slice(5, 7).map((a) => a.ref) }],
    [
      'a phase that is late',
      { where: { match: 'all', tests: [{ field: 'code.phase', is: 'is', values: ['Wall'] }] }, off: 'late' },
    ],
  ];
  test.each(choices)('%s: the page that is made of it asks for the same activities', (_, part) => {
    const measuring = { ...all, ...part };
    const measured = rowsBehind(held, promised, measuring, status, { what: 'all' });
    const holds = conditionHolds(held.plan, held.schedule, conditionOf(measuring, status), promised);
    const asked = held.plan.activities
      .filter((_, i) => !held.schedule.outline.isSummary[i] && holds(i))
      .map((a) => a.ref);
    expect(measured.rows.map((r) => r.ref).sort()).toEqual(asked.sort());
    expect(measured.count).toBe(asked.length);
  });

  test('what is filtered says what it is of the whole, and the statuses add up', () => {
    const part = standingShown(held, promised, { ...all, off: 'late' }, status, 'en-GB');
    const whole = standingShown(held, promised, all, status, 'en-GB');
    expect(whole.whole).toBeNull();
    expect(part.whole).toEqual({
      finish: whole.finish,
      percent: whole.percent,
      indices: whole.indices,
      atEnd: whole.atEnd,
    });
    const { counts } = whole;
    expect(Object.values(counts).reduce((a, b) => a + b, 0)).toBe(whole.activities);
    const complete = held.plan.activities.filter(
      (_, i) => !held.schedule.outline.isSummary[i] && statusAt(held.plan, held.schedule, i, status) === 'complete',
    );
    expect(counts.complete).toBe(complete.length);
  });
});

describe('the weekly round', () => {
  const last = keep(wall.earlier.at(-1)!.plan, 'Last week');
  const round = (plan: Plan) => roundShown({ plan, schedule: schedulePlan(plan), promised }, last, status, 14);
  test('what was answered since the last edition stays, ticked, with both beside each other', () => {
    const cast = round(wall.current).rows.find((r) => r.name === 'Cast units, section 4')!;
    expect([cast.why, cast.changed, cast.complete]).toEqual(['shouldHaveFinished', true, true]);
    expect([cast.last!.percent, cast.now.percent, cast.now.actualFinish]).toEqual(['92', '100', '9 Sep 26']);
    expect(cast.facts).toContainEqual(['Promised', '11 Aug 26 to 5 Sep 26']);
    expect(cast.facts).toContainEqual(['Days', '25 of 25 done, 0 to go']);
  });
  test('nothing is changed where nothing was reported', () => {
    expect(round(last.plan).changed).toBe(0);
    const { ref } = round(last.plan).rows[0]!;
    const { plan } = applyCommand(last.plan, { do: 'changeActivity', ref, part: { notes: 'Waits' } });
    expect(round(plan).changed).toBe(1);
  });
  test('what is typed says what would come of it, or why it cannot be used', () => {
    const ref = round(wall.current).rows.find((r) => !r.complete && r.now.actualStart !== '')!.ref;
    expect(roundWould(held, ref, 'actualFinish', 'some day').error).toContain('is no day');
    expect(roundWould(held, ref, 'actualFinish', '2026-09-30').words).toContain('It ends 30 Sep 26');
    expect(roundWould(held, ref, 'notes', '')).toEqual({ error: null, words: '', bad: false });
  });
});

describe('over the editions', () => {
  const kept = [promised, ...wall.earlier.map((e) => keep(e.plan, e.name))];
  const shown = (since: string | null, by = 'code.contractor') =>
    editionsShown(held, kept, 0, { refs: null, since, by });
  test('the oldest first and now last; the milestones that moved most are followed in the order of time', () => {
    const { editions, trends } = shown(null);
    expect(editions.map((e) => e.name)).toEqual([...kept.map((k) => k.name), 'Now']);
    expect(trends.map((t) => t.name)).toContain('Station opens');
    const ends = trends.slice(1).map((t) => t.days.at(-1)!);
    expect(ends).toEqual([...ends].sort((a, b) => a - b));
  });
  test('what each moved adds up to all that moved', () => {
    const { since } = shown('The promise');
    const days = since!.moves.reduce((sum, m) => sum + m.finishDays, 0);
    expect(since!.movers.reduce((sum, m) => sum + m.days, 0)).toBeCloseTo(days, 6);
    expect(since!.count).toBe(since!.moves.length);
    expect(since!.words.join(', ')).toContain('later');
  });
  test('one edition against itself: nothing changed', () => {
    const same = editionsShown(held, [keep(wall.current, 'Same')], 0, { refs: [], since: 'Same', by: 'responsible' });
    expect([same.since!.moves, same.since!.movers, same.editions[1]!.words]).toEqual([[], [], 'nothing changed']);
  });
});
