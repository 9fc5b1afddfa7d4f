import { readPlanHead, tellHere } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Looking = z.object({
  who: z.uuid(),
  ref: z.string().max(200).nullable(),
  gone: z.boolean().default(false),
});

/** Somebody looks at a plan, at one of its activities; others are told, nothing is kept. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const looking = await readBody(request, Looking);
    const access = await accessOf({ plan: (await params).id });
    const id = readId((await params).id, 'plan');
    if (!(await readPlanHead(store(), access, id))) throw notFound('plan');
    await tellHere(store(), id, { ...looking, name: access.person });
  });
