import type { Plan } from '../plan/schema';
import { NONE } from './network';
import type { Schedule } from './schedule';

/**
 * Supporting work has no length of its own: it spans from the earliest start of what its start is linked to,
 * to the latest finish of what its finish is linked to. It is placed after everything else, so it drives
 * nothing, and it has no float. Where one side is open its given date is used, and a finding says so.
 */
export function placeLevelsOfEffort(plan: Plan, s: Schedule): void {
  const spans = new Map<number, { start: number; finish: number }>();
  plan.activities.forEach((a, i) => {
    if (a.kind === 'levelOfEffort' && !s.outline.isSummary[i]) spans.set(i, { start: NONE, finish: NONE });
  });
  if (spans.size === 0) return;
  const earlier = (a: number, b: number) => (a === NONE ? b : b === NONE ? a : Math.min(a, b));
  for (const link of plan.links) {
    const from = s.outline.indexOf.get(link.from);
    const to = s.outline.indexOf.get(link.to);
    if (from === undefined || to === undefined || from === to) continue;
    const after = spans.get(to);
    if (after && !spans.has(from)) {
      if (link.type === 'SS') after.start = earlier(after.start, s.earlyStart[from]!);
      if (link.type === 'FS') after.start = earlier(after.start, s.earlyFinish[from]!);
      if (link.type === 'FF') after.finish = Math.max(after.finish, s.earlyFinish[from]!);
    }
    const before = spans.get(from);
    if (before && !spans.has(to)) {
      if (link.type === 'FF') before.finish = Math.max(before.finish, s.earlyFinish[to]!);
      if (link.type === 'FS') before.finish = Math.max(before.finish, s.earlyStart[to]!);
    }
  }
  const open: string[] = [];
  for (const [i, span] of spans) {
    if (span.start === NONE || span.finish === NONE) open.push(plan.activities[i]!.ref);
    const start = span.start === NONE ? s.given.start[i]! : span.start;
    const finish = span.finish === NONE ? s.given.finish[i]! : span.finish;
    s.atFinish[i] = 1;
    if (start === NONE || finish === NONE) continue;
    s.earlyStart[i] = s.lateStart[i] = start;
    s.earlyFinish[i] = s.lateFinish[i] = Math.max(start, finish);
  }
  if (open.length > 0) s.findings.push({ code: 'levelOfEffortOpen', severity: 'warning', refs: open });
}
