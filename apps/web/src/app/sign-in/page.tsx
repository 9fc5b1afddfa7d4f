import { hasAccounts } from '@clembo/store';
import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { SignIn } from '@/features/people/Entrances';
import { isSignInNeeded, signedIn } from '@/server/access';
import { store } from '@/server/store';
import { Entrance } from '@/ui/Entrance';
import { ownPath } from '@/ui/ownPath';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Sign in' };

export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  const to = ownPath((await searchParams).to);
  if (!(await isSignInNeeded()) || (await signedIn())) redirect(to);
  if (!(await hasAccounts(store())))
    return (
      <Entrance
        title="Nobody has an account yet"
        note="The first one is made by the address that the server says when it starts. Whoever opens it owns the workspace."
      />
    );
  return (
    <Entrance title="Sign in">
      <SignIn to={to} />
    </Entrance>
  );
}
