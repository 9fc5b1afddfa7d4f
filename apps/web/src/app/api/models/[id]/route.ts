import { deleteModel, takeModel } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

/** Lets a newer model take the place of the one that it replaces. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    await takeModel(store(), await accessOf({ model: (await params).id }), readId((await params).id, 'model'));
  });

export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    if (!(await deleteModel(store(), await accessOf({ model: (await params).id }), readId((await params).id, 'model'))))
      throw notFound('model');
  });
