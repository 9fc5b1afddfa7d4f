import { addCommentFile } from '@clembo/store';
import { accessOf } from '@/server/access';
import { answer, BadRequest, notFound, readId } from '@/server/answer';
import { typeOfAttached } from '@/server/attached';
import { store } from '@/server/store';
import { readUpload } from '@/server/upload';

/** A file beside a comment is at most so large. */
const MOST = 10 * 1_048_576;

/** Puts files beside a comment. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const id = readId((await params).id, 'comment');
    const access = await accessOf({ comment: id });
    const type = request.headers.get('content-type') ?? '';
    if (!type.startsWith('multipart/form-data')) throw new BadRequest('Send files as a form.', 415);
    const { files } = await readUpload(request, type, MOST);
    const typed = [];
    for (const f of files) typed.push({ ...f, type: await typeOfAttached(f.name, f.content) });
    for (const f of typed) if ((await addCommentFile(store(), access, id, f)) === null) throw notFound('comment');
  });
