import { sourceChanges } from '@clembo/core';
import { readPlan } from '@clembo/store';
import { answer, notFound, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** What differs between two editions of a plan, `?from=` and `?to=`, as a changes list. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const query = new URL(request.url).searchParams;
    const access = await accessOf({ plan: (await params).id });
    const plan = readId((await params).id, 'plan');
    const edition = async (which: string) => {
      const found = await readPlan(store(), access, plan, readId(query.get(which) ?? '', 'edition'));
      if (!found) throw notFound('edition');
      return found;
    };
    const [from, to] = [await edition('from'), await edition('to')];
    const { inHours, calendars, calendar, codeFields } = to.plan;
    return {
      from: from.edition,
      to: to.edition,
      changes: sourceChanges(from.plan, to.plan, from.plan),
      plan: { inHours, calendars, calendar, codeFields: codeFields.map(({ id, name }) => ({ id, name })) },
    };
  });
