import type { Finding } from '../findings/finding';
import type { Plan } from '../plan/schema';
import { RefIndex } from './refIndex';

/** The tree of a plan's activities as arrays over their positions in `plan.activities`. */
export interface Outline {
  /** Position by unique reference (the first one, where a reference stands twice). */
  indexOf: RefIndex;
  /** Position of the parent, or -1. */
  parent: Int32Array;
  /** 1 for the top level. */
  level: Int32Array;
  /** All positions, parents before their children, in the order of the plan. */
  order: Int32Array;
  children: number[][];
  roots: number[];
  /** 1 for an activity whose reference stands before it already. */
  isDouble: Uint8Array;
  /** True for a row that holds others. */
  isSummary: boolean[];
  findings: Finding[];
}

/** Shared by all that hold nothing, so that a list is made only for summaries. */
const CHILDLESS: number[] = [];
Object.freeze(CHILDLESS);

/** Builds the outline. Parents that are missing, or that run in a circle, put their activities at the top level. */
export function buildOutline(plan: Plan): Outline {
  const n = plan.activities.length;
  const indexOf = new RefIndex(plan.activities);
  const { isDouble } = indexOf;
  const times = new Map<string, number>();
  for (let i = isDouble.indexOf(1); i !== -1; i = isDouble.indexOf(1, i + 1)) {
    const { ref } = plan.activities[i]!;
    times.set(ref, (times.get(ref) ?? 1) + 1);
  }
  const findings: Finding[] = [...times].map(([ref, count]) => ({
    code: 'duplicateReference',
    severity: 'error',
    refs: [ref],
    facts: { times: count },
  }));

  const parent = new Int32Array(n).fill(-1);
  const orphans = new Map<string, string[]>();
  plan.activities.forEach((a, i) => {
    if (a.parent === null) return;
    const p = indexOf.get(a.parent);
    if (p !== undefined) parent[i] = p;
    else if (orphans.has(a.parent)) orphans.get(a.parent)!.push(a.ref);
    else orphans.set(a.parent, [a.ref]);
  });
  for (const [missing, refs] of orphans) {
    findings.push({ code: 'parentMissing', severity: 'warning', refs, facts: { parent: missing } });
  }
  cutParentLoops(plan, parent, findings);

  const children: number[][] = new Array(n).fill(CHILDLESS);
  const roots: number[] = [];
  for (let i = 0; i < n; i++) {
    const p = parent[i]!;
    if (p === -1) roots.push(i);
    else if (children[p] === CHILDLESS) children[p] = [i];
    else children[p]!.push(i);
  }

  const level = new Int32Array(n);
  const order = new Int32Array(n);
  const stack = [...roots].reverse();
  for (let k = 0; stack.length > 0; k++) {
    const i = stack.pop()!;
    order[k] = i;
    level[i] = parent[i] === -1 ? 1 : level[parent[i]!]! + 1;
    for (let c = children[i]!.length - 1; c >= 0; c--) stack.push(children[i]![c]!);
  }
  const isSummary = plan.activities.map((a, i) => children[i]!.length > 0 || a.kind === 'summary');
  return { indexOf, parent, level, order, children, roots, isDouble, isSummary, findings };
}

function cutParentLoops(plan: Plan, parent: Int32Array, findings: Finding[]): void {
  const state = new Uint8Array(parent.length); // 1: on the way up, 2: known to reach the top
  for (let i = 0; i < parent.length; i++) {
    if (parent[i] === -1) continue;
    const path: number[] = [];
    let at = i;
    while (at !== -1 && state[at] === 0) {
      state[at] = 1;
      path.push(at);
      at = parent[at]!;
    }
    if (at !== -1 && state[at] === 1) {
      const loop = path.slice(path.indexOf(at));
      findings.push({ code: 'parentLoop', severity: 'error', refs: loop.map((k) => plan.activities[k]!.ref) });
      for (const k of loop) parent[k] = -1;
    }
    for (const k of path) state[k] = 2;
  }
}

/** Numbers of the outline, `1`, `1.2`, `1.2.3`, by position. */
export function outlineNumbers(outline: Outline): string[] {
  const numbers: string[] = new Array(outline.parent.length).fill('');
  outline.roots.forEach((i, k) => {
    numbers[i] = String(k + 1);
  });
  for (const i of outline.order) {
    outline.children[i]!.forEach((c, k) => {
      numbers[c] = `${numbers[i]}.${k + 1}`;
    });
  }
  return numbers;
}
