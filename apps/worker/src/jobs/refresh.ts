import { acceptSourceChanges, packPlan, refillCodes, type SourceChange, sourceChanges, type Plan } from '@clembo/core';
import { Choices, keepRefresh, lastSources, readIntake, readPlan, VersionPassed } from '@clembo/store';
import { ReadAgainResult } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';
import { NOT_OPEN } from './correctIntake';

interface Compared extends ReadAgainResult {
  source: string;
  planId: string;
  version: number;
  current: Plan;
  changes: SourceChange[];
  choices: Choices;
}

/** What an intake says otherwise than the plan's source did when it was read last. */
export async function compareIntake(room: Room, id: string): Promise<Compared | { done: string }> {
  const { store, access } = room;
  const intake = await readIntake(store, access, id);
  if (intake?.planId) return { done: intake.planId };
  if (!intake?.tables || !intake.targetPlan) throw new JobRefused(NOT_OPEN);
  const stored = await readPlan(store, access, intake.targetPlan);
  if (!stored) throw new JobRefused('The plan is not there any more.');
  const last = (await lastSources(store, access, intake.targetPlan)).map(({ map, content, aliases }) => ({
    map,
    content,
    aliases,
  }));
  const choices = Choices.parse(intake.choices ?? {});
  const { tables, state, source } = intake;
  const read = await room.hand(
    'readSourceAgain',
    { tables, state, current: packPlan(stored.plan), last, same: choices.same },
    ReadAgainResult,
    `Reading ${source}`,
  );
  room.step('Comparing', 0.7);
  return {
    ...read,
    source,
    planId: intake.targetPlan,
    version: stored.version,
    current: stored.plan,
    changes: sourceChanges(read.base, read.incoming, stored.plan),
    choices,
  };
}

/** Finds out what an intake would change in the plan that it is to refresh. */
export async function compareIntakeJob(room: Room, id: string): Promise<Outcome> {
  const compared = await compareIntake(room, id);
  if ('done' in compared) return { result: { planId: compared.done } };
  const { changes, alike, doubtful, version, current, incoming } = compared;
  const { inHours, calendars, calendar, codeFields } = current;
  return {
    result: {
      version,
      changes,
      alike,
      doubtful,
      statusDate: { from: current.statusDate, to: incoming.statusDate },
      plan: {
        inHours,
        calendars,
        calendar,
        codeFields: codeFields.map(({ id: field, name }) => ({ id: field, name })),
      },
    },
  };
}

/** Refreshes the plan by what was not refused, and ends the intake. */
export async function refreshPlanJob(room: Room, id: string, version: number): Promise<Outcome> {
  const compared = await compareIntake(room, id);
  if ('done' in compared) return { result: { planId: compared.done } };
  if (compared.version !== version) throw new JobRefused(new VersionPassed(compared.version).message);
  const { changes, choices, current, incoming, sources, placeOf, maps, source } = compared;
  const refused = new Set(choices.refused);
  const accepted = changes.filter((c) => !refused.has(c.id));
  const made = acceptSourceChanges(current, incoming, accepted);
  const dated =
    incoming.statusDate !== null && !refused.has('statusDate') ? { ...made, statusDate: incoming.statusDate } : made;
  const after = refillCodes(current, { ...dated, asPromised: current.asPromised || incoming.asPromised });
  const there = new Set(after.activities.map((a) => a.ref));
  room.step('Keeping the plan', 0.8);
  const planId = await keepRefresh(
    room.store,
    room.access,
    id,
    {
      version,
      after,
      name: source,
      counts: { accepted: accepted.length, refused: changes.length - accepted.length },
      origin: { sources, placeOf: new Map([...placeOf].filter(([ref]) => there.has(ref))) },
      maps: maps.map((map) => ({ headings: map.headings, map })),
    },
    room.job,
  );
  return { result: { planId } };
}
