import type { ElementMatch } from '../build/element';
import { coded, matched, unmatched } from '../build/matches';
import type { Activity, CodeField, Link, Plan, PlanPicture } from '../plan/schema';
import type { Command, PlanSettings } from './command';

/** What came of a command. */
export interface Applied {
  plan: Plan;
  /** The command that takes it back. */
  inverse: Command;
  /** References of the activities that it is about. */
  touched: string[];
}

/** A command that does not fit the plan; the message names the thing and what was asked of it. */
export class CommandRefused extends Error {}

/**
 * Applies a command to a plan, which itself is left as it is.
 *
 * Ensures that applying the inverse to the result gives the plan again.
 *
 * @throws CommandRefused when the command is about something that the plan does not have, or has already
 */
export function applyCommand(plan: Plan, command: Command): Applied {
  switch (command.do) {
    case 'setPlan':
      return setPlan(plan, command.settings);
    case 'changeActivity':
      return changeActivity(plan, command.ref, command.part);
    case 'addActivity':
      return addActivity(plan, command.activity, command.before);
    case 'removeActivity':
      return removeActivity(plan, command.ref);
    case 'moveActivity':
      return moveActivity(plan, command.ref, command.before);
    case 'addLink':
      return {
        plan: { ...plan, links: [...plan.links, command.link] },
        inverse: { do: 'removeLink', link: command.link },
        touched: [command.link.from, command.link.to],
      };
    case 'removeLink':
      return removeLink(plan, command.link);
    case 'setCodeField':
      return setCodeField(plan, command.field, command.before);
    case 'removeCodeField':
      return removeCodeField(plan, command.id);
    case 'setPicture':
      return setPicture(plan, command.picture);
    case 'removePicture':
      return removePicture(plan, command.id);
    case 'matchElements':
      return matchElements(plan, command.match);
    case 'unmatchElements':
      return unmatchElements(plan, command.match);
    case 'codeElements':
      return codeElements(plan, command.field, command.codes);
    case 'recode':
      return recode(plan, command.field, command.codes);
    case 'all':
      return applyAll(plan, command.commands);
  }
}

function setPlan(plan: Plan, settings: PlanSettings): Applied {
  const before = Object.fromEntries(Object.keys(settings).map((key) => [key, plan[key as keyof PlanSettings]]));
  return { plan: { ...plan, ...settings }, inverse: { do: 'setPlan', settings: before }, touched: [] };
}

function setPicture(plan: Plan, picture: PlanPicture): Applied {
  const was = plan.pictures.find((p) => p.id === picture.id);
  const pictures = was ? plan.pictures.map((p) => (p === was ? picture : p)) : [...plan.pictures, picture];
  const inverse: Command = was ? { do: 'setPicture', picture: was } : { do: 'removePicture', id: picture.id };
  return { plan: { ...plan, pictures }, inverse, touched: [] };
}

function removePicture(plan: Plan, id: string): Applied {
  const was = plan.pictures.find((p) => p.id === id);
  if (!was) throw new CommandRefused('That picture is not in the plan (any more).');
  return {
    plan: { ...plan, pictures: plan.pictures.filter((p) => p !== was) },
    inverse: { do: 'setPicture', picture: was },
    touched: [],
  };
}

/** What changes nothing. */
const NOTHING: Command = { do: 'all', commands: [] };

function matchElements(plan: Plan, match: ElementMatch): Applied {
  positionOf(plan, match.activity);
  const { matches, added } = matched(plan.matches, match);
  const inverse: Command =
    added.length === 0 ? NOTHING : { do: 'unmatchElements', match: { ...match, elements: added } };
  return { plan: { ...plan, matches }, inverse, touched: [match.activity] };
}

function unmatchElements(plan: Plan, match: ElementMatch): Applied {
  const { matches, removed } = unmatched(plan.matches, match);
  const inverse: Command =
    removed.length === 0 ? NOTHING : { do: 'matchElements', match: { ...match, elements: removed } };
  return { plan: { ...plan, matches }, inverse, touched: [match.activity] };
}

function codeElements(plan: Plan, field: string, codes: readonly (readonly [string, string])[]): Applied {
  if (!plan.codeFields.some((f) => f.id === field))
    throw new CommandRefused(`There is no code field “${field}” in the plan (any more).`);
  const { codes: elementCodes, before } = coded(plan.elementCodes, field, codes);
  return {
    plan: { ...plan, elementCodes },
    inverse: { do: 'codeElements', field, codes: before },
    touched: [],
  };
}

function positionOf(plan: Plan, ref: string): number {
  const at = plan.activities.findIndex((a) => a.ref === ref);
  if (at < 0) throw new CommandRefused(`There is no activity ${ref} in the plan (any more).`);
  return at;
}

/** The reference of the activity behind a position; null at the end. */
const next = (list: readonly Activity[], at: number): string | null => list[at + 1]?.ref ?? null;

function changeActivity(plan: Plan, ref: string, part: Partial<Omit<Activity, 'ref'>>): Applied {
  const at = positionOf(plan, ref);
  const was = plan.activities[at]!;
  const activities = [...plan.activities];
  activities[at] = { ...was, ...part };
  const before = Object.fromEntries(Object.keys(part).map((key) => [key, was[key as keyof Activity]]));
  return { plan: { ...plan, activities }, inverse: { do: 'changeActivity', ref, part: before }, touched: [ref] };
}

type Change = Extract<Command, { do: 'changeActivity' }>;

/** Changes of activities that stand side by side in a list of commands. */
function changesFrom(commands: readonly Command[], from: number): Change[] {
  let end = from;
  while (commands[end]?.do === 'changeActivity') end++;
  return commands.slice(from, end) as Change[];
}

/** Many changes of activities in one pass: as one after the other, in time that grows with their number only. */
function changeActivities(plan: Plan, changes: readonly Change[]): Applied {
  const positions = new Map<string, number>();
  plan.activities.forEach((a, i) => {
    if (!positions.has(a.ref)) positions.set(a.ref, i);
  });
  const activities = [...plan.activities];
  const inverses: Command[] = [];
  for (const { ref, part } of changes) {
    const at = positions.get(ref) ?? positionOf(plan, ref);
    const was = activities[at]!;
    activities[at] = { ...was, ...part };
    const before = Object.fromEntries(Object.keys(part).map((key) => [key, was[key as keyof Activity]]));
    inverses.push({ do: 'changeActivity', ref, part: before });
  }
  return {
    plan: { ...plan, activities },
    inverse: { do: 'all', commands: inverses.reverse() },
    touched: changes.map((c) => c.ref),
  };
}

function insert(plan: Plan, activity: Activity, before: string | null): Plan {
  const at = before === null ? plan.activities.length : positionOf(plan, before);
  return { ...plan, activities: [...plan.activities.slice(0, at), activity, ...plan.activities.slice(at)] };
}

function addActivity(plan: Plan, activity: Activity, before: string | null): Applied {
  if (plan.activities.some((a) => a.ref === activity.ref))
    throw new CommandRefused(
      `There is an activity ${activity.ref} in the plan already; references are never used twice.`,
    );
  return {
    plan: insert(plan, activity, before),
    inverse: { do: 'removeActivity', ref: activity.ref },
    touched: [activity.ref],
  };
}

/** Removes an activity with its links; what it held goes up to what held it. */
function removeActivity(plan: Plan, ref: string): Applied {
  const at = positionOf(plan, ref);
  const gone = plan.activities[at]!;
  const held = plan.activities.filter((a) => a.parent === ref).map((a) => a.ref);
  const links = plan.links.map((link, k) => ({ link, k })).filter(({ link }) => link.from === ref || link.to === ref);
  const back: Command[] = [
    { do: 'addActivity', activity: gone, before: next(plan.activities, at) },
    ...held.map((child): Command => ({ do: 'changeActivity', ref: child, part: { parent: ref } })),
    ...links.map(({ link }): Command => ({ do: 'addLink', link })),
  ];
  return {
    plan: {
      ...plan,
      activities: plan.activities
        .filter((a) => a.ref !== ref)
        .map((a) => (a.parent === ref ? { ...a, parent: gone.parent } : a)),
      links: plan.links.filter((l) => l.from !== ref && l.to !== ref),
    },
    inverse: { do: 'all', commands: back },
    touched: [ref, ...held, ...links.flatMap(({ link }) => [link.from, link.to])],
  };
}

function moveActivity(plan: Plan, ref: string, before: string | null): Applied {
  const at = positionOf(plan, ref);
  const activity = plan.activities[at]!;
  const without = { ...plan, activities: plan.activities.filter((a) => a.ref !== ref) };
  return {
    plan: before === ref ? plan : insert(without, activity, before),
    inverse: { do: 'moveActivity', ref, before: before === ref ? ref : next(plan.activities, at) },
    touched: [ref],
  };
}

const sameLink = (a: Link, b: Link): boolean =>
  a.from === b.from && a.to === b.to && a.type === b.type && a.lag === b.lag && a.lagCalendar === b.lagCalendar;

/** Of a link that stands several times, one goes. */
function removeLink(plan: Plan, link: Link): Applied {
  const at = plan.links.findIndex((l) => sameLink(l, link));
  if (at < 0) throw new CommandRefused(`There is no such link ${link.from} → ${link.to} in the plan (any more).`);
  return {
    plan: { ...plan, links: plan.links.filter((_, k) => k !== at) },
    inverse: { do: 'addLink', link },
    touched: [link.from, link.to],
  };
}

/** The id of the field behind a position; null at the end. */
const fieldBehind = (fields: readonly CodeField[], at: number): string | null => fields[at + 1]?.id ?? null;

function setCodeField(plan: Plan, field: CodeField, before: string | null): Applied {
  const at = plan.codeFields.findIndex((f) => f.id === field.id);
  const rest = plan.codeFields.filter((f) => f.id !== field.id);
  const to = before === null ? rest.length : rest.findIndex((f) => f.id === before);
  if (to < 0) throw new CommandRefused(`There is no code field “${before}” in the plan (any more).`);
  return {
    plan: { ...plan, codeFields: [...rest.slice(0, to), field, ...rest.slice(to)] },
    inverse:
      at < 0
        ? { do: 'removeCodeField', id: field.id }
        : { do: 'setCodeField', field: plan.codeFields[at]!, before: fieldBehind(plan.codeFields, at) },
    touched: [],
  };
}

function removeCodeField(plan: Plan, id: string): Applied {
  const at = plan.codeFields.findIndex((f) => f.id === id);
  if (at < 0) throw new CommandRefused(`There is no code field “${id}” in the plan (any more).`);
  const having = plan.activities.flatMap((a): [string, string][] =>
    Object.hasOwn(a.codes, id) ? [[a.ref, a.codes[id]!]] : [],
  );
  const elements = plan.elementCodes.flatMap((c): [string, string][] =>
    c.field === id ? c.elements.map((ref): [string, string] => [ref, c.code]) : [],
  );
  const { plan: bare } = recode(
    plan,
    id,
    having.map(([ref]) => [ref, '']),
  );
  return {
    plan: {
      ...bare,
      codeFields: bare.codeFields.filter((f) => f.id !== id),
      elementCodes: bare.elementCodes.filter((c) => c.field !== id),
    },
    inverse: {
      do: 'all',
      commands: [
        { do: 'setCodeField', field: plan.codeFields[at]!, before: fieldBehind(plan.codeFields, at) },
        { do: 'recode', field: id, codes: having },
        ...(elements.length > 0 ? [{ do: 'codeElements' as const, field: id, codes: elements }] : []),
      ],
    },
    touched: having.map(([ref]) => ref),
  };
}

function recode(plan: Plan, field: string, codes: readonly (readonly [string, string])[]): Applied {
  if (!plan.codeFields.some((f) => f.id === field))
    throw new CommandRefused(`There is no code field “${field}” in the plan (any more).`);
  const wanted = new Map(codes);
  const before: [string, string][] = [];
  const activities = plan.activities.map((a) => {
    const code = wanted.get(a.ref);
    if (code === undefined) return a;
    wanted.delete(a.ref);
    before.push([a.ref, a.codes[field] ?? '']);
    const { [field]: _, ...rest } = a.codes;
    return { ...a, codes: code === '' ? rest : { ...rest, [field]: code } };
  });
  const [missing] = wanted.keys();
  if (missing !== undefined) throw new CommandRefused(`There is no activity ${missing} in the plan (any more).`);
  return {
    plan: { ...plan, activities },
    inverse: { do: 'recode', field, codes: before },
    touched: before.map(([ref]) => ref),
  };
}

function applyAll(plan: Plan, commands: readonly Command[]): Applied {
  const inverses: Command[] = [];
  const touched = new Set<string>();
  let now = plan;
  for (let k = 0; k < commands.length; k++) {
    const run = changesFrom(commands, k);
    const applied = run.length > 1 ? changeActivities(now, run) : applyCommand(now, commands[k]!);
    k += Math.max(0, run.length - 1);
    now = applied.plan;
    inverses.unshift(applied.inverse);
    for (const ref of applied.touched) touched.add(ref);
  }
  return { plan: now, inverse: { do: 'all', commands: inverses }, touched: [...touched] };
}
