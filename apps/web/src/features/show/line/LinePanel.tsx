'use client';
import type { LinearBrief } from '@clembo/scene/brief';
import { useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { PanelHead } from '@/ui/PanelHead';
import { wrong } from '@/ui/Toasts';
import type { LineProposal } from '@/workers/answers/lineMoves';
import type { ComposedPage } from '@/workers/composing';
import type { OpenRoom } from '@/workers/planRoom';
import { TakeOrLeave } from './TakeOrLeave';
import type { Proposed } from './useLineMoves';

/** What would come of a change to a work along the line, seen on the page: taken or left. */
export function LinePanel({
  planId,
  brief,
  open,
  proposed,
  onPage,
  onClose,
}: {
  planId: string;
  brief: LinearBrief;
  open: OpenRoom;
  proposed: Proposed;
  onPage: (page: ComposedPage | null) => void;
  onClose: () => void;
}) {
  const { busy, change } = usePlanChange(planId);
  const [follow, setFollow] = useState(true);
  const [answer, setAnswer] = useState<{ to: string; found: (LineProposal & { name: string }) | 'none' } | null>(null);
  const { ref, asked } = proposed;
  const question = JSON.stringify([ref, asked, follow]);
  const shown = answer?.found ?? null;
  /** What is shown answers what is asked now. */
  const fresh = answer?.to === question;
  useEffect(() => {
    let current = true;
    Promise.all([open.room.lineProposal(brief, ref, asked, follow), open.room.lineWork(ref)]).then(([found, work]) => {
      if (!current) return;
      setAnswer({ to: question, found: found ? { ...found, name: work?.name ?? ref } : 'none' });
      onPage(found?.page ?? null);
    }, wrong);
    return () => {
      current = false;
    };
  }, [open, brief, ref, asked, follow, question, onPage]);
  const take = async () => {
    if (shown === null || shown === 'none' || !fresh) return;
    const what = asked.do === 'divide' ? 'Divide' : asked.do === 'turn' ? 'Turn round' : 'Move';
    if (await change(shown.command, `${what} ${shown.name} along the line`.slice(0, 190))) onClose();
  };
  return (
    <aside aria-label="Proposal" className="w-[290px] shrink-0 overflow-auto pr-5 pb-4 text-[14.5px]">
      <PanelHead
        title={shown === null || shown === 'none' ? 'Proposal' : shown.name}
        close="Leave it as it is"
        onClose={onClose}
      />
      {shown === null ? (
        <p role="status" className="mt-3 text-soft">
          Working it out …
        </p>
      ) : shown === 'none' ? (
        <p className="mt-3">This cannot be done: it has begun, or no rate would keep that end.</p>
      ) : (
        <>
          <p className="mt-1 text-soft">{shown.words}</p>
          <table aria-label="What comes of it" className="mt-3 w-full border-collapse tabular-nums">
            <thead>
              <tr className="text-left text-soft">
                <th />
                <th className="font-normal">now</th>
                <th className="font-normal">then</th>
              </tr>
            </thead>
            <tbody>
              {shown.facts.map((f) => (
                <tr key={f.label} className="border-t border-line">
                  <th scope="row" className="py-1 text-left font-normal text-soft">
                    {f.label}
                  </th>
                  <td className="py-1">{f.now}</td>
                  <td
                    className={`py-1 ${f.now === f.then ? '' : f.worse ? 'font-semibold text-madder' : 'font-semibold'}`}
                  >
                    {f.then}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {open.head.source === 'given' && asked.do !== 'divide' && (
            <label className="mt-3 flex items-center gap-2">
              <input type="checkbox" checked={follow} onChange={(e) => setFollow(e.target.checked)} />
              what follows by its links goes along
            </label>
          )}
          {shown.others.length > 0 && (
            <>
              <h3 className="mt-3 text-soft">Also moves</h3>
              <ul aria-label="What else moves" className="mt-1 space-y-1">
                {shown.others.map((o) => (
                  <li key={o.ref}>
                    {o.name}
                    <span className="block text-[13.5px] text-soft">{o.words}</span>
                  </li>
                ))}
              </ul>
            </>
          )}
          <TakeOrLeave can={!busy && fresh} onTake={() => void take()} onLeave={onClose} />
        </>
      )}
    </aside>
  );
}
