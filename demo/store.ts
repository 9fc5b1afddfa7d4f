import { calendarWith, field, PlanBuilder } from './builder';

/** The fit-out of the museum's new store: the same trades through eight floors. Everything is made up. */
const CLOSED = [
  { name: 'Site holiday', from: '2026-08-03', to: '2026-08-07' },
  { name: 'Winter break', from: '2026-12-23', to: '2027-01-03' },
];

const FLOORS = ['Ground', 'First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Roof plant'];

interface Trade {
  key: string;
  name: string;
  who: string;
  /** Days a floor, and on which floors it turned out otherwise. */
  days: number;
  now?: Record<number, number>;
}

const TRADES: Trade[] = [
  { key: 'W', name: 'Partitions', who: 'Wall crew', days: 6, now: { 2: 9 } },
  { key: 'F', name: 'First fix', who: 'Services', days: 5 },
  { key: 'P', name: 'Plaster', who: 'Plasterers', days: 4, now: { 1: 6 } },
  { key: 'S', name: 'Screed', who: 'Floor crew', days: 3 },
  { key: 'X', name: 'Second fix', who: 'Services', days: 6 },
  { key: 'D', name: 'Doors and joinery', who: 'Joiners', days: 7 },
  { key: 'C', name: 'Painting', who: 'Painters', days: 4 },
  { key: 'R', name: 'Racking', who: 'Rackers', days: 5 },
];

export function newStore(): PlanBuilder {
  const zones = FLOORS.map((name, k) => ({ name, from: k * 1000, to: (k + 1) * 1000 }));
  const b = new PlanBuilder(
    'Museum store fit-out',
    [calendarWith('weekdays', 'Weekdays', 5, CLOSED)],
    [field('trade', 'Trade', ...TRADES.map((t) => t.name)), field('floor', 'Floor', ...FLOORS)],
    [],
    [
      {
        id: 'floors',
        name: 'The new store',
        unit: 'floors',
        from: 0,
        to: FLOORS.length * 1000,
        stations: [],
        zones,
        windows: [],
      },
    ],
  );
  b.group('G', 'Gates', {}, () => {
    b.add('G1', 'Shell handed over', 0, { notEarlier: '2026-06-01' });
  });
  FLOORS.forEach((floor, k) => {
    b.group(`L${k}`, floor, { floor }, () => {
      TRADES.forEach((t, n) => {
        const before = TRADES[n - 1];
        const after = [
          before ? `${before.key}${k}` : k === 0 ? 'G1' : '',
          // One crew each, from floor to floor.
          k > 0 ? `${t.key}${k - 1}` : '',
        ];
        b.add(`${t.key}${k}`, t.name, t.days, {
          after: after.filter(Boolean).join(', '),
          codes: { trade: t.name, floor },
          who: [t.who],
          from: k,
          to: k + 1,
          ...(t.now?.[k] !== undefined && { now: t.now[k] }),
        });
      });
    });
  });
  const last = FLOORS.length - 1;
  b.group('H', 'Handover', {}, () => {
    b.add('H1', 'Climate test', 10, { after: `R${last}`, who: ['Services'] });
    b.add('H2', 'Store open for the collection', 0, { after: 'H1' });
  });
  return b;
}
