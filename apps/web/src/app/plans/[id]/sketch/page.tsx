import type { Metadata } from 'next';
import { SketchDesk } from '@/features/gather/sketch/SketchDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Sketch' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  // An empty time line begins with this month, by the server's clock.
  return <SketchDesk plan={plan} version={version} today={Math.floor(Date.now() / 86_400_000)} />;
}
