import type { Metadata } from 'next';
import { LinesDesk } from '@/features/structure/lines/LinesDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Lines' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <LinesDesk plan={plan} version={version} />;
}
