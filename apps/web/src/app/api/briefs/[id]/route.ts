import { dropBrief } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Lets go of a kept brief. */
export const DELETE = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    if (!(await dropBrief(store(), await accessOf(), readId((await params).id, 'kept brief'))))
      throw notFound('kept brief');
  });
