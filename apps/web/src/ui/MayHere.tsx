'use client';
import { useMay } from './useMay';

const WORDS: Record<string, string> = {
  viewer: 'only to look at',
  commenter: 'to look at and comment on',
};

/** Says that a plan cannot be changed by who has opened it, before they try. */
export function MayHere({ planId }: { planId: string }) {
  const { role } = useMay(planId);
  const words = role === null ? undefined : WORDS[role];
  return words === undefined ? null : (
    <span
      data-testid="may-here"
      className="shrink-0 rounded-full border border-line bg-desk px-2 text-[13px] text-soft"
      title="Whoever owns the workspace can let you edit it."
    >
      {words}
    </span>
  );
}
