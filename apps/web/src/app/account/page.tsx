import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { OwnAccount } from '@/features/people/OwnAccount';
import { pageAccess, signedIn } from '@/server/access';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Name and password' };

export default async function Page() {
  await pageAccess();
  const who = await signedIn();
  if (!who) redirect('/');
  return <OwnAccount name={who.name} email={who.email} />;
}
