import { guessColumnMap, readCsv, readPlan } from '@clembo/formats';
const rows = Array.from({ length: 50_000 }, (_, i) => {
  const day = (n: number) => new Date(Date.UTC(2026, 0, 1 + (n % 700))).toISOString().slice(0, 10);
  return `A${i},"Activity number ${i}, north",${day(i)},${day(i + 12)},${(i % 30) + 1},Phase ${i % 9},Crew ${i % 14},${i === 0 ? '' : `A${i - 1}`},${i % 101},Zone ${i % 5},${i * 10},note ${i}`;
});
const bytes = new TextEncoder().encode(
  `ID,Name,Start,Finish,Days,Phase,Crew,Predecessors,% complete,Zone,Cost,Notes\n${rows.join('\n')}\n`,
);
for (let k = 0; k < 12; k++) {
  const a = performance.now();
  const table = readCsv(bytes, 'bench.csv');
  const b = performance.now();
  const map = guessColumnMap(table);
  const c = performance.now();
  readPlan(table, map, { name: 'Bench' });
  const d = performance.now();
  if (k > 8) console.log((b - a).toFixed(0), (c - b).toFixed(0), (d - c).toFixed(0));
}
