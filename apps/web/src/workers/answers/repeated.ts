import { type Command, type Line, type Plan, repeatedInUnits, type Schedule, type Unit } from '@clembo/core';
import type { Held } from './held';

/** The same work in each of several units, as a person asks for it. */
export interface Repeating {
  /** Rows that are chosen; a group stands for all that it holds. */
  refs: string[];
  /** The line whose zones are the units; null for a new one with the units as its floors. */
  line: string | null;
  /** Names of the units, from the first one on. Of a line that is there, those of its zones that are meant. */
  units: string[];
  /** What a new line is called. */
  name: string;
  group: 'unit' | 'work';
  follow: boolean;
}

export interface Repeated {
  command: Command;
  /** How many activities are repeated, and how many there are then. */
  works: number;
  activities: number;
}

/** What rows hold that is no group, in the order of the plan. */
function leavesOf({ plan, schedule: s }: Held, refs: readonly string[]): string[] {
  const wanted = new Set<number>();
  const take = (i: number): void => {
    const held = s.outline.children[i]!;
    if (held.length > 0) held.forEach(take);
    else if (!s.outline.isSummary[i]) wanted.add(i);
  };
  for (const ref of refs) {
    const i = s.outline.indexOf.get(ref);
    if (i !== undefined) take(i);
  }
  return [...wanted].sort((a, b) => a - b).map((i) => plan.activities[i]!.ref);
}

/** Groups that are empty once some activities have left them, with what they hold before them. */
function emptied(s: Schedule, plan: Plan, gone: ReadonlySet<string>, refs: readonly string[]): string[] {
  const isEmpty = (i: number): boolean =>
    s.outline.isSummary[i] === true &&
    s.outline.children[i]!.every((c) => gone.has(plan.activities[c]!.ref) || isEmpty(c));
  const list: string[] = [];
  const take = (i: number): void => {
    if (!isEmpty(i)) return;
    for (const c of s.outline.children[i]!) if (s.outline.isSummary[c]) take(c);
    list.push(plan.activities[i]!.ref);
  };
  for (const ref of refs) {
    const i = s.outline.indexOf.get(ref);
    if (i !== undefined && s.outline.isSummary[i]) take(i);
  }
  return [...new Set(list)];
}

function freeId(lines: readonly Line[], name: string): string {
  const plain = name.toLowerCase().slice(0, 90) || 'floors';
  let id = plain;
  for (let k = 2; lines.some((l) => l.id === id); k++) id = `${plain} ${k}`;
  return id;
}

/** The command that repeats work in units; null where nothing or nowhere is chosen. */
export function repeated(held: Held, { refs, line, units, name, group, follow }: Repeating): Repeated | null {
  const { plan, schedule: s } = held;
  const works = leavesOf(held, refs);
  const names = units.map((u) => u.trim()).filter((u) => u !== '');
  if (works.length === 0 || names.length === 0) return null;
  const commands: Command[] = [];
  let places: Unit[];
  let id = line;
  if (line === null) {
    places = names.map((unit, k) => ({ name: unit, from: k * 1000, to: (k + 1) * 1000 }));
    id = freeId(plan.lines, name.trim());
    const made: Line = {
      id,
      name: name.trim() || 'Floors',
      unit: 'floors',
      from: 0,
      to: names.length * 1000,
      stations: [],
      zones: places,
      windows: [],
    };
    commands.push({ do: 'setPlan', settings: { lines: [...plan.lines, made] } });
  } else {
    const zones = plan.lines.find((l) => l.id === line)?.zones ?? [];
    places = zones.filter((z) => names.includes(z.name)).map(({ name: n, from, to }) => ({ name: n, from, to }));
    if (places.length === 0) return null;
  }
  const gone = emptied(s, plan, new Set(works), refs);
  const top = s.outline.indexOf.get(gone.at(-1) ?? '');
  const parent = top === undefined ? undefined : plan.activities[top]!.parent;
  commands.push(
    repeatedInUnits(plan, works, places, { line: id, group, follow, ...(parent !== undefined && { parent }) }),
    ...gone.map((ref): Command => ({ do: 'removeActivity', ref })),
  );
  return { command: { do: 'all', commands }, works: works.length, activities: works.length * places.length };
}
