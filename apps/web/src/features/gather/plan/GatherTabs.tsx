'use client';
import Link from 'next/link';

const TABS = [
  ['gather', 'Sources and editions'],
  ['gather/books', 'Code books'],
  ['gather/work', 'Clean up'],
  ['sketch', 'Sketch'],
] as const;

export type GatherTab = (typeof TABS)[number][1];

/** What there is to gather for a plan. */
export function GatherTabs({ planId, current }: { planId: string; current: GatherTab }) {
  return (
    <nav aria-label="Gather" className="flex items-baseline gap-6">
      {TABS.map(([path, title]) =>
        title === current ? (
          <h1 key={path} className="border-b-2 border-ink pb-0.5 font-serif text-[20px] font-semibold">
            {title}
          </h1>
        ) : (
          <Link
            key={path}
            href={`/plans/${planId}/${path}`}
            className="border-b-2 border-transparent pb-0.5 font-serif text-[20px] text-soft hover:border-line hover:text-ink"
          >
            {title}
          </Link>
        ),
      )}
    </nav>
  );
}
