import 'server-only';
import { dayOf } from '@clembo/core';
import { formatDay } from '@clembo/scene';
import { listExhibits, readPlanHead, type StoredExhibit } from '@clembo/store';
import { notFound } from 'next/navigation';
import type { FramePlan } from '@/ui/Frame';
import { BadRequest, readId } from './answer';
import { pageAccess } from './access';
import { store } from './store';

/** What every page of a plan needs: the plan for the bar, its version for the worker, its exhibits. */
export async function planPage(
  idText: string,
): Promise<{ plan: FramePlan; version: number; exhibits: StoredExhibit[] }> {
  let id: string;
  try {
    id = readId(idText, 'plan');
  } catch (error) {
    if (error instanceof BadRequest) notFound();
    throw error;
  }
  const access = await pageAccess({ plan: id });
  const [head, exhibits] = await Promise.all([readPlanHead(store(), access, id), listExhibits(store(), access, id)]);
  if (!head) notFound();
  const status = head.statusDate === null ? null : formatDay(dayOf(head.statusDate), 'long');
  return { plan: { id, name: head.name, edition: head.edition, status }, version: head.version, exhibits };
}
