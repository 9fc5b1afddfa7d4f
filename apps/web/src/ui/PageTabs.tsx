'use client';
import Link from 'next/link';
import type { PlanScreen } from './screens';

/** The pages of a stage of a plan, by their paths below it; the one that is open is the heading of the page. */
export function PageTabs({
  label,
  planId,
  tabs,
  current,
}: {
  label: string;
  planId: string;
  tabs: readonly PlanScreen[];
  current: string;
}) {
  return (
    <nav aria-label={label} className="flex items-baseline gap-6">
      {tabs.map(([path, title]) =>
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
