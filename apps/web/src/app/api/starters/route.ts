import { askFor, readPlanHead } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Kept = z.object({
  plan: z.uuid(),
  name: z.string().trim().min(1).max(200),
  note: z.string().trim().max(1000).default(''),
});

/** Keeps a plan as a starter for others. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const wish = await readBody(request, Kept);
    const access = await accessOf();
    if (!(await readPlanHead(store(), access, wish.plan))) throw notFound('plan');
    return { job: await askFor(store(), access, { kind: 'keepStarter', ...wish }) };
  });
