import { dropStarter } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Lets go of a kept starter. */
export const DELETE = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    if (!(await dropStarter(store(), await accessOf(), readId((await params).id, 'starter'))))
      throw notFound('starter');
  });
