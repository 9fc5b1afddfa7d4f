import type { Command } from '../commands/command';
import { NOT_BEGUN } from '../plan/notBegun';
import { type Activity, type Link, makeActivity, type Plan } from '../plan/schema';
import { behind, freeRef } from './edits';
import { buildOutline, type Outline } from './outline';

/** Rows of a choice that are not held by others of it, in the order of the outline. */
function outermost(outline: Outline, refs: readonly string[]): number[] {
  const chosen = new Set(refs.flatMap((r) => outline.indexOf.get(r) ?? []));
  const held = (i: number): boolean => {
    const up = outline.parent[i]!;
    return up !== -1 && (chosen.has(up) || held(up));
  };
  return [...outline.order].filter((i) => chosen.has(i) && !held(i));
}

/** An activity and everything that it holds, outermost first. */
const withHeld = (outline: Outline, i: number): number[] => [
  i,
  ...outline.children[i]!.flatMap((c) => withHeld(outline, c)),
];

/** What a copy is called: the name with the next number that nothing else in the plan has. */
function copyName(taken: Set<string>, name: string): string {
  if (name === '') return '';
  const bare = name.replace(/ \((\d+)\)$/, '');
  for (let k = 2; ; k++) {
    const next = `${bare.slice(0, 990)} (${k})`;
    if (taken.has(next)) continue;
    taken.add(next);
    return next;
  }
}

/**
 * Copies activities with everything that they hold and the links among them, each block behind its original. What
 * happened (actual dates, progress, effort spent) is not copied; links to what is not copied are not either.
 *
 * @returns the command and the references of the copies of what was chosen; null where nothing is
 */
export function duplicated(plan: Plan, refs: readonly string[]): { command: Command; refs: string[] } | null {
  const outline = buildOutline(plan);
  const blocks = outermost(outline, refs);
  if (blocks.length === 0) return null;
  const names = new Set(plan.activities.map((a) => a.name));
  const copyOf = new Map<string, string>();
  const commands: Command[] = [];
  const growing: Pick<Plan, 'activities'> = { activities: [...plan.activities] };
  for (const top of blocks) {
    const before = behind(plan, outline, top);
    for (const i of withHeld(outline, top)) {
      const a = plan.activities[i]!;
      const ref = freeRef(growing, 'N');
      copyOf.set(a.ref, ref);
      const activity: Activity = {
        ...a,
        ref,
        name: i === top ? copyName(names, a.name) : a.name,
        parent: i === top ? a.parent : copyOf.get(a.parent!)!,
        ...NOT_BEGUN,
      };
      growing.activities.push(makeActivity({ ref }));
      commands.push({ do: 'addActivity', activity, before });
    }
  }
  for (const l of plan.links) {
    const [from, to] = [copyOf.get(l.from), copyOf.get(l.to)];
    if (from !== undefined && to !== undefined) commands.push({ do: 'addLink', link: { ...l, from, to } as Link });
  }
  return {
    command: { do: 'all', commands },
    refs: blocks.map((i) => copyOf.get(plan.activities[i]!.ref)!),
  };
}

/** Where rows are put: before a row, behind it and all that it holds, or into it as the last. */
export type Place = 'before' | 'behind' | 'into';

/**
 * Carries rows with everything that they hold to another place; links stay. Null where that changes nothing, or where
 * something would come to lie in itself.
 */
export function carried(plan: Plan, refs: readonly string[], place: Place, target: string): Command | null {
  const outline = buildOutline(plan);
  const at = outline.indexOf.get(target);
  const blocks = outermost(outline, refs);
  if (at === undefined || blocks.length === 0) return null;
  const inside = new Set(blocks.flatMap((i) => withHeld(outline, i)));
  if (inside.has(at)) return null;
  const parent = place === 'into' ? target : plan.activities[at]!.parent;
  const before =
    place === 'before' ? target : staying(plan, outline, inside, behind(plan, outline, lastOf(outline, place, at)));
  const commands = blocks.flatMap((i): Command[] => {
    const a = plan.activities[i]!;
    return [
      { do: 'moveActivity', ref: a.ref, before },
      ...(a.parent === parent ? [] : [{ do: 'changeActivity' as const, ref: a.ref, part: { parent } }]),
    ];
  });
  return { do: 'all', commands };
}

/** What rows come to stand behind: the target, or the last that it holds. */
const lastOf = (outline: Outline, place: Place, at: number): number =>
  place === 'into' ? (outline.children[at]!.at(-1) ?? at) : at;

/** The reference to stand before, or the next one in the list that is not carried along. */
function staying(
  plan: Plan,
  outline: Outline,
  carriedAlong: ReadonlySet<number>,
  before: string | null,
): string | null {
  if (before === null) return null;
  for (let i = outline.indexOf.get(before)!; i < plan.activities.length; i++)
    if (!carriedAlong.has(i)) return plan.activities[i]!.ref;
  return null;
}
