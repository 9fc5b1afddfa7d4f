import { Command } from '@clembo/core';
import { changePlan, deletePlan } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { planAnswer } from '@/server/planBody';
import { accessOf } from '@/server/access';
import { keptOf } from '@/server/kept';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

/**
 * The working edition of a plan, or with `?edition=` another, for the worker that schedules and composes it in the
 * browser; and which editions there are, the latest first. With `?form=columns` activities, links and the rows of
 * sources come apart from the plan, as columns.
 */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const wanted = new URL(request.url).searchParams.get('edition');
    const edition = wanted === null ? undefined : readId(wanted, 'edition');
    return planAnswer(request, await accessOf({ plan: (await params).id }), readId((await params).id, 'plan'), edition);
  });

/** A command may carry many activities. */
const CHANGE_BYTES = 8 * 1_048_576;
const Change = z.object({
  version: z.int().min(1),
  command: Command,
  words: z.string().trim().min(1).max(300).optional(),
  /** Chosen by who asks: sent again it is answered again, and not done again. */
  request: z.uuid().optional(),
});

/** Applies a command to the working edition, if it is still at the version that the command was made on. */
export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const { version, command, ...how } = await readBody(request, Change, CHANGE_BYTES);
    const access = await accessOf({ plan: (await params).id });
    const id = readId((await params).id, 'plan');
    const changed = await changePlan(store(), access, id, version, command, how);
    if (!changed) throw notFound('plan');
    return { version: changed.version, inverse: changed.inverse, ...(await keptOf(access, id, version, how.request)) };
  });

export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    if (!(await deletePlan(store(), await accessOf({ plan: (await params).id }), readId((await params).id, 'plan'))))
      throw notFound('plan');
  });
