import { Command } from '@clembo/core';
import { changePlan, deletePlan, readPlan } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf, store } from '@/server/store';

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
      await accessOf(),
      readId((await params).id, 'plan'),
      wanted === null ? undefined : readId(wanted, 'edition'),
    );
    if (!stored) throw notFound(wanted === null ? 'plan' : 'edition');
    const editions = stored.editions.map(({ id, name, working }) => ({ id, name, working }));
    const { plan, edition, version, source, rows } = stored;
    return { plan, edition, version, editions, source, rows };
  });

const Change = z.object({ version: z.int().min(1), command: Command });

/** Applies a command to the working edition, if it is still at the version that the command was made on. */
export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(async () => {
    const { version, command } = await readBody(request, Change);
    const changed = await changePlan(store(), await accessOf(), readId((await params).id, 'plan'), version, command);
    if (!changed) throw notFound('plan');
    return changed;
  });

export const DELETE = (_: Request, { params }: Context): Promise<Response> =>
  answer(async () => {
    if (!(await deletePlan(store(), await accessOf(), readId((await params).id, 'plan')))) throw notFound('plan');
  });
