import {
  FIVE_DAY,
  makeActivity,
  makeLink,
  makePlan,
  type Plan,
  parseIsoDate,
  schedulePlan,
  startOfDay,
  makeField,
  makeValue,
} from '@clembo/core';
import {
  type AmountWords,
  composeExhibit,
  composeSheets,
  TimelineBrief,
  createMeasure,
  type FontMetrics,
  leavesOf,
  type Scene,
  textOf,
} from '../src/index';
import metrics from '../fonts/metrics.json' with { type: 'json' };

export const fonts = metrics as FontMetrics;
export const measure = createMeasure(fonts);

export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a * 1664525 + 1013904223) >>> 0;
    return a / 4294967296;
  };
}

const WORDS = [
  'Toe',
  'piling',
  'Wall',
  'base',
  'Seat',
  'units',
  'north',
  'Paving',
  'Drains',
  'Slipway',
  'Roof',
  'and',
  'cladding',
  'Winch',
  'trials',
  'Inspection',
];

/** A made-up plan of so many activities over two years, with lanes, colours and milestones. */
export function randomPlan(seed: number, count: number): Plan {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const first = parseIsoDate('2026-01-05')!;
  const activities = Array.from({ length: count }, (_, i) => {
    const milestone = random() < 0.15;
    const start = startOfDay(first + Math.floor(random() * 600));
    const days = milestone ? 0 : 1 + Math.floor(random() * 60);
    return makeActivity({
      ref: `A${i}`,
      name: Array.from({ length: 1 + Math.floor(random() * 4) }, () => pick(WORDS)).join(' '),
      kind: milestone ? 'startMilestone' : random() >= 0.04 ? 'activity' : 'levelOfEffort',
      start,
      finish: milestone ? null : start + days * 1440,
      percent: Math.floor(random() * 101),
      codes: { lane: `Lane ${Math.floor(random() * 6)}`, trade: `Trade ${Math.floor(random() * 5)}` },
    });
  });
  const values = (name: string, n: number) => Array.from({ length: n }, (_, k) => makeValue({ code: `${name} ${k}` }));
  return makePlan({
    name: 'Made-up plan',
    statusDate: startOfDay(first + 200),
    calendars: [FIVE_DAY],
    calendar: 'five-day',
    activities,
    links: [makeLink({ from: 'A0', to: 'A1' })],
    codeFields: [
      makeField({ id: 'lane', name: 'Lane', values: values('Lane', 6) }),
      makeField({ id: 'trade', name: 'Trade', values: values('Trade', 5) }),
    ],
    periods: [{ name: 'Closed', start: startOfDay(first + 100), finish: startOfDay(first + 150) }],
  });
}

export const briefOf = (part: Partial<TimelineBrief> = {}): TimelineBrief =>
  TimelineBrief.parse({ kind: 'timeline', ...part });

/** Amounts as plain numbers of units and hours. */
export const plainAmounts: AmountWords = {
  money: (v) => String(v / 100),
  effort: (v) => `${v / 60} h`,
  amount: (v, of) => (of === 'cost' ? String(v / 100) : `${v / 60} h`),
  size: (v, of) => v / (of === 'cost' ? 100 : 60),
  unit: (of) => (of === 'cost' ? '' : 'h'),
  number: String,
};

const inputOf = (plan: Plan, part: Partial<TimelineBrief>, promised: Plan | null) => ({
  plan,
  schedule: schedulePlan(plan),
  brief: briefOf(part),
  measure,
  amounts: plainAmounts,
  edition: 'Test edition',
  editions: [],
  promised: promised && { plan: promised, schedule: schedulePlan(promised), name: 'Promised edition' },
});

export const compose = (
  plan: Plan,
  part: Partial<TimelineBrief> = {},
  promised: Plan | null = null,
  sheet = 1,
): Scene => composeExhibit({ ...inputOf(plan, part, promised), sheet });

/** All pages. */
export const composeAll = (plan: Plan, part: Partial<TimelineBrief> = {}): Scene[] =>
  composeSheets(inputOf(plan, part, null));

/** Texts of a scene that have a role. */
export const texts = (scene: Scene, role: string): string[] =>
  leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' && n.role === role ? [textOf(n)] : []));

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
  what: string;
}

export const labelBoxes = (scene: Scene): Box[] => textBoxes(scene, 'label');

/** Boxes of the texts of a scene that have a role. */
export const textBoxes = (scene: Scene, role: string): Box[] =>
  leavesOf(scene.nodes).flatMap((n) =>
    n.type === 'text' && n.role === role
      ? [
          {
            left: n.x,
            right: n.x + n.runs.reduce((sum, r) => sum + measure.width(r.face, n.size, r.text), 0),
            top: n.y - n.size * 0.66,
            bottom: n.y + n.size * 0.2,
            what: textOf(n),
          },
        ]
      : [],
  );

export function overlaps(a: Box[], b: Box[], tolerance = 0.3): string[] {
  const found: string[] = [];
  a.forEach((p, i) => {
    b.forEach((q, j) => {
      if (a === b && j <= i) return;
      if (
        p.left + tolerance < q.right &&
        q.left + tolerance < p.right &&
        p.top + tolerance < q.bottom &&
        q.top + tolerance < p.bottom
      )
        found.push(`${p.what} / ${q.what}`);
    });
  });
  return found;
}

/** The table of a scene, row by row. */
export const contentOf = (scene: Scene) =>
  scene.content.rows.map(({ ref, cells: [lane, name, start, finish, note] }) => ({
    ref,
    lane: lane!,
    name: name!,
    start: start!,
    finish: finish!,
    note: note!,
  }));
