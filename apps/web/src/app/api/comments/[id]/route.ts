import { changeComment, dropComment, endComment, MOST_TEXT } from '@clembo/store';
import { z } from 'zod';
import { accessOf } from '@/server/access';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

const Change = z.union([
  z.object({ done: z.boolean() }).strict(),
  z.object({ text: z.string().trim().min(1).max(MOST_TEXT) }).strict(),
]);

/** Says that it is done, or open again; or says it otherwise. */
export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const change = await readBody(request, Change);
    const id = readId((await params).id, 'comment');
    const access = await accessOf({ comment: id });
    const changed =
      'done' in change
        ? await endComment(store(), access, id, change.done)
        : await changeComment(store(), access, id, change.text);
    if (!changed) throw notFound('comment');
  });

/** Takes it away, with its answers and files. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const id = readId((await params).id, 'comment');
    if (!(await dropComment(store(), await accessOf({ comment: id }), id))) throw notFound('comment');
  });
