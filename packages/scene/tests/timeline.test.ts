import { describe, expect, test } from '@jest/globals';
import { demoPlans } from '../../../demo/index';
import { formatDay, PAGES, type PageName, type Scene, type TimelineBrief } from '../src/index';
import { briefOf, compose, labelBoxes, markerBoxes, overlaps, randomPlan } from './fixtures';

const texts = (scene: Scene, role: string) =>
  scene.nodes.flatMap((n) => (n.type === 'text' && n.role === role ? [n.text] : []));
const outside = (scene: Scene) =>
  [...labelBoxes(scene), ...markerBoxes(scene)]
    .filter((b) => b.left < 0 || b.top < 0 || b.right > scene.width || b.bottom > scene.height)
    .map((b) => b.what);

describe('no label over another label, a marker or the page edge', () => {
  const briefs: Partial<TimelineBrief>[] = [
    { lanes: 'lane', colour: 'trade' },
    { lanes: null, rows: 'packed', page: 'wide slide' },
    { lanes: 'lane', rows: 'each', page: 'A3 portrait' },
    { lanes: 'trade', labels: ['name', 'start', 'finish', 'percent'], page: 'A3 landscape' },
  ];
  for (const [k, brief] of briefs.entries()) {
    test.each([12, 60, 200, 600])(`brief ${k + 1}, %i activities`, (count) => {
      const scene = compose(randomPlan(count + k, count), brief);
      const labels = labelBoxes(scene);
      expect(overlaps(labels, labels)).toEqual([]);
      expect(overlaps(labels, markerBoxes(scene))).toEqual([]);
      expect(outside(scene)).toEqual([]);
    });
  }

  test('bars of a row do not overlap either', () => {
    const scene = compose(randomPlan(5, 150), { lanes: 'lane', page: 'A3 landscape' });
    const markers = markerBoxes(scene);
    expect(overlaps(markers, markers)).toEqual([]);
  });
});

test('a bar as wide as the page has its label above it, not on it', () => {
  const plan = randomPlan(1, 1);
  plan.activities[0] = {
    ...plan.activities[0]!,
    kind: 'activity',
    name: 'The whole of the works',
    finish: plan.activities[0]!.start! + 90 * 1440,
  };
  const scene = compose(plan, { rows: 'each' });
  expect(overlaps(labelBoxes(scene), markerBoxes(scene))).toEqual([]);
});

test('a milestone on the last morning is on the last day of the page', () => {
  const plan = randomPlan(1, 1);
  plan.activities[0] = { ...plan.activities[0]!, kind: 'startMilestone', name: 'Open', finish: null };
  const date = formatDay(plan.activities[0]!.start! / 1440, 'long');
  expect(texts(compose(plan), 'subtitle')[0]).toContain(`${date} to ${date}`);
});

test('interrupted work is drawn in its stretches', () => {
  const plan = randomPlan(1, 1);
  const start = plan.activities[0]!.start!;
  const stretches = [
    { start, finish: start + 5 * 1440 },
    { start: start + 20 * 1440, finish: start + 30 * 1440 },
  ];
  plan.activities[0] = {
    ...plan.activities[0]!,
    kind: 'activity',
    name: 'Dredging',
    finish: start + 30 * 1440,
    percent: 50,
    stretches,
  };
  const bars = compose(plan).nodes.flatMap((n) => (n.type === 'rect' && n.role === 'bar' ? [n] : []));
  expect(bars.length).toBe(2);
  expect(bars[1]!.width / bars[0]!.width).toBeCloseTo(2, 1);
});

test('every name is on the page, in its key, or counted as without a place', () => {
  for (const count of [40, 250, 900]) {
    const plan = randomPlan(count, count);
    const scene = compose(plan, { lanes: 'lane' });
    const named = new Set(
      scene.nodes.flatMap((n) =>
        n.type === 'text' && (n.role === 'label' || n.role === 'key') && n.ref !== undefined ? [n.ref] : [],
      ),
    );
    expect(named.size + scene.fit.labelsWithoutPlace).toBe(count);
    expect(scene.fit.shown).toBe(count);
    if (scene.fit.labelsWithoutPlace > 0)
      expect(texts(scene, 'source')[0]).toContain(`${scene.fit.labelsWithoutPlace} names have no room`);
  }
});

test('the smallest type is what the page allows', () => {
  for (const page of Object.keys(PAGES) as PageName[]) {
    const { fit } = compose(randomPlan(3, 120), { page, lanes: 'lane' });
    expect(fit.smallestType).toBeGreaterThanOrEqual(PAGES[page].leastType);
  }
});

test('no grid or status line runs through a label', () => {
  const scene = compose(randomPlan(8, 90), { lanes: 'lane', page: 'A3 landscape' });
  const lines = scene.nodes.flatMap((n) =>
    n.type === 'line' && (n.role === 'grid' || n.role === 'status')
      ? [{ left: n.x1, right: n.x1, top: n.y1, bottom: n.y2, what: n.role! }]
      : [],
  );
  expect(lines.length).toBeGreaterThan(20);
  expect(overlaps(labelBoxes(scene), lines, 0)).toEqual([]);
});

test('the same brief and plan give the same scene', () => {
  expect(JSON.stringify(compose(randomPlan(4, 80), { lanes: 'lane' }))).toBe(
    JSON.stringify(compose(randomPlan(4, 80), { lanes: 'lane' })),
  );
});

describe('what the brief says', () => {
  const [{ current: wall }] = demoPlans() as [ReturnType<typeof demoPlans>[number]];

  test('down to a level, deeper activities are drawn as their group', () => {
    const scene = compose(wall, { level: 1 });
    expect(scene.content.map((r) => r.name)).toEqual(
      expect.arrayContaining(['Gates and payments', 'Consents and design', 'Wall', 'Lifeboat station']),
    );
    expect(scene.fit.shown).toBe(7);
    expect(compose(wall, { level: null }).fit.shown).toBe(142);
  });

  test('milestones only, activities only', () => {
    const isMilestone = (note: string) => note.startsWith('milestone');
    expect(compose(wall, { include: 'milestones' }).content.every((r) => isMilestone(r.note))).toBe(true);
    expect(compose(wall, { include: 'activities' }).content.some((r) => isMilestone(r.note))).toBe(false);
  });

  test('lanes are titled in the order of the code book', () => {
    const scene = compose(wall, { lanes: 'phase', level: 2, page: 'A3 landscape' });
    expect(texts(scene, 'lane').join(' ')).toBe(
      'Gates Consents and design Yard and supply Beach and toe Wall Promenade Lifeboat station',
    );
  });

  test('filters keep only, or leave out, values of a code field', () => {
    const only = compose(wall, { where: [{ field: 'area', keep: 'only', values: ['Station'] }] });
    expect(only.fit.shown).toBe(
      wall.activities.filter((a) => a.kind !== 'summary' && a.codes.area === 'Station').length,
    );
    const without = compose(wall, { where: [{ field: 'area', keep: 'without', values: ['Station'] }] });
    expect(only.fit.shown + without.fit.shown).toBe(142);
  });

  test('a range leaves out what lies beyond it', () => {
    const scene = compose(wall, { from: wall.statusDate, to: wall.statusDate! + 30 * 1440 });
    expect(scene.content.map((r) => r.name)).not.toContain('Funding agreed');
    expect(scene.content.map((r) => r.name)).toContain('Slip rails and keelway');
    expect(scene.fit.shown).toBeLessThan(60);
  });

  test('labels carry the parts that are asked for', () => {
    const scene = compose(wall, { include: 'milestones', labels: ['reference', 'name', 'finish'] });
    expect(texts(scene, 'label')).toEqual(expect.arrayContaining(['G90 Station opens', '13 Oct']));
    expect(texts(compose(wall, { include: 'milestones', labels: [] }), 'label')).toEqual([]);
  });

  test('the legend says only what is on the page', () => {
    const legend = (part: Partial<TimelineBrief>) => texts(compose(wall, { level: 2, ...part }), 'legend');
    expect(legend({ colour: 'discipline' })).toEqual(
      expect.arrayContaining(['Design', 'Marine', 'Civil', 'Building', 'Plant', 'Critical', 'Status date']),
    );
    const milestones = legend({ include: 'milestones', colour: 'discipline' });
    expect(milestones).not.toContain('Marine');
    expect(milestones).not.toContain('Supporting work');
  });

  test('the title states what the dates say until the person says otherwise', () => {
    expect(compose(wall).title).toMatch(/^Saltmere sea wall runs to 13 October 2027; \d+ % complete$/);
    // A page that shows a part still speaks of the whole plan.
    const part = compose(wall, { where: [{ field: 'area', keep: 'only', values: ['Casting yard'] }] });
    expect(part.title).toBe(compose(wall).title);
    expect(compose(wall, { title: 'We close the wall in time' }).title).toBe('We close the wall in time');
  });

  test('the page has the size of the paper', () => {
    // ISO 216: A3 is 420 mm × 297 mm
    const { width, height } = compose(wall, { page: 'A3 landscape' });
    expect([Math.round((width * 25.4) / 72), Math.round((height * 25.4) / 72)]).toEqual([420, 297]);
  });
});

test('a plan with nothing to show still gives a page', () => {
  const plan = { ...randomPlan(1, 1), activities: [], links: [] };
  const scene = compose(plan, briefOf());
  expect(scene.fit.shown).toBe(0);
  expect(scene.nodes.every((n) => n.type !== 'text' || !n.text.includes('NaN'))).toBe(true);
  expect(JSON.stringify(scene)).not.toContain('null,null');
});
