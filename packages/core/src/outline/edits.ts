import type { Command } from '../commands/command';
import type { Activity, Plan } from '../plan/schema';
import { buildOutline, type Outline } from './outline';

/**
 * The reference that something has to stand before to follow an activity and all that it holds; null at the end.
 * Rows need not stand in the order in which the outline shows them: what belongs elsewhere may stand before it.
 */
export function behind(plan: Plan, outline: Outline, i: number): string | null {
  const at = outline.order.indexOf(i);
  for (let k = at + 1; k < outline.order.length; k++) {
    const next = outline.order[k]!;
    if (outline.level[next]! > outline.level[i]!) continue;
    if (outline.parent[next] === outline.parent[i] || next > i) return plan.activities[next]!.ref;
    break;
  }
  return plan.activities[i + 1]?.ref ?? null;
}

/** What an activity stands among: those of its group in their order. */
const siblingsOf = (outline: Outline, i: number): number[] =>
  outline.parent[i] === -1 ? outline.roots : outline.children[outline.parent[i]!]!;

/** Adds an activity behind another and all that it holds, in the same group; at the end where none is said. */
export function insertBehind(plan: Plan, ref: string | null, activity: Activity): Command {
  const outline = buildOutline(plan);
  const i = ref === null ? undefined : outline.indexOf.get(ref);
  if (i === undefined) return { do: 'addActivity', activity, before: null };
  return {
    do: 'addActivity',
    activity: { ...activity, parent: plan.activities[i]!.parent },
    before: behind(plan, outline, i),
  };
}

/** Puts an activity into the one above it, as the last that it holds; null where none stands above it in its group. */
export function indented(plan: Plan, ref: string): Command | null {
  const outline = buildOutline(plan);
  const i = outline.indexOf.get(ref);
  if (i === undefined) return null;
  const siblings = siblingsOf(outline, i);
  const above = siblings[siblings.indexOf(i) - 1];
  if (above === undefined) return null;
  const last = outline.children[above]!.at(-1) ?? above;
  return {
    do: 'all',
    commands: [
      { do: 'moveActivity', ref, before: behind(plan, outline, last) },
      { do: 'changeActivity', ref, part: { parent: plan.activities[above]!.ref } },
    ],
  };
}

/** Takes an activity out of its group, to stand behind it; null at the top level. */
export function outdented(plan: Plan, ref: string): Command | null {
  const outline = buildOutline(plan);
  const i = outline.indexOf.get(ref);
  const up = i === undefined ? -1 : outline.parent[i]!;
  if (up === -1) return null;
  return {
    do: 'all',
    commands: [
      { do: 'moveActivity', ref, before: behind(plan, outline, up) },
      { do: 'changeActivity', ref, part: { parent: plan.activities[up]!.parent } },
    ],
  };
}

/** Moves an activity with all that it holds before or behind its neighbour in the group; null where there is none. */
export function movedBy(plan: Plan, ref: string, by: -1 | 1): Command | null {
  const outline = buildOutline(plan);
  const i = outline.indexOf.get(ref);
  if (i === undefined) return null;
  const siblings = siblingsOf(outline, i);
  const other = siblings[siblings.indexOf(i) + by];
  if (other === undefined) return null;
  return { do: 'moveActivity', ref, before: by === -1 ? plan.activities[other]!.ref : behind(plan, outline, other) };
}

/** A reference that no activity of the plan has: the mark and the next free number. */
export function freeRef(plan: Pick<Plan, 'activities'>, mark: string): string {
  const taken = new Set(plan.activities.map((a) => a.ref));
  for (let k = plan.activities.length + 1; ; k++) if (!taken.has(`${mark}${k}`)) return `${mark}${k}`;
}
