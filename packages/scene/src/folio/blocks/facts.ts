import { HAIRLINE, INK, MADDER, SOFT_INK } from '../../graph/ink';
import { rule, write } from '../../graph/nodes';
import type { SceneNode } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import type { Fact, PlanFacts } from '../facts';
import type { Box } from '../places';
import { atBestSize, type DrawnBlock } from './drawn';

/** The reference of a fact that is about an activity. */
export const factRef = (plan: string, ref: string): string => `fact ${plan} ${ref}`;

/** How plans stand: large for one, a line each in a table for several. */
export function factsBlock(plans: readonly PlanFacts[], box: Box, size: number, measure: Measure): DrawnBlock {
  if (plans.length === 1) return largeFacts(plans[0]!, box, size, measure);
  return box.width < NARROW * size ? factsList(plans, box, size, measure) : factsTable(plans, box, size, measure);
}

/** A table needs so many type sizes of room. */
const NARROW = 38;
/** The heights of the name of a plan and of a fact in a list, in type sizes. */
export const LISTED = { plan: 2.4, fact: 1.6 };

const inkOf = (f: Fact): string => (f.late ? MADDER : INK);

/** The facts of a plan beside each other, or below each other where that gives them more room. */
function largeFacts({ id, facts }: PlanFacts, box: Box, size: number, measure: Measure): DrawnBlock {
  if (facts.length === 0) return { nodes: [], cut: 0 };
  const draw = (columns: number) => (s: number) => {
    const rows = Math.ceil(facts.length / columns);
    const [wide, high] = [box.width / columns, s * 3.9];
    let cut = 0;
    const nodes = facts.flatMap((f, k): SceneNode[] => {
      const [x, y] = [box.x + (k % columns) * wide, box.y + Math.floor(k / columns) * high];
      const words = measure.shorten('labelStrong', s * 1.35, measure.clean(f.value), wide - s);
      if (words !== measure.clean(f.value)) cut++;
      const ref = f.ref === null ? undefined : factRef(id, f.ref);
      return [
        write(x, y + s, s, f.name, SOFT_INK, 'label', 'label', ref),
        write(x, y + s * 2.6, s * 1.35, words, inkOf(f), 'label', 'labelStrong', ref),
      ];
    });
    return { nodes, cut, size: s, fits: cut === 0 && rows * high - s * 0.9 <= box.height };
  };
  const ways = Array.from({ length: facts.length }, (_, k) => atBestSize(size * 1.3, draw(facts.length - k)));
  const best = ways.reduce((a, b) => ((Number(b.fits) - Number(a.fits) || b.size - a.size) > 0 ? b : a));
  return { nodes: best.nodes, cut: best.cut };
}

/** A line for each plan, what is said of it in columns. */
function factsTable(plans: readonly PlanFacts[], box: Box, size: number, measure: Measure): DrawnBlock {
  const heads = [...new Set(plans.flatMap((p) => p.facts.map((f) => f.name)))];
  if (heads.length === 0) return { nodes: [], cut: 0 };
  const drawn = atBestSize(size, (s) => {
    const wanted = [
      Math.max(...plans.map((p) => measure.width('labelStrong', s, measure.clean(p.plan)))),
      ...heads.map((name) =>
        Math.max(
          measure.width('label', s, name),
          ...plans.map((p) => {
            const own = p.facts.find((f) => f.name === name);
            return own ? measure.width('labelStrong', s, measure.clean(own.value)) : 0;
          }),
        ),
      ),
    ].map((w) => w + s * 1.6);
    const all = wanted.reduce((a, b) => a + b, 0);
    const widths = wanted.map((w) => w * Math.min(1.35, box.width / all));
    const line = s * 1.9;
    const room = Math.max(0, Math.floor((box.height - s * 1.5) / line));
    const fits = all <= box.width && plans.length <= room;
    return { size: s, widths, line, room, fits };
  });
  const { size: s, widths, line, room } = drawn;
  const at = widths.map((_, k) => box.x + widths.slice(0, k).reduce((a, b) => a + b, 0));
  let cut = Math.max(0, plans.length - room);
  const put = (column: number, y: number, words: string, fill: string, face: 'label' | 'labelStrong', ref?: string) => {
    const clean = measure.clean(words);
    const shown = measure.shorten(face, s, clean, widths[column]! - s * 0.8);
    if (shown !== clean) cut++;
    return write(at[column]!, y, s, shown, fill, 'label', face, ref);
  };
  const nodes: SceneNode[] = heads.map((name, k) => put(k + 1, box.y + s, name, SOFT_INK, 'label'));
  plans.slice(0, room).forEach((p, r) => {
    const y = box.y + s * 1.5 + line * r;
    nodes.push(rule(box.x, y, box.x + box.width, y, HAIRLINE, 0.6, 'grid'));
    nodes.push(put(0, y + s * 1.3, p.plan, INK, 'labelStrong'));
    for (const f of p.facts)
      nodes.push(
        put(
          heads.indexOf(f.name) + 1,
          y + s * 1.3,
          f.value,
          inkOf(f),
          'labelStrong',
          f.ref === null ? undefined : factRef(p.id, f.ref),
        ),
      );
  });
  return { nodes, cut };
}

/** Plans below each other, a line for each fact, where there is no room for a table. */
function factsList(plans: readonly PlanFacts[], box: Box, size: number, measure: Measure): DrawnBlock {
  const names = plans.flatMap((p) => p.facts.map((f) => f.name));
  const draw = (s: number) => {
    const column = Math.max(0, ...names.map((n) => measure.width('label', s, n))) + s;
    const nodes: SceneNode[] = [];
    let [y, cut] = [box.y, 0];
    const put = (x: number, base: number, words: string, fill: string, face: 'label' | 'labelStrong', ref?: string) => {
      const clean = measure.clean(words);
      const shown = measure.shorten(face, s, clean, box.x + box.width - x);
      if (shown !== clean || base > box.y + box.height) cut++;
      if (base <= box.y + box.height) nodes.push(write(x, base, s, shown, fill, 'label', face, ref));
    };
    for (const p of plans) {
      put(box.x, y + s * 1.2, p.plan, INK, 'labelStrong');
      y += s * LISTED.plan - s * 0.6;
      for (const f of p.facts) {
        const ref = f.ref === null ? undefined : factRef(p.id, f.ref);
        put(box.x, y + s, f.name, SOFT_INK, 'label', ref);
        put(box.x + column, y + s, f.value, inkOf(f), 'labelStrong', ref);
        y += s * LISTED.fact;
      }
      y += s * 0.6;
    }
    return { nodes, cut, fits: cut === 0 };
  };
  const { nodes, cut } = atBestSize(size, draw);
  return { nodes, cut };
}
