import { readCommentFile } from '@clembo/store';
import { accessOf } from '@/server/access';
import { answer, notFound, readId } from '@/server/answer';
import { store } from '@/server/store';

/** A file beside a comment, to be kept: nothing of it runs or is shown here. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string; no: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { id: said, no } = await params;
    const id = readId(said, 'comment');
    if (!/^\d{1,2}$/.test(no)) throw notFound('file');
    const file = await readCommentFile(store(), await accessOf({ comment: id }), id, Number(no));
    if (!file) throw notFound('file');
    return new Response(file.content as BodyInit, {
      headers: {
        'Content-Type': file.type,
        'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
        'Cache-Control': 'private, no-store',
      },
    });
  });
