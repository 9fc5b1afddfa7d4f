import { dropInvitation } from '@clembo/store';
import { accessOf } from '@/server/access';
import { answer, notFound, readId } from '@/server/answer';
import { store } from '@/server/store';

/** Takes an invitation back. */
export const DELETE = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    if (!(await dropInvitation(store(), await accessOf(), readId((await params).id, 'invitation'))))
      throw notFound('invitation');
  });
