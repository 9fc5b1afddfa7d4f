import { Folio } from '@clembo/scene';
import { listFolios } from '@clembo/store';
import type { Metadata } from 'next';
import { FolioList } from '@/features/share/FolioList';
import { folioPlans } from '@/server/folioPage';
import { planPage } from '@/server/planPage';
import { pageAccess } from '@/server/access';
import { store } from '@/server/store';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Folios' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan, version } = await planPage((await params).id);
  const folios = await listFolios(store(), await pageAccess());
  return (
    <FolioList
      plan={plan}
      version={version}
      plans={await folioPlans()}
      folios={folios.map((f) => ({
        id: f.id,
        name: f.name,
        folio: Folio.parse(f.content),
        written: f.written?.at ?? null,
      }))}
    />
  );
}
