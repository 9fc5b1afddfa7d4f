import { CodeField } from '@clembo/core';
import { keepBook, listKeptBooks } from '@clembo/store';
import { z } from 'zod';
import { answer, readBody } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** The code books that are kept for other plans. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () =>
    (await listKeptBooks(store(), await accessOf())).map(({ id, name, field }) => ({ id, name, field })),
  );

const Kept = z.object({ name: z.string().trim().min(1).max(200), field: CodeField });

/** Keeps a code book under a name, in the place of the one that had it. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { name, field } = await readBody(request, Kept, 4 * 1_048_576);
    await keepBook(store(), await accessOf(), name, field);
  });
