import { hasAccounts } from '@clembo/store';
import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { First } from '@/features/people/Entrances';
import { store } from '@/server/store';
import { Entrance } from '@/ui/Entrance';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'The first account' };

export default async function Page({ searchParams }: { searchParams: Promise<{ code?: string | string[] }> }) {
  if (await hasAccounts(store())) redirect('/sign-in');
  const { code } = await searchParams;
  return (
    <Entrance
      title="The first account"
      note="It owns the workspace with all that is in it, and asks others in. From now on everybody signs in."
    >
      <First code={typeof code === 'string' ? code : ''} />
    </Entrance>
  );
}
