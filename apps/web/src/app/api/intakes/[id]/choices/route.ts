import { Choices, keepChoices } from '@clembo/store';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Ids of changes can be many. */
const MOST = 8 * 1_048_576;

/** Keeps what a person decided of the changes that a refresh would make. */
export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const choices = await readBody(request, Choices, MOST);
    if (
      !(await keepChoices(
        store(),
        await accessOf({ intake: (await params).id }),
        readId((await params).id, 'intake'),
        choices,
      ))
    )
      throw notFound('intake');
  });
