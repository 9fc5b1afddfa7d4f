import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { and, type Column, desc, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import { type Access, AccessRefused, commonOf, mayAdd, mayWrite } from './access';
import { inTransaction, type Store } from './database';
import { noteDeed } from './deeds';
import { ownExhibit, ownPlans } from './own';
import { comment, edition, exhibit, folio, plan, sharedPage, workspace } from './schema';

/** How a shared page is laid out: below each other, to be presented; or side by side, as on a wall. */
export const LAYS = ['pages', 'wall'] as const;
export type Lay = (typeof LAYS)[number];

/** What a person wants of a page that is shared. */
export interface SharedWish {
  what: { exhibit: string } | { folio: string };
  lay: Lay;
  /** Null: it follows its plans. Otherwise it stays as it is now, or as an edition was. */
  frozen: { edition: string | null } | null;
  expiresAt: Date | null;
  password: string | null;
  /** Whether what is open among the comments on it is shown below it. */
  comments: boolean;
  origins: string[];
}

export interface SharedSummary {
  id: string;
  name: string;
  of: 'exhibit' | 'folio';
  lay: Lay;
  frozen: boolean;
  edition: string | null;
  hasPassword: boolean;
  comments: boolean;
  origins: string[];
  expiresAt: Date | null;
  madeBy: string | null;
  opened: number;
  openedAt: Date | null;
  createdAt: Date;
}

const derive = promisify(scrypt) as (password: string, salt: Buffer, length: number) => Promise<Buffer>;

async function digestPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  return `${salt.toString('base64url')}:${(await derive(password, salt, 32)).toString('base64url')}`;
}

/** Whether this is the password that was kept as a digest. */
export async function isPassword(password: string, kept: string): Promise<boolean> {
  const [salt, digest] = kept.split(':').map((part) => Buffer.from(part, 'base64url'));
  return timingSafeEqual(await derive(password, salt!, 32), digest!);
}

/**
 * Shares a page of a plan, or a folio; gives its id, of which its address is made. What may be done with the plan is
 * what the access says: an exhibit of another plan is none of it.
 */
export async function sharePage(store: Store, access: Access, planId: string, wish: SharedWish): Promise<string> {
  const password = wish.password === null ? null : await digestPassword(wish.password);
  return inTransaction(store, async (db) => {
    const { what, lay, frozen, expiresAt, origins } = wish;
    // A wall is looked at from afar, and shows none.
    const comments = wish.comments && lay !== 'wall';
    let target: { name: string; planId: string | null };
    if ('exhibit' in what) {
      mayWrite(access);
      const [row] = await db
        .select({ name: exhibit.name, planId: exhibit.planId })
        .from(exhibit)
        .innerJoin(plan, eq(plan.id, exhibit.planId))
        .where(and(ownExhibit(access, what.exhibit), eq(exhibit.planId, planId)));
      if (!row) throw new AccessRefused('There is no such exhibit (any more).');
      target = row;
    } else {
      mayAdd(access);
      const [row] = await db
        .select({ name: folio.name })
        .from(folio)
        .where(and(eq(folio.id, what.folio), eq(folio.workspaceId, commonOf(access)), isNull(folio.deletedAt)));
      if (!row) throw new AccessRefused('There is no such folio (any more).');
      target = { ...row, planId: null };
    }
    const editionId = frozen?.edition ?? null;
    if (editionId) {
      const [own] = await db
        .select({ id: edition.id })
        .from(edition)
        .where(and(eq(edition.id, editionId), eq(edition.planId, target.planId ?? access.workspace)));
      if (!own) throw new AccessRefused('The plan has no such edition (any more).');
    }
    const [made] = await db
      .insert(sharedPage)
      .values({
        workspaceId: access.workspace,
        planId: target.planId,
        exhibitId: 'exhibit' in what ? what.exhibit : null,
        folioId: 'folio' in what ? what.folio : null,
        lay,
        frozen: frozen !== null,
        editionId,
        password,
        comments,
        origins,
        expiresAt,
        madeBy: access.person,
      })
      .returning({ id: sharedPage.id });
    await noteDeed(
      db,
      access,
      'share',
      `shared “${target.name}”${frozen ? ' as it stands' : ''}${comments ? ' with its comments' : ''}`,
      target.planId,
    );
    return made!.id;
  });
}

const mine = (store: Store, access: Access) =>
  and(
    eq(sharedPage.workspaceId, access.workspace),
    isNull(sharedPage.revokedAt),
    or(
      inArray(sharedPage.planId, store.db.select({ id: plan.id }).from(plan).where(ownPlans(access))),
      access.guest ? sql`false` : isNull(sharedPage.planId),
    ),
  );

/** What is shared of a plan and of the folios, the latest first. */
export async function listShared(store: Store, access: Access, planId: string): Promise<SharedSummary[]> {
  const rows = await store.db
    .select({
      id: sharedPage.id,
      exhibit: exhibit.name,
      folio: folio.name,
      lay: sharedPage.lay,
      frozen: sharedPage.frozen,
      edition: edition.name,
      password: sharedPage.password,
      comments: sharedPage.comments,
      origins: sharedPage.origins,
      expiresAt: sharedPage.expiresAt,
      madeBy: sharedPage.madeBy,
      opened: sharedPage.opened,
      openedAt: sharedPage.openedAt,
      createdAt: sharedPage.createdAt,
    })
    .from(sharedPage)
    .leftJoin(exhibit, eq(exhibit.id, sharedPage.exhibitId))
    .leftJoin(folio, eq(folio.id, sharedPage.folioId))
    .leftJoin(edition, eq(edition.id, sharedPage.editionId))
    .where(and(mine(store, access), or(isNull(sharedPage.planId), eq(sharedPage.planId, planId))))
    .orderBy(desc(sharedPage.createdAt));
  return rows.map(({ exhibit: page, folio: bound, password, lay, ...row }) => ({
    ...row,
    name: page ?? bound ?? '',
    of: page === null ? 'folio' : 'exhibit',
    lay: lay as Lay,
    hasPassword: password !== null,
  }));
}

/** Ends at once that a page is shown; false when there is none by that id. */
export async function revokeShared(store: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [gone] = await db
      .update(sharedPage)
      .set({ revokedAt: new Date(), content: null })
      .where(and(eq(sharedPage.id, id), mine(store, access)))
      .returning({ planId: sharedPage.planId });
    if (gone) await noteDeed(db, access, 'share', 'ended a shared page', gone.planId);
    return gone !== undefined;
  });
}

/** A shared page as whoever opens its address needs it. */
export interface OpenedShared {
  id: string;
  workspace: string;
  planId: string | null;
  exhibitId: string | null;
  folioId: string | null;
  lay: Lay;
  frozen: boolean;
  editionId: string | null;
  password: string | null;
  comments: boolean;
  origins: string[];
  /** The mark of the page as it was composed last; null where it was not yet. */
  mark: string | null;
}

/** A page that is shared still; null once it is revoked, has expired, or what it shows is put away. */
export async function openShared({ db }: Store, id: string, now: Date): Promise<OpenedShared | null> {
  const [row] = await db
    .select({
      id: sharedPage.id,
      workspace: sharedPage.workspaceId,
      planId: sharedPage.planId,
      exhibitId: sharedPage.exhibitId,
      folioId: sharedPage.folioId,
      lay: sharedPage.lay,
      frozen: sharedPage.frozen,
      editionId: sharedPage.editionId,
      password: sharedPage.password,
      comments: sharedPage.comments,
      origins: sharedPage.origins,
      mark: sharedPage.mark,
      expiresAt: sharedPage.expiresAt,
      gone: sql<boolean>`${plan.deletedAt} is not null or ${exhibit.deletedAt} is not null or ${folio.deletedAt} is not null`,
    })
    .from(sharedPage)
    .leftJoin(plan, eq(plan.id, sharedPage.planId))
    .leftJoin(exhibit, eq(exhibit.id, sharedPage.exhibitId))
    .leftJoin(folio, eq(folio.id, sharedPage.folioId))
    .where(and(eq(sharedPage.id, id), isNull(sharedPage.revokedAt)));
  if (!row) return null;
  const { expiresAt, gone, lay, ...own } = row;
  return gone || (expiresAt !== null && expiresAt <= now) ? null : { ...own, lay: lay as Lay };
}

/** What a shared page may read: what it shows, and of a single exhibit no other plan. */
export const accessOfShared = ({ workspace, planId }: OpenedShared): Access => ({
  workspace,
  person: null,
  role: 'viewer',
  ...(planId !== null && { only: [planId] }),
});

/**
 * A mark of the state of all that a shared page is composed of. It is the same as long as the page is; what stays as it
 * is has one mark for ever.
 */
export async function markOfShared({ db }: Store, shared: OpenedShared): Promise<string> {
  if (shared.frozen) return 'stays';
  const state = sql<string>`string_agg(${exhibit.id} || ':' || ${exhibit.version} || ':' || ${edition.version} || ':' ||
    (extract(epoch from ${plan.updatedAt}) * 1000)::bigint || ':' || (${exhibit.deletedAt} is null), ',' order by ${exhibit.id})`;
  const isOn = (id: Column) =>
    shared.exhibitId
      ? eq(id, shared.exhibitId)
      : sql`${id}::text in (select page->>'exhibit' from folio f, jsonb_array_elements(f.content->'pages') page
          where f.id = ${shared.folioId})`;
  const said = sql<string>`count(*) || ':' || max(greatest(${comment.createdAt}, ${comment.changedAt}, ${comment.doneAt})) ||
    ':' || count(${comment.doneAt})`;
  const [[row], [home], [bound], [spoken]] = await Promise.all([
    db
      .select({ state })
      .from(exhibit)
      .innerJoin(plan, and(eq(plan.id, exhibit.planId), eq(plan.workspaceId, shared.workspace)))
      .innerJoin(edition, and(eq(edition.planId, plan.id), eq(edition.working, true)))
      .where(and(isOn(exhibit.id), isNull(plan.deletedAt))),
    db.select({ locale: workspace.locale }).from(workspace).where(eq(workspace.id, shared.workspace)),
    shared.folioId
      ? db.select({ version: folio.version }).from(folio).where(eq(folio.id, shared.folioId))
      : Promise.resolve([]),
    shared.comments ? db.select({ said }).from(comment).where(isOn(comment.exhibitId)) : Promise.resolve([]),
  ]);
  return `${row?.state ?? ''};${home?.locale};${bound?.version ?? ''};${spoken?.said ?? ''}`;
}

/** Keeps a shared page as it was composed. */
export async function keepShared({ db }: Store, id: string, mark: string, content: Uint8Array): Promise<void> {
  await db
    .update(sharedPage)
    .set({ content, mark })
    .where(and(eq(sharedPage.id, id), isNull(sharedPage.revokedAt)));
}

/** A shared page as it was composed last, and that somebody has opened it. */
export async function readShared({ db }: Store, id: string): Promise<Uint8Array | null> {
  const [row] = await db
    .update(sharedPage)
    .set({ opened: sql`${sharedPage.opened} + 1`, openedAt: new Date() })
    .where(and(eq(sharedPage.id, id), isNull(sharedPage.revokedAt)))
    .returning({ content: sharedPage.content });
  return row?.content ?? null;
}
