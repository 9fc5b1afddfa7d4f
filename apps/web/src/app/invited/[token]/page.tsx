import { readInvitation } from '@clembo/store';
import type { Metadata } from 'next';
import Link from 'next/link';
import { Join, JoinAs } from '@/features/people/Entrances';
import { signedIn } from '@/server/access';
import { store } from '@/server/store';
import { Entrance } from '@/ui/Entrance';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Invitation', robots: { index: false } };

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const found = token.length > 100 ? null : await readInvitation(store(), token);
  if (!found)
    return (
      <Entrance
        title="This invitation holds no more"
        note="It was taken, taken back, or is too old. Ask whoever sent it for another one."
      />
    );
  const who = await signedIn();
  const what = found.plan ? `the plan “${found.plan}”` : `“${found.workspace}”`;
  const title = `Join ${what}`;
  const note = `As ${found.role}, with ${found.email}.`;
  const path = `/invited/${token}`;
  if (who?.email === found.email)
    return (
      <Entrance title={title} note={note}>
        <JoinAs token={token} name={who.name} />
      </Entrance>
    );
  if (who)
    return (
      <Entrance
        title={title}
        note={`This invitation is for ${found.email}, and you are signed in as ${who.email}. Sign out first, then open it again.`}
      />
    );
  if (found.hasAccount)
    return (
      <Entrance title={title} note={note}>
        <p className="mt-5">
          <Link className="action" href={`/sign-in?to=${encodeURIComponent(path)}`}>
            Sign in to join
          </Link>
        </p>
      </Entrance>
    );
  return (
    <Entrance title={title} note={note}>
      <Join token={token} email={found.email} />
    </Entrance>
  );
}
