import type { Metadata } from 'next';
import { ChoosePassword } from '@/features/people/Entrances';
import { Entrance } from '@/ui/Entrance';

export const metadata: Metadata = { title: 'A new password', robots: { index: false } };

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  return (
    <Entrance title="Choose a new password" note="You are signed out everywhere, and sign in with it.">
      <ChoosePassword token={(await params).token} />
    </Entrance>
  );
}
