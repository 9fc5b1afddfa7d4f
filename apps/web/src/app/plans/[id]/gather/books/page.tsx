import type { Metadata } from 'next';
import { BooksDesk } from '@/features/gather/books/BooksDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Code books' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <BooksDesk plan={plan} version={version} />;
}
