import type { Metadata } from 'next';
import { ModelDesk } from '@/features/structure/model/ModelDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Model' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <ModelDesk plan={plan} version={version} />;
}
