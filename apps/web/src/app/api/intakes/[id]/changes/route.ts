import { askFor, readPreview } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Has it found out what the intake would change in the plan that it is to refresh. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const access = await accessOf({ intake: (await params).id });
    const intake = readId((await params).id, 'intake');
    if (!(await readPreview(store(), access, intake))?.targetPlan) throw notFound('intake');
    return { job: await askFor(store(), access, { kind: 'compareIntake', intake }) };
  });
