import { headers } from 'next/headers';
import { z } from 'zod';
import { belongingNow, signedIn, SignInNeeded } from '@/server/access';
import { answer, BadRequest, readBody } from '@/server/answer';
import { auth } from '@/server/auth';
import { limitTries, rememberWorkspace, withCookies } from '@/server/signing';

const Said = z.object({ email: z.string().trim().toLowerCase().max(200), password: z.string().max(200) });

/** Signs in. Who is not known and whose password is wrong are told the same. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { email, password } = await readBody(request, Said);
    const tries = await limitTries(request, email);
    const answered = await auth().api.signInEmail({
      body: { email, password },
      headers: await headers(),
      asResponse: true,
    });
    if (!answered.ok) throw new BadRequest('E-mail address or password are not right.', 403);
    await tries.clear();
    return withCookies(answered, { done: true });
  });

/** Signs out. */
export const DELETE = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const answered = await auth().api.signOut({ headers: await headers(), asResponse: true });
    return withCookies(answered, { done: true });
  });

const Chosen = z.object({ workspace: z.uuid() });

/** Goes to another of one's workspaces. */
export const PUT = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { workspace } = await readBody(request, Chosen);
    const who = await signedIn();
    if (!who) throw new SignInNeeded();
    const { all } = await belongingNow(who.account);
    if (!all.some((b) => b.workspace === workspace)) throw new BadRequest('You do not belong to that workspace.', 403);
    return rememberWorkspace(Response.json({ done: true }), workspace);
  });
