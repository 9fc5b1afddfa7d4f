import { and, asc, count, desc, eq, inArray, isNotNull, isNull, lt, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { type Access, AccessRefused, mayComment } from './access';
import { type Database, inTransaction, type Store } from './database';
import { noteDeed } from './deeds';
import { addMail } from './mail';
import { settlePlan } from './owed';
import { ownPlan, ownPlans } from './own';
import {
  activity,
  comment,
  commentFile,
  edition,
  exhibit,
  member,
  notice,
  person,
  plan,
  planRole,
  workspace,
} from './schema';

/** What somebody said, with its answers below it. */
export interface Comment {
  id: string;
  ref: string | null;
  /** The name of the activity; null where it is not in the plan any more. */
  activity: string | null;
  exhibitId: string | null;
  exhibit: string | null;
  /** The place of the exhibit that it is about; what it holds is checked by whoever knows exhibits. */
  place: unknown;
  answers: string | null;
  text: string;
  account: string | null;
  person: string | null;
  doneAt: Date | null;
  doneBy: string | null;
  changedAt: Date | null;
  createdAt: Date;
  files: { no: number; name: string; size: number }[];
}

export const MOST_TEXT = 4000;
/** So many files stand beside one comment. */
const MOST_FILES = 8;

/** Whether an access sees comments at all: who only looks does where the workspace says so. */
async function seesComments({ db }: Store, access: Access): Promise<boolean> {
  if (access.role !== 'viewer') return true;
  const [home] = await db
    .select({ all: workspace.commentsForAll })
    .from(workspace)
    .where(eq(workspace.id, access.workspace));
  return home?.all ?? false;
}

/** The comments of a plan, the first said first; null when there is no such plan. */
export async function listComments(store: Store, access: Access, planId: string): Promise<Comment[] | null> {
  const { db } = store;
  const [own] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId));
  if (!own) return null;
  if (!(await seesComments(store, access))) return [];
  const rows = await db
    .select({
      id: comment.id,
      ref: comment.ref,
      activity: activity.name,
      exhibitId: comment.exhibitId,
      exhibit: exhibit.name,
      place: comment.place,
      answers: comment.answers,
      text: comment.text,
      account: comment.account,
      person: comment.person,
      doneAt: comment.doneAt,
      doneBy: comment.doneBy,
      changedAt: comment.changedAt,
      createdAt: comment.createdAt,
    })
    .from(comment)
    .leftJoin(exhibit, eq(exhibit.id, comment.exhibitId))
    .leftJoin(edition, and(eq(edition.planId, comment.planId), eq(edition.working, true)))
    .leftJoin(activity, and(eq(activity.editionId, edition.id), eq(activity.ref, comment.ref)))
    .where(eq(comment.planId, planId))
    .orderBy(asc(comment.createdAt))
    .limit(5000);
  const files = await db
    .select({
      commentId: commentFile.commentId,
      no: commentFile.no,
      name: commentFile.name,
      size: sql<number>`octet_length(${commentFile.content})`,
    })
    .from(commentFile)
    .innerJoin(comment, eq(comment.id, commentFile.commentId))
    .where(eq(comment.planId, planId))
    .orderBy(asc(commentFile.no));
  const beside = new Map<string, Comment['files']>();
  for (const { commentId, ...file } of files) beside.set(commentId, [...(beside.get(commentId) ?? []), file]);
  return rows.map((row) => ({ ...row, files: beside.get(row.id) ?? [] }));
}

/** What somebody said on a page, as it is shown with the page. */
export interface Spoken {
  person: string | null;
  at: Date;
  text: string;
}

/** What is open among what was said on one exhibit, with its answers. */
export interface OpenComment extends Spoken {
  place: unknown;
  answers: Spoken[];
}

/**
 * What is open among what was said about each of some exhibits, or about places of them; the first said first. Whoever
 * asks has seen to it that they may be shown.
 */
export async function openCommentsOn({ db }: Store, exhibits: readonly string[]): Promise<Map<string, OpenComment[]>> {
  const found = new Map<string, OpenComment[]>();
  if (exhibits.length === 0) return found;
  const first = alias(comment, 'first');
  const rows = await db
    .select({
      id: comment.id,
      exhibitId: first.exhibitId,
      answers: comment.answers,
      place: comment.place,
      person: comment.person,
      at: comment.createdAt,
      text: comment.text,
    })
    .from(comment)
    .innerJoin(first, eq(first.id, sql`coalesce(${comment.answers}, ${comment.id})`))
    .where(and(inArray(first.exhibitId, [...exhibits]), isNull(first.ref), isNull(first.doneAt)))
    .orderBy(asc(comment.createdAt));
  const threads = new Map<string, OpenComment>();
  for (const { id, exhibitId, answers, place, ...spoken } of rows) {
    if (answers) {
      threads.get(answers)?.answers.push(spoken);
      continue;
    }
    const own = { ...spoken, place, answers: [] };
    threads.set(id, own);
    found.set(exhibitId!, [...(found.get(exhibitId!) ?? []), own]);
  }
  return found;
}

export interface NewComment {
  ref: string | null;
  exhibitId: string | null;
  place?: object | null;
  answers: string | null;
  text: string;
  /** Accounts of those who are named in it. */
  named: readonly string[];
}

/** Says something; gives its id, or null when there is no such plan. Those who are named or answered are told. */
export async function sayComment(
  store: Store,
  access: Access,
  planId: string,
  said: NewComment,
): Promise<string | null> {
  mayComment(access);
  return inTransaction(store, async (db, client) => {
    const [own] = await db.select({ name: plan.name }).from(plan).where(ownPlan(access, planId));
    if (!own) return null;
    const { ref, exhibitId, answers, text, named, place = null } = said;
    if (place && !exhibitId) throw new AccessRefused('A place is one of an exhibit.');
    if (exhibitId) {
      const [page] = await db
        .select({ id: exhibit.id })
        .from(exhibit)
        .where(and(eq(exhibit.id, exhibitId), eq(exhibit.planId, planId)));
      if (!page) throw new AccessRefused('There is no such exhibit (any more).');
    }
    if (ref !== null) {
      await settlePlan(db, client, planId);
      const [there] = await db
        .select({ ref: activity.ref })
        .from(activity)
        .innerJoin(edition, eq(edition.id, activity.editionId))
        .where(and(eq(edition.planId, planId), eq(activity.ref, ref)))
        .limit(1);
      if (!there && !answers) throw new AccessRefused(`There is no activity ${ref} in this plan.`);
    }
    const [first] = answers
      ? await db
          .select({ id: comment.id, answers: comment.answers })
          .from(comment)
          .where(and(eq(comment.id, answers), eq(comment.planId, planId)))
      : [];
    if (answers && !first) throw new AccessRefused('What you answer is not there any more.');
    // Answers stand below the first of them, however deep they were meant.
    const thread = first ? (first.answers ?? first.id) : null;
    const [made] = await db
      .insert(comment)
      .values({
        planId,
        ref,
        exhibitId,
        place,
        answers: thread,
        text,
        account: access.account ?? null,
        person: access.person,
      })
      .returning({ id: comment.id });
    const told = await toTell(db, access, planId, named, thread);
    if (told.length > 0) await db.insert(notice).values(told.map((account) => ({ account, commentId: made!.id })));
    await noteDeed(db, access, 'comment', `commented on ${ref ?? 'the plan'} in “${own.name}”`, planId);
    return made!.id;
  });
}

/** Who is told of a comment: those who are named and may see the plan, and who spoke before in the same thread. */
async function toTell(
  db: Database,
  access: Access,
  planId: string,
  named: readonly string[],
  thread: string | null,
): Promise<string[]> {
  const before = thread
    ? await db
        .select({ account: comment.account })
        .from(comment)
        .where(or(eq(comment.id, thread), eq(comment.answers, thread)))
    : [];
  const wanted = new Set([...named, ...before.flatMap(({ account }) => (account ? [account] : []))]);
  if (access.account) wanted.delete(access.account);
  if (wanted.size === 0) return [];
  const rows = await db
    .select({ account: member.personId, role: member.role, here: planRole.role })
    .from(member)
    .leftJoin(planRole, and(eq(planRole.personId, member.personId), eq(planRole.planId, planId)))
    .where(and(eq(member.workspaceId, access.workspace), inArray(member.personId, [...wanted])));
  return rows.filter((r) => r.role !== null || r.here !== null).map((r) => r.account);
}

/** Comments of plans that an access is about. */
const mine = (store: Store, access: Access, id: string) =>
  and(eq(comment.id, id), inArray(comment.planId, store.db.select({ id: plan.id }).from(plan).where(ownPlans(access))));

/** The plan that a comment is of, whoever asks. */
export async function planOfComment({ db }: Store, id: string): Promise<string | null> {
  const [row] = await db.select({ planId: comment.planId }).from(comment).where(eq(comment.id, id));
  return row?.planId ?? null;
}

/** Says that what was asked is done, or open again; false when there is no such comment. */
export async function endComment(store: Store, access: Access, id: string, done: boolean): Promise<boolean> {
  mayComment(access);
  const rows = await store.db
    .update(comment)
    .set({ doneAt: done ? new Date() : null, doneBy: done ? access.person : null })
    .where(and(mine(store, access, id), isNull(comment.answers)))
    .returning({ id: comment.id });
  return rows.length > 0;
}

/** Says a comment otherwise; only who said it may. */
export async function changeComment(store: Store, access: Access, id: string, text: string): Promise<boolean> {
  mayComment(access);
  const [held] = await store.db
    .select({ account: comment.account })
    .from(comment)
    .where(mine(store, access, id));
  if (!held) return false;
  if (held.account !== (access.account ?? null)) throw new AccessRefused('Only who said it can say it otherwise.');
  await store.db.update(comment).set({ text, changedAt: new Date() }).where(eq(comment.id, id));
  return true;
}

/** Takes a comment away with its answers; who said it may, and an owner. */
export async function dropComment(store: Store, access: Access, id: string): Promise<boolean> {
  mayComment(access);
  return inTransaction(store, async (db) => {
    const [held] = await db
      .select({ account: comment.account, planId: comment.planId, person: comment.person })
      .from(comment)
      .where(mine(store, access, id));
    if (!held) return false;
    if (held.account !== (access.account ?? null) && access.role !== 'owner')
      throw new AccessRefused('Only who said it, or an owner, can take it away.');
    await db.delete(comment).where(eq(comment.id, id));
    await noteDeed(db, access, 'comment', `took a comment of ${held.person ?? 'this machine'} away`, held.planId);
    return true;
  });
}

/** Puts a file beside a comment; only who said it may. Gives its number, or null when there is no such comment. */
export async function addCommentFile(
  store: Store,
  access: Access,
  id: string,
  file: { name: string; type: string; content: Uint8Array },
): Promise<number | null> {
  mayComment(access);
  return inTransaction(store, async (db) => {
    const [held] = await db
      .select({ account: comment.account })
      .from(comment)
      .where(mine(store, access, id))
      .for('update');
    if (!held) return null;
    if (held.account !== (access.account ?? null)) throw new AccessRefused('Only who said it can put files beside it.');
    const [there] = await db.select({ n: count() }).from(commentFile).where(eq(commentFile.commentId, id));
    if (there!.n >= MOST_FILES) throw new AccessRefused(`At most ${MOST_FILES} files stand beside one comment.`);
    await db.insert(commentFile).values({ commentId: id, no: there!.n + 1, ...file });
    return there!.n + 1;
  });
}

export async function readCommentFile(
  store: Store,
  access: Access,
  id: string,
  no: number,
): Promise<{ name: string; type: string; content: Uint8Array } | null> {
  if (!(await seesComments(store, access))) return null;
  const [row] = await store.db
    .select({ name: commentFile.name, type: commentFile.type, content: commentFile.content })
    .from(commentFile)
    .innerJoin(comment, eq(comment.id, commentFile.commentId))
    .where(and(mine(store, access, id), eq(commentFile.no, no)));
  return row ?? null;
}

/** Something that somebody is told of. */
export interface Notice {
  commentId: string;
  planId: string;
  plan: string;
  ref: string | null;
  exhibitId: string | null;
  text: string;
  person: string | null;
  at: Date;
  isNew: boolean;
}

/** What an account was told of lately, the latest first. */
export async function listNotices({ db }: Store, access: Access): Promise<Notice[]> {
  if (!access.account) return [];
  const rows = await db
    .select({
      commentId: comment.id,
      planId: plan.id,
      plan: plan.name,
      ref: comment.ref,
      exhibitId: comment.exhibitId,
      text: comment.text,
      person: comment.person,
      at: notice.createdAt,
      readAt: notice.readAt,
    })
    .from(notice)
    .innerJoin(comment, eq(comment.id, notice.commentId))
    .innerJoin(plan, eq(plan.id, comment.planId))
    .where(and(eq(notice.account, access.account), ownPlans(access)))
    .orderBy(desc(notice.createdAt))
    .limit(50);
  return rows.map(({ readAt, ...row }) => ({ ...row, isNew: readAt === null }));
}

/** Marks all that an account was told of as read. */
export async function readNotices({ db }: Store, access: Access): Promise<void> {
  if (access.account)
    await db
      .update(notice)
      .set({ readAt: new Date() })
      .where(and(eq(notice.account, access.account), isNull(notice.readAt)));
}

/** A day, in milliseconds: nobody gets more than one letter of notices in it. */
const DAY = 86_400_000;

/** Writes one letter to everybody who was told of something that they have not read, and had none within a day. */
export async function mailNotices(store: Store, address: string, now: Date): Promise<number> {
  const { db } = store;
  const open = and(
    isNull(notice.readAt),
    isNull(notice.mailedAt),
    lt(notice.createdAt, new Date(now.getTime() - 60_000)),
  );
  const accounts = await db.selectDistinct({ account: notice.account }).from(notice).where(open);
  let letters = 0;
  for (const { account } of accounts)
    await inTransaction(store, async (tx) => {
      const [who] = await tx.select({ email: person.email }).from(person).where(eq(person.id, account)).for('update');
      const [last] = await tx
        .select({ at: sql<Date | null>`max(${notice.mailedAt})` })
        .from(notice)
        .where(eq(notice.account, account));
      if (!who || (last?.at && now.getTime() - new Date(last.at).getTime() < DAY)) return;
      const rows = await tx
        .select({ text: comment.text, person: comment.person, ref: comment.ref, plan: plan.name, planId: plan.id })
        .from(notice)
        .innerJoin(comment, eq(comment.id, notice.commentId))
        .innerJoin(plan, eq(plan.id, comment.planId))
        // Who left, or may not see the plan any more, hears no more of what is said there.
        .innerJoin(member, and(eq(member.workspaceId, plan.workspaceId), eq(member.personId, account)))
        .leftJoin(planRole, and(eq(planRole.planId, plan.id), eq(planRole.personId, account)))
        .where(and(eq(notice.account, account), open, or(isNotNull(member.role), isNotNull(planRole.role))))
        .orderBy(asc(notice.createdAt));
      if (rows.length === 0) return;
      const lines = rows.map(
        (r) =>
          `${r.person ?? 'Somebody'} on ${r.ref ? `${r.ref} in ` : ''}“${r.plan}”:\n${r.text}\n${address}/plans/${r.planId}/show`,
      );
      const subject = rows.length === 1 ? 'A comment for you in Clembo' : `${rows.length} comments for you in Clembo`;
      await addMail(tx, { to: who.email, subject, text: `${lines.join('\n\n')}\n` });
      await tx
        .update(notice)
        .set({ mailedAt: now })
        .where(and(eq(notice.account, account), open));
      letters++;
    });
  return letters;
}
