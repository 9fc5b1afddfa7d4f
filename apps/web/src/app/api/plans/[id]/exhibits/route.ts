import { Brief } from '@clembo/scene';
import { createExhibit, orderExhibits } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const NewExhibit = z.object({ name: z.string().trim().min(1).max(200), brief: Brief });

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { name, brief } = await readBody(request, NewExhibit);
    const id = await createExhibit(
      store(),
      await accessOf({ plan: (await params).id }),
      readId((await params).id, 'plan'),
      name,
      brief,
    );
    if (!id) throw notFound('plan');
    return { id };
  });

const Order = z.object({ order: z.array(z.uuid()).max(1000) });

/** Puts the exhibits of a plan into an order. */
export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { order } = await readBody(request, Order);
    if (
      !(await orderExhibits(
        store(),
        await accessOf({ plan: (await params).id }),
        readId((await params).id, 'plan'),
        order,
      ))
    )
      throw notFound('plan');
  });
