import { Brief } from '@clembo/scene';
import { createExhibit } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf, store } from '@/server/store';

const NewExhibit = z.object({ name: z.string().trim().min(1).max(200), brief: Brief });

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { name, brief } = await readBody(request, NewExhibit);
    const id = await createExhibit(store(), await accessOf(), readId((await params).id, 'plan'), name, brief);
    if (!id) throw notFound('plan');
    return { id };
  });
