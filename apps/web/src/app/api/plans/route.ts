import { findPlans } from '@clembo/store';
import { z } from 'zod';
import { answer } from '@/server/answer';
import { accessOf, store } from '@/server/store';
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
