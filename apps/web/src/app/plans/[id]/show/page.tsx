import { Brief } from '@clembo/scene';
import type { Metadata } from 'next';
import { ContactSheet } from '@/features/show/ContactSheet';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Exhibits' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version, exhibits } = await planPage((await params).id);
  return (
    <ContactSheet
      plan={plan}
      version={version}
      exhibits={exhibits.map(({ id, name, brief, version: own }) => ({
        id,
        name,
        brief: Brief.parse(brief),
        version: own,
      }))}
    />
  );
}
