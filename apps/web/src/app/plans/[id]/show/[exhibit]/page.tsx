import { Brief } from '@clembo/scene';
import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { ExhibitDesk } from '@/features/show/ExhibitDesk';
import { planPage } from '@/server/planPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Exhibit' };

export default async function Page({ params }: { params: Promise<{ id: string; exhibit: string }> }) {
  const { id, exhibit: exhibitId } = await params;
  const { plan, version, exhibits } = await planPage(id);
  const at = exhibits.findIndex((e) => e.id === exhibitId);
  const exhibit = exhibits[at];
  if (!exhibit) notFound();
  return (
    <ExhibitDesk
      key={exhibit.id}
      plan={plan}
      version={version}
      exhibit={{ id: exhibit.id, name: exhibit.name, brief: Brief.parse(exhibit.brief), version: exhibit.version }}
      siblings={exhibits.map(({ id: sibling, name }) => ({ id: sibling, name }))}
    />
  );
}
