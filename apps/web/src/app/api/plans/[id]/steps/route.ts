import { readPlanHead, readSteps } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readId } from '@/server/answer';
import { hereMark, othersHere } from '@/server/here';
import { watch } from '@/server/jobs';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** How long an answer is held back while nothing changes, in milliseconds. */
const HELD = 20_000;

const Asked = z.object({
  after: z.coerce.number().int().min(0),
  me: z.string().max(60).default(''),
  /** The mark of who else was here when it was last asked. */
  here: z.string().max(2000).optional(),
  /** Answered at once, also where there is nothing. */
  now: z.string().max(1).optional(),
});

/**
 * What was done to a plan since `?after=` a version, and who else looks at it, as soon as there is anything, or nothing after a while. Without
 * steps where they are not all there any more: the plan is to be opened anew then.
 */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { after, me, here, now } = Asked.parse(Object.fromEntries(new URL(request.url).searchParams));
    const access = await accessOf({ plan: (await params).id });
    const id = readId((await params).id, 'plan');
    const until = Date.now() + (now ? 0 : HELD);
    for (;;) {
      // Listening begins before looking, so that nothing is missed between.
      const changed = watch().changed(id, Math.max(0, until - Date.now()));
      const head = await readPlanHead(store(), access, id);
      if (!head) throw notFound('plan');
      const others = othersHere(id, me);
      const mark = hereMark(others);
      const moved = here !== undefined && here !== mark;
      if (head.version !== after || moved || request.signal.aborted || Date.now() >= until) {
        const steps = (await readSteps(store(), access, id, after)) ?? { version: head.version, steps: null };
        return { ...steps, others, mark };
      }
      await changed;
    }
  });
