import { askFor, BUNDLE, PLAN_FORMATS, readPlanHead } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Wish = z.object({ format: z.enum([...PLAN_FORMATS, BUNDLE]) });

/** Has the plan written as a file that other programs read. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { format } = await readBody(request, Wish);
    const access = await accessOf({ plan: (await params).id });
    const plan = readId((await params).id, 'plan');
    if (!(await readPlanHead(store(), access, plan))) throw notFound('plan');
    return { job: await askFor(store(), access, { kind: 'writePlan', plan, format }) };
  });
