import { asStarter, beginFrom, isoDate, schedulePlan } from '@clembo/core';
import { EXHIBITS, House, inCurrency, inHouse } from '@clembo/scene';
import { STARTERS } from '@clembo/starters';
import { createPlan, type JobInput, keepStarter, readPlan, readSettings, readStarter } from '@clembo/store';
import { JobRefused, type Outcome, type Room } from '../room';

/** Begins a plan from a starter, with a first page. */
export async function beginPlanJob(
  { store, access }: Room,
  { starter, name, day }: Extract<JobInput, { kind: 'beginPlan' }>,
): Promise<Outcome> {
  const from =
    'own' in starter
      ? (STARTERS.find((s) => s.id === starter.own)?.plan ?? null)
      : await readStarter(store, access, starter.kept);
  if (!from) throw new JobRefused('There is no such starter (any more).');
  try {
    const house = House.parse((await readSettings(store, access)).house);
    const plan = inCurrency(beginFrom(from, name, day), house);
    const brief = inHouse(EXHIBITS.timeline.suggest(plan, schedulePlan(plan), 0), house);
    const edition = `Begun for ${isoDate(day)}`;
    return {
      result: { planId: await createPlan(store, access, plan, edition, [], null, { name: 'Overview', brief }) },
    };
  } catch (error) {
    if (error instanceof RangeError) throw new JobRefused(error.message);
    throw error;
  }
}

/** Keeps the working edition of a plan as a starter for others. */
export async function keepStarterJob(
  { store, access }: Room,
  { plan: id, name, note }: Extract<JobInput, { kind: 'keepStarter' }>,
): Promise<Outcome> {
  const stored = await readPlan(store, access, id);
  if (!stored) throw new JobRefused('There is no such plan (any more).');
  return { result: { starter: await keepStarter(store, access, { name, note, plan: asStarter(stored.plan) }) } };
}
