import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { readGeometry } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';
import { UNCHANGING } from '@/server/unchanging';

/** The bodies of a model, packed, as a gzip file: who asks unpacks it. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const geometry = await readGeometry(
      store(),
      await accessOf({ model: (await params).id }),
      readId((await params).id, 'model'),
    );
    if (!geometry) throw notFound('model');
    const bytes = await promisify(gzip)(geometry, { level: 4 });
    return new Response(bytes as unknown as BodyInit, {
      headers: { ...UNCHANGING, 'Content-Type': 'application/gzip' },
    });
  });
