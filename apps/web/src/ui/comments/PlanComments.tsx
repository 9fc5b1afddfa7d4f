'use client';
import { MessageSquare } from 'lucide-react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { PanelHead } from '@/ui/PanelHead';
import { SayBox } from './SayBox';
import { Thread } from './Thread';
import { type Said, useComments } from './useComments';

const PAGE = /\/show\/([0-9a-f-]{36})$/;

/** How many comments of a plan are open, and all of them in a panel over the right of the screen. */
export function PlanComments({ planId }: { planId: string }) {
  const { found, again } = useComments(planId);
  const [shown, setShown] = useState(false);
  const [all, setAll] = useState(false);
  const exhibitId = PAGE.exec(usePathname())?.[1] ?? null;
  if (!found || (!found.maySay && found.comments.length === 0)) return null;
  const first = found.comments.filter((c) => c.answers === null);
  const open = first.filter((c) => c.doneAt === null);
  const listed = all ? first : open;
  const about = (c: Said) =>
    c.ref !== null && c.activity === null ? (
      <span className="text-soft">{c.ref}, which is not in the plan any more</span>
    ) : c.ref !== null ? (
      <Link
        href={`/plans/${planId}/structure?ref=${encodeURIComponent(c.ref)}&margin`}
        className="font-semibold text-kelp hover:underline"
      >
        {c.activity}
      </Link>
    ) : c.exhibitId !== null ? (
      <Link href={`/plans/${planId}/show/${c.exhibitId}`} className="font-semibold text-kelp hover:underline">
        {c.exhibit}
      </Link>
    ) : (
      <span className="text-soft">The plan</span>
    );
  return (
    <>
      <button
        type="button"
        aria-label={`Comments: ${open.length} open`}
        aria-expanded={shown}
        title="Comments"
        className="quiet border-transparent px-2 text-soft"
        onClick={() => setShown(!shown)}
      >
        <MessageSquare size={16} aria-hidden /> {open.length > 0 && open.length}
      </button>
      {shown && (
        <aside
          aria-label="Comments of the plan"
          className="fixed top-[46px] right-0 bottom-0 z-30 flex w-[340px] flex-col border-l border-line bg-paper px-5 py-4 shadow-xl shadow-ink/10"
          onKeyDown={(e) => e.key === 'Escape' && setShown(false)}
        >
          <PanelHead title="Comments" close="Close the comments" onClose={() => setShown(false)} />
          {found.maySay && (
            <div className="mt-3">
              <SayBox
                planId={planId}
                anchor={{ ref: null, exhibitId }}
                people={found.people}
                label={exhibitId ? 'Say something about this page' : 'Say something about the plan'}
                onSaid={again}
              />
            </div>
          )}
          <ul className="mt-2 min-h-0 flex-1 divide-y divide-line overflow-auto">
            {listed.length === 0 && <li className="py-3 text-soft">Nothing is open.</li>}
            {[...listed].reverse().map((c) => (
              <Thread
                key={c.id}
                planId={planId}
                said={c}
                answers={found.comments.filter((a) => a.answers === c.id)}
                found={found}
                again={again}
                title={about(c)}
              />
            ))}
          </ul>
          {first.length > open.length && (
            <button
              type="button"
              className="mt-2 self-start text-[14px] text-kelp hover:underline"
              onClick={() => setAll(!all)}
            >
              {all ? 'Only what is open' : `Also what is done (${first.length - open.length})`}
            </button>
          )}
        </aside>
      )}
    </>
  );
}
