import { askFor, PAGE_FORMATS, readExhibit } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Wish = z.object({
  format: z.enum(PAGE_FORMATS),
  /** Which page of several becomes a drawing or a picture; a PDF holds them all. */
  sheet: z.int().min(1).max(99).optional(),
});

/** Has the exhibit written as a file. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { format, sheet } = await readBody(request, Wish);
    const access = await accessOf({ exhibit: (await params).id });
    const exhibit = readId((await params).id, 'exhibit');
    if (!(await readExhibit(store(), access, exhibit))) throw notFound('exhibit');
    return { job: await askFor(store(), access, { kind: 'writePages', exhibits: [exhibit], format, sheet }) };
  });
