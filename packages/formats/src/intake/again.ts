import {
  type ActivityField,
  type AlikePair,
  alikePairs,
  type Activity,
  keyOfFields,
  matchByKey,
  type Plan,
  withReferences,
} from '@clembo/core';
import type { Table } from '../table/table';

import type { FieldId } from './fields';
import { type JointIntake, readParts, type SourcePlace } from './readParts';
import type { IntakePart } from './state';

/** A reading of a source, with the plan's references in place of those that differ. */
export interface Reading {
  tables: Table[];
  parts: IntakePart[];
  /** References of the plan by those of the source. */
  aliases: ReadonlyMap<string, string>;
}

/** What a source says now beside what it said last time, both with the plan's references. */
export interface SecondReading {
  base: Plan;
  incoming: Plan;
  joint: JointIntake;
  placeOf: Map<string, SourcePlace>;
  aliases: Map<string, string>;
  /** Rows that have another reference than before and look the same: a person says whether they are. */
  alike: AlikePair[];
  /** Names that several rows share, where names are all that tells them apart. */
  doubtful: string[];
}

/**
 * Reads a source again. Where its rows have references of their own, these say which activity is which; else the names
 * do. What the source does not state this time is taken to be as it was.
 *
 * @param last the reading that the plan was made of or refreshed by last; null when there was none
 * @param same pairs that a person said are the same: the reference that was, and the one that is now
 */
export function readAgain(
  current: Plan,
  last: Reading | null,
  now: Omit<Reading, 'aliases'>,
  same: readonly Pick<AlikePair, 'was' | 'is'>[],
): SecondReading {
  const options = { name: current.name, start: current.start };
  const before = last && readParts(last.tables, last.parts, options);
  const base = before ? withReferences(before.plan, last.aliases) : current;
  const joint = readParts(now.tables, now.parts, options);
  const named = new Map<string, string>();
  let doubtful: string[] = [];
  if (hasReferences(now.parts, joint.plan)) {
    for (const [source, ref] of last?.aliases ?? []) if (joint.placeOf.has(source)) named.set(source, ref);
  } else {
    const match = matchByKey(base, joint.plan, keyOfFields(['name', 'project']));
    doubtful = match.doubtful.map((d) => d.key.replace(/(?:\s*·)+\s*$/, ''));
    const taken = new Set([...base.activities, ...current.activities].map((a) => a.ref));
    for (const { ref } of joint.plan.activities) named.set(ref, match.earlier.get(ref) ?? freshRef(ref, taken));
  }
  const unsettled = withReferences(joint.plan, named);
  const alike = alikePairs(base, unsettled).filter((p) => !same.some((s) => s.is === p.is || s.was === p.was));
  for (const { was, is } of same) {
    const source = [...named].find(([, ref]) => ref === is)?.[0] ?? is;
    if (joint.placeOf.has(source)) named.set(source, was);
  }
  for (const [source, ref] of named) if (source === ref) named.delete(source);
  const incoming = withReferences(joint.plan, named);
  return {
    base,
    incoming: asStated(base, incoming, now.parts),
    joint,
    placeOf: new Map([...joint.placeOf].map(([ref, place]) => [named.get(ref) ?? ref, place])),
    aliases: named,
    alike,
    doubtful,
  };
}

function freshRef(ref: string, taken: Set<string>): string {
  let own = ref;
  for (let k = 2; taken.has(own); k++) own = `${ref} (${k})`;
  taken.add(own);
  return own;
}

/** True where rows name themselves; a number that only counts them does not. */
function hasReferences(parts: readonly IntakePart[], plan: Plan): boolean {
  return parts.every(({ map }) => {
    const has = (field: FieldId) => map.columns.some((m) => m.as === 'field' && m.field === field);
    if (has('ref')) return !plan.activities.every((a, i) => a.ref === String(i + 1));
    return has('outline');
  });
}

/** The fields of an activity that a column speaks of. */
const SPEAKS: Partial<Record<FieldId, ActivityField[]>> = {
  start: ['start', 'said', 'kind', 'actualStart', 'promised'],
  finish: ['finish', 'said', 'kind', 'actualFinish', 'promised'],
  baselineStart: ['promised'],
  baselineFinish: ['promised'],
  duration: ['duration', 'kind', 'calendar'],
  outline: ['parent', 'kind'],
  level: ['parent', 'kind'],
  parent: ['parent', 'kind'],
  summary: ['parent', 'kind'],
  milestone: ['kind'],
  fixedStart: ['constraint'],
  notEarlier: ['constraint'],
  // Names may carry the outline, by their indentation or as headings of sections.
  name: ['name', 'parent', 'kind'],
};

function stated(parts: readonly IntakePart[]): Set<ActivityField> {
  const fields = new Set<ActivityField>();
  for (const { map } of parts)
    for (const m of map.columns) {
      if (m.as === 'note') fields.add('notes');
      if (m.as !== 'field') continue;
      for (const f of SPEAKS[m.field] ?? [m.field as ActivityField]) fields.add(f);
    }
  return fields;
}

/** The incoming plan, in which whatever its columns do not speak of is as it was. */
function asStated(base: Plan, incoming: Plan, parts: readonly IntakePart[]): Plan {
  const fields = stated(parts);
  const was = new Map(base.activities.map((a) => [a.ref, a]));
  const codes = new Set(incoming.codeFields.map((f) => f.id));
  const outlined = incoming.activities.some((a) => a.parent !== null);
  const activities = incoming.activities.map((a): Activity => {
    const old = was.get(a.ref);
    if (!old) return a;
    const next = { ...a, codes: { ...pickOthers(old.codes, codes), ...a.codes } };
    for (const field of Object.keys(next) as (keyof Activity)[])
      if (field !== 'ref' && field !== 'codes' && !fields.has(field))
        (next as Record<string, unknown>)[field] = old[field];
    if (!outlined) next.parent = old.parent;
    return next;
  });
  const speaksOfLinks = parts.some(({ map }) =>
    map.columns.some((m) => m.as === 'field' && m.field === 'predecessors'),
  );
  const there = new Set(activities.map((a) => a.ref));
  return {
    ...incoming,
    activities,
    links: speaksOfLinks ? incoming.links : base.links.filter((l) => there.has(l.from) && there.has(l.to)),
  };
}

const pickOthers = (codes: Activity['codes'], fields: ReadonlySet<string>): Activity['codes'] =>
  Object.fromEntries(Object.entries(codes).filter(([field]) => !fields.has(field)));
