import { z } from 'zod';
import { answer, readBody, readId } from '@/server/answer';
import { makePlan } from '@/server/intake';

const Wish = z.object({ name: z.string().trim().min(1).max(300), strict: z.boolean().default(false) });

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(async () => {
    const { name, strict } = await readBody(request, Wish);
    return { planId: await makePlan(readId((await params).id, 'intake'), name, strict) };
  });
