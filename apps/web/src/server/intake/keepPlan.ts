import 'server-only';
import { type Plan, schedulePlan } from '@clembo/core';
import { type BaselineDates, promisedEdition } from '@clembo/formats';
import { EXHIBITS } from '@clembo/scene';
import { type Access, createExhibit, createPlan, type Source } from '@clembo/store';
import { store } from '../store';

/** Keeps what was taken in as a plan, with what its table promised as an edition of its own, and a first page. */
export async function keepPlan(
  access: Access,
  plan: Plan,
  baseline: readonly BaselineDates[],
  source: Source,
): Promise<string> {
  const promised = promisedEdition(plan, baseline);
  const kept = promised ? [{ name: 'Baseline in the source', plan: promised }] : [];
  const edition = source.name === 'pasted table' ? 'Pasted table' : `From ${source.name}`;
  const planId = await createPlan(store(), access, plan, edition, kept, source);
  const brief = EXHIBITS.timeline.suggest(plan, schedulePlan(plan), kept.length);
  await createExhibit(store(), access, planId, 'Overview', brief);
  return planId;
}
