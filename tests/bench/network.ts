import dagre from '@dagrejs/dagre';
import ELK, { type ElkExtendedEdge } from 'elkjs/lib/elk.bundled.js';
import { layered } from '../../packages/scene/src/layered/layout';
import { withBends } from '../../packages/scene/src/layered/order';
import { ranksOf } from '../../packages/scene/src/layered/ranks';

type Point = readonly [x: number, y: number];

/** A network as plans have them: most links lead to something near, some far; the same for the same number. */
export interface Network {
  count: number;
  from: Int32Array;
  to: Int32Array;
}
export function network(count: number, seed: number, shuffled = false): Network {
  let state = seed * 2654435761;
  const random = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  const known = new Set<number>();
  const [from, to]: [number[], number[]] = [[], []];
  const name = Array.from({ length: count }, (_, i) => i);
  if (shuffled)
    for (let i = count - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1));
      [name[i], name[j]] = [name[j]!, name[i]!];
    }
  for (let i = 1; i < count; i++)
    for (let k = 0; k < (random() < 0.45 ? 2 : 1); k++) {
      const back = 1 + Math.floor(random() * Math.min(i, random() < 0.06 ? 80 : 14));
      const key = (i - back) * count + i;
      if (known.has(key)) continue;
      known.add(key);
      from.push(name[i - back]!);
      to.push(name[i]!);
    }
  return { count, from: Int32Array.from(from), to: Int32Array.from(to) };
}

const CARD = { width: 9, height: 2.9 };

/** Our layout, from links to routes. */
export function own(n: Network) {
  const edges = { from: n.from, to: n.to };
  const { rank, forward } = ranksOf(n.count, edges);
  const zero = new Int32Array(n.count);
  return layered({
    rank,
    edges,
    forward,
    card: CARD,
    lanes: { first: zero, last: zero, count: 1 },
    before: () => 0,
    after: () => 0,
    words: new Float64Array(0),
    back: false,
  });
}

/** The line of every edge through the points at which it passes columns. */
function ownLines(n: Network): Point[][] {
  const set = own(n);
  const { rank, forward } = ranksOf(n.count, { from: n.from, to: n.to });
  const { ways } = withBends(rank, { from: n.from, to: n.to }, forward);
  return ways.map((way, e) => {
    const route = set.routes[e]!;
    const ends = [route[0]!, route.at(-1)!] as const;
    // A bend's height is that of the level piece over its column.
    const over = way.slice(1, -1).map((_, k): Point => {
      const column = set.columns[rank[way[0]!]! + 1 + k]!;
      const x = column.x + column.width / 2;
      for (let p = 0; p + 1 < route.length; p++)
        if (route[p]![0] <= x && x <= route[p + 1]![0]) return [x, route[p]![1]];
      throw new Error('a line does not pass its column');
    });
    return [[ends[0][0], ends[0][1]], ...over, [ends[1][0], ends[1][1]]];
  });
}

export function byDagre(n: Network): Point[][] {
  const g = new dagre.graphlib.Graph({ multigraph: true });
  g.setGraph({ rankdir: 'LR', nodesep: 11, ranksep: 24 });
  g.setDefaultEdgeLabel(() => ({}));
  for (let i = 0; i < n.count; i++) g.setNode(String(i), { width: 90, height: 29 });
  n.from.forEach((i, e) => g.setEdge(String(i), String(n.to[e]!), {}, String(e)));
  dagre.layout(g);
  return Array.from(n.from, (i, e) =>
    (g.edge(String(i), String(n.to[e]!), String(e)) as { points: { x: number; y: number }[] }).points.map(
      (p): Point => [p.x, p.y],
    ),
  );
}

const elk = new ELK();
export async function byElk(n: Network): Promise<Point[][]> {
  const laid = await elk.layout({
    id: 'root',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'RIGHT',
      'elk.edgeRouting': 'POLYLINE',
      'elk.randomSeed': '1',
    },
    children: Array.from({ length: n.count }, (_, i) => ({ id: String(i), width: 90, height: 29 })),
    edges: Array.from(n.from, (i, e) => ({ id: `e${e}`, sources: [String(i)], targets: [String(n.to[e]!)] })),
  });
  const byId = new Map((laid.edges ?? []).map((e) => [e.id, e]));
  return Array.from(n.from, (_, e) => {
    const [section] = (byId.get(`e${e}`) as ElkExtendedEdge).sections!;
    return [section!.startPoint, ...(section!.bendPoints ?? []), section!.endPoint].map((p): Point => [p.x, p.y]);
  });
}

const turn = (a: Point, b: Point, c: Point): number => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
/** Two pieces cross where each has its ends on both sides of the other. */
const cross = (a: Point, b: Point, c: Point, d: Point): boolean =>
  turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0;

/** How often lines cross that have no end in common, by their geometry alone. */
export function crossingsOf(n: Network, lines: readonly Point[][]): number {
  const pieces = lines.flatMap((line, e) =>
    line
      .slice(1)
      .map((b, k) => ({ e, a: line[k]!, b, left: Math.min(line[k]![0], b[0]), right: Math.max(line[k]![0], b[0]) })),
  );
  pieces.sort((p, q) => p.left - q.left);
  let total = 0;
  for (let i = 0; i < pieces.length; i++) {
    const p = pieces[i]!;
    for (let j = i + 1; j < pieces.length && pieces[j]!.left < p.right; j++) {
      const q = pieces[j]!;
      if (p.e === q.e || n.from[p.e] === n.from[q.e] || n.to[p.e] === n.to[q.e]) continue;
      if (cross(p.a, p.b, q.a, q.b)) total++;
    }
  }
  return total;
}

async function medianOf(work: () => unknown, rounds: number): Promise<number> {
  const times: number[] = [];
  for (let r = 0; r < rounds; r++) {
    const begin = performance.now();
    await work();
    times.push(performance.now() - begin);
  }
  return times.sort((a, b) => a - b)[rounds >> 1]!;
}

export async function benchNetwork(): Promise<void> {
  for (const [count, shuffled, rounds] of [
    [500, false, 5],
    [500, true, 5],
    [2000, false, 3],
  ] as const) {
    const n = network(count, 7, shuffled);
    // As long as the machine needs to have it compiled; the others are compiled while their crossings are counted.
    for (let k = 0; k < 8; k++) own(n);
    const works: [name: string, run: () => unknown, lines: Point[][]][] = [
      ['our layout (1 ×)', () => own(n), ownLines(n)],
      ['dagre', () => byDagre(n), byDagre(n)],
      ['elkjs', () => byElk(n), await byElk(n)],
    ];
    console.log(
      `\nA layered network of ${count} activities and ${n.from.length} links${shuffled ? ', in no order' : ''}`,
    );
    let base = 0;
    for (const [name, run, lines] of works) {
      // Ours is over so soon that a few more runs cost nothing.
      const ms = await medianOf(run, base === 0 ? rounds * 7 : rounds);
      base ||= ms;
      console.log(
        `  ${name.padEnd(20)} ${ms.toFixed(1).padStart(10)} ms ${(ms / base).toFixed(1).padStart(8)} ×   ${String(crossingsOf(n, lines)).padStart(6)} crossings`,
      );
    }
  }
  const large = network(5000, 11);
  own(large);
  console.log(
    `\nOur layout of 5,000 activities and ${large.from.length} links: ${(await medianOf(() => own(large), 3)).toFixed(0)} ms`,
  );
}
