import { and, asc, desc, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import { type Access, commonOf, mayWrite } from './access';
import { type Database, inTransaction, type Store } from './database';
import { addJob } from './jobs/jobs';
import { ownIntake, ownIntakes, ownPlan } from './own';
import { columnMap, intake, intakeFile, plan } from './schema';

/** A file as it was uploaded, or what was pasted. */
export interface IntakeFile {
  name: string;
  content: Uint8Array;
}

/** What was uploaded or pasted, as far as it is read. */
export interface StoredIntake {
  id: string;
  source: string;
  tables: Uint8Array | null;
  /** Which tables are taken in, by which column maps. */
  state: unknown;
  /** The plan that it is to refresh, or null for a new one. */
  targetPlan: string | null;
  /** What a person decided of the changes that a refresh would make. */
  choices: unknown;
  /** The plan that it became. */
  planId: string | null;
}

/** What is not made a plan within a week is let go. */
const KEPT_DAYS = 7;

/** The plan that something is about is not there. */
export class PlanGone extends Error {}

/** What several files are called together. */
const namesOf = (files: readonly IntakeFile[]): string =>
  files.length <= 3 ? files.map((f) => f.name).join(', ') : `${files[0]!.name} and ${files.length - 1} other files`;

/**
 * Keeps what was uploaded or pasted, and asks for it to be read.
 *
 * @throws PlanGone when the plan that it is to refresh is not there
 */
export async function createIntake(
  store: Store,
  access: Access,
  files: readonly IntakeFile[],
  targetPlan: string | null = null,
): Promise<{ intake: string; job: string }> {
  return inTransaction(store, async (db) => {
    const id = await putIntake(db, access, files, targetPlan);
    return { intake: id, job: await addJob(db, access, { kind: 'readIntake', intake: id }) };
  });
}

/** As {@link createIntake}, for whoever reads it at once: nobody is asked to. */
export const holdIntakeFiles = (
  store: Store,
  access: Access,
  files: readonly IntakeFile[],
  targetPlan: string,
): Promise<string> => inTransaction(store, (db) => putIntake(db, access, files, targetPlan));

async function putIntake(
  db: Database,
  access: Access,
  files: readonly IntakeFile[],
  targetPlan: string | null,
): Promise<string> {
  mayWrite(access);
  const old = new Date(Date.now() - KEPT_DAYS * 86_400_000);
  await db.delete(intake).where(and(eq(intake.workspaceId, access.workspace), lt(intake.createdAt, old)));
  if (targetPlan !== null) {
    const [target] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, targetPlan));
    if (!target) throw new PlanGone('There is no such plan (any more).');
  }
  const [row] = await db
    .insert(intake)
    .values({ workspaceId: access.workspace, source: namesOf(files), targetPlan })
    .returning({ id: intake.id });
  const id = row!.id;
  await db.insert(intakeFile).values(files.map((f, position) => ({ intakeId: id, position, ...f })));
  return id;
}

export async function readIntake({ db }: Store, access: Access, id: string): Promise<StoredIntake | null> {
  const [row] = await db
    .select({
      id: intake.id,
      source: intake.source,
      tables: intake.tables,
      state: intake.state,
      targetPlan: intake.targetPlan,
      choices: intake.choices,
      planId: intake.planId,
    })
    .from(intake)
    .where(ownIntake(access, id));
  return row ?? null;
}

/** The files of an intake, in the order in which they came. */
export async function readIntakeFiles({ db }: Store, access: Access, id: string): Promise<IntakeFile[]> {
  return db
    .select({ name: intakeFile.name, content: intakeFile.content })
    .from(intakeFile)
    .innerJoin(intake, eq(intake.id, intakeFile.intakeId))
    .where(ownIntake(access, id))
    .orderBy(asc(intakeFile.position));
}

/** What a person sees of an intake: what would come of it, or null while it is being read. */
export async function readPreview(
  { db }: Store,
  access: Access,
  id: string,
): Promise<{
  source: string;
  preview: unknown;
  targetPlan: string | null;
  choices: unknown;
  planId: string | null;
} | null> {
  const [row] = await db
    .select({
      source: intake.source,
      preview: intake.preview,
      targetPlan: intake.targetPlan,
      choices: intake.choices,
      planId: intake.planId,
    })
    .from(intake)
    .where(ownIntake(access, id));
  return row ?? null;
}

/** Intakes that were read and are not yet plans, the latest first. */
export async function listIntakes(
  { db }: Store,
  access: Access,
): Promise<{ id: string; source: string; targetPlan: string | null; createdAt: Date }[]> {
  return db
    .select({ id: intake.id, source: intake.source, targetPlan: intake.targetPlan, createdAt: intake.createdAt })
    .from(intake)
    .where(and(ownIntakes(access), isNull(intake.planId), isNotNull(intake.preview)))
    .orderBy(desc(intake.createdAt))
    .limit(20);
}

/** Keeps what an intake was read to. */
export async function keepReading(
  { db }: Store,
  access: Access,
  id: string,
  read: { tables?: Uint8Array; state: object; preview: object },
): Promise<void> {
  mayWrite(access);
  await db.update(intake).set(read).where(ownIntake(access, id));
}

/** Keeps what a person decided of the changes; false when there is no intake by that id. */
export async function keepChoices({ db }: Store, access: Access, id: string, choices: object): Promise<boolean> {
  mayWrite(access);
  const kept = await db.update(intake).set({ choices }).where(ownIntake(access, id)).returning({ id: intake.id });
  return kept.length > 0;
}

/** Begins an intake with tables that were read before: a source is looked at anew. */
export async function reopenIntake(
  { db }: Store,
  access: Access,
  read: { source: string; targetPlan: string; tables: Uint8Array; state: object },
): Promise<string> {
  mayWrite(access);
  const [row] = await db
    .insert(intake)
    .values({ workspaceId: access.workspace, ...read })
    .returning({ id: intake.id });
  return row!.id;
}

/** Lets go of an intake; false when there is none by that id. */
export async function deleteIntake({ db }: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  const gone = await db.delete(intake).where(ownIntake(access, id)).returning({ id: intake.id });
  return gone.length > 0;
}

const headingsKey = (headings: readonly string[]): string =>
  JSON.stringify(headings.map((h) => h.trim().toLowerCase()));

/** How many maps are looked through for one that fits. */
const KNOWN_MAPS = 300;

/** The column maps that were corrected or confirmed, the last used first. */
export async function knownMaps({ db }: Store, access: Access): Promise<unknown[]> {
  const rows = await db
    .select({ map: columnMap.map })
    .from(columnMap)
    .where(eq(columnMap.workspaceId, commonOf(access)))
    .orderBy(desc(columnMap.updatedAt))
    .limit(KNOWN_MAPS);
  return rows.map((r) => r.map);
}

/** Keeps the map for the next table with these headings. */
export async function keepColumnMap(
  db: Database,
  access: Access,
  headings: readonly string[],
  map: object,
): Promise<void> {
  mayWrite(access);
  await db
    .insert(columnMap)
    .values({ workspaceId: access.workspace, headings: headingsKey(headings), map })
    .onConflictDoUpdate({ target: [columnMap.workspaceId, columnMap.headings], set: { map, updatedAt: new Date() } });
}
