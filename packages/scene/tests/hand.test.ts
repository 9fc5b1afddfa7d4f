import { describe, expect, test } from '@jest/globals';
import { leavesOf, type Look, type Note, type Scene, textOf, withLook } from '../src/index';
import { compose, labelBoxes, randomPlan, texts } from './fixtures';

const plan = randomPlan(11, 24);
const first = plan.activities.find((a) => a.kind === 'activity')!;
const of = (scene: Scene, ref: string) => leavesOf(scene.nodes).filter((n) => n.ref === ref);
const handle = (scene: Scene, ref: string) => scene.handles!.items.find((i) => i.ref === ref)!;
const labelOf = (scene: Scene, ref: string) =>
  of(scene, ref).flatMap((n) => (n.type === 'text' && n.role === 'label' ? [n] : []));
const noteOf = (scene: Scene, id: string) =>
  scene.nodes.find((n) => n.type === 'group' && n.note === id) as Extract<Scene['nodes'][number], { type: 'group' }>;

describe('looks', () => {
  const look = (part: Partial<Look>) => compose(plan, { lanes: ['lane'], looks: [{ ref: first.ref, ...part }] });

  test('a colour of its own is that of its edge, and no category of the legend', () => {
    const scene = look({ colour: '#AA3355' });
    const bar = of(scene, first.ref).find((n) => n.role === 'bar')!;
    expect('stroke' in bar && bar.stroke).toBe('#AA3355');
    const others = leavesOf(scene.nodes).filter((n) => n.ref !== first.ref && 'stroke' in n && n.stroke === '#AA3355');
    expect(others).toEqual([]);
  });

  test('words of its own stand in place of its name; none take the label away', () => {
    expect(labelOf(look({ text: 'The big one' }), first.ref).some((n) => textOf(n).startsWith('The big one'))).toBe(
      true,
    );
    expect(labelOf(look({ text: '' }), first.ref)).toEqual([]);
  });

  test('a label that was dragged stands where it was put, also when the dates of the page change', () => {
    const at = { end: 'start', x: 2, y: 3 } as const;
    for (const part of [{}, { to: 30_000_000 }, { page: 'A3 landscape' as const }]) {
      const scene = compose(plan, { lanes: ['lane'], looks: [{ ref: first.ref, at }], ...part });
      const { x0, y } = handle(scene, first.ref);
      const { size, left, right } = scene.handles!;
      const [label] = labelOf(scene, first.ref);
      const [box] = labelBoxes(scene).filter((b) => b.what === textOf(label!));
      // It never leaves the plot.
      expect(label!.x).toBeCloseTo(Math.max(left, Math.min(x0 + 2 * size, right - (box!.right - box!.left))), 0);
      expect(label!.y).toBeCloseTo(y + 3 * size, 1);
      // Further away than a letter, a line leads to it.
      expect(of(scene, first.ref).filter((n) => n.role === 'stem')).toHaveLength(1);
    }
  });

  test('are kept part by part, and go with their last part', () => {
    const one = withLook([], 'A1', { strong: true });
    const two = withLook(one, 'A1', { colour: '#112233' });
    expect(two).toEqual([{ ref: 'A1', strong: true, colour: '#112233' }]);
    expect(withLook(withLook(two, 'A1', { strong: undefined }), 'A1', { colour: undefined })).toEqual([]);
  });
});

describe('notes', () => {
  const text: Note = {
    kind: 'text',
    id: 'n1',
    anchor: { ref: first.ref, at: 'finish', dx: 1, dy: -4 },
    text: 'Waits for the licence\nsince May',
    width: 10,
    line: true,
  };

  test('are held by their activity: they move with it, by as much', () => {
    const before = compose(plan, { lanes: ['lane'], marks: [text] });
    const later = {
      ...plan,
      activities: plan.activities.map((a) => (a.ref === first.ref ? { ...a, finish: a.finish! + 40 * 1440 } : a)),
    };
    const after = compose(later, { lanes: ['lane'], marks: [text] });
    for (const scene of [before, after]) {
      const dot = noteOf(scene, 'n1').children.find((n) => n.type === 'circle')!;
      const { x1, y } = handle(scene, first.ref);
      expect(dot).toMatchObject({ x: x1, y });
    }
    expect(handle(after, first.ref).x1).not.toBeCloseTo(handle(before, first.ref).x1, 0);
    expect(texts(before, 'note').join(' ')).toBe('Waits for the licence since May');
  });

  test('are held by a date: on the scale it is where the date is', () => {
    const scene = compose(plan, { lanes: ['lane'] });
    const { from, to } = scene.handles!;
    const moment = Math.round((from + to) / 2);
    const arrow: Note = {
      kind: 'arrow',
      id: 'n2',
      anchor: { ref: first.ref, at: moment, dx: 0, dy: 0 },
      to: { ref: first.ref, at: 'start', dx: 0, dy: 0 },
    };
    for (const range of [{}, { from, to: to + 200_000 }]) {
      const page = compose(plan, { lanes: ['lane'], marks: [arrow], ...range });
      const h = page.handles!;
      const expected = h.left + ((h.right - h.left) * (moment - h.from)) / (h.to - h.from);
      const line = noteOf(page, 'n2').children.find((n) => n.type === 'line')!;
      expect(line.type === 'line' && line.x1).toBeCloseTo(expected, 1);
    }
    const page = compose(plan, { lanes: ['lane'], marks: [arrow], from: moment + 14_400, to: to + 14_400 });
    expect(noteOf(page, 'n2')).toBeUndefined();
    expect(page.handles!.unplaced).toMatchObject([{ note: 'n2', gone: false }]);
  });

  test('whose activity is gone are listed, and so are its looks', () => {
    const gone = { ...plan, activities: plan.activities.filter((a) => a.ref !== first.ref), links: [] };
    const scene = compose(gone, { marks: [text], looks: [{ ref: first.ref, strong: true }] });
    expect(scene.handles!.unplaced).toEqual([
      { ref: first.ref, note: null, words: '', gone: true },
      { ref: first.ref, note: 'n1', words: text.text, gone: true },
    ]);
    expect(texts(scene, 'note')).toEqual([]);
  });

  test('stay on the page wherever they were put', () => {
    for (const [dx, dy] of [
      [400, 400],
      [-400, -400],
    ] as const) {
      const scene = compose(plan, { marks: [{ ...text, anchor: { ...text.anchor, dx, dy } }] });
      const rect = noteOf(scene, 'n1').children.find((n) => n.type === 'rect')!;
      if (rect.type !== 'rect') throw new Error('no box');
      expect(rect.x).toBeGreaterThanOrEqual(0);
      expect(rect.y).toBeGreaterThanOrEqual(0);
      expect(rect.x + rect.width).toBeLessThanOrEqual(scene.width);
      expect(rect.y + rect.height).toBeLessThanOrEqual(scene.height);
    }
  });
});

describe('folded lanes', () => {
  const lanes = compose(plan, { lanes: ['lane'] }).handles!.lanes;
  const [lane] = lanes;

  test('are one row without labels, whose title says how many things it holds', () => {
    const scene = compose(plan, { lanes: ['lane'], folded: [lane!.codes] });
    const now = scene.handles!.lanes.find((l) => l.codes[0] === lane!.codes[0])!;
    const own = scene.handles!.items.filter((i) => i.y > now.top && i.y < now.bottom);
    expect(own.length).toBeGreaterThan(1);
    expect(new Set(own.map((i) => i.y)).size).toBe(1);
    expect(own.flatMap((i) => labelOf(scene, i.ref))).toEqual([]);
    expect(now).toMatchObject({ folded: true, title: `${lane!.title} (${own.length})` });
    // Nothing is lost: all of it is in the content still.
    expect(scene.content.rows.length).toBe(compose(plan, { lanes: ['lane'] }).content.rows.length);
  });

  test('hold what the lanes within them held', () => {
    const scene = compose(plan, { lanes: ['lane', 'trade'], folded: [lane!.codes] });
    expect(scene.handles!.lanes.filter((l) => l.codes[0] === lane!.codes[0])).toHaveLength(1);
    const columns = compose(plan, {
      lanes: ['lane'],
      rows: 'each',
      columns: ['finish'],
      totals: true,
      folded: [lane!.codes],
    });
    expect(columns.fit.readable).toBe(true);
  });
});
