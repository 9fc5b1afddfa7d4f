import { IntakeChange } from '@clembo/formats';
import { askFor, deleteIntake, readPreview } from '@clembo/store';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

type Context = { params: Promise<{ id: string }> };
/** Maps with many mends are long. */
const MOST = 8 * 1_048_576;

/** What would come of an intake: `preview` is null while it is being read. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const read = await readPreview(
      store(),
      await accessOf({ intake: (await params).id }),
      readId((await params).id, 'intake'),
    );
    if (!read) throw notFound('intake');
    return read;
  });

/** Has the intake read otherwise: other tables of it, or by another column map. */
export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const change = await readBody(request, IntakeChange, MOST);
    const access = await accessOf({ intake: (await params).id });
    const intake = readId((await params).id, 'intake');
    if (!(await readPreview(store(), access, intake))) throw notFound('intake');
    return { job: await askFor(store(), access, { kind: 'correctIntake', intake, change }) };
  });

export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    if (
      !(await deleteIntake(store(), await accessOf({ intake: (await params).id }), readId((await params).id, 'intake')))
    )
      throw notFound('intake');
  });
