import 'server-only';
import { type Access, accessTo, accessToPlan, type Belonging, belongingsOf, hasAccounts, planOf } from '@clembo/store';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { z } from 'zod';
import { isLoopback } from './address';
import { auth } from './auth';
import { PATH_HEADER } from './guard';
import { accessOfAnybody, store } from './store';

/** Nobody is signed in, and somebody has to be. */
export class SignInNeeded extends Error {
  constructor(message = 'You are not signed in (any more). Sign in, then do it again.') {
    super(message);
  }
}

/** Which of several workspaces somebody works in. */
export const WORKSPACE_COOKIE = 'clembo-workspace';

/** Who is signed in with the request that is answered; null when nobody is. */
export interface SignedIn {
  account: string;
  name: string;
  email: string;
}

const kept = globalThis as { clemboAccounts?: boolean };

/** Whether signing in is needed: once anybody has an account, or where others than this machine reach the server. */
export async function isSignInNeeded(): Promise<boolean> {
  if (!isLoopback()) return true;
  // An account that was there stays needed; while there is none it is looked for each time.
  kept.clemboAccounts ||= await hasAccounts(store());
  return kept.clemboAccounts;
}

/** Who is signed in; asked once for all that answers one request. */
export const signedIn = cache(async (): Promise<SignedIn | null> => {
  const session = await auth().api.getSession({ headers: await headers() });
  return session ? { account: session.user.id, name: session.user.name, email: session.user.email } : null;
});

const belonging = cache(async (account: string): Promise<{ now: Belonging | null; all: Belonging[] }> => {
  const all = await belongingsOf(store(), account);
  const chosen = (await cookies()).get(WORKSPACE_COOKIE)?.value;
  return { now: all.find((b) => b.workspace === chosen) ?? all[0] ?? null, all };
});

/** What somebody who is signed in belongs to. */
export const belongingNow = async (account: string) => belonging(account);

/** What a request is about; what belongs to a plan is asked for by what is said for that plan. */
export type About =
  | { plan: string }
  | { exhibit: string }
  | { model: string }
  | { intake: string }
  | { shared: string }
  | { comment: string }
  | undefined;

async function planIn(about: About): Promise<string | null> {
  if (!about) return null;
  const [[kind, id]] = Object.entries(about) as [
    ['plan' | 'exhibit' | 'model' | 'intake' | 'shared' | 'comment', string],
  ];
  if (!z.uuid().safeParse(id).success) return null;
  return kind === 'plan' ? id : planOf(store(), kind, id);
}

/**
 * Who asks, and for which workspace, from the request that is answered. Every question to the store carries it.
 *
 * @throws SignInNeeded
 */
export async function accessOf(about?: About): Promise<Access> {
  if (!(await isSignInNeeded())) return accessOfAnybody();
  const who = await signedIn();
  if (!who) throw new SignInNeeded();
  const { now } = await belonging(who.account);
  if (!now) throw new SignInNeeded('You belong to no workspace (any more). Ask an owner for an invitation.');
  const whole = accessTo(now, who.account, who.name);
  if (Object.keys(now.plans).length === 0) return whole;
  const plan = await planIn(about);
  return plan === null ? whole : accessToPlan(whole, now, plan);
}

/** As {@link accessOf}, for a page: who is not signed in is led to where they can, and back afterwards. */
export async function pageAccess(about?: About): Promise<Access> {
  try {
    return await accessOf(about);
  } catch (error) {
    if (!(error instanceof SignInNeeded)) throw error;
    const path = (await headers()).get(PATH_HEADER) ?? '/';
    redirect((await signedIn()) ? '/nowhere' : `/sign-in?to=${encodeURIComponent(path)}`);
  }
}
