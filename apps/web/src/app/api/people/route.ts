import { hasAccounts, listPeople, ownFirst } from '@clembo/store';
import { headers } from 'next/headers';
import { z } from 'zod';
import { accessOf } from '@/server/access';
import { isLoopback } from '@/server/address';
import { answer, BadRequest, readBody } from '@/server/answer';
import { auth } from '@/server/auth';
import { Email, isFirstCode, limitGuesses, Password, PersonName, withCookies } from '@/server/signing';
import { accessOfAnybody, store } from '@/server/store';

/** Who belongs to the workspace. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () => listPeople(store(), await accessOf()));

const First = z.object({ name: PersonName, email: Email, password: Password, code: z.string().max(100).default('') });

/** Makes the first account, which owns the workspace. From then on signing in is needed. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { name, email, password, code } = await readBody(request, First);
    if (await hasAccounts(store()))
      throw new BadRequest('Somebody has an account already. Ask for an invitation.', 403);
    if (!isLoopback() && !isFirstCode(code)) {
      await limitGuesses(request);
      throw new BadRequest('The first account is made by the address that the server says when it starts.', 403);
    }
    const answered = await auth().api.signUpEmail({
      body: { name, email, password },
      headers: await headers(),
      asResponse: true,
    });
    if (!answered.ok) throw new BadRequest('This account cannot be made. Is the address right?', 422);
    const { user } = (await answered.clone().json()) as { user: { id: string } };
    await ownFirst(store(), await accessOfAnybody(), user.id, name);
    return withCookies(answered, { done: true });
  });
