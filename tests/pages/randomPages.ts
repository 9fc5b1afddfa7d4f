import {
  FIVE_DAY,
  makeActivity,
  makeLink,
  makePlan,
  type CodeValue,
  type Activity,
  type Plan,
  parseIsoDate,
  startOfDay,
  makeField,
  makeValue,
} from '../../packages/core/src/index';
import { seeded } from '../../packages/core/tests/helpers';
import { LABEL_PARTS, PAGES, PROMISED, SCALE_UNITS, TimelineBrief } from '../../packages/scene/src/index';

const WORDS = [
  [
    'Toe',
    'piling',
    'Wall',
    'base',
    'Units',
    'north',
    'Paving',
    'Drains',
    'Slipway',
    'Roof',
    'cladding',
    'Winch',
    'trials',
  ],
  ['Gründung', 'Übergabe', 'Fußgängerbrücke', 'Prüfung', 'Straßenbau', 'Genehmigungsverfahren', 'Süd'],
  ['Étude', 'démolition', 'façade', 'réseaux', 'première', 'tranche', 'œuvre', 'levée'],
  ['Земляные', 'работы', 'Монтаж', 'фундамент', 'Приёмка', 'їжак', 'ґанок', 'Підготовка'],
  ['Θεμελίωση', 'έλεγχος', 'τοίχος', 'παράδοση', 'μελέτη'],
  ['Łącznik', 'żuraw', 'ściana', 'Příprava', 'stavby', 'Kőműves', 'munkák', 'Çatı', 'iskele'],
  ['漢字', 'Mixed', '工事', 'عمل', 'plain', '🚧', 'site'],
];

export interface RandomPage {
  seed: number;
  plan: Plan;
  promised: Plan | null;
  brief: TimelineBrief;
}

/** How many activities: mostly what people put on a page, sometimes far too many. */
function someCount(random: () => number): number {
  const r = random();
  if (r < 0.35) return 1 + Math.floor(random() * 20);
  if (r < 0.75) return 20 + Math.floor(random() * 130);
  if (r < 0.94) return 150 + Math.floor(random() * 650);
  return 800 + Math.floor(random() * 4200);
}

/** The least picture: one dot as PNG. */
const DOT =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==';

const COLUMNS = [
  'name',
  'start',
  'finish',
  'days',
  'percent',
  'late',
  'status',
  'code.trade',
  'code.lane',
  'promisedFinish',
  'float',
  'cost',
];

/** Parts that came later, from numbers of their own, so that older pages stay what they were. */
function newParts(random: () => number, first: number, days: number): Partial<TimelineBrief> {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  return {
    points: pick(['among', 'among', 'among', 'above', 'phases']),
    overlaps: pick(['staggered', 'staggered', 'staggered', 'allowed']),
    stems: pick(['turns', 'above']),
    packBy: pick([null, null, 'trade', 'lane']),
    columns: random() < 0.3 ? COLUMNS.filter(() => random() < 0.3) : [],
    columnsAt: pick(['left', 'right']),
    totals: random() < 0.5,
    deadlines: random() < 0.3,
    gone: random() < 0.4,
    doneGrey: random() < 0.2,
    emptyLanes: random() < 0.15,
    laneTitles: pick(['level', 'level', 'turned']),
    laneFirst: random() < 0.2 ? ['L2', 'L0', 'T1'] : [],
    links: pick(['none', 'none', 'all', 'critical', 'lanes']),
    notes:
      random() < 0.2
        ? 'Nobody works on the beach while birds nest. Dates of the station are those of its builder.'
        : '',
    numbered: random() < 0.2,
    side: pick(['auto', 'auto', 'right', 'left', 'inside', 'above']),
    shape: pick([null, null, 'trade', 'lane']),
    summaries: pick(['lines', 'lines', 'blocks', 'none']),
    logo: random() < 0.15 ? { data: DOT, width: pick([10, 400]), height: pick([10, 200]) } : null,
    pages: pick(['one', 'one', 'one', 'several']),
    size: random() < 0.1 ? { width: pick([120, 300, 841]), height: pick([160, 300, 500]) } : null,
    daysOff: random() < 0.3,
    elapsed: random() < 0.3,
    scale: random() < 0.3 ? SCALE_UNITS.filter(() => random() < 0.4).slice(0, 4) : [],
    fiscal: pick([1, 4, 7, 10]),
    dates:
      random() < 0.3
        ? Array.from({ length: 1 + Math.floor(random() * 6) }, (_, k) => {
            const start = startOfDay(first + Math.floor(random() * days));
            return {
              name: pick(['Board', 'Town council decides', 'Freeze']) + k,
              start,
              finish: pick([null, null, start + 4320]),
            };
          })
        : [],
    language: pick(['en', 'en', 'en', 'de', 'fr', 'es', 'it', 'nl']),
    // What is set by hand and still stands in its row.
    looks:
      random() < 0.3
        ? Array.from({ length: 8 }, (_, k) => ({
            ref: `A${k * 3}`,
            ...(random() < 0.5 ? { side: pick(['right', 'left', 'inside', 'above'] as const) } : {}),
            ...(random() < 0.3 ? { strong: true } : {}),
            ...(random() < 0.2 ? { shape: pick(['circle', 'star', 'flag'] as const) } : {}),
          }))
        : [],
    together: random() < 0.12 ? pick(['trade', 'lane']) : null,
  };
}

/** What only the edition of the promise has. */
const goneOnes = (seed: number, first: number, days: number): Activity[] =>
  seed % 3 > 0
    ? []
    : [0, 1, 2].map((k) => {
        const start = startOfDay(first + Math.floor((days * k) / 4));
        return makeActivity({
          ref: `GONE${k}`,
          name: `Gone ${k}`,
          start,
          finish: start + 1440 * (k + 2),
          codes: { lane: 'L0', trade: 'T0' },
        });
      });

/** The first to the last, and every third to one some way on. */
const chain = (count: number) => [
  makeLink({ from: 'A0', to: `A${count - 1}` }),
  ...Array.from({ length: Math.floor((count - 1) / 3) }, (_, k) => 3 * k)
    .filter((k) => k + 5 < count - 1)
    .map((k) => makeLink({ from: `A${k}`, to: `A${k + 5}`, type: k % 2 === 0 ? 'FS' : 'SS' })),
];

/** A random plan and brief: languages, long names, many lanes, one day or fifty years, every layout and size. */
export function randomPage(seed: number): RandomPage {
  const random = seeded(seed * 7919 + 13);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const chance = (p: number) => random() < p;
  const count = someCount(random);
  const first = parseIsoDate('2026-01-05')! + Math.floor(random() * 400);
  const days = pick([2, 5, 14, 40, 120, 300, 500, 900, 2000, 6000, 18_000]);
  const oneDay = chance(0.04);
  const language = pick(WORDS);
  const longNames = chance(0.25);
  const alike = chance(0.15);
  const laneCount = pick([1, 2, 4, 6, 9, 15, 30, 60]);
  const name = (i: number): string => {
    const n = longNames && chance(0.5) ? 6 + Math.floor(random() * 30) : 1 + Math.floor(random() * 4);
    const words = Array.from({ length: n }, () => pick(language)).join(' ');
    if (alike) return `${pick(['Preparation of the northern section', 'Inspection'])} ${i % 7}`;
    return chance(0.02) ? `${words}\n${words}\u0007` : words;
  };
  const depth = pick([0, 0, 1, 2, 3]);
  const groups: Activity[] = [];
  if (depth > 0) {
    const width = 1 + Math.floor(random() * 5);
    let level: (string | null)[] = [null];
    for (let d = 0; d < depth; d++) {
      const next: string[] = [];
      for (const parent of level)
        for (let k = 0; k < width && groups.length < 60; k++) {
          const ref = `G${groups.length}`;
          groups.push(makeActivity({ ref, kind: 'summary', name: name(groups.length), parent }));
          next.push(ref);
        }
      if (next.length > 0) level = next;
    }
  }
  const lane = (k: number) =>
    longNames ? `Lane ${k} ${pick(language)} ${pick(language)} ${pick(language)}` : `${pick(language)} ${k}`;
  const lanes = Array.from({ length: laneCount }, (_, k) => ({ code: `L${k}`, title: lane(k) }));
  const trades = Array.from({ length: pick([1, 3, 8, 12]) }, (_, k) => ({
    code: `T${k}`,
    title: `${pick(language)} ${k}`,
    shape: chance(0.2) ? pick(['circle', 'square', 'triangle', 'flag', 'star'] as const) : null,
  }));
  const milestones = pick([0, 0.1, 0.3, 1]);
  const undated = pick([0, 0, 0.1, 0.5]);
  const activities = Array.from({ length: count }, (_, i): Activity => {
    const point = chance(milestones);
    const begins = startOfDay(first + (oneDay ? 0 : Math.floor(random() * days)));
    const length = oneDay ? 1 : Math.max(1, Math.floor(random() ** 2 * days * 0.4));
    const work = chance(0.03) ? ('levelOfEffort' as const) : ('activity' as const);
    const kind = point ? pick(['startMilestone', 'finishMilestone'] as const) : work;
    const a = makeActivity({
      ref: `A${i}`,
      name: name(i),
      kind,
      parent: groups.length > 0 && chance(0.9) ? pick(groups).ref : null,
      percent: chance(0.5) ? Math.floor(random() * 101) : null,
      codes: { lane: pick(lanes).code, trade: pick(trades).code, ...(chance(0.1) ? { lane: 'stranger' } : {}) },
    });
    if (i % 9 === 4) a.deadline = begins + (i % 40) * 1440;
    if (chance(undated)) return a;
    if (point) {
      if (a.kind === 'startMilestone') a.start = begins;
      else a.finish = begins + 1440;
      a.duration = 0;
    } else {
      a.start = begins;
      a.finish = begins + length * 1440;
      if (chance(0.04) && length > 10)
        a.stretches = [
          { start: begins, finish: begins + Math.floor(length / 3) * 1440 },
          { start: begins + Math.floor(length / 2) * 1440, finish: a.finish },
        ];
    }
    return a;
  });
  const statusDate = chance(0.6) ? startOfDay(first + Math.floor(random() * days)) : null;
  // Links would give dates to what states none: that is tested in core.
  const dated = new Set(activities.flatMap((a) => ((a.start ?? a.finish) === null ? [] : [a.ref])));
  const periods = Array.from({ length: pick([0, 0, 1, 3, 12, 40]) }, (_, k) => {
    const start = startOfDay(first + Math.floor(random() * days));
    return {
      name: chance(0.2) ? 'Closed' : `${pick(language)} ${k}`,
      start,
      finish: start + (1 + Math.floor(random() * days * 0.1)) * 1440,
    };
  });
  const value = (v: Partial<CodeValue> & { code: string }) => makeValue(v);
  const plan = makePlan({
    name: `Plan ${seed}`,
    statusDate,
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: [...groups, ...activities],
    links: chance(0.5) && count > 1 ? chain(count).filter((l) => dated.has(l.to)) : [],
    codeFields: [
      // Some lanes are to be higher than what they hold.
      makeField({
        id: 'lane',
        name: 'Lane',
        values: lanes.map((v, k) => value({ ...v, height: k % 3 === seed % 7 ? 2 + (seed % 4) : null })),
      }),
      makeField({ id: 'trade', name: 'Trade', values: trades.map(value) }),
    ],
    periods,
  });
  const compares = chance(0.4);
  const promised: Plan | null = compares
    ? {
        ...plan,
        activities: [...plan.activities, ...goneOnes(seed, first, days)].map((a) => {
          const moved = Math.floor((random() - 0.4) * Math.min(60, days * 0.3)) * 1440;
          return {
            ...a,
            start: a.start === null ? null : a.start - moved,
            finish: a.finish === null ? null : a.finish - moved,
            stretches: [],
            percent: null,
          };
        }),
      }
    : null;
  const cuts = !oneDay && chance(0.3);
  const from = cuts ? startOfDay(first + Math.floor(random() * days * 0.5)) : null;
  const laneFields = pick([[], ['lane'], ['lane'], ['outline'], ['trade'], ['lane', 'trade']]);
  const brief = TimelineBrief.parse({
    kind: 'timeline',
    title: chance(0.15)
      ? Array.from({ length: 4 + Math.floor(random() * 30) }, () => pick(language))
          .join(' ')
          .slice(0, 300)
      : null,
    include: chance(0.8) ? 'both' : pick(['activities', 'milestones']),
    level: depth > 0 && chance(0.5) ? 1 + Math.floor(random() * depth) : null,
    where: chance(0.15) ? [{ field: 'trade', keep: pick(['only', 'without']), values: [pick(trades).code] }] : [],
    lanes: laneFields,
    rows: pick(['each', 'packed', 'packed', 'strand']),
    ...newParts(seeded(seed * 104_729 + 7), first, days),
    colour: pick([null, 'trade', 'lane', 'trade', 'lane', '=status', '=critical', '=band']),
    laneOrder: pick(['book', 'book', 'time', 'name']),
    compareBy: pick(['outline', 'outline', 'arrow', 'both']),
    threshold: pick([0, 0, 0, 5]),
    blind: chance(0.3),
    labels: chance(0.6) ? ['name', 'finish', 'off'] : LABEL_PARTS.filter(() => chance(0.4)),
    compare: compares ? PROMISED : null,
    periods: chance(0.8),
    from,
    to: cuts && chance(0.7) ? from! + (2 + Math.floor(random() * days * 0.5)) * 1440 : null,
    page: pick(Object.keys(PAGES) as (keyof typeof PAGES)[]),
    print: chance(0.1) ? 'grey' : 'colour',
  });
  // Where a phase begins depends on milestones that these dates may leave out.
  if (brief.points === 'phases') [brief.from, brief.to] = [null, null];
  return { seed, plan, promised, brief };
}
