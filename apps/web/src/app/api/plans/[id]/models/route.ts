import { modelKey } from '@clembo/formats';
import { listModels, putModel } from '@clembo/store';
import { answer, BadRequest, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';
import { readUpload } from '@/server/upload';

type Context = { params: Promise<{ id: string }> };

/** The most that a file of a model may have, in bytes. */
const MOST = 100 * 1_048_576;

/** The models of a plan, in the order in which they came. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const models = await listModels(
      store(),
      await accessOf({ plan: (await params).id }),
      readId((await params).id, 'plan'),
    );
    if (!models) throw notFound('plan');
    return { models };
  });

/** Takes in a model (a form with one `file`): a job reads it. With `replaces` it is a newer state of that model. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  answer(request, async () => {
    const planId = readId((await params).id, 'plan');
    const access = await accessOf({ plan: planId });
    const { files, form } = await readUpload(request, request.headers.get('content-type') ?? '', MOST);
    if (files.length > 1) throw new BadRequest('Take in one model at a time.');
    const { name, content } = files[0]!;
    const replaces = form.get('replaces');
    return putModel(
      store(),
      access,
      planId,
      { file: name, key: modelKey(name), content },
      typeof replaces === 'string' && replaces !== '' ? readId(replaces, 'model') : null,
    );
  });
