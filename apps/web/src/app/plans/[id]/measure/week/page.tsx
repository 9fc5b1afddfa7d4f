import type { Metadata } from 'next';
import { RoundDesk } from '@/features/measure/week/RoundDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Weekly round' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <RoundDesk plan={plan} version={version} />;
}
