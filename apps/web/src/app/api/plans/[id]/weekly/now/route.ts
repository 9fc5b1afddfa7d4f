import { askWeekly, readWeekly } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Does now what a plan does every week; a job does it. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const access = await accessOf({ plan: (await params).id });
    const id = readId((await params).id, 'plan');
    if (!(await readWeekly(store(), access, id))) throw notFound('weekly run');
    return { job: await askWeekly(store(), access, id) };
  });
