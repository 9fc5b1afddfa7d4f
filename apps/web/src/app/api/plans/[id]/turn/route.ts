import { readTurns, turnChange } from '@clembo/store';
import { z } from 'zod';
import { answer, BadRequest, readBody, readId } from '@/server/answer';
import { accessOf, store } from '@/server/store';

const Turn = z.object({ version: z.int().min(1), undo: z.boolean() });

/** What can be taken back and done again. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => readTurns(store(), await accessOf(), readId((await params).id, 'plan')));

/** Takes the last change of a plan back, or does the last one again that was taken back. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { version, undo } = await readBody(request, Turn);
    const access = await accessOf();
    const id = readId((await params).id, 'plan');
    const turned = await turnChange(store(), access, id, version, undo);
    if (!turned) throw new BadRequest(undo ? 'There is nothing to take back.' : 'There is nothing to do again.', 409);
    return { ...turned, turns: await readTurns(store(), access, id) };
  });
