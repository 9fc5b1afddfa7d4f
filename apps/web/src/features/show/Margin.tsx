'use client';
import { columnLetters } from '@clembo/formats/columns';
import { X } from 'lucide-react';
import Link from 'next/link';
import { type ReactNode, useState } from 'react';
import { ask, Refused } from '@/ui/ask';
import type { Facts } from '@/workers/answers/facts';
import { useNetworkAround } from '@/ui/plan/useNetworkAround';

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
  children,
}: {
  facts: Facts;
  planId: string;
  onChoose: (ref: string) => void;
  onClose: () => void;
  /** What else belongs to it. */
  children?: ReactNode;
}) {
  const network = useNetworkAround(planId);
  return (
    <aside aria-label="Margin" className="w-[270px] shrink-0 overflow-auto pr-5 pb-4 text-[14.5px]">
      <div className="flex items-start justify-between gap-2">
        <h2 className="text-[17px] leading-tight font-semibold">{facts.name || facts.ref}</h2>
        <button type="button" aria-label="Close the margin" className="rounded p-0.5 hover:bg-line" onClick={onClose}>
          <X size={16} />
        </button>
      </div>
      <p className="mt-0.5 text-[13.5px] text-soft">
        {facts.kind === 'sum'
          ? `all work of this ${facts.path[0]}`
          : [facts.ref, KIND_WORDS[facts.kind] ?? facts.kind, ...facts.path].join(' · ')}
      </p>
      <Pairs pairs={facts.rows} />
      <Pairs pairs={facts.codes} />
      <Links title="After" links={facts.before} onChoose={onChoose} />
      <Links title="Before" links={facts.after} onChoose={onChoose} />
      {facts.driving.length > 0 && (
        <Links
          title={`Driven by ${facts.driving.length === 1 ? 'one activity' : `a path of ${facts.driving.length}`}`}
          links={facts.driving.map((d) => ({ ...d, how: '' }))}
          onChoose={onChoose}
        />
      )}
      {facts.said && <p className="mt-3 font-serif italic">“{facts.said}”</p>}
      {facts.notes && <p className="mt-4 whitespace-pre-wrap">{facts.notes}</p>}
      {facts.place && (
        <SourceRow key={`${facts.place.source} ${facts.place.row}`} planId={planId} place={facts.place} />
      )}
      {facts.kind !== 'sum' && (
        <Link href={`/plans/${planId}/structure?ref=${encodeURIComponent(facts.ref)}`} className="quiet mt-5">
          To its row in the ledger
        </Link>
      )}
      {facts.before.length > 0 && (
        <button type="button" className="quiet mt-2" onClick={() => network(facts.ref, facts.name)}>
          What leads here, as a network
        </button>
      )}
      {children}
    </aside>
  );
}

interface RowCells {
  cells: { column: number; heading: string; text: string }[];
}

/** Where it was read, and that row as it stood. */
function SourceRow({ planId, place }: { planId: string; place: NonNullable<Facts['place']> }) {
  const [row, setRow] = useState<RowCells | string | null>(null);
  const show = () => {
    setRow('Looking …');
    ask<RowCells>(`/api/plans/${planId}/sources/${place.source}/rows/${place.row}`).then(setRow, (error: Error) =>
      setRow(error instanceof Refused && error.status === 404 ? 'The row itself was not kept.' : error.message),
    );
  };
  return (
    <div className="mt-4">
      <p className="text-soft">
        From row {place.row}
        {place.sheet ? `, sheet ${place.sheet}` : ''}, of {place.name}
      </p>
      {row === null ? (
        <button type="button" className="text-kelp underline underline-offset-2" onClick={show}>
          Show the row as it stood
        </button>
      ) : typeof row === 'string' ? (
        <p role="status">{row}</p>
      ) : (
        <dl
          aria-label="The row as it stood"
          className="mt-1.5 grid grid-cols-[92px_1fr] gap-x-2 gap-y-1 rounded-md bg-wash px-2.5 py-2 font-narrow"
        >
          {row.cells.map((c) => (
            <div key={c.column} className="contents">
              <dt className="truncate text-soft" title={c.heading}>
                {c.heading || columnLetters(c.column)}
              </dt>
              <dd className="break-words whitespace-pre-wrap">{c.text}</dd>
            </div>
          ))}
        </dl>
      )}
    </div>
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
