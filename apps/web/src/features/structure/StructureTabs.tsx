'use client';
import Link from 'next/link';

const TABS = [
  ['structure', 'Ledger'],
  ['structure/calendars', 'Calendars'],
  ['structure/resources', 'Resources'],
] as const;

export type StructureTab = (typeof TABS)[number][1];

/** What a plan is shaped of. */
export function StructureTabs({ planId, current }: { planId: string; current: StructureTab }) {
  return (
    <nav aria-label="Structure" className="flex items-baseline gap-6">
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
