import { askFor, listExhibits, MOST_PAGES, PAGE_FORMATS } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Wish = z.object({
  format: z.enum(PAGE_FORMATS),
  /** Which exhibits, in their order in the file. */
  exhibits: z.array(z.uuid()).min(1).max(MOST_PAGES),
});

/** Has exhibits of a plan written as one file. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { format, exhibits } = await readBody(request, Wish);
    const access = await accessOf({ plan: (await params).id });
    const own = new Set((await listExhibits(store(), access, readId((await params).id, 'plan'))).map((e) => e.id));
    if (!exhibits.every((id) => own.has(id))) throw notFound('exhibit');
    return { job: await askFor(store(), access, { kind: 'writePages', exhibits, format }) };
  });
