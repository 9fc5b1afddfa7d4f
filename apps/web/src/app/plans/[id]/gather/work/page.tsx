import type { Metadata } from 'next';
import { WorkDesk } from '@/features/gather/work/WorkDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Clean up' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <WorkDesk plan={plan} version={version} />;
}
