import type { Metadata } from 'next';
import { EditionsDesk } from '@/features/measure/editions/EditionsDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Over the editions' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <EditionsDesk plan={plan} version={version} />;
}
