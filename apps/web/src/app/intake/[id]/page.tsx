import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { IntakeDesk } from '@/features/gather/IntakeDesk';
import { BadRequest, readId } from '@/server/answer';
import { viewIntake } from '@/server/intake/view';
import { accessOf } from '@/server/store';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Intake' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  try {
    const view = await viewIntake(await accessOf(), readId((await params).id, 'intake'));
    return <IntakeDesk first={view} />;
  } catch (error) {
    if (error instanceof BadRequest) notFound();
    throw error;
  }
}
