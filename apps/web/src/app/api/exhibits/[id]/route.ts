import { Brief } from '@clembo/scene';
import { changeExhibit, deleteExhibit, readExhibit } from '@clembo/store';
import { z } from 'zod';
import { answer, BadRequest, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };
/** Parts of the brief that are to become something else; the others stay as they are. */
const Change = z.object({
  name: z.string().trim().min(1).max(200).optional(),
  brief: z.record(z.string().max(50), z.unknown()).optional(),
});

/** The version that the change was made on, from `If-Match: "7"`. */
function versionOf(request: Request): number {
  const m = /^"(\d{1,9})"$/.exec(request.headers.get('if-match') ?? '');
  if (!m) throw new BadRequest('The request does not say on which version it was made (If-Match).', 428);
  return Number(m[1]);
}

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const found = await readExhibit(
      store(),
      await accessOf({ exhibit: (await params).id }),
      readId((await params).id, 'exhibit'),
    );
    if (!found) throw notFound('exhibit');
    const { id, planId, name, brief, version } = found;
    return { id, planId, name, brief, version };
  });

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const change = await readBody(request, Change);
    const id = readId((await params).id, 'exhibit');
    const changed = await changeExhibit(
      store(),
      await accessOf({ exhibit: (await params).id }),
      id,
      versionOf(request),
      change,
      (brief) => Brief.parse(brief),
    );
    if (!changed) throw notFound('exhibit');
    return changed;
  });

export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    if (
      !(await deleteExhibit(
        store(),
        await accessOf({ exhibit: (await params).id }),
        readId((await params).id, 'exhibit'),
      ))
    )
      throw notFound('exhibit');
  });
