'use client';
import { X } from 'lucide-react';
import Link from 'next/link';
import type { Facts } from '@/workers/plan.worker';

const KIND_WORDS: Record<string, string> = {
  activity: 'activity',
  summary: 'group of activities',
  levelOfEffort: 'supporting work',
  startMilestone: 'milestone',
  finishMilestone: 'milestone',
};

/** The facts about what is chosen, like the margin of a book. */
export function Margin({
  facts,
  planId,
  onChoose,
  onClose,
}: {
  facts: Facts;
  planId: string;
  onChoose: (ref: string) => void;
  onClose: () => void;
}) {
  return (
    <aside aria-label="Margin" className="w-[270px] shrink-0 overflow-auto pr-5 pb-4 text-[14.5px]">
      <div className="flex items-start justify-between gap-2">
        <h2 className="text-[17px] leading-tight font-semibold">{facts.name || facts.ref}</h2>
        <button type="button" aria-label="Close the margin" className="rounded p-0.5 hover:bg-line" onClick={onClose}>
          <X size={16} />
        </button>
      </div>
      <p className="mt-0.5 text-[13.5px] text-soft">
        {[facts.ref, KIND_WORDS[facts.kind] ?? facts.kind, ...facts.path].join(' · ')}
      </p>
      <Pairs pairs={facts.rows} />
      <Pairs pairs={facts.codes} />
      <Links title="After" links={facts.before} onChoose={onChoose} />
      <Links title="Before" links={facts.after} onChoose={onChoose} />
      {facts.notes && <p className="mt-4 whitespace-pre-wrap">{facts.notes}</p>}
      <Link href={`/plans/${planId}/structure?ref=${encodeURIComponent(facts.ref)}`} className="quiet mt-5">
        To its row in the ledger
      </Link>
    </aside>
  );
}

function Pairs({ pairs }: { pairs: [string, string][] }) {
  if (pairs.length === 0) return null;
  return (
    <dl className="mt-3.5 grid grid-cols-[84px_1fr] gap-y-1.5">
      {pairs.map(([label, value]) => (
        <div key={label} className="contents">
          <dt className="text-soft">{label}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

function Links({ title, links, onChoose }: { title: string; links: Facts['before']; onChoose: (ref: string) => void }) {
  if (links.length === 0) return null;
  return (
    <>
      <h3 className="mt-4 text-soft">{title}</h3>
      <ul className="mt-1 space-y-1">
        {links.map((l) => (
          <li key={`${l.ref} ${l.how}`} className="flex items-baseline justify-between gap-2">
            <button
              type="button"
              className="truncate text-left hover:text-kelp hover:underline"
              onClick={() => onChoose(l.ref)}
              title={l.ref}
            >
              {l.name}
            </button>
            <span className="shrink-0 font-narrow text-soft">{l.how}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
