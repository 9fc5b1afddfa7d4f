import { describe, expect, test } from '@jest/globals';
import { FIVE_DAY, makeActivity, makeLink, makePlan, parseIsoDate, schedulePlan, startOfDay } from '@clembo/core';
import {
  composeExhibit,
  defaultBrief,
  type HandoffsBrief,
  type Scene,
  Step,
  STEP_KINDS,
  stepAfter,
  StepArrow,
  withoutStep,
} from '../src/index';
import { neighbourly, spanOf } from '../src/exhibits/lanesOf';
import { cardsOf, meet, piecesOf, textBoxes, through } from './cardPage';
import { measure, plainAmounts, seeded } from './fixtures';

const day = (text: string): number => startOfDay(parseIsoDate(text)!);
/** The end of a day. */
const end = (text: string): number => day(text) + 1440;

const empty = makePlan({ name: 'Made up', start: day('2026-01-05'), calendars: [FIVE_DAY], calendar: FIVE_DAY.id });
const compose = (part: Partial<HandoffsBrief>, plan = empty): Scene =>
  composeExhibit({
    plan,
    schedule: schedulePlan(plan),
    brief: { ...defaultBrief('handoffs'), of: 'typed', page: 'A1 landscape', ...part },
    measure,
    amounts: plainAmounts,
    edition: '',
    promised: null,
    editions: [],
  });

const step = (id: string, part: Partial<Step> = {}): Step => Step.parse({ id, name: `Step ${id}`, ...part });
const arrow = (from: string, to: string, words = ''): StepArrow => StepArrow.parse({ from, to, words });

/** A made-up process: some steps belong to several, some ways lead back. */
function randomProcess(seed: number, count: number): Pick<HandoffsBrief, 'steps' | 'arrows'> {
  const random = seeded(seed);
  const below = (n: number) => Math.floor(random() * n);
  const hands = Array.from({ length: 2 + below(5) }, (_, k) => `Hand ${k}`);
  const steps = Array.from({ length: count }, (_, k) =>
    step(`s${k}`, {
      name: `Do the thing ${k} as agreed`.slice(0, 6 + below(20)),
      kind: STEP_KINDS[below(STEP_KINDS.length)]!,
      by: Array.from({ length: 1 + (random() < 0.25 ? 1 + below(2) : 0) }, () => hands[below(hands.length)]!),
      phase: `Phase ${Math.floor((k * 3) / count)}`,
      ...(random() < 0.5 ? { start: day('2026-02-02'), finish: end('2026-02-06') } : {}),
    }),
  );
  const arrows = steps.flatMap((_, k) => [
    ...(k === 0 ? [] : [arrow(`s${Math.max(0, k - 1 - below(3))}`, `s${k}`, random() < 0.2 ? 'yes' : '')]),
    ...(random() < 0.15 ? [arrow(`s${k}`, `s${below(count)}`, random() < 0.5 ? 'again' : '')] : []),
  ]);
  const seen = new Set<string>();
  return {
    steps,
    arrows: arrows.filter((a) => a.from !== a.to && !seen.has(`${a.from} ${a.to}`) && seen.add(`${a.from} ${a.to}`)),
  };
}

describe('pages of random processes', () => {
  const forms: Partial<HandoffsBrief>[] = [
    {},
    { phases: 'phase' },
    { form: 'chart', page: 'A1 portrait' },
    { page: 'A3 landscape', dates: false },
  ];
  test.each([4, 12, 30])('of %i steps: no step over a step, no line through one, no words over anything', (count) => {
    let pages = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const process = randomProcess(seed * 31 + count, count);
      const part = forms[seed % forms.length]!;
      const scene = compose({ ...process, ...part });
      if (!scene.fit.readable) continue;
      pages++;
      const about = `seed ${seed}`;
      const cards = cardsOf(scene);
      expect([about, cards.size]).toEqual([about, count]);
      const boxes = [...cards.values()];
      const overlaps = boxes.flatMap((a, i) => boxes.slice(i + 1).filter((b) => meet(a, b)));
      expect([about, overlaps]).toEqual([about, []]);
      const pieces = piecesOf(scene);
      // Where an edge curves, a line goes on to it within the box of its own step.
      const strange = (l: (typeof pieces)[number]) =>
        [...cards].some(([ref, b]) => !l.between.includes(ref) && through(l, b));
      expect([about, pieces.filter(strange)]).toEqual([about, []]);
      // Every arrow goes from the edge of its step to the edge of the next.
      const { process: shapes } = scene;
      expect([about, shapes!.arrows.length]).toEqual([about, process.arrows.length]);
      for (const a of shapes!.arrows) {
        const [from, to] = [shapes!.steps[a.from]!, shapes!.steps[a.to]!];
        const touches = ([x, y]: [number, number], s: typeof from) =>
          x > s.left - 0.1 && x < s.left + s.width + 0.1 && y > s.top - 0.1 && y < s.top + s.height + 0.1;
        expect([about, touches(a.points[0]!, from), touches(a.points.at(-1)!, to)]).toEqual([about, true, true]);
      }
      const words = textBoxes(scene).filter((t) => /^(yes|again|waits)/.test(t.text));
      const hit = words.filter((t) => boxes.some((b) => meet(t, b)) || words.some((o) => o !== t && meet(t, o)));
      expect([about, hit]).toEqual([about, []]);
      for (const b of boxes) {
        expect([about, b.left >= 0 && b.right <= scene.width && b.top >= 0 && b.bottom <= scene.height]).toEqual([
          about,
          true,
        ]);
      }
      // What is in phases stands in their order.
      if (part.phases)
        process.steps.forEach((s, i) =>
          process.steps.forEach((t, j) => {
            if (s.phase < t.phase)
              expect(shapes!.steps[i]!.left + shapes!.steps[i]!.width).toBeLessThanOrEqual(
                shapes!.steps[j]!.left + 0.1,
              );
          }),
        );
    }
    expect(pages).toBeGreaterThan(25);
  });

  test('a step stands in its lane, and one of several reaches over its lanes or says with whom', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const process = randomProcess(seed, 14);
      const { process: shapes, nodes } = compose({ ...process, page: 'A1 landscape' });
      if (!shapes) continue;
      const texts = JSON.stringify(nodes);
      process.steps.forEach((s, i) => {
        const { left, top, height } = shapes.steps[i]!;
        expect(left).toBeGreaterThan(0);
        const own = shapes.lanes.filter((l) => s.by.includes(l.name));
        const inside = shapes.lanes.filter((l) => top < l.bottom - 2 && top + height > l.top + 2);
        for (const lane of inside) expect([seed, s.id, own.includes(lane)]).toEqual([seed, s.id, true]);
        if (inside.length < own.length) expect([seed, s.id, texts.includes('with')]).toEqual([seed, s.id, true]);
      });
    }
  });
});

describe('what a page says', () => {
  const steps = [
    step('a', { by: ['Registrar'], start: day('2026-03-02'), finish: end('2026-03-03') }),
    step('b', { by: ['Conservator'], start: day('2026-03-04'), finish: end('2026-03-06') }),
    step('c', { by: ['Conservator'], kind: 'decision' }),
    step('d', { by: ['Carrier'], start: day('2026-03-23'), finish: end('2026-03-24') }),
  ];
  const arrows = [arrow('a', 'b'), arrow('b', 'c'), arrow('b', 'd'), arrow('c', 'b', 'not yet')];

  test('handoffs are arrows between different hands; the longest wait is counted in working days', () => {
    // From the evening of Friday 6 March to the morning of Monday 23: ten working days on a five-day week.
    const scene = compose({ steps, arrows });
    expect(scene.title).toBe('2 handoffs among 3 hands; work waits longest, 10 d, from Conservator to Carrier');
    expect(textBoxes(scene).map((t) => t.text)).toContain('waits 10 d');
    const row = (name: string) => scene.content.rows.find((r) => r.cells[0] === name)!.cells;
    expect(row('Step d').at(-1)).toBe('10 d');
    expect(row('Step b').slice(6, 8)).toEqual(['Step a; Step c (not yet)', 'Step c; Step d']);
  });

  test('the page says where there is nothing yet, and what to do', () => {
    const scene = compose({ steps: [], arrows: [] });
    expect(JSON.stringify(scene.nodes)).toContain('There are no steps yet');
  });

  test('a put step stays where it was put while another one is added', () => {
    const placed = [{ ref: 'd', later: 2, y: null }];
    const before = compose({ steps, arrows, placed });
    const at = (scene: Scene) => scene.cards!.cards.find((c) => c.ref === 'd')!;
    expect(at(before).column).toBe(at(compose({ steps, arrows })).column + 2);
    const more = stepAfter({ steps, arrows }, 'a');
    const after = compose({ ...more, placed });
    expect(at(after).column).toBe(at(before).column + 1);
  });

  test('of a plan: who is responsible has lanes, and a milestone begins or ends', () => {
    const plan = makePlan({
      ...empty,
      source: 'computed',
      activities: [
        makeActivity({ ref: 'G', name: 'Go', kind: 'startMilestone', duration: 0, responsible: ['Board'] }),
        makeActivity({ ref: 'D', name: 'Draw', duration: 5 * 480, responsible: ['Office', 'Board'] }),
        makeActivity({ ref: 'B', name: 'Build', duration: 10 * 480, responsible: ['Site'] }),
      ],
      links: [makeLink({ from: 'G', to: 'D' }), makeLink({ from: 'D', to: 'B', lag: 3 * 480 })],
    });
    const scene = compose({ of: 'plan' }, plan);
    expect(scene.process!.steps.map((s) => s.kind)).toEqual(['start', 'step', 'step']);
    expect(scene.process!.lanes.map((l) => l.name).sort()).toEqual(['Board', 'Office', 'Site']);
    // Board and Office share a step, so they are neighbours, and the step reaches over both.
    expect(scene.title).toBe('1 handoff among 3 hands; work waits longest, 3 d, from Office and Board to Site');
  });
});

describe('lanes that share things', () => {
  test('become neighbours where that is possible, and stay in order where nothing is shared', () => {
    expect(neighbourly(['A', 'B', 'C', 'D'], [['A', 'D']])).toEqual(expect.arrayContaining(['A', 'B', 'C', 'D']));
    for (let seed = 1; seed <= 50; seed++) {
      const random = seeded(seed);
      const lanes = ['A', 'B', 'C', 'D', 'E'];
      const pair = [lanes[Math.floor(random() * 5)]!, lanes[Math.floor(random() * 5)]!];
      if (pair[0] === pair[1]) continue;
      const order = neighbourly(lanes, [pair]);
      expect(Math.abs(order.indexOf(pair[0]!) - order.indexOf(pair[1]!))).toBe(1);
      expect(spanOf(pair, order).rest).toEqual([]);
    }
    expect(neighbourly(['C', 'A', 'B'], [['A'], ['B']])).toEqual(['C', 'A', 'B']);
    expect(spanOf(['A', 'C'], ['A', 'B', 'C'])).toEqual({ first: 0, last: 0, rest: ['C'] });
  });
});

describe('the order of lanes', () => {
  /** The same by counting anew for every place that is tried. */
  const plainly = (order: readonly string[], sets: readonly (readonly string[])[]): string[] => {
    const cost = (lanes: readonly string[]): number =>
      sets.reduce((sum, set) => {
        const places = set.map((code) => lanes.indexOf(code));
        return set.length === 0 ? sum : sum + Math.max(...places) - Math.min(...places) + 1 - set.length;
      }, 0);
    let best = [...order];
    let least = cost(best);
    for (let round = 0; round < 4; round++)
      for (const code of order) {
        const others = best.filter((c) => c !== code);
        for (let k = 0; k <= others.length; k++) {
          const tried = [...others.slice(0, k), code, ...others.slice(k)];
          const now = cost(tried);
          if (now < least) [best, least] = [tried, now];
        }
      }
    return best;
  };
  test('is that which counting everything anew finds, for 500 random sets of lanes', () => {
    const random = seeded(17);
    for (let k = 0; k < 500; k++) {
      const order = Array.from({ length: 1 + Math.floor(random() * 8) }, (_, i) => `L${i}`);
      const sets = Array.from({ length: Math.floor(random() * 10) }, () => order.filter(() => random() < 0.3));
      expect(neighbourly(order, sets)).toEqual(plainly(order, sets));
    }
  });
});

describe('typing a process', () => {
  test('a step behind another one takes over what that led to; a decision gets one more way', () => {
    const one = stepAfter({ steps: [], arrows: [] }, null);
    const two = stepAfter(one, one.id);
    const between = stepAfter(two, one.id);
    expect(between.steps.map((s) => s.id)).toEqual(['s1', 's3', 's2']);
    expect(between.arrows.map((a) => `${a.from} ${a.to}`)).toEqual(['s3 s2', 's1 s3']);
    const decision = { ...two, steps: two.steps.map((s) => ({ ...s, kind: 'decision' as const })) };
    expect(stepAfter(decision, 's1').arrows.map((a) => `${a.from} ${a.to}`)).toEqual(['s1 s2', 's1 s3']);
  });

  test('without a step the way goes on past it', () => {
    const process = { steps: ['a', 'b', 'c'].map((id) => step(id)), arrows: [arrow('a', 'b', 'yes'), arrow('b', 'c')] };
    expect(withoutStep(process, 'b').arrows).toEqual([arrow('a', 'c', 'yes')]);
    expect(withoutStep(process, 'c').arrows).toEqual([arrow('a', 'b', 'yes')]);
  });
});
