import { FIRST_DAY, FIVE_DAY, LAST_DAY, makePlan, SEVEN_DAY, SIX_DAY } from '@clembo/core';
import { defaultTimelineBrief, House, inCurrency, inHouse } from '@clembo/scene';
import { askFor, createPlan, findPlans, readSettings } from '@clembo/store';
import { z } from 'zod';
import { answer, readBody } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';
import { whenChanged } from '@/server/when';

/** Plans whose name holds the words of `?find=`, the last changed first. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const text = z
      .string()
      .trim()
      .min(1)
      .max(200)
      .parse(new URL(request.url).searchParams.get('find') ?? '');
    const plans = await findPlans(store(), await accessOf(), text, 12);
    return plans.map(({ id, name, updatedAt }) => ({ id, name, changed: whenChanged(updatedAt) }));
  });

const Begin = z.object({
  name: z.string().trim().min(1).max(300),
  /** From a starter of everybody's or of the workspace, with the day on which it begins; null begins with nothing. */
  from: z
    .object({
      starter: z.union([z.object({ own: z.string().max(100) }), z.object({ kept: z.uuid() })]),
      day: z.int().min(FIRST_DAY).max(LAST_DAY),
    })
    .nullable(),
});

/** Begins a plan: an empty one at once, one from a starter by a job. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { name, from } = await readBody(request, Begin);
    const access = await accessOf();
    if (from) return { job: await askFor(store(), access, { kind: 'beginPlan', name, ...from }) };
    const house = House.parse((await readSettings(store(), access)).house);
    const bare = makePlan({ name, calendars: [FIVE_DAY, SIX_DAY, SEVEN_DAY], calendar: FIVE_DAY.id });
    const plan = inCurrency(bare, house);
    const brief = inHouse({ ...defaultTimelineBrief(), rows: 'each', lanes: ['outline'] }, house);
    const planId = await createPlan(store(), access, plan, 'First sketch', [], null, { name: 'Overview', brief });
    return { planId };
  });
