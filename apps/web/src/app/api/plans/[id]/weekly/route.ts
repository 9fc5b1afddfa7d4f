import { dropWeekly, foldersBelow, keepWeekly, readFolio, readPlanHead, readWeekly, WeeklySaid } from '@clembo/store';
import { answer, BadRequest, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

interface Context {
  params: Promise<{ id: string }>;
}

/** What a plan does every week, how that went, and the folders that it may use. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const access = await accessOf({ plan: (await params).id });
    const id = readId((await params).id, 'plan');
    if (!(await readPlanHead(store(), access, id))) throw notFound('plan');
    return {
      weekly: await readWeekly(store(), access, id),
      hasFolders: Boolean(process.env.CLEMBO_FOLDERS),
      folders: await foldersBelow(process.env.CLEMBO_FOLDERS).list(),
    };
  });

/** Says what a plan does every week. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const said = await readBody(request, WeeklySaid);
    const access = await accessOf({ plan: (await params).id });
    const id = readId((await params).id, 'plan');
    if (said.folio !== null && !(await readFolio(store(), access, said.folio)))
      throw new BadRequest('The folio that is to be written is not there any more. Choose another.');
    if (!(await keepWeekly(store(), access, id, said, new Date()))) throw notFound('plan');
    return { weekly: await readWeekly(store(), access, id) };
  });

export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    if (!(await dropWeekly(store(), await accessOf({ plan: (await params).id }), readId((await params).id, 'plan'))))
      throw notFound('weekly run');
  });
