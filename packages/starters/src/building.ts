import { FIVE_DAY } from '@clembo/core';
import { book, resource, type Row, type Starter, write, yearlyOff } from './write';

/** A building of three floors: from the brief to the keys. */
const FLOORS = ['Ground floor', 'First floor', 'Second floor'];

/** Work that goes from floor to floor, with the same crew. */
function floors(
  ref: string,
  name: string,
  days: number,
  after: (k: number) => string,
  discipline: string,
  work: string,
): Row[] {
  return FLOORS.map(
    (floor, k): Row => [
      `${ref}${k + 1}`,
      `${name}, ${floor.toLowerCase()}`,
      days,
      [k > 0 ? `${ref}${k}` : '', after(k)].filter(Boolean).join(', '),
      `Build | ${floor} | ${discipline}`,
      work,
    ],
  );
}

export const building: Starter = {
  id: 'building',
  name: 'A building',
  about: 'A building of three floors, from the brief through design, permit and structure to the keys.',
  plan: write('A building', {
    calendars: [
      yearlyOff(FIVE_DAY, 'weekdays', 'Weekdays', [
        [1, 1, 'New Year'],
        [5, 1, 'May Day'],
        [12, 25, 'Winter break'],
        [12, 26, 'Winter break'],
      ]),
    ],
    fields: [
      book('phase', 'Phase', 'Brief and design', 'Permit and tender', 'Build', 'Hand over'),
      book('floor', 'Floor', 'Site', ...FLOORS, 'Roof'),
      book('trade', 'Trade', 'Owner', 'Design', 'Ground', 'Structure', 'Envelope', 'Services', 'Finishes'),
    ],
    resources: [
      resource('owner', 'Owner’s team', 85, 3),
      resource('architect', 'Architects', 90, 4),
      resource('engineer', 'Engineers', 95, 3),
      resource('ground', 'Ground crew', 56, 8),
      resource('frame', 'Frame crew', 60, 12),
      resource('envelope', 'Envelope crew', 58, 8),
      resource('services', 'Services crew', 64, 10),
      resource('finish', 'Finishing crew', 54, 12),
    ],
    rows: [
      ['A', 'Brief and design', undefined, '', 'Brief and design'],
      ['A10', 'Project begins', 0, '', 'Brief and design | | Owner'],
      ['A20', 'Brief', 15, 'A10', 'Brief and design | | Owner', 'owner 160, architect 60'],
      ['A30', 'Concept design', 25, 'A20', 'Brief and design | | Design', 'architect 400, engineer 80'],
      ['A40', 'Concept agreed', 0, 'A30', 'Brief and design | | Owner'],
      ['A50', 'Detailed design', 45, 'A40', 'Brief and design | | Design', 'architect 720, engineer 480'],
      ['P', 'Permit and tender', undefined, '', 'Permit and tender'],
      ['P10', 'Permit application', 10, 'A50 SS+25', 'Permit and tender | | Design', 'architect 80'],
      ['P20', 'Permit', 50, 'P10', 'Permit and tender | | Owner'],
      ['P30', 'Tender', 25, 'A50', 'Permit and tender | | Owner', 'owner 120'],
      ['P40', 'Contract signed', 0, 'P30', 'Permit and tender | | Owner'],
      ['P50', 'Permit given', 0, 'P20', 'Permit and tender | | Owner'],
      ['B', 'Build', undefined, '', 'Build'],
      ['B10', 'Set up the site', 8, 'P40, P50', 'Build | Site | Ground', 'ground 200'],
      ['B20', 'Excavate', 12, 'B10', 'Build | Site | Ground', 'ground 380'],
      ['B30', 'Foundations', 18, 'B20', 'Build | Site | Ground', 'ground 600'],
      ...floors('S', 'Frame', 14, (k) => (k === 0 ? 'B30' : ''), 'Structure', 'frame 900'),
      ['R10', 'Roof', 15, 'S3', 'Build | Roof | Envelope', 'envelope 620'],
      ...floors('E', 'Walls and windows', 12, (k) => `S${k + 1} FS+5`, 'Envelope', 'envelope 480'),
      ['B80', 'Weathertight', 0, 'R10, E3', 'Build | Roof | Envelope'],
      ...floors('V', 'Services, first fix', 15, (k) => `E${k + 1}`, 'Services', 'services 560'),
      ...floors('I', 'Walls and ceilings', 14, (k) => (k === 0 ? 'V1, B80' : `V${k + 1}`), 'Finishes', 'finish 620'),
      ...floors('X', 'Services, second fix', 10, (k) => `I${k + 1}`, 'Services', 'services 340'),
      ...floors('Y', 'Floors and paint', 12, (k) => `I${k + 1} FS+3`, 'Finishes', 'finish 480'),
      ['B95', 'Outside works', 20, 'R10', 'Build | Site | Ground', 'ground 460'],
      ['H', 'Hand over', undefined, '', 'Hand over'],
      ['H10', 'Commissioning', 15, 'X3', 'Hand over | | Services', 'services 240, engineer 80'],
      ['H20', 'Snagging', 12, 'Y3, H10 SS+5', 'Hand over | | Finishes', 'finish 260'],
      ['H30', 'Inspection', 3, 'H10, H20, B95', 'Hand over | | Owner', 'owner 24'],
      ['H40', 'Keys handed over', 0, 'H30', 'Hand over | | Owner'],
      ['M10', 'Site management', null, 'B10 SS, H30 FF', 'Build | Site | Owner', 'owner 1400', { support: true }],
    ],
  }),
};
