import { revokeShared } from '@clembo/store';
import { accessOf } from '@/server/access';
import { answer, notFound, readId } from '@/server/answer';
import { store } from '@/server/store';

/** Ends at once that a page is shared. */
export const DELETE = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const id = readId((await params).id, 'shared page');
    if (!(await revokeShared(store(), await accessOf({ shared: id }), id))) throw notFound('shared page');
  });
