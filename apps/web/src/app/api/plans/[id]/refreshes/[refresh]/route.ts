import { turnRefresh } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Takes a refresh back, or does it again. */
export const POST = (
  request: Request,
  { params }: { params: Promise<{ id: string; refresh: string }> },
): Promise<Response> =>
  answer(request, async () => {
    const { undo } = await readBody(request, z.object({ undo: z.boolean() }));
    const { id, refresh } = await params;
    const done = await turnRefresh(
      store(),
      await accessOf({ plan: (await params).id }),
      readId(id, 'plan'),
      readId(refresh, 'refresh'),
      undo,
    );
    if (!done) throw notFound('refresh');
    return done;
  });
