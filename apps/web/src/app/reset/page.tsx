import type { Metadata } from 'next';
import { AskForPassword } from '@/features/people/Entrances';
import { Entrance } from '@/ui/Entrance';

export const metadata: Metadata = { title: 'A new password' };

export default function Page() {
  return (
    <Entrance title="A new password" note="A mail leads to where you choose it.">
      <AskForPassword />
    </Entrance>
  );
}
