import { readInvitation, takeInvitation } from '@clembo/store';
import { headers } from 'next/headers';
import { z } from 'zod';
import { signedIn } from '@/server/access';
import { answer, BadRequest, readBody } from '@/server/answer';
import { auth } from '@/server/auth';
import { limitGuesses, Password, PersonName, rememberWorkspace, withCookies } from '@/server/signing';
import { store } from '@/server/store';

const Taken = z.object({
  token: z.string().min(20).max(100),
  /** For who has no account yet. */
  account: z.object({ name: PersonName, password: Password }).optional(),
});

/** Takes an invitation: with the account that is signed in, or with one that is made now. */
export const POST = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { token, account } = await readBody(request, Taken);
    const found = await readInvitation(store(), token);
    if (!found) {
      await limitGuesses(request);
      throw new BadRequest('This invitation holds no more. Ask for another one.', 404);
    }
    const who = await signedIn();
    if (who) return rememberWorkspace(Response.json({ done: true }), await takeInvitation(store(), token, who));
    if (found.hasAccount || !account)
      throw new BadRequest(`Sign in as ${found.email} first, then take the invitation.`, 403);
    const answered = await auth().api.signUpEmail({
      body: { ...account, email: found.email },
      headers: await headers(),
      asResponse: true,
    });
    if (!answered.ok) throw new BadRequest('This account cannot be made. Try again.', 422);
    const { user } = (await answered.clone().json()) as { user: { id: string; name: string; email: string } };
    const workspace = await takeInvitation(store(), token, { ...user, account: user.id });
    return rememberWorkspace(withCookies(answered, { done: true }), workspace);
  });
