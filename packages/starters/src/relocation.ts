import { FIVE_DAY, SIX_DAY } from '@clembo/core';
import { book, resource, type Row, type Starter, write, yearlyOff } from './write';

/** Moving an organisation: the old place works until the new one does. */
const TEAMS = ['First team', 'Second team', 'Third team'];

const waves: Row[] = TEAMS.flatMap((team, k): Row[] => [
  [
    `W${k + 1}0`,
    `Pack, ${team.toLowerCase()}`,
    3,
    k === 0 ? 'R60, P40' : `W${k}2`,
    `Move | ${team} | Movers`,
    'movers 96',
  ],
  [
    `W${k + 1}1`,
    `Move, ${team.toLowerCase()}`,
    2,
    `W${k + 1}0`,
    `Move | ${team} | Movers`,
    'movers 128',
    { calendar: 'weekends' },
  ],
  [`W${k + 1}2`, `Settle in, ${team.toLowerCase()}`, 4, `W${k + 1}1`, `Move | ${team} | Technology`, 'it 64, floor 32'],
]);

export const relocation: Starter = {
  id: 'relocation',
  name: 'A relocation',
  about: 'An office, a school or a collection moves house in waves, and works all the while.',
  plan: write('A relocation', {
    calendars: [
      yearlyOff(FIVE_DAY, 'weekdays', 'Weekdays', [
        [1, 1, 'New Year'],
        [12, 25, 'Winter break'],
        [12, 26, 'Winter break'],
      ]),
      yearlyOff(SIX_DAY, 'weekends', 'Weekdays and Saturdays', [[1, 1, 'New Year']]),
    ],
    fields: [
      book('phase', 'Phase', 'Decide', 'Ready the place', 'Ready the people', 'Move', 'Close'),
      book('team', 'Team', ...TEAMS),
      book('by', 'Responsible', 'Management', 'Estates', 'Technology', 'People', 'Movers'),
    ],
    resources: [
      resource('lead', 'Move lead', 80, 1),
      resource('estates', 'Estates', 68, 4),
      resource('it', 'Technology', 74, 5),
      resource('floor', 'Floor helpers', 45, 6),
      resource('movers', 'Movers', 48, 16),
    ],
    rows: [
      ['D', 'Decide', undefined, '', 'Decide'],
      ['D10', 'Decision to move', 0, '', 'Decide | | Management'],
      ['D20', 'What we have, what we need', 15, 'D10', 'Decide | | Estates', 'estates 180, lead 40'],
      ['D30', 'Choose the place', 25, 'D20', 'Decide | | Management', 'lead 100'],
      ['D40', 'Lease signed', 0, 'D30', 'Decide | | Management'],
      ['R', 'Ready the place', undefined, '', 'Ready the place'],
      ['R10', 'Floor plans', 15, 'D40', 'Ready the place | | Estates', 'estates 200'],
      ['R20', 'Order furniture', 5, 'R10', 'Ready the place | | Estates', 'estates 40'],
      ['R30', 'Fit out', 40, 'R10', 'Ready the place | | Estates', 'estates 480'],
      ['R35', 'Furniture arrives', 35, 'R20', 'Ready the place | | Estates'],
      ['R40', 'Network and telephones', 20, 'R30 SS+20', 'Ready the place | | Technology', 'it 320'],
      ['R50', 'Trial with a few', 5, 'R30, R35, R40', 'Ready the place | | Technology', 'it 60, floor 60'],
      ['R60', 'Place ready', 0, 'R50', 'Ready the place | | Estates'],
      ['P', 'Ready the people', undefined, '', 'Ready the people'],
      ['P10', 'Tell everybody', 5, 'D40', 'Ready the people | | People', 'lead 30'],
      ['P20', 'Who sits where', 20, 'R10', 'Ready the people | | People', 'lead 80'],
      ['P30', 'Order of the waves', 10, 'P20', 'Ready the people | | Management', 'lead 40'],
      ['P40', 'Tours and labels', 10, 'P30', 'Ready the people | | People', 'floor 80'],
      ['W', 'Move', undefined, '', 'Move'],
      ...waves,
      ['W90', 'Everybody has moved', 0, 'W32', 'Move | | Management'],
      ['C', 'Close', undefined, '', 'Close'],
      ['C10', 'Clear the old place', 10, 'W90', 'Close | | Movers', 'movers 240'],
      ['C20', 'Give the old place back', 5, 'C10', 'Close | | Estates', 'estates 40'],
      ['C30', 'Old lease ended', 0, 'C20', 'Close | | Management'],
      ['C40', 'What we learned', 3, 'W90 FS+10', 'Close | | People', 'lead 24'],
      ['L10', 'Leading the move', null, 'D10 SS, C30 FF', 'Decide | | Management', 'lead 600', { support: true }],
    ],
  }),
};
