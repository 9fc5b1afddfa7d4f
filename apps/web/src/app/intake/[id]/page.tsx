import type { IntakePreview } from '@clembo/formats';
import { readPlanHead, readPreview } from '@clembo/store';
import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { BadRequest, readId } from '@/server/answer';
import { pageAccess } from '@/server/access';
import { store } from '@/server/store';
import { IntakeRoom } from './IntakeRoom';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Intake' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  try {
    const id = readId((await params).id, 'intake');
    const read = await readPreview(store(), await pageAccess({ intake: id }), id);
    if (!read) notFound();
    const target =
      read.targetPlan === null ? null : await readPlanHead(store(), await pageAccess({ intake: id }), read.targetPlan);
    const { source, targetPlan, planId } = read;
    const preview = read.preview as IntakePreview | null;
    return <IntakeRoom id={id} first={{ source, targetPlan, planId, preview }} target={target?.name ?? null} />;
  } catch (error) {
    if (error instanceof BadRequest) notFound();
    throw error;
  }
}
