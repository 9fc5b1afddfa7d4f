import { describe, expect, test } from '@jest/globals';
import { makeActivity, makeField, makeLink, makeValue } from '@clembo/core';
import { leavesOf, type Scene, type TimelineBrief } from '../src/index';
import { timeScale, ticks } from '../src/scales/time';
import { compose, contentOf, overlaps, randomPlan, textBoxes, texts } from './fixtures';
import { day, end } from '../../core/tests/helpers';

const work = (ref: string, start: string, finish: string, more: object = {}) =>
  makeActivity({ ref, name: `Work ${ref}`, start: day(start), finish: end(finish), ...more });

const plan = {
  ...randomPlan(1, 1),
  statusDate: day('2026-03-16'),
  periods: [],
  links: [makeLink({ from: 'A', to: 'B' }), makeLink({ from: 'B', to: 'C', type: 'SS' })],
  codeFields: [
    makeField({
      id: 'lane',
      name: 'Lane',
      values: ['North', 'South', 'Yard'].map((t) =>
        makeValue({ code: t, title: t, colour: t === 'Yard' ? '#427859' : null }),
      ),
    }),
  ],
  activities: [
    work('A', '2026-03-02', '2026-03-13', { codes: { lane: 'North' }, percent: 100, deadline: end('2026-03-20') }),
    work('B', '2026-03-16', '2026-04-10', { codes: { lane: 'North' } }),
    work('C', '2026-04-13', '2026-05-29', { codes: { lane: 'South' } }),
  ],
};
const shapes = (scene: Scene, role: string) => leavesOf(scene.nodes).filter((n) => n.role === role);
const brief: Partial<TimelineBrief> = { lanes: ['lane'], labels: ['name'], page: 'A3 landscape' };
/** Where a moment stands, by two dates whose places the page shows. */
const barOf = (scene: Scene, ref: string) =>
  leavesOf(scene.nodes).find((n) => n.type === 'rect' && n.role === 'bar' && n.ref === ref) as {
    x: number;
    width: number;
    y: number;
    fill: string;
  };

describe('dates that matter', () => {
  test('a named date stands where the scale says, with its name and day; a period is shaded under its name', () => {
    const scene = compose(plan, {
      ...brief,
      dates: [
        { name: 'Board', start: day('2026-04-13'), finish: null },
        { name: 'Freeze', start: day('2026-05-04'), finish: end('2026-05-08') },
      ],
    });
    expect(texts(scene, 'date')).toEqual(['Board 13 Apr']);
    const lines = shapes(scene, 'date').filter((n) => n.type === 'line');
    for (const l of lines) if (l.type === 'line') expect(l.x1).toBeCloseTo(barOf(scene, 'C').x, 0);
    expect(texts(scene, 'period')).toEqual(['Freeze']);
  });

  test('flags of dates close to each other do not lie on each other', () => {
    const dates = ['2026-03-17', '2026-03-18', '2026-03-19', '2026-03-20'].map((d, k) => ({
      name: `A decision with a long name ${k}`,
      start: day(d),
      finish: null,
    }));
    const scene = compose(plan, { ...brief, dates });
    const flags = [...textBoxes(scene, 'date'), ...textBoxes(scene, 'status')];
    expect(flags).toHaveLength(5);
    expect(overlaps(flags, flags)).toEqual([]);
  });

  test('a deadline is marked in its row on its day, and explained', () => {
    const scene = compose(plan, { ...brief, deadlines: true });
    const [mark] = shapes(scene, 'deadline').filter((n) => n.type === 'line' && n.ref === 'A');
    const a = barOf(scene, 'A');
    // From 2 March 0:00 to 14 March 0:00 are 12 days; the deadline is the end of 20 March, 19 days on.
    if (mark?.type === 'line') expect(mark.x1).toBeCloseTo(a.x + (a.width * 19) / 12, 0);
    expect(mark).toBeDefined();
    expect(texts(scene, 'legend')).toContain('Deadline');
    expect(texts(compose(plan, brief), 'legend')).not.toContain('Deadline');
  });

  test('days off are shaded where days are wide enough to be seen, else not at all', () => {
    const scene = compose(plan, { ...brief, daysOff: true, from: day('2026-03-02'), to: end('2026-03-29') });
    expect(shapes(scene, 'dayOff')).toHaveLength(4);
    expect(texts(scene, 'legend')).toContain('Days off');
    const long = compose(plan, { ...brief, daysOff: true, from: day('2020-01-01'), to: end('2029-12-31') });
    expect(shapes(long, 'dayOff')).toHaveLength(0);
    expect(texts(long, 'legend')).not.toContain('Days off');
  });

  test('time gone by is shaded up to the end of the status date', () => {
    const scene = compose(plan, { ...brief, elapsed: true });
    const [band] = shapes(scene, 'elapsed');
    const b = barOf(scene, 'B');
    // B begins on the status date and takes 26 calendar days, to 10 April: the band ends a day behind its beginning.
    if (band?.type === 'rect') expect(band.x + band.width).toBeCloseTo(b.x + b.width / 26, 0);
    expect(band).toBeDefined();
  });
});

describe('time scale', () => {
  const tiers = (scale: TimelineBrief['scale'], more: Partial<TimelineBrief> = {}) => {
    const scene = compose(plan, { ...brief, scale, ...more });
    const ys = new Map<number, string[]>();
    for (const n of shapes(scene, 'scale'))
      if (n.type === 'text') ys.set(n.y, [...(ys.get(n.y) ?? []), n.runs[0]!.text]);
    return [...ys].sort((a, b) => a[0] - b[0]).map(([, list]) => list);
  };

  test('up to four tiers, from coarse to fine', () => {
    const [years, quarters, months, weeks] = tiers(['year', 'quarter', 'month', 'week']);
    expect(years).toEqual(['2026']);
    expect(quarters).toEqual(['Q1', 'Q2']);
    expect(months).toEqual(['March 2026', 'April 2026', 'May 2026']);
    // ISO 8601: the week of 2 March 2026 is week 10.
    expect(weeks).toContain('W10');
  });

  test('weeks by date are called by their Monday', () => {
    expect(tiers(['month', 'weekDate']).at(-1)).toContain('16 Mar');
  });

  test('a fiscal year begins in any month', () => {
    const list = ticks(day('2026-01-01'), day('2028-01-01'), 'fiscalYear', undefined, 4);
    expect(list.map((t) => t.names[0])).toEqual(['FY 2025/26', 'FY 2026/27', 'FY 2027/28']);
    expect(list[1]).toMatchObject({ from: day('2026-04-01'), to: day('2027-04-01') });
    const quarters = ticks(day('2026-04-01'), day('2027-04-01'), 'fiscalQuarter', undefined, 4);
    expect(quarters.map((t) => [t.names[0], t.from])).toEqual([
      ['Q1', day('2026-04-01')],
      ['Q2', day('2026-07-01')],
      ['Q3', day('2026-10-01')],
      ['Q4', day('2027-01-01')],
    ]);
  });

  test('a tier without room is left out, and the foot says so', () => {
    const scene = compose(plan, { ...brief, scale: ['month', 'day'], from: day('2020-01-01'), to: end('2029-12-31') });
    expect(scene.fit.tiersCut).toBe(2);
    expect(texts(scene, 'source').join(' ')).toContain('2 tiers of the scale without room');
    expect(timeScale(0, 10, 0, 100).x(5)).toBe(50);
  });
});

describe('links', () => {
  test('all, between lanes, or none; each comes to the bar that it leads to', () => {
    const refs = (links: TimelineBrief['links']) =>
      new Set(shapes(compose(plan, { ...brief, links }), 'link').map((n) => n.ref));
    expect(refs('none').size).toBe(0);
    expect([...refs('all')].sort()).toEqual(['B', 'C']);
    expect([...refs('lanes')]).toEqual(['C']);
  });

  test('a link leaves at the finish and arrives at the start', () => {
    const scene = compose(plan, { ...brief, links: 'all', rows: 'each' });
    const lines = shapes(scene, 'link').flatMap((n) => (n.type === 'line' && n.ref === 'B' ? [n] : []));
    const [a, b] = [barOf(scene, 'A'), barOf(scene, 'B')];
    const xs = lines.flatMap((l) => [l.x1, l.x2]);
    expect(Math.min(...xs.map((x) => Math.abs(x - (a.x + a.width))))).toBeLessThan(12);
    expect(Math.min(...xs.map((x) => Math.abs(x - b.x)))).toBeLessThan(12);
  });
});

describe('against an edition', () => {
  const then = {
    ...plan,
    activities: [
      work('A', '2026-03-02', '2026-03-06', { codes: { lane: 'North' } }),
      work('C', '2026-04-13', '2026-05-29', { codes: { lane: 'South' } }),
      work('X', '2026-04-01', '2026-04-10', { codes: { lane: 'South' } }),
    ],
    links: [],
  };

  test('what is new says so, and what is gone is drawn where it was to be', () => {
    const scene = compose(plan, { ...brief, compare: 'promised', gone: true, labels: ['name', 'off'] }, then);
    const said = texts(scene, 'label').sort();
    expect(said).toEqual(['Work A 5 d late', 'Work B new', 'Work C', 'Work X gone']);
    expect(texts(scene, 'legend')).toContain('Gone since then');
    expect(contentOf(scene).find((r) => r.ref === 'X')).toMatchObject({ lane: 'South', note: 'gone' });
    // It is none of the plan's activities.
    expect(scene.fit.counts).toMatchObject({ of: 3, shown: 3 });
  });

  test('what is gone is not drawn unless it is asked for', () => {
    expect(contentOf(compose(plan, { ...brief, compare: 'promised' }, then)).map((r) => r.ref)).not.toContain('X');
  });
});

describe('lanes and what is done', () => {
  const lanes = (more: Partial<TimelineBrief>) => texts(compose(plan, { ...brief, ...more }), 'lane');

  test('empty lanes stand where the book has them', () => {
    expect(lanes({})).toEqual(['North', 'South']);
    expect(lanes({ emptyLanes: true })).toEqual(['North', 'South', 'Yard']);
  });

  test('lanes that are named come first', () => {
    expect(lanes({ emptyLanes: true, laneFirst: ['Yard', 'South'] })).toEqual(['Yard', 'South', 'North']);
  });

  test('lanes are as high as their book wants them, and higher where they hold more', () => {
    const high = (height: number | null) => {
      const [field] = plan.codeFields;
      const values = field!.values.map((v) => (v.code === 'North' ? { ...v, height } : v));
      return compose({ ...plan, codeFields: [{ ...field!, values }] }, { ...brief, rows: 'each', page: 'A2 portrait' });
    };
    // What lies between the rows of North and the first one of South.
    const gap = (scene: Scene) => barOf(scene, 'C').y - barOf(scene, 'B').y;
    const row = (scene: Scene) => barOf(scene, 'B').y - barOf(scene, 'A').y;
    const [free, two, eight] = [null, 2, 8].map(high);
    const inRows = (scene: Scene) => gap(scene) / row(scene);
    expect(inRows(two!)).toBeCloseTo(inRows(free!), 1);
    expect(inRows(eight!)).toBeGreaterThan(inRows(free!) + 4);
  });

  test('shapes of milestones are those of another field, and the legend tells both apart', () => {
    const kinds = makeField({
      id: 'gate',
      name: 'Gate',
      values: [
        makeValue({ code: 'pay', title: 'Payment' }),
        makeValue({ code: 'hand', title: 'Handover', shape: 'star' }),
      ],
    });
    const point = (ref: string, date: string, lane: string, gate: string) =>
      makeActivity({ ref, name: ref, kind: 'startMilestone', duration: 0, start: day(date), codes: { lane, gate } });
    const gated = {
      ...plan,
      codeFields: [...plan.codeFields, kinds],
      activities: [
        ...plan.activities,
        point('P', '2026-03-20', 'North', 'pay'),
        point('H', '2026-04-20', 'South', 'hand'),
        point('N', '2026-05-04', 'South', ''),
      ],
    };
    const scene = compose(gated, { ...brief, colour: 'lane', shape: 'gate' });
    const marks = new Map(
      leavesOf(scene.nodes)
        .filter((n) => n.role === 'milestone')
        .map((n) => [n.ref, n]),
    );
    const corners = (ref: string) => {
      const m = marks.get(ref)!;
      return m.type === 'path' ? m.steps.filter((s) => s[0] !== 'Z').length : m.type;
    };
    // A star has ten corners; a diamond four.
    expect([corners('P'), corners('H'), corners('N')]).toEqual([4, 10, 4]);
    const legend = texts(scene, 'legend');
    for (const words of ['North', 'South', 'Payment', 'Handover', 'Without'])
      expect(legend.join(' · ')).toContain(words);
    // Milestones of two lanes still have two colours, whatever their shapes.
    const inks = ['P', 'H', 'N'].map((ref) => (marks.get(ref) as { stroke?: string }).stroke);
    expect(inks[1]).toBe(inks[2]);
    expect(inks[0]).not.toBe(inks[1]);
  });

  test('turned titles run upwards in a narrower column', () => {
    const [level, turned] = (['level', 'turned'] as const).map((laneTitles) => compose(plan, { ...brief, laneTitles }));
    const turns = leavesOf(turned!.nodes).flatMap((n) => (n.type === 'text' && n.role === 'lane' ? [n.turn] : []));
    expect(turns).toEqual([-90, -90]);
    expect(barOf(turned!, 'A').x).toBeLessThan(barOf(level!, 'A').x);
  });

  test('what is done can be grey', () => {
    const [usual, grey] = [false, true].map((doneGrey) => compose(plan, { ...brief, colour: 'lane', doneGrey }));
    expect(barOf(grey!, 'A').fill).not.toBe(barOf(usual!, 'A').fill);
    expect(barOf(grey!, 'B').fill).toBe(barOf(usual!, 'B').fill);
  });
});

describe('labels and summaries', () => {
  const wide = { ...plan, activities: [work('L', '2026-03-02', '2026-06-26')], links: [], statusDate: null };
  const at = (side: TimelineBrief['side']) => {
    const range = { from: day('2026-01-01'), to: end('2026-10-30') };
    const scene = compose(wide, { ...brief, side, lanes: [], ...range });
    const [label] = textBoxes(scene, 'label');
    return { label: label!, bar: barOf(scene, 'L') as ReturnType<typeof barOf> & { height: number } };
  };

  test('stand at the side that is chosen, where they have room', () => {
    const right = at('right');
    expect(right.label.left).toBeGreaterThan(right.bar.x + right.bar.width - 0.1);
    const left = at('left');
    expect(left.label.right).toBeLessThan(left.bar.x + 0.1);
    const inside = at('inside');
    expect(inside.label.left).toBeGreaterThan(inside.bar.x);
    expect(inside.label.right).toBeLessThan(inside.bar.x + inside.bar.width);
    const above = at('above');
    expect(above.label.bottom).toBeLessThan(above.bar.y + 0.5);
  });

  test('summaries are thin lines, blocks, or left out', () => {
    const grouped = {
      ...plan,
      links: [],
      activities: [
        makeActivity({ ref: 'S', name: 'Section', kind: 'summary' }),
        ...plan.activities.map((a) => ({ ...a, parent: 'S' })),
      ],
    };
    const scene = (summaries: TimelineBrief['summaries']) =>
      compose(grouped, { ...brief, rows: 'each', lanes: [], summaries });
    const drawn = (s: Scene, role: string) => shapes(s, role).some((n) => n.ref === 'S');
    expect([drawn(scene('lines'), 'summary'), drawn(scene('lines'), 'bar')]).toEqual([true, false]);
    expect([drawn(scene('blocks'), 'summary'), drawn(scene('blocks'), 'bar')]).toEqual([false, true]);
    expect([drawn(scene('none'), 'summary'), drawn(scene('none'), 'bar')]).toEqual([false, false]);
    expect(texts(scene('blocks'), 'label').join(' ')).toContain('Section (3)');
  });
});

describe('the page', () => {
  test('notes and the number of the page stand at its foot', () => {
    const scene = compose(plan, { ...brief, notes: 'Dates of the yard are those of its builder.', numbered: true });
    expect(texts(scene, 'source')).toEqual(
      expect.arrayContaining(['Dates of the yard are those of its builder.', 'Page 1 of 1']),
    );
  });

  test('a picture stands at the head, in its own proportions, clear of the title', () => {
    const logo = { data: 'data:image/png;base64,iVBORw0KGgo=', width: 400, height: 200 };
    const title =
      'A title that is long enough to run over the whole width of the page if nothing stands in its way there';
    const scene = compose(plan, { ...brief, logo, title });
    const [picture] = leavesOf(scene.nodes).flatMap((n) => (n.type === 'image' ? [n] : []));
    expect(picture!.width / picture!.height).toBeCloseTo(2, 1);
    for (const t of textBoxes(scene, 'title')) expect(t.right).toBeLessThan(picture!.x);
    expect(picture!.x + picture!.width).toBeLessThan(scene.width);
  });

  test('a size of its own, in millimetres', () => {
    const { width, height } = compose(plan, { ...brief, size: { width: 254, height: 127 } });
    // An inch is 25.4 mm and 72 points.
    expect([width, height]).toEqual([720, 360]);
  });
});
