import type { Metadata } from 'next';
import { Ledger } from '@/features/structure/Ledger';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Structure' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <Ledger plan={plan} version={version} />;
}
