import { deletePlan, readPlan, renamePlan } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { currentWorkspace, store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

/**
 * The working edition of a plan, or with `?edition=` another, for the worker that schedules and composes it in the
 * browser; and which editions there are, the latest first.
 */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(async () => {
    const wanted = new URL(request.url).searchParams.get('edition');
    const stored = await readPlan(
      store(),
      await currentWorkspace(),
      readId((await params).id, 'plan'),
      wanted === null ? undefined : readId(wanted, 'edition'),
    );
    if (!stored) throw notFound(wanted === null ? 'plan' : 'edition');
    const editions = stored.editions.map(({ id, name, working }) => ({ id, name, working }));
    return { plan: stored.plan, edition: stored.edition, version: stored.version, editions };
  });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(async () => {
    const { name } = await readBody(request, z.object({ name: z.string().trim().min(1).max(300) }));
    if (!(await renamePlan(store(), await currentWorkspace(), readId((await params).id, 'plan'), name)))
      throw notFound('plan');
  });

export const DELETE = (_: Request, { params }: Context): Promise<Response> =>
  answer(async () => {
    if (!(await deletePlan(store(), await currentWorkspace(), readId((await params).id, 'plan'))))
      throw notFound('plan');
  });
