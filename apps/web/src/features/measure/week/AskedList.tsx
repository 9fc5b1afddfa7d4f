'use client';
import { type Reason, REASONS } from '@clembo/core';
import { Check } from 'lucide-react';
import { useEffect, useRef } from 'react';
import type { RoundRow } from '@/workers/answers/round';

export const REASON_TITLES: Record<Reason, string> = {
  shouldHaveFinished: 'Should have finished',
  shouldHaveStarted: 'Should have started',
  inProgress: 'In progress',
  due: 'Due soon',
};

/** So many of a reason are listed; the others are reached one after the other. */
const LISTED = 250;

interface Props {
  rows: RoundRow[];
  chosen: string;
  seen: ReadonlySet<string>;
  onChoose: (ref: string) => void;
}

/** All that is asked, by the reason why; what was answered is ticked. */
export function AskedList({ rows, chosen, seen, onChoose }: Props) {
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-current="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  return (
    <nav
      ref={list}
      aria-label="What is asked"
      className="w-[380px] shrink-0 overflow-auto border-r border-line px-3 pb-4"
    >
      {REASONS.map((why) => {
        const own = rows.filter((r) => r.why === why);
        if (own.length === 0) return null;
        return (
          <section key={why}>
            <h2 className="px-2 pt-3 pb-1 text-[14px] text-soft">
              {REASON_TITLES[why]} <span className="font-narrow">{own.length}</span>
            </h2>
            <ul>
              {own.slice(0, LISTED).map((r) => (
                <li key={r.ref}>
                  <button
                    type="button"
                    aria-current={r.ref === chosen}
                    onClick={() => onChoose(r.ref)}
                    className={`grid w-full grid-cols-[18px_minmax(0,1fr)_auto] items-baseline gap-1.5 rounded px-2 py-[3px] text-left ${r.ref === chosen ? 'bg-marigold/20' : 'hover:bg-wash'}`}
                  >
                    <span className="self-center text-kelp">
                      {(r.changed || seen.has(r.ref)) && <Check size={15} aria-label="answered" />}
                    </span>
                    <span className="truncate">{r.name}</span>
                    <span
                      className={`font-narrow text-[13.5px] whitespace-nowrap ${why === 'shouldHaveFinished' || why === 'shouldHaveStarted' ? 'text-madder' : 'text-soft'}`}
                    >
                      {r.asks.split(' ').slice(-2).join(' ')}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
            {own.length > LISTED && (
              <p className="px-2 pt-1 text-[13.5px] text-soft">and {own.length - LISTED} more, one after the other</p>
            )}
          </section>
        );
      })}
    </nav>
  );
}
