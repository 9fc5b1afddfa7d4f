import { askFor, FOLIO_FORMATS, readFolio } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Wanted = z.object({ format: z.enum(FOLIO_FORMATS) });

/** Asks for a folio as a file; a job writes it. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { format } = await readBody(request, Wanted);
    const id = readId((await params).id, 'folio');
    const access = await accessOf();
    if (!(await readFolio(store(), access, id))) throw notFound('folio');
    return { job: await askFor(store(), access, { kind: 'writeFolio', folio: id, format }) };
  });
