import { FIVE_DAY, SIX_DAY } from '@clembo/core';
import { book, resource, type Row, type Starter, write, yearlyOff } from './write';

/** Work along a shore, a road or a pipe: three sections, trades that follow each other at their own rates. */
const OFF: [number, number, string][] = [
  [1, 1, 'New Year'],
  [12, 24, 'Winter break'],
  [12, 25, 'Winter break'],
  [12, 31, 'Winter break'],
];
const LENGTH = 1200;
const SECTIONS = ['North', 'Middle', 'South'];

function trade(
  ref: string,
  name: string,
  perDay: number,
  follows: string | null,
  wait: number,
  work: (hours: number) => string,
): Row[] {
  return SECTIONS.map((section, k): Row => {
    const days = Math.ceil(LENGTH / SECTIONS.length / perDay);
    const before = [
      k > 0 ? `${ref}${k}` : '',
      follows ? `${follows}${k + 1} SS+${wait}, ${follows}${k + 1} FF+${wait}` : '',
    ].filter(Boolean);
    return [
      `${ref}${k + 1}`,
      `${name}, ${section.toLowerCase()} section`,
      days,
      [...before, ...(follows || k > 0 ? [] : ['C40'])].join(', '),
      `Build | ${section} | Works`,
      work(days * 8),
      { calendar: 'site', from: (k * LENGTH) / 3, to: ((k + 1) * LENGTH) / 3, perDay },
    ];
  });
}

export const shore: Starter = {
  id: 'shore',
  name: 'Works along a line',
  about: 'A wall, a road, a rail or a pipe in sections: crews that follow each other along it, each at its own rate.',
  plan: write('Works along a line', {
    calendars: [
      yearlyOff(FIVE_DAY, 'office', 'Office, five days', OFF),
      yearlyOff(SIX_DAY, 'site', 'Site, six days', OFF),
    ],
    fields: [
      book('phase', 'Phase', 'Prepare', 'Build', 'Hand over'),
      book('section', 'Section', ...SECTIONS),
      book('discipline', 'Discipline', 'Consents', 'Design', 'Supply', 'Works', 'Milestones'),
    ],
    resources: [
      resource('lead', 'Project lead', 95, 1),
      resource('designer', 'Designers', 82, 4),
      resource('survey', 'Surveyors', 70, 2),
      resource('crew', 'Ground crew', 58, 12),
      resource('build', 'Building crew', 62, 10),
      resource('plant', 'Excavators', 120, 3, 'machine hour'),
    ],
    lines: [
      {
        id: 'line',
        name: 'The line',
        unit: 'm',
        from: 0,
        to: LENGTH * 1000,
        stations: [
          { name: 'Beginning', at: 0 },
          { name: 'End', at: LENGTH * 1000 },
        ],
        zones: SECTIONS.map((name, k) => ({ name, from: (k * LENGTH * 1000) / 3, to: ((k + 1) * LENGTH * 1000) / 3 })),
        windows: [],
      },
    ],
    rows: [
      ['C', 'Consents and design', undefined, '', 'Prepare'],
      ['C10', 'Go-ahead', 0, '', 'Prepare | | Milestones'],
      ['C20', 'Survey of the line', 15, 'C10', 'Prepare | | Design', 'survey 240'],
      ['C30', 'Design', 45, 'C20', 'Prepare | | Design', 'designer 1080'],
      ['C35', 'Consent', 40, 'C30 SS+20', 'Prepare | | Consents', 'lead 80'],
      ['C40', 'Consent given', 0, 'C30, C35', 'Prepare | | Milestones'],
      ['C50', 'Order long-lead materials', 10, 'C30', 'Prepare | | Supply', 'lead 40'],
      ['C60', 'Materials delivered', 30, 'C50', 'Prepare | | Supply'],
      ['B', 'Work along the line', undefined, '', 'Build'],
      ...trade('D', 'Dig', 40, null, 0, (h) => `crew ${h * 3}, plant ${h}`),
      ...trade('F', 'Foundation', 25, 'D', 3, (h) => `crew ${h * 4}`),
      ...trade('W', 'Main works', 20, 'F', 5, (h) => `build ${h * 5}, plant ${h}`),
      ...trade('S', 'Surface and finishes', 32, 'W', 4, (h) => `build ${h * 3}`),
      ['B90', 'Last material on site', 0, 'C60, F1', 'Build | | Milestones'],
      ['H', 'Hand over', undefined, '', 'Hand over'],
      ['H10', 'Survey as built', 10, 'S3', 'Hand over | | Design', 'survey 160'],
      ['H20', 'Defects', 15, 'S3', 'Hand over | | Works', 'build 240'],
      ['H30', 'Handed over', 0, 'H10, H20, B90', 'Hand over | | Milestones'],
      ['M10', 'Project management', null, 'C10 SS, H30 FF', 'Build | | Design', 'lead 900', { support: true }],
    ],
  }),
};
