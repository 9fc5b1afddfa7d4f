import { readJob, readJobFile } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Written = z.object({ file: z.string(), type: z.string() });

/** The file that a job has written. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const access = await accessOf();
    const id = readId((await params).id, 'job');
    const job = await readJob(store(), access, id);
    const written = Written.safeParse(job?.result);
    const bytes = written.success ? await readJobFile(store(), access, id) : null;
    if (!written.success || !bytes) throw notFound('file');
    return new Response(bytes as BodyInit, {
      headers: {
        'Content-Type': written.data.type,
        'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(written.data.file)}`,
        'Cache-Control': 'no-store',
      },
    });
  });
