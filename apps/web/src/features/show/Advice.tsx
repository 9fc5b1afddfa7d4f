'use client';
import type { Brief, FitAdvice } from '@clembo/scene';
import { useEffect, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { ComposedPage } from '@/workers/composing';
import type { OpenRoom } from '@/workers/planRoom';

interface Props {
  open: OpenRoom | null;
  brief: Brief;
  advice: FitAdvice;
  onTake: () => void;
}

/** A change of the brief that would help, with the page that it would give. */
export function Advice({ open, brief, advice, onTake }: Props) {
  const [page, setPage] = useState<ComposedPage | null>(null);
  useEffect(() => {
    let current = true;
    open?.room.compose({ ...brief, ...advice.change } as Brief).then((p) => current && setPage(p), wrong);
    return () => {
      current = false;
    };
  }, [open, brief, advice]);
  return (
    <button type="button" className="choice w-full items-start gap-3" data-advice={advice.words} onClick={onTake}>
      <span
        aria-hidden
        className="block w-[118px] shrink-0 overflow-hidden rounded-sm border border-line bg-paper [&_svg]:block [&_svg]:h-auto [&_svg]:w-full"
        style={{ minHeight: 70 }}
        dangerouslySetInnerHTML={{ __html: page?.svg ?? '' }}
      />
      <span className="min-w-0">
        <span className="block">{advice.words}</span>
        <span className="block text-[13.5px] leading-snug text-soft">{page ? given(page) : 'composing …'}</span>
      </span>
    </button>
  );
}

/** What a page would be like. */
function given({ fit }: ComposedPage): string {
  if (!fit.readable) return 'still cannot be read';
  const { shown, inGroups, noRoom = 0 } = fit.counts;
  return [
    `smallest type ${Math.round(fit.smallestType * 10) / 10} pt`,
    inGroups > 0 ? `${inGroups} in groups` : `${shown} shown`,
    noRoom > 0 ? `${noRoom} without room` : '',
    fit.labelsShortened > 0 ? `${fit.labelsShortened} names shortened` : '',
  ]
    .filter(Boolean)
    .join(', ');
}
