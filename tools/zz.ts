import { writeFileSync } from 'node:fs';
import { schedulePlan } from '../packages/core/src/index';
import { fontFolder, writePng } from '../packages/render/src/index';
import { amountWords } from '../packages/formats/src/amounts/amountWords';
import { composeExhibit, createMeasure, readyMade, type FontMetrics, EXHIBITS } from '../packages/scene/src/index';
import metrics from '../packages/scene/fonts/metrics.json' with { type: 'json' };
import { demoPlans } from '../demo/index';
const fonts = metrics as FontMetrics; const measure = createMeasure(fonts);
const d = demoPlans()[Number(process.env.DEMO ?? 0)]!;
const keep = (plan: any, name: string) => ({ plan, schedule: schedulePlan(plan), name });
const base = keep(d.baseline, d.baselineEdition);
const editions = [base, ...d.earlier.map((e) => keep(e.plan, e.name))];
const input = { plan: d.current, schedule: schedulePlan(d.current), measure, amounts: amountWords(d.current), edition: d.currentEdition, promised: base, editions };
const list = process.env.READY ? readyMade(d.current).map((r) => ({ n: r.name, b: r.brief })) : Object.entries(EXHIBITS).map(([n, k]) => ({ n, b: (k as any).suggest(d.current, input.schedule, 1) }));
const folder = fontFolder('packages/render/fonts', fonts);
for (const { n, b } of list) {
  if (process.argv[2] && !n.startsWith(process.argv[2])) continue;
  const t = performance.now();
  const scene = composeExhibit({ ...input, brief: { ...b, ...(process.env.PART ? JSON.parse(process.env.PART) : {}) } } as any);
  console.log(n, Math.round(performance.now() - t), 'ms', scene.title, '|', scene.fit.smallestType, scene.fit.rows, scene.fit.readable, scene.fit.advice.map((a) => a.words).join('; '));
  writeFileSync(`/tmp/x_${n.replace(/\W+/g, '_')}.png`, writePng(scene, { fonts, fontPath: folder.path } as any));
}
