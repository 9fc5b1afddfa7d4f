import { MomentValue } from '@clembo/core';
import { z } from 'zod';
import { answer, readBody, readId } from '@/server/answer';
import { makePlan } from '@/server/intake/makePlan';
import { accessOf } from '@/server/store';

const Wish = z.object({
  name: z.string().trim().min(1).max(300),
  strict: z.boolean().default(false),
  start: MomentValue.nullable().default(null),
});

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(async () => {
    const wish = await readBody(request, Wish);
    return { planId: await makePlan(await accessOf(), readId((await params).id, 'intake'), wish) };
  });
