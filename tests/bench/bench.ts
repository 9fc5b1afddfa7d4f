// `npm run bench`: ratios of medians, measured side by side in one run. No number here is a limit of a test:
// the machine's mood changes them by a third.
import Papa from 'papaparse';
import { type Plan, schedulePlan } from '@clembo/core';
import { writeSvg } from '@clembo/render';
import { guessColumnMap, readCsv, readPlan } from '@clembo/formats';
import {
  TimelineBrief,
  composeExhibit,
  createMeasure,
  type FontMetrics,
  type Measure,
  Occupancy,
  packRows,
} from '@clembo/scene';
import { amountWords } from '../../packages/formats/src/amounts/amountWords';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { benchCommands } from './commands';
import { benchEngine } from './engine';
import { benchFolio } from './folio';
import { benchLanes } from './lanes';
import { benchNetwork } from './network';
import { report, sideBySide } from './sideBySide';
import { randomPlan } from '../../packages/scene/tests/fixtures';

interface Label {
  x0: number;
  x1: number;
  top: number;
  bottom: number;
  width: number;
}

/** What labels of a plan could be placed from: its bars over the width of a page, row after row, and the widths of names. */
function labelsOf(plan: Plan, width: number, height: number, measure: Measure): Label[] {
  const starts = plan.activities.map((a) => a.start ?? a.finish!);
  const from = starts.reduce((a, b) => Math.min(a, b));
  const to = plan.activities.reduce((most, a) => Math.max(most, a.finish ?? a.start!), from + 1);
  const x = (moment: number) => ((moment - from) / (to - from)) * width;
  const rows = Math.floor(height / 9);
  return plan.activities.map((a, i) => {
    const top = (i % rows) * 9;
    return {
      x0: x(starts[i]!),
      x1: Math.max(x(a.finish ?? starts[i]!), x(starts[i]!) + 4),
      top,
      bottom: top + 5,
      width: measure.width('label', 6.5, `${a.name} 14 Sep`),
    };
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

/** Pages that can be read with so many things on them, but for the last two, which say that they cannot. */
const PAGE_OF = {
  60: 'A4 landscape',
  200: 'A3 landscape',
  600: 'A1 landscape',
  2000: 'A3 landscape',
  10000: 'A3 landscape',
} as const;

function benchCompose(): void {
  const fonts = metrics as FontMetrics;
  const measure = createMeasure(fonts);
  for (const count of [60, 200, 600, 2000, 10_000] as const) {
    const plan = randomPlan(count, count);
    const schedule = schedulePlan(plan);
    const page = PAGE_OF[count];
    const brief = TimelineBrief.parse({ kind: 'timeline', lanes: ['lane'], colour: 'trade', page });
    const input = {
      plan,
      schedule,
      brief,
      measure,
      amounts: amountWords(plan),
      edition: '',
      promised: null,
      editions: [],
    };
    const { width, height, fit } = composeExhibit(input);
    const labels = labelsOf(plan, width, height, measure);
    const base = `placing ${labels.length} labels alone (1 ×)`;
    report(
      `Composing a page of ${count} activities on ${page}${fit.readable ? '' : ' (which says that it cannot be read)'}`,
      sideBySide({
        [base]: () => placeLabels(labels, width, height),
        'compose, packed': () => composeExhibit(input),
        'compose, one row each': () => composeExhibit({ ...input, brief: { ...brief, rows: 'each' } }),
        'compose, milestones strung on a line': () => composeExhibit({ ...input, brief: { ...brief, rows: 'strand' } }),
        'compose, with columns and links': () =>
          composeExhibit({ ...input, brief: { ...brief, columns: ['start', 'finish', 'percent'], links: 'all' } }),
        'compose, the first of several pages': () =>
          composeExhibit({ ...input, brief: { ...brief, rows: 'each', pages: 'several' } }),
        'compose, packed, and write the SVG': () => writeSvg(composeExhibit(input), { fonts, references: true }),
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
benchCommands();
benchCompose();
benchPacking();
benchIntake();
benchLanes();
await benchNetwork();
await benchFolio();
