import { Arrangement } from '@clembo/core';
import { keepArrangement, listArrangements } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

/** How the ledger of a plan can stand. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () =>
    listArrangements(store(), await accessOf({ plan: (await params).id }), readId((await params).id, 'plan')),
  );

const Kept = z.object({ name: z.string().trim().max(200), arrangement: Arrangement.nullable() });

/** Keeps an arrangement under a name (an empty one for how the ledger stands), or lets go of it. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const { name, arrangement } = await readBody(request, Kept);
    const kept = await keepArrangement(
      store(),
      await accessOf({ plan: (await params).id }),
      readId((await params).id, 'plan'),
      name,
      arrangement,
    );
    if (!kept) throw notFound('plan');
  });
