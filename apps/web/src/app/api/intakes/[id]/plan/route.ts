import { askFor, PlanWish, readPreview } from '@clembo/store';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Has the plan of an intake made. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const wish = await readBody(request, PlanWish);
    const access = await accessOf({ intake: (await params).id });
    const intake = readId((await params).id, 'intake');
    if (!(await readPreview(store(), access, intake))) throw notFound('intake');
    return { job: await askFor(store(), access, { kind: 'makePlan', intake, wish }) };
  });
