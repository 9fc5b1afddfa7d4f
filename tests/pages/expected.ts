import type { RandomPage } from './randomPages';

/** What should be on a page, worked out from the plan and the brief once more, plainly, from the rules alone. */
export function expectedItems({ plan, brief }: RandomPage): {
  refs: Set<string>;
  /** Complete work that was to begin after the status date: how far back it is taken to lie depends on its length. */
  unsure: Set<string>;
  undated: number;
  of: number;
} {
  const byRef = new Map(plan.activities.map((a) => [a.ref, a]));
  const parents = new Set(plan.activities.map((a) => a.parent).filter((p) => p !== null));
  const pathOf = (ref: string): string[] => {
    const parent = byRef.get(ref)?.parent ?? null;
    return parent === null ? [ref] : [...pathOf(parent), ref];
  };
  const leaves = plan.activities.filter((a) => a.kind !== 'summary' && !parents.has(a.ref));
  const units = new Map<string, { start: number; finish: number; point: boolean; ending: boolean }>();
  const unsure = new Set<string>();
  let undated = 0;
  for (const a of leaves) {
    const point = a.kind === 'startMilestone' || a.kind === 'finishMilestone';
    if (brief.include === 'activities' && point) continue;
    if (brief.include === 'milestones' && !point) continue;
    // Conditions of random pages ask code fields alone.
    if (
      brief.where.tests.some(
        (t) => 'field' in t && t.values.includes(a.codes[t.field.slice(5)] ?? '') !== (t.is === 'is'),
      )
    )
      continue;
    const path = pathOf(a.ref);
    // All work of a value is one bar; points in time stay themselves.
    const sum = brief.together === null || point ? null : `${brief.together}=${a.codes[brief.together] ?? ''}`;
    const level = brief.together === null ? brief.level : null;
    const stands = sum ?? (level !== null && path.length > level ? path[level - 1]! : a.ref);
    if (stands !== a.ref && brief.include === 'milestones') continue;
    let start = a.start ?? a.finish;
    let finish = a.finish ?? a.start;
    // What is complete has happened by the status date.
    if (start !== null && finish !== null && (a.percent ?? 0) >= 100 && plan.statusDate !== null) {
      finish = Math.min(finish, plan.statusDate);
      if (!point && start >= finish) for (const ref of [...path, stands]) unsure.add(ref);
      start = point ? finish : Math.min(start, finish - 1);
    }
    if (start === null || finish === null) {
      undated++;
      continue;
    }
    // In a group a milestone takes its day.
    if (point && stands !== a.ref) {
      if (a.kind === 'startMilestone') finish = start + 1440;
      else start = finish - 1440;
    }
    const lane =
      stands === a.ref ? '' : brief.lanes.map((f) => (f === 'outline' ? path[0]! : (a.codes[f] ?? ''))).join('|');
    const key = `${stands}\u0000${lane}`;
    const known = units.get(key);
    const ending = a.kind !== 'startMilestone';
    units.set(key, {
      start: Math.min(known?.start ?? start, start),
      finish: Math.max(known?.finish ?? finish, finish),
      point: point && stands === a.ref,
      ending,
    });
  }
  const refs = new Set<string>();
  for (const [key, u] of units) {
    const [from, to] = [brief.from ?? Number.NEGATIVE_INFINITY, brief.to ?? Number.POSITIVE_INFINITY];
    const inside =
      u.point || u.start === u.finish
        ? u.ending
          ? u.finish > from && u.finish <= to
          : u.start >= from && u.start < to
        : u.finish > from && u.start < to;
    if (inside) refs.add(key.split('\u0000')[0]!);
  }
  return { refs, unsure, undated, of: leaves.length };
}
