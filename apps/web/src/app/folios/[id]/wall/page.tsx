import type { Metadata } from 'next';
import { Wall } from '@/features/share/Wall';
import { folioPage } from '@/server/folioPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Wall' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id, version, folio, plans } = await folioPage((await params).id);
  return <Wall id={id} version={version} folio={folio} plans={plans} />;
}
