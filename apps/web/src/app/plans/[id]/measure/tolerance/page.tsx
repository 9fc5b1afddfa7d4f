import type { Metadata } from 'next';
import { ToleranceDesk } from '@/features/measure/tolerance/ToleranceDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Tolerance and units' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <ToleranceDesk plan={plan} version={version} />;
}
