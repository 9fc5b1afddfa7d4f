import { keepEdition } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Kept = z.object({ name: z.string().trim().min(1).max(300), note: z.string().max(5000).default('') });

/** Keeps the working edition as it stands as an edition of its own. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { name, note } = await readBody(request, Kept);
    const id = await keepEdition(
      store(),
      await accessOf({ plan: (await params).id }),
      readId((await params).id, 'plan'),
      name,
      note,
    );
    if (!id) throw notFound('plan');
    return { id };
  });
