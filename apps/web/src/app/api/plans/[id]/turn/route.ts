import { readPlanHead, readTurns, turnChange, turnTo } from '@clembo/store';
import { z } from 'zod';
import { answer, BadRequest, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { keptOf } from '@/server/kept';
import { store } from '@/server/store';

/** One step back or forth, or to a point of the history: behind the change of this number, 0 before all of them. */
const Asked = z.object({
  version: z.int().min(1),
  /** Chosen by who asks: sent again it is answered again, and not done again. */
  request: z.uuid().optional(),
});
const Turn = z.union([Asked.extend({ undo: z.boolean() }), Asked.extend({ to: z.int().min(0) })]);

/** What can be taken back and done again. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () =>
    readTurns(store(), await accessOf({ plan: (await params).id }), readId((await params).id, 'plan')),
  );

/** Takes changes of a plan back, or does some again that were taken back. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const asked = await readBody(request, Turn);
    const access = await accessOf({ plan: (await params).id });
    const id = readId((await params).id, 'plan');
    const turned =
      'to' in asked
        ? await turnTo(store(), access, id, asked.version, asked.to, asked.request)
        : await turnChange(store(), access, id, asked.version, asked.undo, asked.request);
    if (!turned && !(await readPlanHead(store(), access, id))) throw notFound('plan');
    if (!turned)
      throw new BadRequest(
        'to' in asked
          ? 'The plan stands there already.'
          : asked.undo
            ? 'There is nothing to take back.'
            : 'There is nothing to do again.',
        409,
      );
    const { inverse: _, ...said } = turned;
    return { ...said, ...(await keptOf(access, id, asked.version)) };
  });
