// `npm run bench`: ratios of medians, measured side by side in one run. No number here is a limit of a test:
// the machine's mood changes them by a third.
import Papa from 'papaparse';
import { type Plan, schedulePlan } from '@clembo/core';
import { writeSvg } from '@clembo/render';
import { guessColumnMap, readCsv, readPlan } from '@clembo/formats';
import {
  composeTimeline,
  createMeasure,
  type FontMetrics,
  type Measure,
  Occupancy,
  packRows,
  type Scene,
  TimelineBrief,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { benchEngine } from './engine';
import { report, sideBySide } from './sideBySide';
import { randomPlan } from '../../packages/scene/tests/fixtures';

interface Label {
  x0: number;
  x1: number;
  top: number;
  bottom: number;
  width: number;
}

/** What the labels of a page are placed from: its bars and markers, and how wide each name is. */
function labelsOf(plan: Plan, scene: Scene, measure: Measure): Label[] {
  const names = new Map(plan.activities.map((a) => [a.ref, a.name]));
  return scene.nodes.flatMap((n) => {
    if (n.type === 'rect' && n.role === 'bar' && n.ref !== undefined)
      return [
        {
          x0: n.x,
          x1: n.x + n.width,
          top: n.y,
          bottom: n.y + n.height,
          width: measure.width('label', 6.5, `${names.get(n.ref)} 14 Sep`),
        },
      ];
    if (n.type === 'polygon' && n.role === 'milestone' && n.ref !== undefined) {
      const [top, right, bottom, left] = n.points as [
        [number, number],
        [number, number],
        [number, number],
        [number, number],
      ];
      return [
        {
          x0: left[0],
          x1: right[0],
          top: top[1],
          bottom: bottom[1],
          width: measure.width('label', 6.5, `${names.get(n.ref)} 14 Sep`),
        },
      ];
    }
    return [];
  });
}

/** Places the labels of a page alone: eight places each, whole or else shortened. */
function placeLabels(labels: Label[], width: number, height: number): number {
  const taken = new Occupancy(width, height);
  for (const l of labels) taken.add(l.x0, l.top, l.x1, l.bottom);
  let placed = 0;
  for (const l of labels) {
    for (const w of [l.width, l.width * 0.6, 8]) {
      const middle = (l.top + l.bottom) / 2 - 3;
      const places: [number, number][] = [
        [l.x1 + 3, middle],
        [l.x0 - w - 3, middle],
        [l.x0, l.top - 7],
        [l.x0, l.bottom],
        [l.x1 - w, l.top - 7],
        [l.x1 - w, l.bottom],
        [(l.x0 + l.x1 - w) / 2, l.top - 7],
        [(l.x0 + l.x1 - w) / 2, l.bottom],
      ];
      const found = places.find(([x, y]) => taken.isFree(x, y, x + w, y + 6.4));
      if (!found) continue;
      taken.add(found[0], found[1], found[0] + w, found[1] + 6.4);
      placed++;
      break;
    }
  }
  return placed;
}

function benchCompose(): void {
  const fonts = metrics as FontMetrics;
  const measure = createMeasure(fonts);
  for (const count of [200, 2000, 10_000]) {
    const plan = randomPlan(count, count);
    const schedule = schedulePlan(plan);
    const brief = TimelineBrief.parse({ kind: 'timeline', lanes: 'lane', colour: 'trade', page: 'A3 landscape' });
    const scene = composeTimeline({ plan, schedule, brief, measure, edition: '' });
    const labels = labelsOf(plan, scene, measure);
    const base = `placing its ${labels.length} labels alone (1 ×)`;
    report(
      `Composing a page of ${count} activities on A3`,
      sideBySide({
        [base]: () => placeLabels(labels, scene.width, scene.height),
        'compose, packed': () => composeTimeline({ plan, schedule, brief, measure, edition: '' }),
        'compose, one row each': () =>
          composeTimeline({ plan, schedule, brief: { ...brief, rows: 'each' }, measure, edition: '' }),
        'compose, packed, and write the SVG': () =>
          writeSvg(composeTimeline({ plan, schedule, brief, measure, edition: '' }), { fonts, references: true }),
      }),
      base,
    );
  }
}

function benchPacking(): void {
  for (const count of [1000, 10_000, 100_000]) {
    const left = Float64Array.from({ length: count }, (_, i) => (i * 7919) % 9973);
    const right = left.map((l, i) => l + 5 + (i % 60));
    report(
      `Packing ${count} intervals into rows`,
      sideBySide({
        'sorting them (1 ×)': () => Int32Array.from(left.keys()).sort((a, b) => left[a]! - left[b]!),
        'the least rows': () => packRows(left, right),
      }),
      'sorting them (1 ×)',
    );
  }
}

function benchIntake(): void {
  const rows = Array.from({ length: 50_000 }, (_, i) => {
    const day = (n: number) => new Date(Date.UTC(2026, 0, 1 + (n % 700))).toISOString().slice(0, 10);
    return `A${i},"Activity number ${i}, north",${day(i)},${day(i + 12)},${(i % 30) + 1},Phase ${i % 9},Crew ${i % 14},${i === 0 ? '' : `A${i - 1}`},${i % 101},Zone ${i % 5},${i * 10},note ${i}`;
  });
  const text = `ID,Name,Start,Finish,Days,Phase,Crew,Predecessors,% complete,Zone,Cost,Notes\n${rows.join('\n')}\n`;
  const bytes = new TextEncoder().encode(text);
  report(
    'Intake of 50,000 rows of 12 columns, CSV',
    sideBySide(
      {
        'papaparse alone (1 ×)': () => Papa.parse(text),
        'bytes to a plan, all checks': () => {
          const table = readCsv(bytes, 'bench.csv');
          return readPlan(table, guessColumnMap(table), { name: 'Bench' });
        },
      },
      5,
    ),
    'papaparse alone (1 ×)',
  );
}

benchEngine();
benchCompose();
benchPacking();
benchIntake();
