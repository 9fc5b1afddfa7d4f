import { workOnEdition } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Makes an edition the working one again; what was worked on is kept as an edition of the name that is given. */
export const POST = (
  request: Request,
  { params }: { params: Promise<{ id: string; edition: string }> },
): Promise<Response> =>
  answer(request, async () => {
    const { keepAs } = await readBody(request, z.object({ keepAs: z.string().trim().min(1).max(300) }));
    const { id, edition } = await params;
    const done = await workOnEdition(
      store(),
      await accessOf({ plan: (await params).id }),
      readId(id, 'plan'),
      readId(edition, 'edition'),
      keepAs,
    );
    if (!done) throw notFound('edition');
    return done;
  });
