import type { Metadata } from 'next';
import { Deeds } from '@/features/people/Deeds';
import { pageAccess } from '@/server/access';
import { Frame } from '@/ui/Frame';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Who did what' };

export default async function Page() {
  await pageAccess();
  return (
    <Frame stage={null} plan={null}>
      <Deeds />
    </Frame>
  );
}
