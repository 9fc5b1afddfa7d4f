import { describe, expect, test } from '@jest/globals';
import { type Condition, makeActivity, makeLink, type Plan, parseIsoDate } from '@clembo/core';
import { demoPlans } from '../../../demo/index';
import {
  blindWords,
  type TimelineBrief,
  leavesOf,
  PAGES,
  type PageName,
  PROMISED,
  type Scene,
  shownWords,
} from '../src/index';
import { briefOf, compose, labelBoxes, overlaps, randomPlan, texts, contentOf } from './fixtures';
import { day, end } from '../../core/tests/helpers';

const [{ current: wall, baseline }] = demoPlans() as [ReturnType<typeof demoPlans>[number]];
const leaves = wall.activities.filter((a) => a.kind !== 'summary').length;

/** A plan of a few activities by name: from, to, and more. */
function planOf(rows: [name: string, start: string | null, finish: string | null, more?: object][], more = {}): Plan {
  const plan = randomPlan(1, 1);
  return {
    ...plan,
    statusDate: null,
    periods: [],
    links: [],
    activities: rows.map(([name, start, finish, part], i) =>
      makeActivity({
        ref: `R${i + 1}`,
        name,
        start: start === null ? null : day(start),
        finish: finish === null ? null : end(finish),
        ...part,
      }),
    ),
    ...more,
  };
}
const marks = (scene: Scene, role: string) =>
  leavesOf(scene.nodes).flatMap((n) => (n.type === 'rect' && n.role === role && n.ref !== undefined ? [n] : []));
const foot = (scene: Scene) => texts(scene, 'source').join(' · ');
const said = (scene: Scene) => texts(scene, 'label');

const asked = (field: string, is: 'is' | 'isNot', values: string[]): Condition => ({
  match: 'all',
  tests: [{ field: `code.${field}`, is, values }],
});

describe('truth: what is on a page, and what is not', () => {
  test('what has no dates stands on no time axis; it is listed, and counted in the foot', () => {
    const plan = planOf([
      ['Survey', '2026-03-02', '2026-03-13'],
      ['Permits', null, null, { duration: 4800 }],
    ]);
    const scene = compose(plan);
    expect(said(scene)).toEqual(['Survey to 13 Mar']);
    expect(scene.undated).toEqual([{ ref: 'R2', name: 'Permits' }]);
    expect(foot(scene)).toContain('1 of 2 activities shown · not shown: 1 without dates');
  });

  test('a page of nothing but undated activities says so in a sentence', () => {
    const scene = compose(
      planOf([
        ['Survey', null, null],
        ['Permits', null, null],
      ]),
    );
    expect(texts(scene, 'notice').join(' ')).toMatch(
      /^None of the 2 activities .* has dates, so there is nothing to draw/,
    );
    expect(JSON.stringify(scene)).not.toContain('2000');
  });

  test('the foot counts activities, not groups, and adds up', () => {
    const scene = compose(wall, { level: 1 });
    expect(scene.fit.counts).toMatchObject({ of: leaves, shown: 0, inGroups: leaves, groups: 7 });
    expect(foot(scene)).toContain(`${leaves} activities in 7 groups`);
    expect(
      shownWords({ ...scene.fit.counts, shown: 2, inGroups: 5, groups: 1, milestonesInGroups: 1, outside: 3, of: 10 }),
    ).toBe(
      '2 of 10 activities shown, 5 more in 1 group, 1 milestone among them · not shown: 3 before or after these dates',
    );
  });

  test('work that ended before the range, or begins at its end, is not on the page', () => {
    const plan = planOf([
      ['Before', '2026-03-02', '2026-03-06'],
      ['Within', '2026-03-05', '2026-03-12'],
      ['After', '2026-03-14', '2026-03-20'],
    ]);
    const scene = compose(plan, { from: day('2026-03-07'), to: day('2026-03-14') });
    expect(said(scene)).toEqual(['Within to 12 Mar']);
    expect(scene.fit.counts.outside).toBe(2);
  });

  test('progress of a bar that the page cuts is that of the whole bar', () => {
    const plan = planOf([['Dredging', '2026-03-01', '2026-04-09', { percent: 50 }]]);
    // Forty days, half done on the evening of 20 March; the page shows 11 March to 9 April.
    const scene = compose(plan, { from: day('2026-03-11'), to: end('2026-04-09'), labels: [] });
    const [bar] = marks(scene, 'bar');
    const [done] = marks(scene, 'progress');
    expect(done!.width / bar!.width).toBeCloseTo(10 / 30, 2);
  });

  test('a group stands for those of its activities that pass the filter, with their dates', () => {
    const part = (lane: string) => ({ parent: 'R1', codes: { lane } });
    const plan = planOf([
      ['Wall', null, null, { kind: 'summary' }],
      ['Base', '2026-03-02', '2026-03-06', part('Lane 1')],
      ['Units', '2026-04-01', '2026-04-10', part('Lane 2')],
      ['Joints', '2026-05-01', '2026-05-08', part('Lane 2')],
    ]);
    const only = (values: string[]) => compose(plan, { level: 1, where: asked('lane', 'is', values) });
    expect(said(only(['Lane 1']))).toEqual(['Wall (1) to 6 Mar']);
    expect(said(only(['Lane 2']))).toEqual(['Wall (2) to 8 May']);
    // In lanes by the same field it stands in each lane for what lies there.
    const lanes = compose(plan, { level: 1, lanes: ['lane'] });
    expect(contentOf(lanes).map((r) => [r.lane, r.name, r.start, r.finish])).toEqual([
      ['Lane 1', 'Wall', '2 March 2026', '6 March 2026'],
      ['Lane 2', 'Wall', '1 April 2026', '8 May 2026'],
    ]);
  });

  test('a finish says that it is one unless it stands at the finish; the year stands where the range holds a day twice', () => {
    const plan = planOf([
      ['Long work over all of the page', '2026-01-05', '2027-06-30'],
      ['Early', '2026-01-05', '2026-01-16'],
      ['Late', '2027-06-01', '2027-06-30'],
    ]);
    expect(said(compose(plan)).sort()).toEqual([
      'Early 16 Jan 26',
      'Late to 30 Jun 27',
      'Long work over all of the page to 30 Jun 27',
    ]);
    expect(said(compose(planOf([['Early', '2026-01-05', '2026-01-16']])))[0]).toMatch(/^Early (to )?16 Jan$/);
  });

  test('a group is critical only where its critical work is, and says how much of it that is', () => {
    const days = (from: string, to: string, more: object = {}) => ({ start: day(from), finish: end(to), ...more });
    const rows = [
      makeActivity({ ref: 'G', name: 'Station', kind: 'summary' }),
      makeActivity({ ref: 'A', name: 'Piles', parent: 'G', ...days('2026-03-02', '2026-03-13') }),
      makeActivity({ ref: 'B', name: 'Slab', parent: 'G', ...days('2026-05-04', '2026-05-29') }),
      makeActivity({ ref: 'C', name: 'Paths', parent: 'G', ...days('2026-03-02', '2026-03-06') }),
      makeActivity({ ref: 'E', name: 'Opening', ...days('2026-06-01', '2026-06-05') }),
    ];
    const plan = { ...planOf([]), activities: rows, links: [makeLink({ from: 'B', to: 'E' })] };
    const scene = compose(plan, { level: 1 });
    const group = leavesOf(scene.nodes).filter((n) => n.ref === 'G');
    const bar = group.find((n) => n.role === 'bar' && n.type === 'rect') as { x: number; width: number };
    const ink = group.filter((n) => n.role === 'critical') as unknown as { x1: number; x2: number }[];
    expect(ink).toHaveLength(1);
    // The group runs for 89 days from 2 March, its slab for 26 days from the 63rd on.
    const at = (share: number) => bar.x + share * bar.width;
    expect(Math.abs(ink[0]!.x1 - at(63 / 89))).toBeLessThan(1.5);
    expect(Math.abs(ink[0]!.x2 - at(1))).toBeLessThan(2);
    expect(contentOf(scene).find((r) => r.name === 'Station')!.note).toContain('1 of 3 critical');
    // What is complete decides nothing any more.
    const done = {
      ...plan,
      activities: rows.map((a) => (a.ref === 'B' ? { ...a, percent: 100, actualFinish: end('2026-05-29') } : a)),
    };
    expect(JSON.stringify(compose(done, { level: 1 }))).not.toContain('of 3 critical');
  });

  test('a summary and a group say how much of their work is done, supporting work nothing', () => {
    const plan = planOf([
      ['Wall', null, null, { kind: 'summary' }],
      ['Base', '2026-03-02', '2026-03-13', { parent: 'R1', percent: 100 }],
      ['Units', '2026-03-16', '2026-03-27', { parent: 'R1' }],
      ['Site management', '2026-03-02', '2026-03-27', { kind: 'levelOfEffort' }],
    ]);
    const each = said(compose(plan, { rows: 'each', labels: ['name', 'percent'] }));
    expect(each).toEqual(['WALL 50 % done', 'Base 100 % done', 'Units 0 % done', 'Site management']);
    expect(said(compose(plan, { level: 1, labels: ['name', 'percent'] }))).toContain('Wall (2) 50 % done');
  });

  test('where names repeat in a lane, each says what it belongs to', () => {
    const plan = planOf([
      ['North', null, null, { kind: 'summary' }],
      ['Paving', '2026-03-02', '2026-03-06', { parent: 'R1' }],
      ['South', null, null, { kind: 'summary' }],
      ['Paving', '2026-04-02', '2026-04-06', { parent: 'R3' }],
    ]);
    expect(contentOf(compose(plan)).map((r) => r.name)).toEqual(['Paving (North)', 'Paving (South)']);
  });

  test('interrupted work is drawn in its stretches', () => {
    const start = day('2026-03-02');
    const stretches = [
      { start, finish: start + 5 * 1440 },
      { start: start + 20 * 1440, finish: start + 30 * 1440 },
    ];
    const plan = planOf([['Dredging', '2026-03-02', '2026-03-31', { percent: 50, stretches }]]);
    const bars = marks(compose(plan), 'bar');
    expect(bars.length).toBe(2);
    expect(bars[1]!.width / bars[0]!.width).toBeCloseTo(2, 1);
  });

  test('a milestone on the last morning is on the last day of the page', () => {
    const scene = compose(planOf([['Open', '2026-03-02', null, { kind: 'startMilestone', duration: 0 }]]));
    expect(texts(scene, 'subtitle')[0]).toContain('2 March 2026 to 2 March 2026');
    expect(said(scene)).toEqual(['Open 2 Mar']);
  });
});

describe('the title states what the dates say until the person says otherwise', () => {
  test('late or ahead of the promise, where there is one', () => {
    const promised = planOf([['Wall', '2026-03-02', '2026-03-13']], { name: 'Sea wall' });
    const now = (finish: string) => planOf([['Wall', '2026-03-02', finish]], { name: 'Sea wall' });
    const title = (finish: string) => compose(now(finish), { compare: PROMISED }, promised).title;
    expect(title('2026-03-17')).toBe('Sea wall runs to 17 March 2026, 2 working days later than promised');
    expect(title('2026-03-12')).toBe('Sea wall runs to 12 March 2026, 1 working day earlier than promised');
    expect(title('2026-03-13')).toBe('Sea wall runs to 13 March 2026, as promised');
  });
  test('where the whole is not late, the milestone that is latest', () => {
    const gate = (date: string): [string, string, null, object] => [
      'Gate',
      date,
      null,
      { kind: 'startMilestone', duration: 0 },
    ];
    const promised = planOf([['Wall', '2026-03-02', '2026-03-31'], gate('2026-03-09')], { name: 'Sea wall' });
    const now = (date: string) => planOf([['Wall', '2026-03-02', '2026-03-31'], gate(date)], { name: 'Sea wall' });
    const title = (date: string) => compose(now(date), { compare: PROMISED }, promised).title;
    expect(title('2026-03-17')).toBe('Sea wall runs to 31 March 2026, as promised; Gate: 6 working days late');
    expect(title('2026-03-10')).toBe('Sea wall runs to 31 March 2026, as promised');
  });
  test('never 100 % with work to come, and what the percent is of', () => {
    const plan = planOf(
      [
        [
          'Wall',
          '2026-03-02',
          '2026-12-11',
          { percent: 100, actualStart: day('2026-03-02'), actualFinish: end('2026-12-11') },
        ],
        ['Snagging', '2026-12-14', '2026-12-14'],
      ],
      { name: 'Sea wall', statusDate: day('2026-12-14') },
    );
    expect(compose(plan).title).toBe('Sea wall runs to 14 December 2026; 99 % of its work is done');
  });
  test('it speaks of what the page shows, and says of how many', () => {
    const part = compose(wall, { where: asked('area', 'is', ['Casting yard']) });
    expect(part.title).toMatch(/^Casting yard \(13 of 142 activities\) runs to 18 March 2027; /);
    expect(compose(wall).title).toMatch(/^Saltmere sea wall runs to 18 October 2027; /);
    expect(compose(wall, { title: 'We close the wall in time' }).title).toBe('We close the wall in time');
  });
});

describe('what the brief says', () => {
  test('down to a level, deeper activities are drawn as their group, with their number', () => {
    const scene = compose(wall, { level: 1 });
    expect(contentOf(scene).map((r) => r.name)).toEqual(expect.arrayContaining(['Consents and design', 'Wall']));
    expect(said(scene).some((t) => /^Wall \(\d+\)/.test(t))).toBe(true);
    expect(compose(wall, { level: null, page: 'A1 landscape' }).fit.counts.shown).toBe(leaves);
  });

  test('milestones only, activities only', () => {
    const isMilestone = (note: string) => note.startsWith('milestone');
    expect(contentOf(compose(wall, { include: 'milestones' })).every((r) => isMilestone(r.note))).toBe(true);
    expect(contentOf(compose(wall, { include: 'activities', level: 2 })).some((r) => isMilestone(r.note))).toBe(false);
  });

  test('lanes nest, each level in the order of its code book', () => {
    const scene = compose(wall, { lanes: ['phase', 'contractor'], level: 2, page: 'A1 landscape' });
    const lanes = texts(scene, 'lane');
    expect(lanes.indexOf('Beach and toe')).toBeLessThan(lanes.indexOf('Wall'));
    expect(contentOf(scene).some((r) => r.lane === 'Beach and toe › Marine works')).toBe(true);
    expect(briefOf({ lanes: 'phase' as never }).lanes).toEqual(['phase']);
  });

  test('filters keep only, or leave out, values of a code field', () => {
    const page = { page: 'A1 landscape' } as const;
    const only = compose(wall, { ...page, where: asked('area', 'is', ['Station']) });
    const without = compose(wall, { ...page, where: asked('area', 'isNot', ['Station']) });
    expect(only.fit.counts.shown + without.fit.counts.shown).toBe(leaves);
    expect(only.fit.counts.leftOut).toBe(without.fit.counts.shown);
  });

  test('compared with an edition, what was promised stands below, and late or ahead is written', () => {
    const promised = planOf([
      ['Wall', '2026-03-02', '2026-03-13'],
      ['Open', '2026-04-01', null, { kind: 'startMilestone', duration: 0 }],
    ]);
    const now = planOf([
      ['Wall', '2026-03-04', '2026-03-20'],
      ['Open', '2026-03-30', null, { kind: 'startMilestone', duration: 0 }],
    ]);
    const scene = compose(now, { compare: PROMISED, labels: ['name', 'off'] }, promised);
    expect(said(scene).sort()).toEqual(['Open 2 d ahead', 'Wall 5 d late']);
    const [bar] = marks(scene, 'bar');
    const [outline] = marks(scene, 'promised');
    expect(outline!.y).toBeGreaterThan(bar!.y + bar!.height);
    expect(outline!.x).toBeLessThan(bar!.x);
    expect(texts(scene, 'legend')).toEqual(expect.arrayContaining(['Promised', 'Promised date']));
  });

  test('the legend says only what is on the page, progress once', () => {
    const legend = (part: Partial<TimelineBrief>) =>
      texts(compose(wall, { level: 2, page: 'A3 landscape', ...part }), 'legend');
    const whole = legend({ colour: 'discipline' });
    expect(whole).toEqual(expect.arrayContaining(['Marine', 'Civil', 'Critical', 'Status date', 'Done']));
    expect(whole.filter((t) => t === 'Done').length).toBe(1);
    const milestones = legend({ include: 'milestones', colour: 'discipline' });
    for (const word of ['Supporting work', 'Done', 'Group, with the number of its activities'])
      expect(milestones).not.toContain(word);
  });

  test('in grey every category has a pattern, and no name stands on one', () => {
    const scene = compose(wall, { level: 2, colour: 'discipline', print: 'grey', page: 'A3 landscape' });
    const patterns = scene.nodes
      .flatMap((n) => (n.type === 'group' ? n.children : []))
      .filter((n) => n.role === 'pattern');
    expect(patterns.length).toBeGreaterThan(5);
    const bars = marks(scene, 'bar').map((b) => ({
      left: b.x,
      right: b.x + b.width,
      top: b.y,
      bottom: b.y + b.height,
      what: 'bar',
    }));
    expect(overlaps(labelBoxes(scene), bars)).toEqual([]);
    expect(new Set(marks(scene, 'bar').flatMap((b) => b.stroke ?? [])).size).toBe(1);
  });

  test('the page has the size of the paper', () => {
    // ISO 216: A3 is 420 mm × 297 mm
    const { width, height } = compose(wall, { page: 'A3 landscape', level: 1 });
    expect([Math.round((width * 25.4) / 72), Math.round((height * 25.4) / 72)]).toEqual([420, 297]);
  });
});

describe('a page degrades gradually', () => {
  /** Short work with long names, all in one summer: many to a row when the names are short. */
  const crowd = (count: number, days = 150): Plan =>
    planOf(
      Array.from({ length: count }, (_, i): [string, string, string] => {
        const start = parseIsoDate('2026-03-02')! + ((i * 37) % days);
        const iso = (d: number) => new Date(d * 86_400_000).toISOString().slice(0, 10);
        return [`Preparation of the section number ${i} with all that belongs to it`, iso(start), iso(start + 1)];
      }),
    );
  const fit = (count: number) => compose(crowd(count), { page: 'A4 landscape', labels: ['name', 'finish'] }).fit;

  test('first whole labels, then some without dates, then names shortened, and last a sentence with advice', () => {
    const tries = [10, 60, 122, 140, 400].map(fit);
    const stage = (f: Scene['fit']) => (!f.readable ? 3 : f.labelsShortened > 0 ? 2 : f.datesWithoutRoom > 0 ? 1 : 0);
    const stages = tries.map(stage);
    expect(stages).toEqual([0, 0, 1, 2, 3]);
    expect(tries.at(-1)!.advice.map((a) => a.words)).toContain('use A3 landscape');
  });

  test('names that would be alike when shortened are numbers into a key, in reading order, and stand there whole', () => {
    const plan = crowd(130);
    for (const [i, a] of plan.activities.entries())
      a.name = `Preparation of the northern section with all that belongs to it ${i}`;
    const scene = compose(plan, { page: 'A4 landscape' });
    expect(scene.fit.labelsInKey).toBeGreaterThan(50);
    const numbers = leavesOf(scene.nodes).flatMap((n) =>
      n.type === 'text' && n.role === 'label' && /^\d+$/.test(n.runs[0]!.text)
        ? [{ x: n.x, y: Math.round(n.y), number: Number(n.runs[0]!.text) }]
        : [],
    );
    const read = [...numbers].sort((a, b) => a.y - b.y || a.x - b.x).map((n) => n.number);
    expect(read).toEqual(read.map((_, k) => k + 1));
    expect(texts(scene, 'key').join(' ')).not.toContain('…');
  });

  test('an unreadable page says so, and still lists what it cannot draw', () => {
    const scene = compose(crowd(500), { page: 'A4 landscape' });
    expect(texts(scene, 'notice').join(' ')).toMatch(/^500 things cannot be read on one page .* To make it readable, /);
    expect(contentOf(scene).length).toBe(500);
  });

  test('the smallest type is what the page allows', () => {
    for (const page of Object.keys(PAGES) as PageName[])
      expect(compose(randomPlan(3, 40), { page }).fit.smallestType).toBeGreaterThanOrEqual(PAGES[page].leastType);
  });

  test('a page with little on it grows its type', () => {
    const few = planOf([
      ['Survey', '2026-03-02', '2026-03-13'],
      ['Wall', '2026-03-16', '2026-06-12'],
      ['Open', '2026-06-15', '2026-06-19'],
    ]);
    const size = (plan: Plan) => {
      const sizes = leavesOf(compose(plan).nodes).flatMap((n) =>
        n.type === 'text' && n.role === 'label' ? [n.size] : [],
      );
      return Math.max(...sizes);
    };
    expect(size(few)).toBeGreaterThan(1.6 * size(randomPlan(2, 40)));
  });
});

test('the same brief and plan give the same scene', () => {
  const page = () => JSON.stringify(compose(wall, { lanes: ['phase'], level: 2, compare: PROMISED }, baseline));
  expect(page()).toBe(page());
});

test('a plan with nothing to show still gives a page', () => {
  const scene = compose({ ...randomPlan(1, 1), activities: [], links: [] });
  expect(texts(scene, 'notice').join(' ')).toBe('This plan has no activities yet.');
  expect(JSON.stringify(scene)).not.toMatch(/NaN|null,null/);
});

describe('what is asked for beside a condition', () => {
  const refs = (part: Partial<TimelineBrief>) => {
    const scene = compose(wall, { compare: PROMISED, page: 'A1 landscape', ...part }, baseline);
    return new Set(scene.content.rows.map((r) => r.ref!));
  };
  const byRef = new Map(wall.activities.map((a) => [a.ref, a]));
  const done = (ref: string) => byRef.get(ref)!.actualFinish !== null || byRef.get(ref)!.percent === 100;
  test('what is not done, what is due within weeks of the status date', () => {
    const open = refs({ only: 'open' });
    expect([...open].some(done)).toBe(false);
    expect(open.size).toBe(wall.activities.filter((a) => a.kind !== 'summary' && !done(a.ref)).length);
    const next = refs({ only: 'next', weeks: 2 });
    const horizon = wall.statusDate! + 14 * 1440;
    for (const ref of next) {
      const a = byRef.get(ref)!;
      if (a.kind !== 'levelOfEffort') expect(a.start ?? a.finish!).toBeLessThan(horizon);
    }
    expect(next.size).toBeGreaterThan(3);
    expect(next.size).toBeLessThan(open.size);
  });
  test('late and ahead share nothing, and are together what moved its finish; beyond tolerance is late', () => {
    const [late, ahead, beyond, changed] = (['late', 'ahead', 'beyond', 'changed'] as const).map((only) =>
      refs({ only }),
    );
    expect([...late!].filter((r) => ahead!.has(r))).toEqual([]);
    for (const r of [...late!, ...ahead!]) expect(changed!.has(r)).toBe(true);
    expect(late!.size).toBeGreaterThan(beyond!.size);
    expect(beyond!.has('S20') || beyond!.size > 0).toBe(true);
  });
  test('without an edition nothing can be late, and the page says so', () => {
    expect(texts(compose(wall, { only: 'late' }), 'notice').join(' ')).toContain('no edition to compare with');
    expect(texts(compose({ ...wall, statusDate: null }, { only: 'next' }), 'notice').join(' ')).toContain(
      'no status date',
    );
  });
  test('a condition that the plan cannot answer is said, and nothing is drawn', () => {
    const scene = compose(wall, { where: { match: 'all', tests: [{ field: 'gone', is: 'is', values: ['x'] }] } });
    expect(texts(scene, 'notice').join(' ')).toContain('no field “gone”');
    expect(scene.fit.counts.leftOut).toBe(leaves);
  });
});

describe('how it is compared', () => {
  const late = planOf([['A', '2026-01-05', '2026-01-16']]);
  const then = planOf([['A', '2026-01-05', '2026-01-09']]);
  const marks = (part: Partial<TimelineBrief>) =>
    leavesOf(compose(late, { compare: PROMISED, ...part }, then).nodes).filter((n) => n.role === 'promised');
  test('by an outline, by an arrow that ends where it is now, or by both', () => {
    expect(marks({}).map((n) => n.type)).toEqual(['rect']);
    expect(marks({ compareBy: 'arrow' }).map((n) => n.type)).toEqual(['line', 'line', 'path']);
    expect(marks({ compareBy: 'both' }).map((n) => n.type)).toEqual(['rect', 'line', 'line', 'path']);
    const scene = compose(late, { compare: PROMISED, compareBy: 'arrow' }, then);
    const bar = leavesOf(scene.nodes).find((n) => n.role === 'bar' && n.ref === 'R1')!;
    const head = leavesOf(scene.nodes).find((n) => n.role === 'promised' && n.type === 'path')!;
    const tip = head.type === 'path' && head.steps[0]![0] === 'M' ? head.steps[0]![1] : Number.NaN;
    expect(bar.type === 'rect' && Math.abs(bar.x + bar.width - tip)).toBeLessThan(0.05);
  });
  test('what is off by less than the threshold is not compared', () => {
    expect(marks({ threshold: 5 }).length).toBe(1);
    expect(marks({ threshold: 6 })).toEqual([]);
  });
});

describe('what a page hides', () => {
  test('below the level: late and critical ones, milestones, links; said in words and on the page when asked', () => {
    const scene = compose(wall, { level: 1, compare: PROMISED, blind: true }, baseline);
    const { blind } = scene;
    expect(blind!.links).toBe(wall.links.length);
    expect(blind!.milestones.every((m) => m.why === 'in a group')).toBe(true);
    expect(blind!.late.map((l) => l.name)).toContain('Station opens');
    expect(blind!.mends.map((m) => m.words)).toEqual(['show every level']);
    expect(texts(scene, 'source').join(' ')).toContain(`not seen here: ${blindWords(blind!)}`);
  });
  test('each mend shows what was hidden', () => {
    const part = { include: 'activities' as const, to: end('2026-12-31'), compare: PROMISED };
    const before = compose(wall, part, baseline).blind!;
    expect(before.mends.map((m) => m.words)).toEqual(['leave nothing out', 'show all dates']);
    const mended = before.mends.reduce((all, m) => ({ ...all, ...m.change }), part as object);
    const after = compose(wall, mended, baseline).blind!;
    expect([after.late, after.critical, after.milestones, after.links]).toEqual([[], [], [], 0]);
  });
});
