import { dropBook } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Lets go of a kept code book. */
export const DELETE = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    if (!(await dropBook(store(), await accessOf(), readId((await params).id, 'code book'))))
      throw notFound('code book');
  });
