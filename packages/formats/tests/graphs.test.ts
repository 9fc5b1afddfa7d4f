import { expect, test } from '@jest/globals';
import { SaxesParser } from 'saxes';
import {
  FIVE_DAY,
  makeActivity,
  makeField,
  makeLink,
  makePlan,
  makeValue,
  parseIsoDate,
  startOfDay,
} from '@clembo/core';
import { writePlanDot, writePlanGraphml } from '../src/index';

const plan = makePlan({
  name: 'Quay "north" \\ works',
  start: startOfDay(parseIsoDate('2026-01-05')!),
  source: 'computed',
  calendars: [FIVE_DAY],
  calendar: FIVE_DAY.id,
  activities: [
    makeActivity({ ref: 'A', name: 'Dig & <shore> "it"', duration: 960, codes: { zone: 'N' } }),
    makeActivity({ ref: 'B', name: 'Fill', duration: 480 }),
    makeActivity({ ref: 'M', name: 'Open', kind: 'finishMilestone', duration: 0 }),
  ],
  links: [makeLink({ from: 'A', to: 'B', type: 'SS', lag: 480 }), makeLink({ from: 'B', to: 'M' })],
  codeFields: [makeField({ id: 'zone', name: 'Zone', values: [makeValue({ code: 'N' })] })],
});

test('GraphML: read as XML, every activity is a node, every link an edge, with their values by key', () => {
  const names = new Map<string, string>();
  const nodes = new Map<string, Record<string, string>>();
  const edges: (Record<string, string> & { source: string; target: string })[] = [];
  let [own, key]: [Record<string, string> | null, string] = [null, ''];
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes: a }) => {
    if (name === 'key') names.set(a.id!, a['attr.name']!);
    if (name === 'node') nodes.set(a.id!, (own = {}));
    if (name === 'edge') edges.push((own = { source: a.source!, target: a.target! }) as (typeof edges)[number]);
    if (name === 'data') key = names.get(a.key!)!;
  });
  parser.on('text', (t) => {
    if (own && key !== '' && t.trim() !== '') own[key] = t;
  });
  parser.on('closetag', ({ name }) => {
    if (name === 'data') key = '';
  });
  parser.write(writePlanGraphml(plan)).close();
  expect([...nodes.keys()]).toEqual(['A', 'B', 'M']);
  expect(nodes.get('A')).toMatchObject({
    name: 'Dig & <shore> "it"',
    days: '2',
    start: '2026-01-05',
    'code Zone': 'N',
  });
  expect(nodes.get('M')).toMatchObject({ milestone: 'true', critical: 'true' });
  expect(edges).toEqual([
    { source: 'A', target: 'B', type: 'SS', lag: '1' },
    { source: 'B', target: 'M', type: 'FS', lag: '0' },
  ]);
});

test('DOT: quotes are quoted, kinds and lags are said', () => {
  const dot = writePlanDot(plan);
  expect(dot).toContain('digraph "Quay \\"north\\" \\\\ works" {');
  expect(dot).toContain('"A" [label="Dig & <shore> \\"it\\"\\n2026-01-05 – 2026-01-06"');
  expect(dot).toContain('"A" -> "B" [label="SS +1d"];');
  expect(dot).toContain('"B" -> "M";');
});
