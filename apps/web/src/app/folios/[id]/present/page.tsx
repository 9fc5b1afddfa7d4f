import type { Metadata } from 'next';
import { Presenting } from '@/features/share/Presenting';
import { folioPage } from '@/server/folioPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Presenting' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <Presenting {...(await folioPage((await params).id))} />;
}
