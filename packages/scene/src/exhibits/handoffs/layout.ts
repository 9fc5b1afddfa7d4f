import type { HandoffsBrief } from '../../brief/handoffs';
import { type Layered, layered } from '../../layered/layout';
import { ranksBothWays } from '../../layered/ranks';
import type { Measure } from '../../text/measure';
import type { Head } from '../cards/plot';
import { neighbourly, spanOf } from '../lanesOf';
import { wantedOf } from '../network/layout';
import type { Process } from './process';

/** Sizes of steps on the page, in sizes of the type. */
export const STEP_SIZE = {
  wide: { width: 11, height: 4.6 },
  slim: { width: 8, height: 5.6 },
} as const;
/** In a flow chart there is room to the sides, and steps say too whose they are. */
export const CHART_SIZE = {
  wide: { width: 15, height: 5.2 },
  slim: { width: 10, height: 6.4 },
} as const;
export type StepSize = keyof typeof STEP_SIZE;

export interface ProcessLayout extends Omit<Layered, 'lanes'> {
  size: StepSize;
  rank: Int32Array;
  least: Int32Array;
  first: Int32Array;
  lanes: { hand: string; top: number; bottom: number }[];
  /** Hands of every step whose lanes it does not reach. */
  rest: string[][];
  heads: Head[];
  written: WordsAt[];
}

/** What is written on an arrow. */
export interface ArrowWord {
  arrow: number;
  text: string;
  strong: boolean;
}

/** Words of all arrows that come into a step from before it, or from behind it. */
export interface WordsAt {
  step: number;
  forward: boolean;
  words: { text: string; strong: boolean }[];
}

/**
 * Lays out a process: lanes in an order in which the hands of one step are neighbours, columns by what comes after
 * what, within their phases. Ways that lead back have lines too.
 */
export function layoutProcess(
  process: Process,
  brief: HandoffsBrief,
  size: StepSize,
  words: readonly ArrowWord[],
  measure: Measure,
): ProcessLayout {
  const { steps, arrows } = process;
  const edges = { from: Int32Array.from(arrows, (a) => a.from), to: Int32Array.from(arrows, (a) => a.to) };
  const down = brief.form === 'chart';
  const logic = phaseRanks(process, edges);
  const later = new Map(brief.placed.map((p) => [p.ref, p.later]));
  const moved = steps.map((s, i) => (later.get(s.ref) ? logic.rank[i]! + later.get(s.ref)! : 0));
  const { rank, forward } = moved.some((n) => n > 0) ? phaseRanks(process, edges, moved) : logic;
  const hands = down
    ? ['']
    : neighbourly(
        process.hands,
        steps.map((s) => s.hands),
      );
  const spans = steps.map((s) => (down ? { first: 0, last: 0, rest: [] } : spanOf(s.hands, hands)));
  const card = stepCard(size, down);
  const written = wordsAt(words, arrows, forward);
  const room = new Float64Array(rank.reduce((a, b) => Math.max(a, b), 0) + 1);
  const behind = new Map<number, number>();
  for (const at of written) {
    const text = at.words.map((w) => w.text).join(', ');
    const need = down ? 2.4 : measure.width('labelStrong', 1, text) + 1.6;
    const column = rank[at.step]!;
    if (at.forward) room[column] = Math.max(room[column]!, need);
    else behind.set(at.step, need);
  }
  const set = layered({
    rank,
    edges,
    forward,
    card,
    lanes: {
      first: Int32Array.from(spans, (s) => s.first),
      last: Int32Array.from(spans, (s) => s.last),
      count: hands.length,
    },
    before: () => 0,
    after: (i) => behind.get(i) ?? 0,
    words: room,
    back: true,
    wanted: wantedOf(steps, brief.placed),
  });
  return {
    ...set,
    size,
    written,
    rank,
    least: logic.rank,
    first: Int32Array.from(spans, (s) => s.first),
    lanes: hands.map((hand, k) => ({ hand, ...set.lanes[k]! })),
    rest: spans.map((s, i) =>
      s.last > s.first && set.reach[i] === set.y[i] ? hands.slice(s.first + 1, s.last + 1) : s.rest,
    ),
    heads: down ? [] : headsOf(process, rank, set.columns),
  };
}

/** Words by where they are written: each step has a place before it and one behind it. */
function wordsAt(words: readonly ArrowWord[], arrows: Process['arrows'], forward: Uint8Array): WordsAt[] {
  const places = new Map<string, WordsAt>();
  for (const { arrow, text, strong } of words) {
    const [step, onward] = [arrows[arrow]!.to, forward[arrow] === 1];
    const key = `${step} ${onward}`;
    const known = places.get(key) ?? { step, forward: onward, words: [] };
    if (!known.words.some((w) => w.text === text)) known.words.push({ text, strong });
    places.set(key, known);
  }
  return [...places.values()];
}

/** The size of a step in its layout: a page whose columns run down lays it on its side. */
export function stepCard(size: StepSize, down: boolean): { width: number; height: number } {
  if (!down) return STEP_SIZE[size];
  const { width, height } = CHART_SIZE[size];
  return { width: height, height: width };
}

/** Columns by what comes after what; those of a phase all come after those of the phase before. */
function phaseRanks(
  { steps, phases }: Process,
  edges: { from: Int32Array; to: Int32Array },
  least: readonly number[] = [],
): { rank: Int32Array; forward: Uint8Array } {
  const n = steps.length;
  if (phases.length < 2)
    return ranksBothWays(
      n,
      edges,
      Int32Array.from({ length: n }, (_, i) => least[i] ?? 0),
    );
  const phase = steps.map((s) => phases.indexOf(s.phase));
  const rank = new Int32Array(n);
  const forward = new Uint8Array(edges.from.length);
  let begin = 0;
  for (let k = 0; k < phases.length; k++) {
    const inside = [...edges.from.keys()].filter((e) => phase[edges.from[e]!] === k && phase[edges.to[e]!] === k);
    const own = ranksBothWays(
      n,
      {
        from: Int32Array.from(inside, (e) => edges.from[e]!),
        to: Int32Array.from(inside, (e) => edges.to[e]!),
      },
      Int32Array.from({ length: n }, (_, i) => Math.max(0, (least[i] ?? 0) - begin)),
    );
    let width = 0;
    inside.forEach((e, j) => {
      forward[e] = own.forward[j]!;
    });
    for (let i = 0; i < n; i++)
      if (phase[i] === k) {
        rank[i] = begin + own.rank[i]!;
        width = Math.max(width, own.rank[i]! + 1);
      }
    begin += width;
  }
  edges.from.forEach((i, e) => {
    if (phase[i] !== phase[edges.to[e]!]) forward[e] = rank[i]! < rank[edges.to[e]!]! ? 1 : 0;
  });
  return { rank, forward };
}

function headsOf({ steps, phases }: Process, rank: Int32Array, columns: Layered['columns']): Head[] {
  if (phases.length < 2) return [];
  return phases.flatMap((name): Head[] => {
    const own = steps.flatMap((s, i) => (s.phase === name ? [columns[rank[i]!]!] : []));
    if (own.length === 0) return [];
    return [
      {
        name: name || 'No phase',
        from: Math.min(...own.map((c) => c.x)),
        to: Math.max(...own.map((c) => c.x + c.width)),
      },
    ];
  });
}
