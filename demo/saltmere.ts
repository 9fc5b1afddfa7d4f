import { calendarWith, field, PlanBuilder, period, type Said } from './builder';

/**
 * The Saltmere sea wall and lifeboat station: 2.6 km of precast wall in eight sections of 325 m, a promenade on
 * top of it and a station at its southern end. The beach is closed while the terns nest. Everything is made up.
 */
const HOLIDAYS = [
  { name: 'New Year', from: '2026-01-01' },
  { name: 'Easter', from: '2026-04-03', to: '2026-04-06' },
  { name: 'May Day', from: '2026-05-04' },
  { name: 'Summer holiday', from: '2026-08-31' },
  { name: 'Winter break', from: '2026-12-24', to: '2027-01-03' },
  { name: 'Easter', from: '2027-03-26', to: '2027-03-29' },
  { name: 'May Day', from: '2027-05-03' },
  { name: 'Summer holiday', from: '2027-08-30' },
];
const NESTING = [
  { name: 'Nesting season', from: '2026-04-01', to: '2026-07-31' },
  { name: 'Nesting season', from: '2027-04-01', to: '2027-07-31' },
];
const SECTION = 325;
const SECTIONS = [1, 2, 3, 4, 5, 6, 7, 8];

/** Work on the beach goes by the beach's calendar, and is drawn on its line with the closures. */
const BEACH = { calendar: 'beach', line: 'beach' };
const LINE = {
  unit: 'm',
  from: 0,
  to: SECTIONS.length * SECTION * 1000,
  stations: [
    { name: 'Harbour', at: 0 },
    { name: 'Middle ramp', at: 1_300_000 },
    { name: 'South ramp', at: 2_100_000 },
    { name: 'Lifeboat station', at: 2_600_000 },
  ],
  zones: SECTIONS.map((s) => ({
    name: `Section ${s}`,
    from: (s - 1) * SECTION * 1000,
    to: s * SECTION * 1000,
  })),
};

const codes = (phase: string, contractor: string, area: string, discipline: string) => ({
  phase,
  contractor,
  area,
  discipline,
});
const half = (s: number) => (s <= 4 ? 'North beach' : 'South beach');
const place = (s: number): Pick<Said, 'from' | 'to'> => ({ from: (s - 1) * SECTION, to: s * SECTION });
/** Crews work outwards from the middle ramp: sections 4 to 1 in the north, 5 to 8 in the south. */
const before = (s: number): number | null => (s === 4 || s === 5 ? null : s < 4 ? s + 1 : s - 1);

export function saltmere(): PlanBuilder {
  const b = new PlanBuilder(
    'Saltmere sea wall',
    [
      calendarWith('office', 'Office, five days', 5, HOLIDAYS),
      calendarWith('site', 'Site, six days', 6, HOLIDAYS),
      calendarWith('beach', 'Beach, six days outside the nesting season', 6, [...HOLIDAYS, ...NESTING]),
    ],
    [
      field(
        'phase',
        'Phase',
        'Gates',
        'Consents and design',
        'Yard and supply',
        'Beach and toe',
        'Wall',
        'Promenade',
        'Lifeboat station',
      ),
      field(
        'contractor',
        'Contractor',
        'Harbour office',
        'Design team',
        'Precast yard',
        'Marine works',
        'Civil works',
        'Station builder',
        'Station plant',
      ),
      field('area', 'Area', 'Whole line', 'North beach', 'South beach', 'Harbour', 'Casting yard', 'Station'),
      field('discipline', 'Discipline', 'Design', 'Marine', 'Civil', 'Building', 'Plant'),
    ],
    [
      period('Nesting: beach closed', '2026-04-01', '2026-07-31'),
      period('Storm season', '2026-11-01', '2027-02-28'),
      period('Nesting: beach closed', '2027-04-01', '2027-07-31'),
    ],
    [
      { ...LINE, id: 'wall', name: 'Wall and promenade', windows: [] },
      {
        ...LINE,
        id: 'beach',
        name: 'Beach',
        windows: NESTING.map((n) => ({ ...period(n.name, n.from, n.to), from: LINE.from, to: LINE.to })),
      },
    ],
    {
      field: 'contractor',
      sizes: {
        'Harbour office': 6,
        'Design team': 14,
        'Precast yard': 20,
        'Marine works': 16,
        'Civil works': 18,
        'Station builder': 15,
        'Station plant': 8,
      },
    },
  );
  gates(b);
  design(b);
  supply(b);
  beach(b);
  wall(b);
  promenade(b);
  station(b);
  return b;
}

function gates(b: PlanBuilder): void {
  const gate = codes('Gates', 'Harbour office', 'Whole line', 'Design');
  b.group('G', 'Gates and payments', gate, () => {
    b.add('G10', 'Funding agreed', 0, { codes: gate, notEarlier: '2026-01-12' });
    b.add('G20', 'Marine licence granted', 0, { codes: gate, after: 'D130' });
    b.add('G30', 'Design approved', 0, { codes: gate, after: 'D240' });
    b.add('G40', 'Yard approved', 0, { codes: gate, after: 'Y140' });
    b.add('G50', 'Toe complete', 0, { codes: gate, after: 'T301, T308' });
    b.add('G60', 'Half the wall units set', 0, { codes: gate, after: 'W203, W206' });
    b.add('G70', 'Wall closed', 0, { codes: gate, after: 'W400' });
    b.add('G80', 'Promenade open', 0, { codes: gate, after: 'P500, P510' });
    b.add('G90', 'Station opens', 0, { codes: gate, after: 'L270' });
    b.add('PAY1', 'Payment 1: mobilisation', 0, { codes: gate, after: 'T110', cost: 1_200_000 });
    b.add('PAY2', 'Payment 2: toe', 0, { codes: gate, after: 'G50', cost: 2_600_000 });
    b.add('PAY3', 'Payment 3: half the wall', 0, { codes: gate, after: 'G60', cost: 3_400_000 });
    b.add('PAY4', 'Payment 4: station', 0, { codes: gate, after: 'G90', cost: 1_800_000 });
    b.add('PAY5', 'Payment 5: wall closed', 0, { codes: gate, after: 'G70', cost: 2_900_000 });
  });
}

function design(b: PlanBuilder): void {
  const consents = codes('Consents and design', 'Harbour office', 'Whole line', 'Design');
  const drawing = codes('Consents and design', 'Design team', 'Whole line', 'Design');
  b.group('D', 'Consents and design', consents, () => {
    b.group('D1', 'Licences', consents, () => {
      b.add('D100', 'Environmental statement', 40, {
        codes: consents,
        after: 'G10',
        effort: 900,
        who: ['Environment lead'],
      });
      b.add('D105', 'Tern colony survey', 15, { codes: consents, after: 'G10 SS+10', who: ['Environment lead'] });
      b.add('D110', 'Marine licence application', 10, { codes: consents, after: 'D100, D105' });
      b.add('D120', 'Public consultation', 30, { codes: consents, after: 'D110', now: 35 });
      b.add('D130', 'Marine licence decision', 20, { codes: consents, after: 'D120', now: 25 });
      b.add('D140', 'Planning permission for the station', 45, { codes: consents, after: 'D210' });
      b.add('D150', 'Highway and footpath orders', 35, { codes: consents, after: 'G10' });
      b.add('D160', 'Seabed lease', 25, { codes: consents, after: 'D110' });
    });
    b.group('D2', 'Detailed design', drawing, () => {
      b.add('D200', 'Ground investigation', 30, { codes: drawing, notEarlier: '2026-01-19', cost: 310_000 });
      b.add('D205', 'Wave and overtopping model', 35, { codes: drawing, after: 'G10', effort: 700 });
      b.add('D210', 'Station concept and layout', 30, { codes: drawing, after: 'G10' });
      b.add('D220', 'Wall and toe design', 45, { codes: drawing, after: 'D200, D205 FS-10', effort: 2100 });
      b.add('D225', 'Precast unit design', 30, { codes: drawing, after: 'D220 SS+20' });
      b.add('D230', 'Promenade and drainage design', 40, { codes: drawing, after: 'D220 SS+25' });
      b.add('D235', 'Station structural design', 50, { codes: drawing, after: 'D210', now: 58 });
      b.add('D240', 'Design review and approval', 15, { codes: drawing, after: 'D220, D225' });
      b.add('D250', 'Slipway and winch design', 35, { codes: drawing, after: 'D210' });
    });
  });
}

function supply(b: PlanBuilder): void {
  const yard = codes('Yard and supply', 'Precast yard', 'Casting yard', 'Civil');
  const stone = codes('Yard and supply', 'Marine works', 'Harbour', 'Marine');
  b.group('Y', 'Yard and supply', yard, () => {
    b.group('Y1', 'Casting yard set-up', yard, () => {
      b.add('Y100', 'Yard lease and levelling', 20, { codes: yard, notEarlier: '2026-04-13' });
      b.add('Y110', 'Batching plant', 25, { codes: yard, after: 'Y100' });
      b.add('Y120', 'Steel moulds, twelve sets', 45, { codes: yard, after: 'D225 FS-5', cost: 640_000 });
      b.add('Y130', 'Trial unit and tests', 18, { codes: yard, after: 'Y110, Y120' });
      b.add('Y140', 'Yard approval', 5, { codes: yard, after: 'Y130, D240' });
    });
    b.group('Y2', 'Casting wall units in the yard', yard, () => {
      const order = [4, 5, 3, 6, 2, 7, 1, 8];
      order.forEach((s, k) => {
        b.add(`Y20${s}`, `Cast units, section ${s}`, 22, {
          codes: yard,
          calendar: 'site',
          after: k === 0 ? 'Y140' : `Y20${order[k - 1]}`,
          cost: 410_000,
          effort: 1900,
          ...(k === 0 && { now: 25 }),
        });
      });
    });
    b.group('Y3', 'Rock armour supply', stone, () => {
      b.add('Y300', 'Armour stone contract', 20, { codes: stone, after: 'D220 FF' });
      b.add('Y310', 'Quarry production, first lot', 40, { codes: stone, after: 'Y300' });
      b.add('Y320', 'Sea delivery, first lot', 15, { codes: stone, calendar: 'site', after: 'Y310' });
      b.add('Y330', 'Quarry production, second lot', 60, { codes: stone, after: 'Y310', notEarlier: '2026-12-01' });
      b.add('Y340', 'Sea delivery, second lot', 20, {
        codes: stone,
        calendar: 'site',
        after: 'Y330',
        notEarlier: '2027-03-01',
      });
    });
  });
}

function beach(b: PlanBuilder): void {
  const marine = (area: string) => codes('Beach and toe', 'Marine works', area, 'Marine');
  b.group('T', 'Beach and toe', marine('Whole line'), () => {
    b.group('T1', 'Access and compound', marine('Harbour'), () => {
      b.add('T100', 'Harbour compound', 20, { codes: marine('Harbour'), calendar: 'site', after: 'G20' });
      b.add('T110', 'Mobilise piling barge', 10, {
        codes: marine('Harbour'),
        calendar: 'site',
        after: 'T100',
        now: 12,
      });
      b.add('T120', 'Middle beach ramp', 12, { codes: marine('North beach'), ...BEACH, after: 'G20' });
      b.add('T130', 'South beach ramp', 12, { codes: marine('South beach'), ...BEACH, after: 'T120 SS+6' });
    });
    b.group('T2', 'Toe piling', marine('Whole line'), () => {
      for (const s of SECTIONS) {
        const prior = before(s);
        const late: Partial<Said> = s === 4 ? { now: 16 } : s === 5 ? { now: 11 } : {};
        b.add(`T20${s}`, `Sheet piles, section ${s}`, 13, {
          codes: marine(half(s)),
          ...BEACH,
          after: prior ? `T20${prior}` : s === 4 ? 'T120, T110, G30' : 'T120, T130, T110, G30',
          cost: 260_000,
          effort: 780,
          ...place(s),
          ...late,
        });
      }
    });
    b.group('T3', 'Toe concrete', marine('Whole line'), () => {
      for (const s of SECTIONS) {
        const prior = before(s);
        b.add(`T30${s}`, `Toe beam, section ${s}`, 11, {
          codes: marine(half(s)),
          ...BEACH,
          after: `T20${s}${prior ? `, T30${prior}` : ''}`,
          cost: 140_000,
          effort: 520,
          ...place(s),
        });
      }
    });
    b.group('T4', 'Rock armour, lower layer', marine('Whole line'), () => {
      b.add('T400', 'Rock armour, north, lower layer', 22, {
        codes: marine('North beach'),
        ...BEACH,
        after: 'Y320, T303',
        from: 0,
        to: 1300,
      });
      b.add('T410', 'Rock armour, south, lower layer', 22, {
        codes: marine('South beach'),
        ...BEACH,
        after: 'Y320, T306',
        from: 1300,
        to: 2600,
      });
    });
    // The upper layer waits for the wall behind it, and then for the terns.
    b.group('T6', 'Rock armour, upper layer', marine('Whole line'), () => {
      b.add('T420', 'Rock armour, north, upper layer', 18, {
        codes: marine('North beach'),
        ...BEACH,
        notEarlier: '2027-08-02',
        after: 'T400, W201, Y340',
        from: 0,
        to: 1300,
      });
      b.add('T430', 'Rock armour, south, upper layer', 18, {
        codes: marine('South beach'),
        ...BEACH,
        notEarlier: '2027-08-02',
        after: 'T410, W207, Y340',
        from: 1300,
        to: 2400,
      });
    });
    b.add('T500', 'Beach and bird watch', 0, { codes: marine('Whole line'), kind: 'levelOfEffort', effort: 1600 });
  });
  b.link('T120', 'T500', 'SS');
  b.link('T500', 'T430', 'FF');
}

function wall(b: PlanBuilder): void {
  const civil = (area: string) => codes('Wall', 'Civil works', area, 'Civil');
  b.group('W', 'Wall', civil('Whole line'), () => {
    b.group('W1', 'Wall base', civil('Whole line'), () => {
      for (const s of SECTIONS) {
        const prior = before(s);
        b.add(`W10${s}`, `Wall base, section ${s}`, 16, {
          codes: civil(half(s)),
          calendar: 'site',
          after: `T30${s}${prior ? `, W10${prior}` : ''}`,
          cost: 190_000,
          effort: 1100,
          ...place(s),
        });
      }
    });
    b.group('W2', 'Setting wall units', civil('Whole line'), () => {
      for (const s of SECTIONS) {
        const prior = before(s);
        b.add(`W20${s}`, `Set units, section ${s}`, 20, {
          codes: civil(half(s)),
          calendar: 'site',
          after: `W10${s}, Y20${s}${prior ? `, W20${prior}` : ''}`,
          cost: 230_000,
          effort: 960,
          ...place(s),
        });
      }
    });
    b.group('W3', 'Joints and backfill', civil('Whole line'), () => {
      for (const s of SECTIONS) {
        b.add(`W30${s}`, `Joints and backfill, section ${s}`, 14, {
          codes: civil(half(s)),
          calendar: 'site',
          after: `W20${s} SS+10, W20${s} FF+5`,
          cost: 95_000,
          effort: 640,
          ...place(s),
        });
      }
    });
    b.add('W400', 'Closing section at the station', 40, {
      codes: civil('Station'),
      after: 'W308, W301, T430',
      cost: 520_000,
      effort: 2300,
      from: 2400,
      to: 2600,
    });
    b.add('W500', 'Site management, civil works', 0, {
      codes: civil('Whole line'),
      kind: 'levelOfEffort',
      effort: 5200,
    });
  });
  b.link('W104', 'W500', 'SS');
  b.link('W500', 'W400', 'FF');
}

function promenade(b: PlanBuilder): void {
  const civil = (area: string) => codes('Promenade', 'Civil works', area, 'Civil');
  b.group('P', 'Promenade', civil('Whole line'), () => {
    b.group('P1', 'Ducts and drains', civil('Whole line'), () => {
      for (const s of SECTIONS)
        b.add(`P10${s}`, `Ducts and drains, section ${s}`, 9, {
          codes: civil(half(s)),
          calendar: 'site',
          after: `W30${s}, D230${before(s) ? `, P10${before(s)}` : ''}`,
          effort: 420,
          ...place(s),
        });
    });
    b.group('P2', 'Paving', civil('Whole line'), () => {
      for (const s of SECTIONS)
        b.add(`P20${s}`, `Paving, section ${s}`, 18, {
          codes: civil(half(s)),
          calendar: 'site',
          after: `P10${s}${before(s) ? `, P20${before(s)}` : ''}`,
          cost: 120_000,
          effort: 700,
          ...place(s),
        });
    });
    b.group('P3', 'Railings and lighting', civil('Whole line'), () => {
      b.add('P300', 'Railings, north', 25, { codes: civil('North beach'), after: 'P202 FS-5', from: 0, to: 1300 });
      b.add('P310', 'Railings, south', 25, { codes: civil('South beach'), after: 'P207 FS-5', from: 1300, to: 2600 });
      b.add('P320', 'Lighting, north', 18, { codes: civil('North beach'), after: 'P300 SS+10' });
      b.add('P330', 'Lighting, south', 18, { codes: civil('South beach'), after: 'P310 SS+10' });
    });
    b.add('P400', 'Planting and seats', 20, { codes: civil('Whole line'), after: 'P320, P330 FF+10, P201, P208' });
    b.add('P500', 'Safety inspection, promenade', 5, { codes: civil('Whole line'), after: 'P400' });
    b.add('P510', 'Beach access steps', 15, { codes: civil('South beach'), calendar: 'beach', after: 'P208' });
  });
}

function station(b: PlanBuilder): void {
  const building = codes('Lifeboat station', 'Station builder', 'Station', 'Building');
  const plant = codes('Lifeboat station', 'Station plant', 'Station', 'Plant');
  b.group('L', 'Lifeboat station', building, () => {
    b.group('L1', 'Foundations and slip', building, () => {
      b.add('L100', 'Clear the old boathouse', 15, { codes: building, after: 'D140', cost: 90_000 });
      b.add('L110', 'Bored piles', 20, {
        codes: building,
        calendar: 'site',
        after: 'L100, D235',
        now: 34,
        waits: 5,
        cost: 380_000,
        effort: 1500,
      });
      b.add('L120', 'Ground beams and slab', 22, { codes: building, after: 'L110', cost: 260_000 });
      b.add('L130', 'Slipway concrete', 35, {
        codes: building,
        calendar: 'site',
        after: 'L110, D250',
        cost: 450_000,
        effort: 2000,
      });
    });
    b.group('L2', 'Frame and roof', building, () => {
      b.add('L140', 'Steel frame', 25, { codes: building, after: 'L120', cost: 420_000 });
      b.add('L150', 'Roof and cladding', 35, { codes: building, after: 'L140' });
      b.add('L160', 'Boat hall doors', 12, { codes: building, after: 'L150' });
      b.add('L170', 'Weathertight', 0, { codes: building, after: 'L150, L160' });
    });
    b.group('L3', 'Fit-out', building, () => {
      b.add('L180', 'Partitions and finishes', 40, { codes: building, after: 'L170' });
      b.add('L190', 'Crew room and training room', 25, { codes: building, after: 'L180 SS+20' });
      b.add('L200', 'Power, heating and water', 45, { codes: plant, after: 'L170' });
    });
    b.group('L4', 'Plant and winch', plant, () => {
      b.add('L210', 'Winch fabrication', 90, { codes: plant, after: 'D250', notEarlier: '2026-07-06', cost: 350_000 });
      b.add('L220', 'Install winch and cradle', 25, { codes: plant, after: 'L210, L130, L170' });
      b.add('L230', 'Slip rails and keelway', 20, { codes: plant, after: 'L130' });
      b.add('L240', 'Fuel and fire systems', 30, { codes: plant, after: 'L200 SS+20' });
    });
    b.group('L5', 'Trials and crew training', plant, () => {
      b.add('L250', 'Launch and recovery trials', 20, { codes: plant, after: 'L220, L230, L240' });
      b.add('L260', 'Crew training', 25, { codes: plant, after: 'L250 SS+5, L190' });
      b.add('L270', 'Acceptance by the harbour office', 10, { codes: building, after: 'L250, L260, L180' });
    });
    b.add('L300', 'Site management, station', 0, { codes: building, kind: 'levelOfEffort', effort: 3400 });
  });
  b.link('L100', 'L300', 'SS');
  b.link('L300', 'L270', 'FF');
}
