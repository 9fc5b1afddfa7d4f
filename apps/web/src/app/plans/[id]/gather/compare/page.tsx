import type { Metadata } from 'next';
import { CompareDesk } from '@/features/gather/plan/CompareDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Editions compared' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan } = await planPage((await params).id);
  return <CompareDesk plan={plan} />;
}
