import type { Metadata } from 'next';
import { MeasureDesk } from '@/features/measure/MeasureDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Measure' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <MeasureDesk plan={plan} version={version} />;
}
