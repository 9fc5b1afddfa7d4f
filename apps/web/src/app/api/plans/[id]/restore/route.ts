import { restorePlan } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Brings back what was deleted a while ago. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    if (!(await restorePlan(store(), await accessOf({ plan: (await params).id }), readId((await params).id, 'plan'))))
      throw notFound('plan');
  });
