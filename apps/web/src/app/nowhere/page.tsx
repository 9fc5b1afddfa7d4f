import type { Metadata } from 'next';
import { SignOut } from '@/features/people/SignOut';
import { Entrance } from '@/ui/Entrance';

export const metadata: Metadata = { title: 'No workspace' };

export default function Page() {
  return (
    <Entrance title="You belong to no workspace" note="Not any more, or not yet: an owner can ask you in by mail.">
      <p className="mt-5">
        <SignOut />
      </p>
    </Entrance>
  );
}
