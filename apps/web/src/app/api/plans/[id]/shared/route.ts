import { LAYS, listEditions, listShared, revokeShared, sharePage } from '@clembo/store';
import { z } from 'zod';
import { accessOf } from '@/server/access';
import { answer, BadRequest, notFound, readBody, readId } from '@/server/answer';
import { freezeShared } from '@/server/shared';
import { addressOfShared } from '@/server/sharedAddress';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

/** What is shared of a plan, and of the folios, with its addresses. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const id = readId((await params).id, 'plan');
    const access = await accessOf({ plan: id });
    const editions = await listEditions(store(), access, id);
    if (!editions) throw notFound('plan');
    const mayShare = access.role === 'owner' || access.role === 'editor';
    const shared = await listShared(store(), access, id);
    return {
      mayShare,
      // Whoever may only look is not handed the addresses.
      shared: shared.map((s) => ({ ...s, address: mayShare ? addressOfShared(s.id) : null })),
      editions: editions.filter((e) => !e.working).map((e) => ({ id: e.id, name: e.name })),
    };
  });

const Origin = z
  .string()
  .max(300)
  .regex(/^https?:\/\/[a-z0-9.-]+(:\d{1,5})?$/i, 'A site is written as https://name, without a path.');

const Wish = z.object({
  what: z.union([z.object({ exhibit: z.uuid() }).strict(), z.object({ folio: z.uuid() }).strict()]),
  lay: z.enum(LAYS),
  frozen: z.object({ edition: z.uuid().nullable() }).nullable(),
  /** The last day on which it is shown, as YYYY-MM-DD; null for no end. */
  until: z.iso.date().nullable(),
  comments: z.boolean().default(false),
  password: z.string().min(6, 'A password has at least 6 characters.').max(200).nullable(),
  origins: z.array(Origin).max(20),
});

/** Shares a page of the plan, or a folio. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const { until, ...wish } = await readBody(request, Wish);
    const expiresAt = until === null ? null : new Date(Date.parse(`${until}T00:00:00Z`) + 86_400_000);
    if (expiresAt && expiresAt <= new Date()) throw new BadRequest('The last day is over already.');
    if ('folio' in wish.what && wish.frozen?.edition)
      throw new BadRequest('A folio can be frozen as it stands, not as an edition was.');
    const planId = readId((await params).id, 'plan');
    const access = await accessOf({ plan: planId });
    const id = await sharePage(store(), access, planId, { ...wish, expiresAt });
    const trouble = wish.frozen ? await freezeShared(id) : null;
    if (trouble !== null) {
      await revokeShared(store(), access, id);
      throw new BadRequest(`${trouble} Nothing is shared.`, 503);
    }
    return { id, address: addressOfShared(id) };
  });
