import { createHash, randomBytes } from 'node:crypto';
import { and, eq, gt, isNull, lt } from 'drizzle-orm';
import { type Access, AccessRefused, mayOwn, type Role } from './access';
import { inTransaction, type Store } from './database';
import { noteDeed } from './deeds';
import { addMail } from './mail';
import { ownPlan } from './own';
import { aRole, holdMember, keepAnOwner, setPlanRole } from './people';
import { invitation, member, person, plan, workspace } from './schema';

/** An invitation holds for so many days. */
const HOLDS_DAYS = 14;
export const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/**
 * Asks somebody by mail to join: the workspace, or one plan of it. Who is asked again gets a new mail; the old one
 * leads nowhere then.
 *
 * @param address the address of the page that takes an invitation, to which its secret is added
 */
export async function invite(
  store: Store,
  access: Access,
  wanted: { email: string; role: Role; planId: string | null },
  address: string,
): Promise<void> {
  mayOwn(access);
  const token = randomBytes(32).toString('base64url');
  const { email, role, planId } = wanted;
  await inTransaction(store, async (db) => {
    const [target] = planId ? await db.select({ name: plan.name }).from(plan).where(ownPlan(access, planId)) : [null];
    if (planId && !target) throw new AccessRefused('There is no such plan (any more).');
    const [known] = await db
      .select({ role: member.role, name: person.name })
      .from(member)
      .innerJoin(person, eq(person.id, member.personId))
      .where(and(eq(member.workspaceId, access.workspace), eq(person.email, email)));
    if (known && !planId) throw new AccessRefused(`${known.name} belongs to the workspace already.`);
    const own = and(
      eq(invitation.workspaceId, access.workspace),
      eq(invitation.email, email),
      planId ? eq(invitation.planId, planId) : isNull(invitation.planId),
    );
    await db.delete(invitation).where(own);
    const [home] = await db.select({ name: workspace.name }).from(workspace).where(eq(workspace.id, access.workspace));
    await db.insert(invitation).values({
      workspaceId: access.workspace,
      planId,
      email,
      role,
      digest: digestOf(token),
      invitedBy: access.person,
      expiresAt: new Date(Date.now() + HOLDS_DAYS * 86_400_000),
    });
    const what = target ? `the plan “${target.name}”` : `“${home!.name}”`;
    await addMail(db, {
      to: email,
      subject: `${access.person ?? 'Somebody'} asks you to join ${what} in Clembo`,
      text: `${access.person ?? 'Somebody'} asks you to join ${what} as ${aRole(role)}.\n\nOpen this address within ${HOLDS_DAYS} days:\n${address}${token}\n\nIf you expected nothing of this kind, let it be: nothing happens then.\n`,
    });
    await noteDeed(db, access, 'people', `asked ${email} to join ${what} as ${aRole(role)}`, planId);
  });
}

const open = (token: string) => and(eq(invitation.digest, digestOf(token)), gt(invitation.expiresAt, new Date()));

/** What somebody is asked to, by the secret of their mail; null when it holds no more. */
export async function readInvitation(
  { db }: Store,
  token: string,
): Promise<{ email: string; role: Role; workspace: string; plan: string | null; hasAccount: boolean } | null> {
  const [row] = await db
    .select({
      email: invitation.email,
      role: invitation.role,
      workspace: workspace.name,
      plan: plan.name,
      account: person.id,
    })
    .from(invitation)
    .innerJoin(workspace, eq(workspace.id, invitation.workspaceId))
    .leftJoin(plan, eq(plan.id, invitation.planId))
    .leftJoin(person, eq(person.email, invitation.email))
    .where(open(token));
  if (!row) return null;
  const { account, ...read } = row;
  return { ...read, hasAccount: account !== null };
}

/**
 * Takes an invitation for an account with the same address; gives its workspace.
 *
 * @throws AccessRefused when it holds no more, or is for somebody else
 */
export async function takeInvitation(
  store: Store,
  token: string,
  who: { account: string; name: string; email: string },
): Promise<string> {
  return inTransaction(store, async (db) => {
    const [row] = await db.delete(invitation).where(open(token)).returning();
    if (!row) throw new AccessRefused('This invitation holds no more. Ask for another one.');
    if (row.email !== who.email)
      throw new AccessRefused(`This invitation is for ${row.email}. Sign in with that address to take it.`);
    const role = row.planId ? null : row.role;
    const held = await holdMember(db, { workspace: row.workspaceId }, who.account);
    // An invitation from before they were an owner takes nothing from the only one there is.
    if (held && role !== null && role !== 'owner') await keepAnOwner(db, { workspace: row.workspaceId }, who.account);
    const joined = db.insert(member).values({ workspaceId: row.workspaceId, personId: who.account, role });
    const target = [member.workspaceId, member.personId];
    await (row.planId ? joined.onConflictDoNothing() : joined.onConflictDoUpdate({ target, set: { role: row.role } }));
    if (row.planId) await setPlanRole(db, row.planId, who.account, row.role);
    const by = { workspace: row.workspaceId, person: who.name, role: 'viewer' as const };
    await noteDeed(db, by, 'people', `${who.name} joined as ${aRole(row.role)}`, row.planId);
    return row.workspaceId;
  });
}

/** Takes an invitation back. */
export async function dropInvitation(store: Store, access: Access, id: string): Promise<boolean> {
  mayOwn(access);
  return inTransaction(store, async (db) => {
    const [gone] = await db
      .delete(invitation)
      .where(and(eq(invitation.id, id), eq(invitation.workspaceId, access.workspace)))
      .returning({ email: invitation.email });
    if (gone) await noteDeed(db, access, 'people', `took the invitation of ${gone.email} back`);
    return gone !== undefined;
  });
}

/** Lets go of what holds no more. */
export async function forgetInvitations({ db }: Store, now: Date): Promise<void> {
  await db.delete(invitation).where(lt(invitation.expiresAt, now));
}
