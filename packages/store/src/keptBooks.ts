import { CodeField } from '@clembo/core';
import { and, asc, eq } from 'drizzle-orm';
import { type Access, commonOf, mayAdd, mayWrite } from './access';
import type { Store } from './database';
import { keptBook } from './schema';

/** A code book that is kept for other plans. */
export interface KeptBook {
  id: string;
  name: string;
  field: CodeField;
  createdAt: Date;
}

/** Keeps a code book under a name, in the place of the one that had it. */
export async function keepBook({ db }: Store, access: Access, name: string, field: CodeField): Promise<void> {
  mayAdd(access);
  const values = { workspaceId: access.workspace, name, field: CodeField.parse(field), createdAt: new Date() };
  await db
    .insert(keptBook)
    .values(values)
    .onConflictDoUpdate({ target: [keptBook.workspaceId, keptBook.name], set: values });
}

/** The books that the workspace keeps, by name. */
export async function listKeptBooks({ db }: Store, access: Access): Promise<KeptBook[]> {
  const rows = await db
    .select({ id: keptBook.id, name: keptBook.name, field: keptBook.field, createdAt: keptBook.createdAt })
    .from(keptBook)
    .where(eq(keptBook.workspaceId, commonOf(access)))
    .orderBy(asc(keptBook.name));
  return rows.map((r) => ({ ...r, field: CodeField.parse(r.field) }));
}

/** Lets go of a kept book; plans that were given it keep theirs. */
export async function dropBook({ db }: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  const rows = await db
    .delete(keptBook)
    .where(and(eq(keptBook.id, id), eq(keptBook.workspaceId, commonOf(access))))
    .returning({ id: keptBook.id });
  return rows.length > 0;
}
