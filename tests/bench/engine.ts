// The engine against the least that any engine must do (a sweep over links in typed arrays), and against a
// general-purpose graph library with the same passes.
import {
  FIVE_DAY,
  LINK_TYPES,
  LiveSchedule,
  makeActivity,
  makeLink,
  makePlan,
  type Plan,
  schedulePlan,
  SEVEN_DAY,
  SIX_DAY,
  weekCalendar,
} from '@clembo/core';
import graphology from 'graphology';
import { topologicalSort } from 'graphology-dag';
import { computeDates } from '../../packages/core/src/schedule/schedule';
import { report, sideBySide } from './sideBySide';

// The package's types know it as an ES module, Node gives it as CommonJS.
const { DirectedGraph } = graphology as unknown as { DirectedGraph: typeof import('graphology').DirectedGraph };

function random(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a * 1664525 + 1013904223) >>> 0;
    return a / 4294967296;
  };
}

/** A network like those of real plans: two links an activity, mostly to near predecessors. */
export function benchPlan(n: number, calendars: number, rich: boolean): Plan {
  const r = random(n + calendars);
  const specs = [SEVEN_DAY, FIVE_DAY, SIX_DAY, weekCalendar('four-day', 'Four days', 4)].slice(0, calendars);
  const start = 20_000 * 1440;
  const activities = Array.from({ length: n }, (_, i) => {
    const a = makeActivity({
      ref: `N${i}`,
      duration: (1 + Math.floor(r() * 10)) * 480,
      calendar: specs[Math.floor(r() * specs.length)]!.id,
    });
    if (!rich) return a;
    if (i < n / 10) a.actualStart = start + Math.floor(r() * 20) * 1440;
    if (i < n / 20) a.actualFinish = a.actualStart! + 5 * 1440;
    if (r() < 0.05)
      a.constraint = {
        kind: (['startNotEarlier', 'finishNotLater', 'fixedStart'] as const)[Math.floor(r() * 3)]!,
        moment: start + Math.floor(r() * 400) * 1440,
      };
    return a;
  });
  const links = Array.from({ length: 2 * n - 2 }, (_, k) => {
    const to = 1 + (k >> 1);
    const from = Math.max(0, to - 1 - Math.floor(r() * Math.min(to, 60)));
    return makeLink({
      from: `N${from}`,
      to: `N${to}`,
      type: r() < 0.7 ? 'FS' : LINK_TYPES[Math.floor(r() * 4)]!,
      lag: r() < 0.2 ? 480 * Math.floor(r() * 5) : 0,
    });
  });
  return makePlan({
    name: 'Bench',
    statusDate: rich ? start + 30 * 1440 : null,
    start,
    source: 'computed',
    calendars: specs,
    calendar: specs[0]!.id,
    activities,
    links,
  });
}

/** The bare sweep: activities in topological order, links in compressed rows, link type and lag in one weight. */
function bareSweep(plan: Plan): () => number {
  const n = plan.activities.length;
  const index = new Map(plan.activities.map((a, i) => [a.ref, i]));
  const duration = Int32Array.from(plan.activities, (a) => a.duration! / 480);
  const at = new Int32Array(n + 1);
  for (const l of plan.links) at[index.get(l.to)! + 1]!++;
  for (let i = 0; i < n; i++) at[i + 1]! += at[i]!;
  const next = at.slice();
  const from = new Int32Array(plan.links.length);
  const weight = new Int32Array(plan.links.length);
  for (const l of plan.links) {
    const [a, b] = [index.get(l.from)!, index.get(l.to)!];
    const k = next[b]!++;
    from[k] = a;
    weight[k] = { FS: duration[a]!, SS: 0, FF: duration[a]! - duration[b]!, SF: -duration[b]! }[l.type] + l.lag / 480;
  }
  const early = new Int32Array(n);
  const late = new Int32Array(n);
  return () => {
    let finish = 0;
    for (let v = 0; v < n; v++) {
      let start = 0;
      for (let k = at[v]!; k < at[v + 1]!; k++) {
        const t = early[from[k]!]! + weight[k]!;
        if (t > start) start = t;
      }
      early[v] = start;
      if (start + duration[v]! > finish) finish = start + duration[v]!;
    }
    for (let v = 0; v < n; v++) late[v] = finish - duration[v]!;
    for (let v = n - 1; v >= 0; v--) {
      for (let k = at[v]!; k < at[v + 1]!; k++) {
        const t = late[v]! - weight[k]!;
        if (t < late[from[k]!]!) late[from[k]!] = t;
      }
    }
    return finish;
  };
}

/** Both passes as one writes them over a general graph library. */
function byGraphLibrary(plan: Plan): number {
  const graph = new DirectedGraph();
  for (const a of plan.activities) graph.addNode(a.ref, { duration: a.duration! / 480, early: 0, late: 0 });
  for (const l of plan.links) {
    const [d, e] = [graph.getNodeAttribute(l.from, 'duration'), graph.getNodeAttribute(l.to, 'duration')];
    const weight = { FS: d, SS: 0, FF: d - e, SF: -e }[l.type] + l.lag / 480;
    if (!graph.hasEdge(l.from, l.to)) graph.addEdge(l.from, l.to, { weight });
    else graph.updateEdgeAttribute(l.from, l.to, 'weight', (w: number | undefined) => Math.max(w ?? 0, weight));
  }
  const order = topologicalSort(graph);
  let finish = 0;
  for (const v of order) {
    let early = 0;
    graph.forEachInEdge(v, (_, attributes, source) => {
      early = Math.max(early, graph.getNodeAttribute(source, 'early') + attributes.weight);
    });
    graph.setNodeAttribute(v, 'early', early);
    finish = Math.max(finish, early + graph.getNodeAttribute(v, 'duration'));
  }
  for (const v of [...order].reverse()) {
    let late = finish - graph.getNodeAttribute(v, 'duration');
    graph.forEachOutEdge(v, (_, attributes, __, target) => {
      late = Math.min(late, graph.getNodeAttribute(target, 'late') - attributes.weight);
    });
    graph.setNodeAttribute(v, 'late', late);
  }
  return finish;
}

export function benchEngine(): void {
  const passes: Record<number, number> = {};
  for (const n of [1000, 10_000, 100_000]) {
    const one = benchPlan(n, 1, false);
    const rich = benchPlan(n, 4, true);
    const [oneReady, richReady] = [schedulePlan(one), schedulePlan(rich)];
    const sweep = bareSweep(one);
    const works: Record<string, () => unknown> = {
      'bare sweep (1 ×)': sweep,
      'passes and float, one calendar': () => computeDates(oneReady.network, oneReady.adjacency, oneReady.order),
      'passes and float, four calendars, constraints, progress': () =>
        computeDates(richReady.network, richReady.adjacency, richReady.order),
      'whole run from text references, one calendar': () => schedulePlan(one),
      'whole run from text references, all rules': () => schedulePlan(rich),
    };
    if (n <= 100_000) works['graph library with both passes'] = () => byGraphLibrary(one);
    const medians = sideBySide(works, n > 50_000 ? 5 : 9);
    report(`Schedule of ${n} activities and ${one.links.length} links`, medians, 'bare sweep (1 ×)');
    console.log(
      `  the whole run is ${(medians['graph library with both passes']! / medians['whole run from text references, one calendar']!).toFixed(1)} × as fast as the graph library`,
    );
    passes[n] = medians['whole run from text references, all rules']!;
  }
  console.log(
    `\nGrowth of the whole run: 1k to 10k ${(passes[10_000]! / passes[1000]!).toFixed(1)} ×, 10k to 100k ${(passes[100_000]! / passes[10_000]!).toFixed(1)} ×`,
  );
  for (const n of [10_000, 100_000]) benchIncremental(n);
}

function benchIncremental(n: number): void {
  const plan = benchPlan(n, 4, true);
  const live = new LiveSchedule(plan);
  const r = random(3);
  // Durations that change by a day and back, of activities that have float, and of one on the critical path.
  const floating = plan.activities.flatMap((_, i) =>
    live.schedule.totalFloat[i]! > 3 * 480 && plan.activities[i]!.duration! > 960 ? [i] : [],
  );
  const critical = plan.activities.findIndex(
    (a, i) => i > n / 2 && live.schedule.critical[i] === 1 && a.actualStart === null,
  );
  const edit = (i: number) => {
    const duration = plan.activities[i]!.duration!;
    live.change(i, { duration: duration + 480 });
    live.change(i, { duration });
  };
  const medians = sideBySide(
    {
      'two full runs (1 ×)': () => [schedulePlan(plan), schedulePlan(plan)],
      'a duration changed and back, with float': () => edit(floating[Math.floor(r() * floating.length)]!),
      'a duration changed and back, critical': () => edit(critical),
    },
    15,
  );
  report(`One duration changed, ${n} activities`, medians, 'two full runs (1 ×)');
  for (const [name, ms] of Object.entries(medians).slice(1))
    console.log(`  ${name}: ${(medians['two full runs (1 ×)']! / ms).toFixed(0)} × as fast`);
}
