import type { Metadata } from 'next';
import { CalendarsDesk } from '@/features/structure/calendars/CalendarsDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Calendars' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  return <CalendarsDesk plan={plan} version={version} />;
}
