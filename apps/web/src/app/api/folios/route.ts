import { Folio } from '@clembo/scene';
import { createFolio, listFolios } from '@clembo/store';
import { answer, readBody } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** The folios of the workspace, the last changed first. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const folios = await listFolios(store(), await accessOf());
    return {
      folios: folios.map(({ id, name, version, written, updatedAt }) => ({ id, name, version, written, updatedAt })),
    };
  });

export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const folio = await readBody(request, Folio);
    return { id: await createFolio(store(), await accessOf(), folio.name, folio) };
  });
