// `npm run bench`: ratios of medians, measured side by side in one run. No number here is a limit of a test:
// the machine's mood changes them by a third.
import Papa from 'papaparse';
import { schedulePlan } from '@clembo/core';
import { guessColumnMap, readCsv, readPlan } from '@clembo/formats';
import { composeTimeline, createMeasure, type FontMetrics, Occupancy, packRows, TimelineBrief } from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { randomPlan } from '../../packages/scene/tests/fixtures';

/** Medians in milliseconds of several works, run in turn so that all feel the same machine. */
export function sideBySide(works: Record<string, () => unknown>, rounds = 9): Record<string, number> {
  const times: Record<string, number[]> = Object.fromEntries(Object.keys(works).map((k) => [k, []]));
  for (const work of Object.values(works)) work();
  for (let r = 0; r < rounds; r++) {
    for (const [name, work] of Object.entries(works)) {
      const begin = performance.now();
      work();
      times[name]!.push(performance.now() - begin);
    }
  }
  return Object.fromEntries(Object.entries(times).map(([k, t]) => [k, t.sort((a, b) => a - b)[t.length >> 1]!]));
}

export function report(title: string, medians: Record<string, number>, base: string): void {
  console.log(`\n${title}`);
  for (const [name, ms] of Object.entries(medians)) {
    console.log(
      `  ${name.padEnd(58)} ${ms.toFixed(2).padStart(9)} ms   ${(ms / medians[base]!).toFixed(2).padStart(7)} ×`,
    );
  }
}

/** Places so many labels alone: what every composer of a page has to do. */
function placeLabels(count: number): number {
  const taken = new Occupancy(1200, 900);
  let placed = 0;
  let seed = 7;
  const random = () => {
    seed = (seed * 1664525 + 1013904223) >>> 0;
    return seed / 4294967296;
  };
  for (let i = 0; i < count; i++) {
    const [x, y, w] = [random() * 1150, random() * 890, 30 + random() * 60];
    const candidates: [number, number][] = [
      [x + 4, y],
      [x - w - 4, y],
      [x, y - 8],
      [x, y + 8],
      [x - w, y - 8],
      [x - w, y + 8],
      [x - w / 2, y - 8],
      [x - w / 2, y + 8],
    ];
    for (const [left, top] of candidates) {
      if (!taken.isFree(left, top, left + w, top + 7)) continue;
      taken.add(left, top, left + w, top + 7);
      placed++;
      break;
    }
  }
  return placed;
}

function benchCompose(): void {
  const measure = createMeasure(metrics as FontMetrics);
  for (const count of [200, 2000, 10_000]) {
    const plan = randomPlan(count, count);
    const schedule = schedulePlan(plan);
    const brief = TimelineBrief.parse({ kind: 'timeline', lanes: 'lane', colour: 'trade', page: 'A1 landscape' });
    const labels = `placing ${count} labels alone (1 ×)`;
    report(
      `Composing a page of ${count} activities`,
      sideBySide({
        [labels]: () => placeLabels(count),
        'compose, A1': () => composeTimeline({ plan, schedule, brief, measure, edition: '' }),
        'compose, A3': () =>
          composeTimeline({ plan, schedule, brief: { ...brief, page: 'A3 landscape' }, measure, edition: '' }),
        'compose, A3, one row each': () =>
          composeTimeline({
            plan,
            schedule,
            brief: { ...brief, page: 'A3 landscape', rows: 'each' },
            measure,
            edition: '',
          }),
      }),
      labels,
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

benchCompose();
benchPacking();
benchIntake();
