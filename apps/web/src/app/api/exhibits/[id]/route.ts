import { Brief } from '@clembo/scene';
import { deleteExhibit, updateExhibit } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf, store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };
const Change = z.object({ name: z.string().trim().min(1).max(200).optional(), brief: Brief.optional() });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(async () => {
    const change = await readBody(request, Change);
    if (!(await updateExhibit(store(), await accessOf(), readId((await params).id, 'exhibit'), change)))
      throw notFound('exhibit');
  });

export const DELETE = (_: Request, { params }: Context): Promise<Response> =>
  answer(async () => {
    if (!(await deleteExhibit(store(), await accessOf(), readId((await params).id, 'exhibit'))))
      throw notFound('exhibit');
  });
