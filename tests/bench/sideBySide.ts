/** Medians in milliseconds of several works, run in turn so that all feel the same machine. */
export function sideBySide(works: Record<string, () => unknown>, rounds = 9): Record<string, number> {
  const times: Record<string, number[]> = Object.fromEntries(Object.keys(works).map((k) => [k, []]));
  for (const work of Object.values(works)) warmUp(work);
  for (let r = 0; r < rounds; r++) {
    for (const [name, work] of Object.entries(works)) {
      const begin = performance.now();
      work();
      times[name]!.push(performance.now() - begin);
    }
  }
  return Object.fromEntries(Object.entries(times).map(([k, t]) => [k, t.sort((a, b) => a - b)[t.length >> 1]!]));
}

/** Runs a work until the machine has compiled it. */
function warmUp(work: () => unknown): void {
  const begin = performance.now();
  for (let k = 0; k < 30 && (k < 2 || performance.now() - begin < 400); k++) work();
}

export function report(title: string, medians: Record<string, number>, base: string): void {
  console.log(`\n${title}`);
  for (const [name, ms] of Object.entries(medians)) {
    console.log(
      `  ${name.padEnd(58)} ${ms.toFixed(3).padStart(10)} ms   ${(ms / medians[base]!).toFixed(2).padStart(8)} ×`,
    );
  }
}
