import { listPlanChanges } from '@clembo/store';
import { z } from 'zod';
import { answer, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

const Asked = z.object({ ref: z.string().min(1).max(200).nullable() });

/** The last changes of a plan, or with `?ref=` those that were about one activity, the latest first. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const { ref } = Asked.parse({ ref: new URL(request.url).searchParams.get('ref') });
    return {
      changes: await listPlanChanges(
        store(),
        await accessOf({ plan: (await params).id }),
        readId((await params).id, 'plan'),
        ref,
      ),
    };
  });
