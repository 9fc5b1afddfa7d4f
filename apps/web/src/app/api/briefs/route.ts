import { Brief } from '@clembo/scene';
import { keepBrief, listKeptBriefs } from '@clembo/store';
import { z } from 'zod';
import { answer, readBody } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** The briefs that are kept for other plans. What an older Clembo kept and this one cannot read is left out. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () =>
    (await listKeptBriefs(store(), await accessOf())).flatMap(({ id, name, brief, fields }) => {
      const read = Brief.safeParse(brief);
      return read.success ? [{ id, name, brief: read.data, fields }] : [];
    }),
  );

const Kept = z.object({
  name: z.string().trim().min(1).max(200),
  brief: Brief,
  fields: z.record(z.string().max(100), z.string().max(300)).default({}),
});

/** Keeps a brief under a name, in the place of the one that had it. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    await keepBrief(store(), await accessOf(), await readBody(request, Kept));
  });
