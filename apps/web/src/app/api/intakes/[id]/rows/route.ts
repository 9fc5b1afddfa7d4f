import { askFor, readPreview } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Has the rows listed that could be taken; they are the file of the job: lists `rows`, `refs` and `names`. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const access = await accessOf({ intake: (await params).id });
    const intake = readId((await params).id, 'intake');
    if (!(await readPreview(store(), access, intake))?.preview) throw notFound('intake');
    return { job: await askFor(store(), access, { kind: 'listRows', intake }) };
  });
