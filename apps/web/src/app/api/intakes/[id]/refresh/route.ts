import { askFor, readPreview } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Has the plan refreshed by what was not refused, if it is still at the version that was compared with. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { version } = await readBody(request, z.object({ version: z.int().min(1) }));
    const access = await accessOf({ intake: (await params).id });
    const intake = readId((await params).id, 'intake');
    if (!(await readPreview(store(), access, intake))?.targetPlan) throw notFound('intake');
    return { job: await askFor(store(), access, { kind: 'refreshPlan', intake, version }) };
  });
