import { readElements } from '@clembo/store';
import { NextResponse } from 'next/server';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';
import { UNCHANGING } from '@/server/unchanging';

/** The elements of a model. A model never changes: a newer one is another. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const elements = await readElements(
      store(),
      await accessOf({ model: (await params).id }),
      readId((await params).id, 'model'),
    );
    if (!elements) throw notFound('model');
    return NextResponse.json({ elements }, { headers: UNCHANGING });
  });
