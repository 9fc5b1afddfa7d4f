import type { PackedPlan } from '@clembo/core';
import { eq } from 'drizzle-orm';
import { acceptPacked } from './accept';
import { type Access, mayAdd } from './access';
import { type Database, inTransaction, type Store } from './database';
import { noteDeed } from './deeds';
import { addExhibit } from './exhibits';
import { keepColumnMap } from './intakes';
import { endJob } from './jobs/jobs';
import { ownIntake } from './own';
import { type KeptEdition, writePlan } from './writePlan';
import type { Origin } from './sources';
import { intake, intakeFile } from './schema';

/** What comes of an intake. */
export interface MadeOfIntake {
  plan: PackedPlan;
  /** Name of the file, or of the paste. */
  edition: string;
  kept: KeptEdition[];
  origin: Origin;
  exhibit: { name: string; brief: object };
  /** Maps that a person corrected or confirmed, for the next tables with these headings. */
  maps: { headings: readonly string[]; map: object }[];
}

/** The intake that a plan was to be made of is gone. */
export class IntakeGone extends Error {}

/** The job that a plan was to be made by was cancelled meanwhile. */
export class JobCancelled extends Error {}

/**
 * Makes an intake a plan: the plan with its editions, its first page, the column map and the end of the intake are
 * kept together or not at all. An intake becomes one plan, however often it is asked for.
 * A job that makes it ends in the same transaction, so what was cancelled has left nothing.
 *
 * @returns the id of the plan
 * @throws PlanRefused when a plan is not what its schema accepts; IntakeGone; JobCancelled
 */
export async function keepPlan(
  store: Store,
  access: Access,
  intakeId: string,
  made: MadeOfIntake,
  jobId: string | null = null,
): Promise<string> {
  mayAdd(access);
  const plan = acceptPacked(made.plan);
  const kept = made.kept.map((k) => ({ name: k.name, plan: acceptPacked(k.plan) }));
  return inTransaction(store, async (db, client) => {
    const before = await holdIntake(db, access, intakeId);
    if (before !== null) return endWith(db, jobId, before);
    const planId = await writePlan(db, client, access, plan, made.edition, kept, made.origin);
    await addExhibit(db, planId, made.exhibit.name, made.exhibit.brief);
    await noteDeed(db, access, 'plan', `took the plan “${plan.name}” in`, planId);
    for (const { headings, map } of made.maps) await keepColumnMap(db, access, headings, map);
    await endIntake(db, intakeId, planId);
    return endWith(db, jobId, planId);
  });
}

/**
 * Holds an intake while it becomes a plan; gives the plan that it has become already, or null.
 *
 * @throws IntakeGone
 */
export async function holdIntake(db: Database, access: Access, intakeId: string): Promise<string | null> {
  const [held] = await db
    .select({ planId: intake.planId })
    .from(intake)
    .where(ownIntake(access, intakeId))
    .for('update');
  if (!held) throw new IntakeGone('This intake is not open any more. Take the file in again.');
  return held.planId;
}

/** The files have served: their tables are kept with the plan. */
export async function endIntake(db: Database, intakeId: string, planId: string): Promise<void> {
  await db.delete(intakeFile).where(eq(intakeFile.intakeId, intakeId));
  await db.update(intake).set({ planId, tables: null, preview: null }).where(eq(intake.id, intakeId));
}

export async function endWith(db: Database, jobId: string | null, planId: string): Promise<string> {
  if (jobId !== null && !(await endJob(db, jobId, { result: { planId } })))
    throw new JobCancelled('The job was cancelled; nothing was kept.');
  return planId;
}
