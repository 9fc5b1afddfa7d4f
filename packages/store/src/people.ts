import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { type Access, AccessRefused, mayOwn, type Role } from './access';
import { type Database, inTransaction, type Store } from './database';
import { planOfComment } from './comments';
import { noteDeed } from './deeds';
import { ownPlan } from './own';
import {
  buildModel,
  comment,
  exhibit,
  intake,
  invitation,
  member,
  notice,
  person,
  plan,
  planRole,
  sharedPage,
  signIn,
  workspace,
} from './schema';

/** True once anybody has an account: from then on signing in is needed. */
export async function hasAccounts({ db }: Store): Promise<boolean> {
  const [one] = await db.select({ id: person.id }).from(person).limit(1);
  return one !== undefined;
}

/** What somebody belongs to: their workspaces with their roles, and the plans for which others are said. */
export interface Belonging {
  workspace: string;
  workspaceName: string;
  role: Role | null;
  plans: Record<string, Role>;
}

export async function belongingsOf({ db }: Store, account: string): Promise<Belonging[]> {
  const [rows, roles] = await Promise.all([
    db
      .select({ workspace: member.workspaceId, workspaceName: workspace.name, role: member.role })
      .from(member)
      .innerJoin(workspace, eq(workspace.id, member.workspaceId))
      .where(eq(member.personId, account))
      .orderBy(asc(member.createdAt)),
    db
      .select({ planId: planRole.planId, role: planRole.role, workspace: plan.workspaceId })
      .from(planRole)
      .innerJoin(plan, eq(plan.id, planRole.planId))
      .where(eq(planRole.personId, account)),
  ]);
  return rows.map((row) => ({
    ...row,
    plans: Object.fromEntries(roles.filter((r) => r.workspace === row.workspace).map((r) => [r.planId, r.role])),
  }));
}

/** The access of somebody to the whole of a workspace. */
export const accessTo = (belonging: Belonging, account: string, name: string): Access => ({
  workspace: belonging.workspace,
  person: name,
  account,
  role: belonging.role ?? 'viewer',
  ...(belonging.role === null && { guest: true, only: Object.keys(belonging.plans) }),
});

/** The access of somebody to one plan, by what is said for it in the place of what is said for the workspace. */
export function accessToPlan(whole: Access, belonging: Belonging, planId: string): Access {
  const role = belonging.plans[planId];
  return role === undefined ? whole : { ...whole, role, only: [planId] };
}

/** The plan that something belongs to, whoever asks; null when there is no such thing. */
export async function planOf(
  store: Store,
  kind: 'exhibit' | 'model' | 'intake' | 'shared' | 'comment',
  id: string,
): Promise<string | null> {
  const { db } = store;
  if (kind === 'exhibit') {
    const [row] = await db.select({ planId: exhibit.planId }).from(exhibit).where(eq(exhibit.id, id));
    return row?.planId ?? null;
  }
  if (kind === 'model') {
    const [row] = await db.select({ planId: buildModel.planId }).from(buildModel).where(eq(buildModel.id, id));
    return row?.planId ?? null;
  }
  if (kind === 'comment') return planOfComment(store, id);
  if (kind === 'shared') {
    const [row] = await db.select({ planId: sharedPage.planId }).from(sharedPage).where(eq(sharedPage.id, id));
    return row?.planId ?? null;
  }
  const [row] = await db.select({ planId: intake.targetPlan }).from(intake).where(eq(intake.id, id));
  return row?.planId ?? null;
}

/**
 * Makes the one who has the first account the owner of the first workspace.
 *
 * @throws AccessRefused when somebody else was first
 */
export async function ownFirst(store: Store, access: Access, account: string, name: string): Promise<void> {
  await inTransaction(store, async (db, client) => {
    await client.query('lock table member in exclusive mode');
    const [any] = await db.select({ id: member.personId }).from(member).limit(1);
    if (any) throw new AccessRefused('Somebody else was first. Ask them for an invitation.');
    await db.insert(member).values({ workspaceId: access.workspace, personId: account, role: 'owner' });
    await noteDeed(db, { ...access, person: name }, 'people', `${name} took over the workspace as its owner`);
  });
}

export interface Member {
  account: string;
  name: string;
  email: string;
  role: Role | null;
  plans: { planId: string; plan: string; role: Role }[];
}

export interface Invited {
  id: string;
  email: string;
  role: Role;
  plan: string | null;
  by: string | null;
  expiresAt: Date;
}

/** Who belongs to a workspace, and who is asked to. */
export async function listPeople({ db }: Store, access: Access): Promise<{ members: Member[]; invited: Invited[] }> {
  mayOwn(access);
  const [members, roles, invited] = await Promise.all([
    db
      .select({ account: person.id, name: person.name, email: person.email, role: member.role })
      .from(member)
      .innerJoin(person, eq(person.id, member.personId))
      .where(eq(member.workspaceId, access.workspace))
      .orderBy(asc(member.createdAt)),
    db
      .select({ account: planRole.personId, planId: plan.id, plan: plan.name, role: planRole.role })
      .from(planRole)
      .innerJoin(plan, eq(plan.id, planRole.planId))
      .where(and(eq(plan.workspaceId, access.workspace), isNull(plan.deletedAt)))
      .orderBy(asc(plan.name)),
    db
      .select({
        id: invitation.id,
        email: invitation.email,
        role: invitation.role,
        plan: plan.name,
        by: invitation.invitedBy,
        expiresAt: invitation.expiresAt,
      })
      .from(invitation)
      .leftJoin(plan, eq(plan.id, invitation.planId))
      .where(eq(invitation.workspaceId, access.workspace))
      .orderBy(asc(invitation.createdAt)),
  ]);
  return {
    members: members.map((m) => ({
      ...m,
      plans: roles.filter((r) => r.account === m.account).map(({ planId, plan, role }) => ({ planId, plan, role })),
    })),
    invited,
  };
}

/** Those who can be named in a comment: everybody who belongs to the workspace. */
export async function namesOf({ db }: Store, access: Access): Promise<{ account: string; name: string }[]> {
  return db
    .select({ account: person.id, name: person.name })
    .from(member)
    .innerJoin(person, eq(person.id, member.personId))
    .where(eq(member.workspaceId, access.workspace))
    .orderBy(asc(person.name));
}

export const setPlanRole = (db: Database, planId: string, personId: string, role: Role) =>
  db
    .insert(planRole)
    .values({ planId, personId, role })
    .onConflictDoUpdate({ target: [planRole.planId, planRole.personId], set: { role } });

/**
 * Lets a member do more or less: in the workspace, or with one plan (null: as the workspace says).
 *
 * @throws AccessRefused when no owner would be left
 */
export async function changeRole(
  store: Store,
  access: Access,
  account: string,
  change: { role: Role | null } | { planId: string; role: Role | null },
): Promise<boolean> {
  mayOwn(access);
  return inTransaction(store, async (db) => {
    const held = await holdMember(db, access, account);
    if (!held) return false;
    if ('planId' in change) {
      const { planId, role } = change;
      const [target] = await db.select({ name: plan.name }).from(plan).where(ownPlan(access, planId));
      if (!target) return false;
      if (role) await setPlanRole(db, planId, account, role);
      else await db.delete(planRole).where(and(eq(planRole.planId, planId), eq(planRole.personId, account)));
      const as = role ? aRole(role) : 'what they are elsewhere';
      await noteDeed(db, access, 'people', `made ${held.name} ${as} in the plan “${target.name}”`, planId);
      return true;
    }
    if (change.role !== 'owner') await keepAnOwner(db, access, account);
    await db.update(member).set({ role: change.role }).where(isMember(access, account));
    await noteDeed(db, access, 'people', `made ${held.name} ${change.role ? aRole(change.role) : 'a guest'}`);
    return true;
  });
}

/** Ends that somebody belongs to a workspace. What they did stays. */
export async function removeMember(store: Store, access: Access, account: string): Promise<boolean> {
  mayOwn(access);
  return inTransaction(store, async (db) => {
    const held = await holdMember(db, access, account);
    if (!held) return false;
    await keepAnOwner(db, access, account);
    // Only of this workspace: they may be a guest elsewhere.
    const here = db.select({ id: plan.id }).from(plan).where(eq(plan.workspaceId, access.workspace));
    await db.delete(planRole).where(and(eq(planRole.personId, account), inArray(planRole.planId, here)));
    const said = db.select({ id: comment.id }).from(comment).where(inArray(comment.planId, here));
    await db.delete(notice).where(and(eq(notice.account, account), inArray(notice.commentId, said)));
    await db.delete(member).where(isMember(access, account));
    await db.delete(signIn).where(eq(signIn.userId, account));
    await noteDeed(db, access, 'people', `removed ${held.name}`);
    return true;
  });
}

export const aRole = (role: Role): string => (/^[aeo]/.test(role) ? `an ${role}` : `a ${role}`);

const isMember = (access: Pick<Access, 'workspace'>, account: string) =>
  and(eq(member.workspaceId, access.workspace), eq(member.personId, account));

export async function holdMember(
  db: Database,
  access: Pick<Access, 'workspace'>,
  account: string,
): Promise<{ name: string } | null> {
  // All members are held, so that two owners cannot end each other at once.
  await db.select({ id: member.personId }).from(member).where(eq(member.workspaceId, access.workspace)).for('update');
  const [row] = await db
    .select({ name: person.name })
    .from(member)
    .innerJoin(person, eq(person.id, member.personId))
    .where(isMember(access, account));
  return row ?? null;
}

/** @throws AccessRefused where nobody else is an owner */
export async function keepAnOwner(db: Database, access: Pick<Access, 'workspace'>, account: string): Promise<void> {
  const owners = await db
    .select({ account: member.personId })
    .from(member)
    .where(and(eq(member.workspaceId, access.workspace), eq(member.role, 'owner')));
  if (owners.every((o) => o.account === account) && owners.length > 0)
    throw new AccessRefused('A workspace needs an owner. Make somebody else one first.');
}
