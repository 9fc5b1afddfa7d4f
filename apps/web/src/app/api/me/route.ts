import { headers } from 'next/headers';
import { readPlanHead } from '@clembo/store';
import { z } from 'zod';
import { accessOf, belongingNow, isSignInNeeded, signedIn, SignInNeeded } from '@/server/access';
import { answer, BadRequest, readBody } from '@/server/answer';
import { auth } from '@/server/auth';
import { store } from '@/server/store';
import { limitTries, Password, PersonName, withCookies } from '@/server/signing';

const Asked = z.object({ plan: z.uuid().optional() });

/** Who is signed in, and what they belong to; with a plan, what they may do there. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const { plan } = Asked.parse(Object.fromEntries(new URL(request.url).searchParams));
    if (!(await isSignInNeeded())) return { needed: false, me: null, workspaces: [], here: null };
    const who = await signedIn();
    if (!who) throw new SignInNeeded();
    const { now, all } = await belongingNow(who.account);
    const here = plan === undefined ? null : await roleOn(plan);
    return {
      needed: true,
      me: { name: who.name, email: who.email, role: now ? (now.role ?? 'guest') : null },
      workspaces: all.map((b) => ({ id: b.workspace, name: b.workspaceName, now: b === now })),
      here,
    };
  });

/** What somebody may do on a plan; null for one that is not theirs. */
async function roleOn(plan: string): Promise<string | null> {
  const access = await accessOf({ plan });
  return (await readPlanHead(store(), access, plan)) ? access.role : null;
}

const Change = z.union([z.object({ name: PersonName }), z.object({ before: z.string().max(200), password: Password })]);

/** Changes one's name or password; with the password, one is signed out everywhere else. */
export const PATCH = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const change = await readBody(request, Change);
    const who = await signedIn();
    if (!who) throw new SignInNeeded();
    const sent = await headers();
    if ('name' in change) {
      await auth().api.updateUser({ body: { name: change.name }, headers: sent });
      return { done: true };
    }
    const tries = await limitTries(request, who.email);
    const answered = await auth().api.changePassword({
      body: { currentPassword: change.before, newPassword: change.password, revokeOtherSessions: true },
      headers: sent,
      asResponse: true,
    });
    if (!answered.ok) throw new BadRequest('The password that you have now is not right.', 403);
    await tries.clear();
    return withCookies(answered, { done: true });
  });
