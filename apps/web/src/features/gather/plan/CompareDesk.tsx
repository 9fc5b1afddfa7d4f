'use client';
import type { SourceChange } from '@clembo/core';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { Frame, type FramePlan } from '@/ui/Frame';
import { ChangesList } from '../changes/ChangesList';
import type { ChangesPlan } from '../changes/changesList';

interface Compared {
  from: string;
  to: string;
  changes: SourceChange[];
  plan: ChangesPlan;
}

/** What differs between two editions. */
export function CompareDesk({ plan }: { plan: FramePlan }) {
  const query = useSearchParams().toString();
  const [compared, setCompared] = useState<Compared | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  useEffect(() => {
    ask<Compared>(`/api/plans/${plan.id}/compare?${query}`).then(setCompared, (error: Error) =>
      setFailed(error.message),
    );
  }, [plan.id, query]);
  return (
    <Frame stage="Gather" plan={plan}>
      <div className="flex h-full flex-col px-6 pt-5 pb-4">
        <div className="flex items-baseline gap-4 pb-3">
          <h1 className="font-serif text-[24px] font-semibold">
            {compared ? `From ${compared.from} to ${compared.to}` : 'Editions compared'}
          </h1>
          <Link href={`/plans/${plan.id}/gather`} className="quiet ml-auto py-1">
            Back to the editions
          </Link>
        </div>
        {compared === null ? (
          <p role={failed ? 'alert' : 'status'} className="text-soft">
            {failed ?? 'Comparing …'}
          </p>
        ) : compared.changes.length === 0 ? (
          <p className="text-soft">Nothing differs between the two.</p>
        ) : (
          <ChangesList changes={compared.changes} plan={compared.plan} refused={null} />
        )}
      </div>
    </Frame>
  );
}
