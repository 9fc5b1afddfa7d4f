import type { Metadata } from 'next';
import { FolioDesk } from '@/features/share/FolioDesk';
import { folioPage } from '@/server/folioPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Folio' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <FolioDesk {...(await folioPage((await params).id))} />;
}
