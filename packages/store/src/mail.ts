import { and, asc, desc, eq, isNull, lt } from 'drizzle-orm';
import { type Access, mayOwn } from './access';
import type { Database, Store } from './database';
import { mail } from './schema';

export interface Letter {
  to: string;
  subject: string;
  text: string;
}

/** Mail is kept for so many days. */
const KEPT_DAYS = 30;

/** Puts a letter out to be sent, within the transaction that it tells of. */
export async function addMail(db: Database, letter: Letter): Promise<void> {
  await db.delete(mail).where(lt(mail.createdAt, new Date(Date.now() - KEPT_DAYS * 86_400_000)));
  await db.insert(mail).values({ ...letter, subject: letter.subject.replace(/[\r\n]+/g, ' ').slice(0, 300) });
}

/** The letters of the mailbox that stands in for a server of mail, the latest first. */
export async function listMail({ db }: Store, access: Access): Promise<(Letter & { id: string; createdAt: Date })[]> {
  mayOwn(access);
  return db
    .select({ id: mail.id, to: mail.to, subject: mail.subject, text: mail.text, createdAt: mail.createdAt })
    .from(mail)
    .orderBy(desc(mail.createdAt))
    .limit(200);
}

/** Sends what waits, each letter once however many processes look; what cannot be sent waits on. */
export async function sendMail(
  store: Store,
  send: (letter: Letter) => Promise<void>,
): Promise<{ sent: number; failed: string | null }> {
  let sent = 0;
  for (;;) {
    const outcome = await store.db.transaction(async (db) => {
      const [next] = await db
        .select()
        .from(mail)
        .where(and(isNull(mail.sentAt)))
        .orderBy(asc(mail.createdAt))
        .limit(1)
        .for('update', { skipLocked: true });
      if (!next) return null;
      try {
        await send(next);
      } catch (error) {
        return { failed: (error as Error).message };
      }
      await db.update(mail).set({ sentAt: new Date() }).where(eq(mail.id, next.id));
      return { failed: null };
    });
    if (!outcome) return { sent, failed: null };
    if (outcome.failed !== null) return { sent, failed: outcome.failed };
    sent++;
  }
}
