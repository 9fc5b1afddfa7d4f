import { Anchor } from '@clembo/scene';
import { listComments, MOST_TEXT, namesOf, sayComment } from '@clembo/store';
import { z } from 'zod';
import { accessOf } from '@/server/access';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

/** What was said about a plan, and who can be named. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const id = readId((await params).id, 'plan');
    const access = await accessOf({ plan: id });
    const comments = await listComments(store(), access, id);
    if (!comments) throw notFound('plan');
    const maySay = access.role !== 'viewer';
    // Who only looks, and guests, are not told who else there is.
    const people = maySay && !access.guest && access.account ? await namesOf(store(), access) : [];
    return { comments, people, me: access.account ?? null, maySay, isOwner: access.role === 'owner' };
  });

const Said = z.object({
  text: z.string().trim().min(1, 'There is nothing said yet.').max(MOST_TEXT),
  ref: z.string().min(1).max(200).nullable().default(null),
  exhibitId: z.uuid().nullable().default(null),
  /** A place of the exhibit. */
  place: Anchor.nullable().default(null),
  answers: z.uuid().nullable().default(null),
  named: z.array(z.string().max(100)).max(50).default([]),
});

/** Says something beside an activity, an exhibit or the plan. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const said = await readBody(request, Said);
    const id = readId((await params).id, 'plan');
    const made = await sayComment(store(), await accessOf({ plan: id }), id, said);
    if (made === null) throw notFound('plan');
    return { id: made };
  });
