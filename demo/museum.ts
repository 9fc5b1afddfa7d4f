import { calendarWith, field, PlanBuilder, type Said } from './builder';

/** The museum move: one programme of three projects of two kinds. Everything is made up. */
const CLOSED = [
  { name: 'Spring holiday', from: '2026-04-03', to: '2026-04-06' },
  { name: 'Winter break', from: '2026-12-23', to: '2027-01-03' },
  { name: 'Spring holiday', from: '2027-03-26', to: '2027-03-29' },
];
const GALLERIES = ['Sea and shore', 'Clocks', 'Costume', 'Printing', 'Fossils', 'Toys'];

export function museum(): PlanBuilder {
  const b = new PlanBuilder(
    'Museum move',
    [
      calendarWith('weekdays', 'Weekdays', 5, CLOSED),
      calendarWith('closed-days', 'Days when the museum is closed and weekdays', 6, CLOSED),
    ],
    [
      field('project', 'Project', 'New building', 'Collection move', 'Opening exhibition'),
      field('kind', 'Project kind', 'Building', 'Collections'),
      field('phase', 'Phase', 'Prepare', 'Design', 'Deliver', 'Hand over'),
      field('team', 'Team', 'Estates', 'Conservation', 'Curators', 'Transport', 'Exhibition design'),
    ],
  );
  building(b);
  move(b);
  exhibition(b);
  return b;
}

const say =
  (project: string, kind: string) =>
  (phase: string, team: string, said: Said = {}): Said => ({ ...said, codes: { project, kind, phase, team } });

function building(b: PlanBuilder): void {
  const c = say('New building', 'Building');
  b.group('N', 'New building', c('', 'Estates').codes!, () => {
    b.group('N1', 'Prepare', c('Prepare', 'Estates').codes!, () => {
      b.add('N100', 'Lease signed', 0, c('Prepare', 'Estates', { notEarlier: '2026-02-02' }));
      b.add('N110', 'Condition survey', 15, c('Prepare', 'Estates', { after: 'N100', cost: 24_000 }));
      b.add('N120', 'Brief and room schedule', 20, c('Prepare', 'Estates', { after: 'N110 SS+5' }));
      b.add('N130', 'Climate study', 25, c('Prepare', 'Conservation', { after: 'N110' }));
    });
    b.group('N2', 'Design', c('Design', 'Estates').codes!, () => {
      b.add('N200', 'Layout design', 30, c('Design', 'Estates', { after: 'N120' }));
      b.add('N210', 'Climate and power design', 35, c('Design', 'Estates', { after: 'N130, N200 SS+10', now: 42 }));
      b.add('N220', 'Fire and security design', 25, c('Design', 'Estates', { after: 'N200' }));
      b.add('N230', 'Building consent', 30, c('Design', 'Estates', { after: 'N210, N220' }));
      b.add('N240', 'Tender and contract', 35, c('Design', 'Estates', { after: 'N210' }));
      b.add('N250', 'Contract awarded', 0, c('Design', 'Estates', { after: 'N230, N240' }));
    });
    b.group('N3', 'Deliver', c('Deliver', 'Estates').codes!, () => {
      b.add('N300', 'Strip out', 20, c('Deliver', 'Estates', { after: 'N250', cost: 85_000 }));
      b.add('N310', 'Floors and partitions', 40, c('Deliver', 'Estates', { after: 'N300', cost: 240_000 }));
      b.add('N320', 'Climate plant', 50, c('Deliver', 'Estates', { after: 'N300', cost: 410_000 }));
      b.add('N330', 'Power and data', 45, c('Deliver', 'Estates', { after: 'N310 SS+15' }));
      b.add('N340', 'Stores: mobile racking', 30, c('Deliver', 'Estates', { after: 'N310' }));
      b.add('N350', 'Gallery finishes', 35, c('Deliver', 'Estates', { after: 'N310, N330' }));
      b.add('N360', 'Security and fire systems', 30, c('Deliver', 'Estates', { after: 'N330' }));
      b.add('N370', 'Lifts and loading bay', 40, c('Deliver', 'Estates', { after: 'N300' }));
    });
    b.group('N4', 'Hand over', c('Hand over', 'Estates').codes!, () => {
      b.add('N400', 'Commissioning', 20, c('Hand over', 'Estates', { after: 'N320, N350, N360, N370' }));
      b.add(
        'N410',
        'Stores steady at 18 °C for four weeks',
        20,
        c('Hand over', 'Conservation', { after: 'N320, N340' }),
      );
      b.add('N420', 'Stores ready', 0, c('Hand over', 'Conservation', { after: 'N410, N360' }));
      b.add('N430', 'Building handed over', 0, c('Hand over', 'Estates', { after: 'N400' }));
      b.add('N440', 'Defects and adjustments', 30, c('Hand over', 'Estates', { after: 'N430' }));
    });
    b.add('N900', 'Project management, building', 0, c('Deliver', 'Estates', { kind: 'levelOfEffort', effort: 1800 }));
  });
  b.link('N110', 'N900', 'SS');
  b.link('N900', 'N400', 'FF');
}

function move(b: PlanBuilder): void {
  const c = say('Collection move', 'Collections');
  b.group('C', 'Collection move', c('', 'Conservation').codes!, () => {
    b.group('C1', 'Prepare', c('Prepare', 'Conservation').codes!, () => {
      b.add('C100', 'Move policy and risk review', 20, c('Prepare', 'Conservation', { notEarlier: '2026-03-02' }));
      b.add('C110', 'Barcode trial', 15, c('Prepare', 'Curators', { after: 'C100' }));
      b.add('C120', 'Hire packing team', 30, c('Prepare', 'Conservation', { after: 'C100' }));
      b.add('C130', 'Crates and materials', 35, c('Prepare', 'Transport', { after: 'C100', cost: 130_000 }));
      b.add('C140', 'Transport tender', 30, c('Prepare', 'Transport', { after: 'C110' }));
    });
    b.group('C2', 'Inventory', c('Design', 'Curators').codes!, () => {
      GALLERIES.forEach((g, k) => {
        b.add(
          `C2${k}0`,
          `Inventory: ${g}`,
          18 + 3 * (k % 3),
          c('Design', 'Curators', { after: k < 2 ? 'C110' : `C2${k - 2}0`, effort: 280, ...(k === 1 && { now: 26 }) }),
        );
      });
    });
    b.group('C3', 'Conservation and packing', c('Deliver', 'Conservation').codes!, () => {
      GALLERIES.forEach((g, k) => {
        b.add(
          `C3${k}0`,
          `Conserve: ${g}`,
          22 + 4 * (k % 2),
          c('Deliver', 'Conservation', { after: `C2${k}0, C120${k < 2 ? '' : `, C3${k - 2}0`}`, effort: 520 }),
        );
        b.add(
          `C3${k}5`,
          `Pack: ${g}`,
          15 + 2 * (k % 3),
          c('Deliver', 'Conservation', { after: `C3${k}0 SS+8, C3${k}0 FF+4, C130`, effort: 360 }),
        );
      });
    });
    b.group('C4', 'Transport', c('Deliver', 'Transport').codes!, () => {
      GALLERIES.forEach((g, k) => {
        b.add(
          `C4${k}0`,
          `Move: ${g}`,
          8 + (k % 3),
          c('Deliver', 'Transport', {
            calendar: 'closed-days',
            after: `C3${k}5, N420, C140${k === 0 ? '' : `, C4${k - 1}0`}`,
            cost: 38_000,
          }),
        );
      });
    });
    b.group('C5', 'Hand over', c('Hand over', 'Curators').codes!, () => {
      b.add('C500', 'Collection complete in the new stores', 0, c('Hand over', 'Curators', { after: 'C450' }));
      b.add('C510', 'Location audit', 20, c('Hand over', 'Curators', { after: 'C500' }));
      b.add('C520', 'Old stores cleared', 15, c('Hand over', 'Transport', { after: 'C500' }));
      b.add('C530', 'Old lease ends', 0, c('Hand over', 'Estates', { after: 'C520' }));
    });
  });
}

function exhibition(b: PlanBuilder): void {
  const c = say('Opening exhibition', 'Collections');
  b.group('E', 'Opening exhibition', c('', 'Exhibition design').codes!, () => {
    b.group('E1', 'Prepare', c('Prepare', 'Curators').codes!, () => {
      b.add('E100', 'Story and object list', 45, c('Prepare', 'Curators', { notEarlier: '2026-04-13' }));
      b.add('E110', 'Loans agreed', 60, c('Prepare', 'Curators', { after: 'E100 FS-15' }));
      b.add('E120', 'Audience research', 25, c('Prepare', 'Exhibition design', { after: 'E100 SS+10' }));
    });
    b.group('E2', 'Design', c('Design', 'Exhibition design').codes!, () => {
      b.add('E200', 'Concept design', 30, c('Design', 'Exhibition design', { after: 'E100, E120' }));
      b.add('E210', 'Detailed design', 45, c('Design', 'Exhibition design', { after: 'E200' }));
      b.add('E220', 'Texts in two languages', 40, c('Design', 'Curators', { after: 'E200' }));
      b.add('E230', 'Design approved', 0, c('Design', 'Exhibition design', { after: 'E210' }));
    });
    b.group('E3', 'Deliver', c('Deliver', 'Exhibition design').codes!, () => {
      b.add('E300', 'Show cases', 70, c('Deliver', 'Exhibition design', { after: 'E230', cost: 280_000 }));
      b.add('E310', 'Set works', 30, c('Deliver', 'Exhibition design', { after: 'E230, N350' }));
      b.add('E320', 'Graphics', 25, c('Deliver', 'Exhibition design', { after: 'E220, E210' }));
      b.add('E330', 'Film and sound', 45, c('Deliver', 'Exhibition design', { after: 'E230' }));
      b.add('E340', 'Install show cases', 20, c('Deliver', 'Exhibition design', { after: 'E300, E310, N430' }));
      b.add('E350', 'Install objects', 25, c('Deliver', 'Conservation', { after: 'E340, C500' }));
      b.add('E360', 'Lighting and film', 15, c('Deliver', 'Exhibition design', { after: 'E340, E330, E320' }));
    });
    b.group('E4', 'Hand over', c('Hand over', 'Exhibition design').codes!, () => {
      b.add('E400', 'Staff training', 10, c('Hand over', 'Curators', { after: 'E350' }));
      b.add('E410', 'Preview days', 5, c('Hand over', 'Curators', { after: 'E350, E360, E400' }));
      b.add('E420', 'Doors open', 0, c('Hand over', 'Curators', { after: 'E410' }));
    });
  });
}
