import { cancelJob } from '@clembo/store';
import { z } from 'zod';
import { answer, readId } from '@/server/answer';
import { jobAfter } from '@/server/jobs';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };
const Revision = z.coerce.number().int().min(0).default(0);

/** How a job stands; with `?after=` the answer waits until that revision is passed. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const after = Revision.parse(new URL(request.url).searchParams.get('after') ?? undefined);
    return jobAfter(await accessOf(), readId((await params).id, 'job'), after, request.signal);
  });

/** Cancels a job. What has ended already stays as it is. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => ({
    cancelled: await cancelJob(store(), await accessOf(), readId((await params).id, 'job')),
  }));
