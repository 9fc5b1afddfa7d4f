import { writeFileSync } from 'node:fs';
import { stationModel } from '../demo/station';
import { demoPlans } from '../demo/index';
import { readModel } from '../packages/formats/src/model/readModel';
import {
  bodyOf,
  schedulePlan,
  caughtByRules,
  buildTimes,
  stageAt,
  shareBuilt,
  againstPromise,
  Look,
  dayOf,
  parseIsoDate,
  likelyPairings,
  elementFields,
} from '../packages/core/src/index';
// import { elementLook } from '../packages/scene/src/exhibits/build/look';
// import { boundsOf, cameraFor, drawModel, pngOf, liftedBy } from '../packages/scene/src/exhibits/build/picture';
const m = await readModel(new TextEncoder().encode(stationModel()), 's.ifc', 'station');
const d = demoPlans()[0]!;
let plan = d.current;
const s = schedulePlan(plan);
console.log(
  likelyPairings(plan, s, m.elements, {
    element: elementFields(m.elements).map((f) => f.id),
    activity: ['ref', 'name', 'code.phase'],
  }).slice(0, 3),
);
const [c] = caughtByRules(plan, s, m.elements, [
  {
    id: 'r',
    name: '',
    where: { match: 'all', tests: [] },
    effect: 'builds',
    to: null,
    same: { element: 'property.Work: Code', activity: 'ref' },
  },
]);
plan = { ...plan, matches: c!.matches };

import { composeExhibit, createMeasure, EXHIBITS } from '../packages/scene/src/index';
import metrics from '../packages/scene/fonts/metrics.json';
import { amountWords } from '../packages/formats/src/amounts/amountWords';
import { writeSvg } from '../packages/render/src/svg/svg';
const body = bodyOf([{ count: m.elements.length, geometry: m.geometry }]);
const sched = schedulePlan(plan);
const base = {
  plan,
  schedule: sched,
  measure: createMeasure(metrics as never),
  amounts: amountWords(plan, 'en-GB'),
  edition: d.currentEdition,
  promised: { plan: d.baseline, schedule: schedulePlan(d.baseline), name: d.baselineEdition },
  editions: [],
  model: { elements: m.elements, body },
};
const brief = EXHIBITS.build.suggest(plan, sched, 1);
const shots: [string, object][] = [
  ['single', {}],
  ['board', { when: 'even6' }],
  ['slide', { when: 'even4', page: 'wide slide', loose: false }],
  ['portrait', { page: 'A4 portrait', measure: 'volume' }],
];
for (const [name, part] of shots) {
  const t = performance.now();
  const scene = composeExhibit({ ...base, brief: { ...brief, ...part } as never });
  console.log(name, performance.now() - t, scene.title, scene.fit.readable, scene.fit.smallestType);
  writeFileSync(`/tmp/b-${name}.svg`, writeSvg(scene, { fonts: metrics as never, references: true, sized: true }));
}
