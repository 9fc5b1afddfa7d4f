import { Choices, readPlanHead, readPreview } from '@clembo/store';
import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { ChangesDesk } from '@/features/gather/changes/ChangesDesk';
import { BadRequest, readId } from '@/server/answer';
import { pageAccess } from '@/server/access';
import { store } from '@/server/store';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Changes' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  try {
    const id = readId((await params).id, 'intake');
    const access = await pageAccess({ intake: id });
    const read = await readPreview(store(), access, id);
    const head = read?.targetPlan ? await readPlanHead(store(), access, read.targetPlan) : null;
    if (!read?.targetPlan || !head) notFound();
    return (
      <ChangesDesk
        id={id}
        source={read.source}
        plan={{ id: read.targetPlan, name: head.name }}
        edition={head.edition}
        first={Choices.parse(read.choices ?? {})}
      />
    );
  } catch (error) {
    if (error instanceof BadRequest) notFound();
    throw error;
  }
}
