import { Folio } from '@clembo/scene';
import { changeFolio, deleteFolio, readFolio, restoreFolio } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const folio = await readFolio(store(), await accessOf(), readId((await params).id, 'folio'));
    if (!folio) throw notFound('folio');
    return folio;
  });

const Change = z.object({ version: z.int().min(1), folio: Folio });

/** Puts a folio in the place of the one that was read at a version. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const { version, folio } = await readBody(request, Change);
    const id = readId((await params).id, 'folio');
    const next = await changeFolio(store(), await accessOf(), id, version, folio.name, folio);
    if (next === null) throw notFound('folio');
    return { version: next };
  });

export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    if (!(await deleteFolio(store(), await accessOf(), readId((await params).id, 'folio')))) throw notFound('folio');
  });

/** Brings a folio back that was put away. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    if (!(await restoreFolio(store(), await accessOf(), readId((await params).id, 'folio')))) throw notFound('folio');
  });
