import { describeEdition } from '@clembo/store';
import { z } from 'zod';
import { answer, notFound, readBody, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Change = z.object({
  name: z.string().trim().min(1).max(300).optional(),
  note: z.string().max(5000).optional(),
  /** It is what is measured against from now on. */
  baseline: z.literal(true).optional(),
});

/** Changes the name or the note of an edition, or makes it the baseline. */
export const PATCH = (
  request: Request,
  { params }: { params: Promise<{ id: string; edition: string }> },
): Promise<Response> =>
  answer(request, async () => {
    const { name, note, baseline } = await readBody(request, Change);
    const { id, edition } = await params;
    const change = {
      ...(name !== undefined && { name }),
      ...(note !== undefined && { note }),
      ...(baseline && { baseline }),
    };
    if (
      !(await describeEdition(
        store(),
        await accessOf({ plan: (await params).id }),
        readId(id, 'plan'),
        readId(edition, 'edition'),
        change,
      ))
    )
      throw notFound('edition');
  });
