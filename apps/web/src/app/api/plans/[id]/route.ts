import { deletePlan, readPlan, renamePlan } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { currentWorkspace, store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

/** The working edition of a plan, for the worker that schedules and composes it in the browser. */
export const GET = (_: Request, { params }: Context): Promise<Response> =>
  answer(async () => {
    const stored = await readPlan(store(), await currentWorkspace(), readId((await params).id, 'plan'));
    if (!stored) throw notFound('plan');
    return { plan: stored.plan, edition: stored.edition, version: stored.version };
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
