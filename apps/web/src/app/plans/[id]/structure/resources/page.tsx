import type { Metadata } from 'next';
import { ResourcesDesk } from '@/features/structure/resources/ResourcesDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Resources' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <ResourcesDesk plan={plan} version={version} />;
}
