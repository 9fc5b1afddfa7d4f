import { describe, expect, test } from '@jest/globals';
import {
  againstPromise,
  applyCommand,
  asStarter,
  bodyOf,
  boxShape,
  type BuildElement,
  buildRange,
  buildTimes,
  caughtByRules,
  checkPlan,
  collide,
  type Command,
  commandWords,
  ConditionRefused,
  conflicts,
  countStages,
  coverage,
  dayFromCivil,
  edgesOf,
  elementFields,
  elementsHold,
  type ElementMatch,
  endOfDay,
  fieldReader,
  FIVE_DAY,
  GeometryRefused,
  GOING,
  GONE,
  likelyPairings,
  LOOSE,
  makeActivity,
  makeElement,
  makeField,
  makePlan,
  mendCommand,
  mendsFor,
  modelChanges,
  NOT_YET,
  packGeometry,
  pastedElementCodes,
  type Plan,
  quantityBuilt,
  readCondition,
  schedulePlan,
  selectFields,
  shareBuilt,
  shareDone,
  stageAt,
  StandingModel,
  startOfDay,
  STAYS,
  THERE,
  UNDATED,
  UNDER_WAY,
  unpackGeometry,
  wordsFor,
} from '../src/index';
import { seeded } from './helpers';

const day = (month: number, d: number) => dayFromCivil(2026, month, d);
const dated = (ref: string, first: number, last: number, more: object = {}) =>
  makeActivity({ ref, name: `Work ${ref}`, start: startOfDay(first), finish: endOfDay(last), ...more });
const planOf = (said: Partial<Plan>): Plan =>
  makePlan({ name: 'Station', calendars: [FIVE_DAY], calendar: FIVE_DAY.id, ...said });
const elementsOf = (n: number): BuildElement[] =>
  Array.from({ length: n }, (_, k) => makeElement({ ref: `m/${k}`, name: `E${k}`, volume: 1 + (k % 7) }));

/** A plan with random works and random matches to elements. */
function randomBuild(seed: number) {
  const r = seeded(seed);
  const pick = (n: number) => Math.floor(r() * n);
  const works = 3 + pick(12);
  const activities = Array.from({ length: works }, (_, k) => {
    if (r() < 0.1) return makeActivity({ ref: `A${k}`, name: `Work ${k}` });
    const first = day(3, 2) + pick(200);
    return dated(`A${k}`, first, first + pick(40));
  });
  const elements = elementsOf(20 + pick(30));
  let matches: ElementMatch[] = [];
  let plan = planOf({ activities, statusDate: startOfDay(day(6, 1)) });
  for (let k = 0; k < 25; k++) {
    const match: ElementMatch = {
      activity: `A${pick(works)}`,
      effect: (['builds', 'builds', 'removes', 'stands'] as const)[pick(4)]!,
      elements: Array.from({ length: 1 + pick(6) }, () => `m/${pick(elements.length)}`),
    };
    plan = applyCommand(plan, { do: 'matchElements', match }).plan;
  }
  matches = plan.matches;
  return { plan, schedule: schedulePlan(plan), elements, matches, r, pick };
}

/** How an element stands, said plainly: by its works and their dates, one question after the other. */
function plainly(plan: Plan, ref: string, on: number): number {
  const works = plan.matches.flatMap((m) =>
    m.elements.includes(ref) ? [{ effect: m.effect, a: plan.activities.find((a) => a.ref === m.activity)! }] : [],
  );
  if (works.length === 0) return LOOSE;
  if (works.some((w) => w.a.start === null)) return UNDATED;
  const first = (w: (typeof works)[number]) => Math.floor(w.a.start! / 1440);
  const last = (w: (typeof works)[number]) => Math.ceil(w.a.finish! / 1440) - 1;
  const of = (effect: string) => works.filter((w) => w.effect === effect);
  const [build, remove, stay] = [of('builds'), of('removes'), of('stands')];
  if (build.length === 0 && remove.length === 0) {
    if (stay.every((w) => on < first(w))) return NOT_YET;
    return stay.some((w) => first(w) <= on && on <= last(w)) ? THERE : GONE;
  }
  if (remove.length > 0 && remove.every((w) => on >= last(w))) return GONE;
  if (build.every((w) => on >= last(w))) return remove.some((w) => on >= first(w)) ? GOING : THERE;
  return build.some((w) => on >= first(w)) ? UNDER_WAY : NOT_YET;
}

describe('state on a date', () => {
  const [a, b] = [day(4, 6), day(4, 17)];
  const elements = elementsOf(5);
  const plan = planOf({
    statusDate: startOfDay(day(4, 10)),
    activities: [
      dated('A', a, b),
      dated('R', day(6, 1), day(6, 12)),
      dated('S', day(5, 4), day(5, 8)),
      makeActivity({ ref: 'U', name: 'Undated' }),
    ],
    matches: [
      { activity: 'A', effect: 'builds', elements: ['m/0', 'm/1'] },
      { activity: 'R', effect: 'removes', elements: ['m/1'] },
      { activity: 'S', effect: 'stands', elements: ['m/2'] },
      { activity: 'U', effect: 'builds', elements: ['m/3'] },
      { activity: 'gone at the source', effect: 'builds', elements: ['m/4'] },
    ],
  });
  const t = buildTimes(plan, schedulePlan(plan), elements);

  test.each([
    [0, a - 1, NOT_YET],
    [0, a, UNDER_WAY],
    [0, b - 1, UNDER_WAY],
    [0, b, THERE],
    [0, b + 300, THERE],
    [1, day(5, 1), THERE],
    [1, day(6, 1), GOING],
    [1, day(6, 12), GONE],
    [2, day(5, 3), NOT_YET],
    [2, day(5, 4), THERE],
    [2, day(5, 8), THERE],
    [2, day(5, 9), GONE],
    [3, b, UNDATED],
    [4, b, LOOSE],
  ])('element %i at the end of day %i', (e, on, stage) => {
    expect(stageAt(t, e, on)).toBe(stage);
  });

  test('how much is done lies evenly over the working days, and through what was reported', () => {
    const [work] = t.builders[0]!;
    // Two weeks from Monday 6 April; the weekend between adds nothing.
    expect(shareDone(t, work!, a)).toBeCloseTo(1 / 10, 10);
    expect(shareDone(t, work!, day(4, 12))).toBeCloseTo(5 / 10, 10);
    expect(shareDone(t, work!, b)).toBe(1);
    const reported = planOf({
      ...plan,
      activities: [{ ...plan.activities[0]!, percent: 80, actualStart: startOfDay(a) }],
    });
    const r = buildTimes(reported, schedulePlan(reported), elements);
    const [own] = r.builders[0]!;
    expect(shareDone(r, own!, day(4, 10))).toBeCloseTo(0.8, 10);
    expect(shareDone(r, own!, day(4, 7))).toBeCloseTo((0.8 * 2) / 5, 10);
    expect(shareDone(r, own!, day(4, 13))).toBeCloseTo(0.8 + 0.2 / 5, 10);
    expect(shareBuilt(t, 1, day(6, 6))).toBeCloseTo(1 - 5 / 10, 10);
  });

  test('behind and ahead are told against another plan with the same matches', () => {
    const early = planOf({ ...plan, activities: [dated('A', a - 20, b - 20), ...plan.activities.slice(1)] });
    const then = buildTimes(early, schedulePlan(early), elements);
    expect([...againstPromise(t, then, a)]).toEqual([-1, -1, 0, 0, 0]);
    expect([...againstPromise(then, t, a)]).toEqual([1, 1, 0, 0, 0]);
    expect([...againstPromise(t, then, b)]).toEqual([0, 0, 0, 0, 0]);
  });

  test('on random plans events give what is worked out plainly, forwards and backwards', () => {
    let [looked, moved] = [0, 0];
    for (let seed = 1; seed <= 60; seed++) {
      const { plan: p, schedule, elements: es, pick } = randomBuild(seed);
      const times = buildTimes(p, schedule, es);
      const standing = new StandingModel(times, day(3, 1));
      for (let k = 0; k < 25; k++) {
        const on = day(2, 20) + pick(280);
        moved += standing.go(on).length;
        es.forEach((e, i) => {
          const said = plainly(p, e.ref, on);
          looked++;
          if (standing.stages[i] !== stageAt(times, i, on) || stageAt(times, i, on) !== said)
            throw new Error(
              `seed ${seed}, element ${i}, day ${on}: events ${standing.stages[i]}, direct ${stageAt(times, i, on)}, plain ${said}`,
            );
        });
      }
    }
    expect(looked).toBeGreaterThan(30_000);
    expect(moved).toBeGreaterThan(1000);
  });

  test('every quantity curve grows, and ends at its total', () => {
    for (let seed = 100; seed <= 140; seed++) {
      const { plan: p, schedule, elements: es } = randomBuild(seed);
      const times = buildTimes(p, schedule, es);
      const range = buildRange(times);
      if (!range) continue;
      const days = Array.from(
        { length: 40 },
        (_, k) => range.first - 1 + Math.round(((range.last - range.first + 1) * k) / 39),
      );
      for (const measure of ['count', 'volume'] as const) {
        const { built, total } = quantityBuilt(times, es, measure, days);
        expect(built.at(-1)).toBeCloseTo(total, 9);
        expect(built[0]).toBeLessThanOrEqual(total);
        for (let k = 1; k < built.length; k++) expect(built[k]!).toBeGreaterThanOrEqual(built[k - 1]! - 1e-9);
        const wanted = es.reduce(
          (sum, e, i) =>
            sum +
            (times.builders[i]!.length > 0 && !times.isUndated[i] ? (measure === 'count' ? 1 : (e.volume ?? 0)) : 0),
          0,
        );
        expect(total).toBeCloseTo(wanted, 9);
      }
    }
  });
});

describe('matching', () => {
  const elements = [
    makeElement({ ref: 'm/a', class: 'Wall', storey: 'Ground', properties: { 'Work: Code': 'A', 'P: Height': '3.2' } }),
    makeElement({ ref: 'm/b', class: 'Wall', storey: 'Upper', properties: { 'Work: Code': 'B', 'P: Height': '2.8' } }),
    makeElement({ ref: 'm/c', class: 'Window', storey: 'Upper', classifications: ['B2020 Exterior Windows', 'other'] }),
    makeElement({ ref: 'm/d', class: 'Door', properties: { 'Work: Code': 'Z' } }),
  ];
  const plan = planOf({
    activities: [
      dated('A', day(4, 1), day(4, 10)),
      dated('B', day(4, 13), day(4, 24)),
      makeActivity({ ref: 'M', kind: 'finishMilestone' }),
    ],
    codeFields: [makeField({ id: 'zone', name: 'Zone' })],
  });
  const schedule = schedulePlan(plan);

  test('commands about elements are taken back exactly, in whichever order they were made', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { plan: start, pick } = randomBuild(seed);
      let now: Plan = { ...start, codeFields: plan.codeFields };
      for (let k = 0; k < 10; k++) {
        const refs = Array.from({ length: 1 + pick(5) }, () => `m/${pick(30)}`);
        const match = { activity: `A${pick(3)}`, effect: (['builds', 'removes'] as const)[pick(2)]!, elements: refs };
        const command: Command =
          k % 3 === 0
            ? {
                do: 'codeElements',
                field: 'zone',
                codes: refs.map((r): [string, string] => [r, ['x', 'y', ''][pick(3)]!]),
              }
            : { do: k % 3 === 1 ? 'matchElements' : 'unmatchElements', match };
        const { plan: next, inverse } = applyCommand(now, command);
        expect(applyCommand(next, inverse).plan).toEqual(now);
        expect(commandWords(command)).toMatch(/^(Match|Take|Code) /);
        now = next;
      }
      // A field that goes takes the codes of elements with it, and brings them back.
      const gone = applyCommand(now, { do: 'removeCodeField', id: 'zone' });
      expect(gone.plan.elementCodes).toEqual([]);
      expect(applyCommand(gone.plan, gone.inverse).plan).toEqual(now);
    }
  });

  test('two people who match other elements are not in each other’s way', () => {
    const match = (activity: string, element: string): Command => ({
      do: 'matchElements',
      match: { activity, effect: 'builds', elements: [element] },
    });
    expect(collide(match('A', 'm/a'), match('A', 'm/b'))).toBe(false);
    expect(collide(match('A', 'm/a'), match('B', 'm/a'))).toBe(false);
    expect(collide(match('A', 'm/a'), match('A', 'm/a'))).toBe(true);
  });

  test('an activity that is not there is refused in words', () => {
    expect(() =>
      applyCommand(plan, { do: 'matchElements', match: { activity: 'Q', effect: 'builds', elements: ['m/a'] } }),
    ).toThrow('There is no activity Q in the plan');
    expect(() => applyCommand(plan, { do: 'codeElements', field: 'q', codes: [['m/a', 'x']] })).toThrow(
      'no code field “q”',
    );
  });

  test('conditions speak of elements in the language of the ledger', () => {
    const fields = elementFields(elements);
    expect(fields.find((f) => f.name === 'P: Height')).toEqual({
      id: 'number.property.P: Height',
      name: 'P: Height',
      type: 'number',
    });
    const spoken = { codeFields: plan.codeFields, effortDay: null, fields };
    const holds = (text: string) => {
      const read = readCondition(spoken, text)!;
      expect(read.length).toBe(text.length);
      const found = elementsHold(elements, [{ field: 'zone', code: 'n', elements: ['m/d'] }], read.condition);
      return elements.flatMap((e, i) => (found(i) ? [e.ref] : [])).join(' ');
    };
    expect(holds('class is Wall')).toBe('m/a m/b');
    expect(holds('class is Wall and storey is Upper')).toBe('m/b');
    expect(holds('class is Wall and P: Height is more than 3')).toBe('m/a');
    expect(holds('classification begins with B2020')).toBe('m/c');
    expect(holds('Zone is n or (class is Wall and storey is Ground)')).toBe('m/a m/d');
    expect(holds('volume in m³ is empty')).toBe('m/a m/b m/c m/d');
    expect(selectFields(spoken).map((f) => f.id)).toContain('code.zone');
    expect(() =>
      elementsHold(elements, [], {
        match: 'all',
        tests: [
          { field: 'property.Q', is: 'is', values: ['1'] },
          { field: 'nothing', is: 'filled', values: [] },
        ],
      }),
    ).toThrow(ConditionRefused);
  });

  test('rules catch in their order, and leave what is matched', () => {
    const rules = [
      {
        id: '1',
        name: '',
        where: { match: 'all' as const, tests: [{ field: 'element.storey', is: 'is' as const, values: ['Upper'] }] },
        effect: 'builds' as const,
        to: 'B',
        same: null,
      },
      {
        id: '2',
        name: '',
        where: { match: 'all' as const, tests: [] },
        effect: 'builds' as const,
        to: null,
        same: { element: 'property.Work: Code', activity: 'ref' },
      },
      {
        id: '3',
        name: '',
        where: { match: 'all' as const, tests: [] },
        effect: 'removes' as const,
        to: 'B',
        same: null,
      },
    ];
    const first = caughtByRules(plan, schedule, elements, rules);
    expect(first.map((c) => [c.caught.length, c.taken, c.without])).toEqual([
      [2, 0, 0],
      [4, 1, 2],
      [4, 0, 0],
    ]);
    expect(first[0]!.matches).toEqual([{ activity: 'B', effect: 'builds', elements: ['m/b', 'm/c'] }]);
    expect(first[1]!.matches).toEqual([{ activity: 'A', effect: 'builds', elements: ['m/a'] }]);
    expect(first[2]!.matches[0]!.elements).toHaveLength(4);
    const [again] = caughtByRules({ ...plan, matches: first[0]!.matches }, schedule, elements, rules);
    expect([again!.matches, again!.taken]).toEqual([[], 2]);
  });

  test('the value that most elements share with activities is offered first', () => {
    const [best] = likelyPairings(plan, schedule, elements, {
      element: elementFields(elements)
        .map((f) => f.id)
        .filter((id) => id !== 'element.identifier' && id !== 'element.model'),
      activity: ['name', 'ref'],
    });
    expect(best).toEqual({ element: 'property.Work: Code', activity: 'ref', values: 2, elements: 2, activities: 2 });
  });

  test('trays count what waits, and milestones wait for nothing', () => {
    const matched = {
      ...plan,
      matches: [{ activity: 'A', effect: 'builds' as const, elements: ['m/a', 'm/not any more'] }],
    };
    const c = coverage(matched, schedulePlan(matched), elements);
    expect([c.matched, c.loose, c.activities, c.idle, [...c.counts]]).toEqual([1, [1, 2, 3], 2, [1], [[0, 1]]]);
  });

  test('built twice and removed before built are found', () => {
    const wrong = {
      ...plan,
      matches: [
        { activity: 'A', effect: 'builds' as const, elements: ['m/a'] },
        { activity: 'B', effect: 'builds' as const, elements: ['m/a', 'm/b'] },
        { activity: 'A', effect: 'removes' as const, elements: ['m/b'] },
      ],
    };
    const t = buildTimes(wrong, schedulePlan(wrong), elements);
    expect(conflicts(t)).toEqual([
      { kind: 'builtTwice', element: 0, activities: [0, 1] },
      { kind: 'removedBeforeBuilt', element: 1, activities: [1, 0] },
    ]);
    expect(countStages(Uint8Array.from([0, 1, 2, 3, 4, 4]))).toMatchObject({
      loose: 1,
      there: 2,
      underWay: 1,
      gone: 0,
    });
  });

  test('they are findings too, and one of those who build is chosen to build alone', () => {
    const wrong = {
      ...plan,
      matches: [
        { activity: 'A', effect: 'builds' as const, elements: ['m/a', 'm/b'] },
        { activity: 'B', effect: 'builds' as const, elements: ['m/a', 'm/b', 'm/c'] },
        { activity: 'A', effect: 'stands' as const, elements: ['m/c'] },
      ],
    };
    const found = checkPlan(wrong, schedulePlan(wrong)).filter((f) => f.facts?.elements !== undefined);
    expect(found.map((f) => [f.code, f.refs, f.facts!.elements])).toEqual([
      ['builtTwice', ['A', 'B'], 2],
      ['standsAndBuilt', ['A', 'B'], 1],
    ]);
    expect(wordsFor(found[0]!)).toBe(
      '2 elements are built by A, B. Leave them with one of these, or let each build its own.',
    );
    const s = schedulePlan(wrong);
    expect(mendsFor(wrong, s, found[0]!).map((m) => m.words)).toEqual(['They are built only by']);
    const { plan: mended } = applyCommand(wrong, mendCommand(wrong, s, [found[0]!], 'oneBuilds', 'A'));
    expect(mended.matches.map((m) => [m.activity, m.effect, m.elements])).toEqual([
      ['A', 'builds', ['m/a', 'm/b']],
      ['A', 'stands', ['m/c']],
      ['B', 'builds', ['m/c']],
    ]);
    expect(fieldReader(mended, s, 'elements')!(0)).toBe(3);
  });

  test('a starter leaves models behind, and keeps the rules', () => {
    const rule = {
      id: 'r',
      name: '',
      where: { match: 'all' as const, tests: [] },
      effect: 'builds' as const,
      to: 'A',
      same: null,
    };
    const made = asStarter({
      ...plan,
      matches: [{ activity: 'A', effect: 'builds' as const, elements: ['m/a'] }],
      matchRules: [rule],
    });
    expect([made.matches, made.elementCodes, made.matchRules]).toEqual([[], [], [rule]]);
  });

  test('codes are pasted against any key, in any order of rows and columns', () => {
    const read = (key: string, table: string[][]) => pastedElementCodes(elements, [], key, table);
    expect(
      read('element.identifier', [
        ['Identifier', 'Zone'],
        ['b', 'North'],
        ['a', 'South'],
        ['q', 'West'],
      ]),
    ).toEqual({
      codes: [
        ['m/b', 'North'],
        ['m/a', 'South'],
      ],
      heading: 'Identifier',
      unknown: ['q'],
      twofold: [],
    });
    expect(
      read('element.class', [
        ['N', 'wall'],
        ['S', 'Door'],
      ]).codes,
    ).toEqual([
      ['m/a', 'N'],
      ['m/b', 'N'],
      ['m/d', 'S'],
    ]);
    expect(
      read('element.identifier', [
        ['a', 'N'],
        ['a', 'S'],
        ['b', 'N'],
      ]),
    ).toEqual({ codes: [['m/b', 'N']], heading: null, unknown: [], twofold: ['a'] });
  });
});

describe('bodies', () => {
  const cube = boxShape([0, 0, 0], [2, 3, 4]);

  test('a box has twelve edges, and the side of a pipe none along its faces', () => {
    expect(cube.edges.length / 2).toBe(12);
    const sides = 24;
    const ring = Array.from({ length: sides }, (_, k) => [
      Math.cos((2 * Math.PI * k) / sides),
      Math.sin((2 * Math.PI * k) / sides),
    ]);
    const corners = Float32Array.from(ring.flatMap(([x, y]) => [x!, y!, 0, x!, y!, 5]));
    const triangles = Uint32Array.from(
      ring.flatMap((_, k) => {
        const [a, b, c, d] = [k * 2, k * 2 + 1, ((k + 1) % sides) * 2, ((k + 1) % sides) * 2 + 1];
        return [a, c, d, a, d, b];
      }),
    );
    // Only its two open ends are lines.
    expect(edgesOf(corners, triangles).length / 2).toBe(sides * 2);
  });

  test('packed and unpacked they are the same; bytes that are cut are refused', () => {
    const place = STAYS();
    place[9] = 10;
    const geometry = {
      origin: [1000, 2000, 3] as [number, number, number],
      shapes: [cube],
      parts: [
        { element: 0, shape: 0, place: STAYS() },
        { element: 1, shape: 0, place },
      ],
    };
    const bytes = packGeometry(geometry);
    expect(unpackGeometry(bytes)).toEqual(geometry);
    for (const cut of [3, 20, 60, bytes.length - 1])
      expect(() => unpackGeometry(bytes.slice(0, cut))).toThrow(GeometryRefused);
    const body = bodyOf([{ count: 3, geometry }]);
    expect([...body.boxes.slice(0, 12)]).toEqual([0, 0, 0, 2, 3, 4, 10, 0, 0, 12, 3, 4]);
    expect(Number.isNaN(body.boxes[12]!)).toBe(true);
    // Another model stands where it is in the world, about the first one's origin.
    const both = bodyOf([
      { count: 3, geometry },
      {
        count: 1,
        geometry: { ...geometry, origin: [1005, 2000, 3], parts: [{ element: 0, shape: 0, place: STAYS() }] },
      },
    ]);
    expect([...both.boxes.slice(18, 24)]).toEqual([5, 0, 0, 7, 3, 4]);
  });

  test('a newer model says what is new, changed and gone', () => {
    const old = elementsOf(3);
    const fresh = [old[0]!, { ...old[1]!, storey: 'Upper', volume: 9 }, makeElement({ ref: 'm/9', name: 'New' })];
    const geometry = (shift: number) => {
      const place = STAYS();
      place[9] = shift;
      return {
        origin: [0, 0, 0] as [number, number, number],
        shapes: [cube],
        parts: [0, 1, 2].map((element) => ({ element, shape: 0, place })),
      };
    };
    const at = (elements: BuildElement[], shift: number) => ({
      elements,
      body: bodyOf([{ count: 3, geometry: geometry(shift) }]),
    });
    const same = modelChanges(at(old, 0), at(fresh, 0));
    expect([
      same.added.map((c) => c.ref),
      same.changed.map((c) => c.what),
      same.gone.map((c) => c.ref),
      same.same,
    ]).toEqual([['m/9'], [['storey: nothing → Upper', 'volume: 2 → 9']], ['m/2'], 1]);
    expect(modelChanges(at(old, 0), at(old, 0.5)).changed.map((c) => c.what)).toEqual([['body'], ['body'], ['body']]);
  });
});
