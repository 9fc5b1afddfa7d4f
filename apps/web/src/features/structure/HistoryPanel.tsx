'use client';
import { useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { PanelHead } from '@/ui/PanelHead';
import { toast, wrong } from '@/ui/Toasts';
import { type OpenRoom, usePlanTurns } from '@/workers/planRoom';
import { turnPlanTo } from '@/workers/planWrites';

interface Change {
  id: number;
  words: string;
  undone: boolean;
  reachable: boolean;
  person: string | null;
  createdAt: string;
}

/** When something was done, as a person would say it: the time today, the day and the time before that. */
export function whenWords(iso: string, now = new Date()): string {
  const at = new Date(iso);
  const time = at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  if (at.toDateString() === now.toDateString()) return time;
  return `${at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })}, ${time}`;
}

/** The last changes of a plan, or of one activity; asked for again whenever the plan changes. */
export function useChanges(planId: string, open: OpenRoom, ref: string | null): Change[] | null {
  const [changes, setChanges] = useState<Change[] | null>(null);
  // These are others as soon as something was kept, here or elsewhere.
  const turns = usePlanTurns(planId, open);
  useEffect(() => {
    let current = true;
    ask<{ changes: Change[] }>(
      `/api/plans/${planId}/changes${ref === null ? '' : `?ref=${encodeURIComponent(ref)}`}`,
    ).then((found) => current && setChanges(found.changes), wrong);
    return () => {
      current = false;
    };
  }, [planId, turns, ref]);
  return changes;
}

/**
 * Everything that was done to the plan, the latest first; any point of it can be gone back to, down to where something
 * else was put in its place.
 */
export function HistoryPanel({ planId, open, onClose }: { planId: string; open: OpenRoom; onClose: () => void }) {
  const changes = useChanges(planId, open, null);
  const [busy, setBusy] = useState(false);
  const go = async (to: number) => {
    setBusy(true);
    try {
      toast(`Gone to that point: ${await turnPlanTo(planId, to)} turned`, { seconds: 3 });
    } catch (error) {
      wrong(error);
    } finally {
      setBusy(false);
    }
  };
  const here = changes?.find((c) => c.reachable && !c.undone)?.id ?? 0;
  const isWhole = changes?.every((c) => c.reachable) ?? true;
  return (
    <aside
      aria-label="History"
      className="flex w-[330px] shrink-0 flex-col border-t border-l border-line bg-paper text-[14.5px]"
    >
      <div className="px-4 pt-3 pb-2">
        <PanelHead title="History" close="Close the history" onClose={onClose} />
      </div>
      {changes === null ? (
        <p role="status" className="px-4 text-soft">
          Looking …
        </p>
      ) : changes.length === 0 ? (
        <p className="px-4 text-soft">
          Nothing has been changed in this plan yet. What you change stands here, with a way back.
        </p>
      ) : (
        <ol className="min-h-0 flex-1 overflow-auto px-2 pb-3">
          {changes.map((c, k) => (
            <li key={c.id}>
              {!c.reachable && (changes[k - 1]?.reachable ?? true) && (
                <p className="mt-2 border-t border-line px-2.5 pt-2 pb-1 text-[13.5px] text-soft">
                  Earlier work is kept as an edition. To go back to it, work on that edition again, under Gather.
                </p>
              )}
              <button
                type="button"
                disabled={busy || c.id === here || !c.reachable}
                aria-current={c.id === here ? 'step' : undefined}
                title={c.id === here ? 'The plan stands here' : c.reachable ? 'Go to this point' : undefined}
                onClick={() => void go(c.id)}
                className={`w-full rounded-md border-l-2 px-2.5 py-1 text-left ${c.id === here ? 'border-kelp bg-wash' : 'border-transparent enabled:hover:bg-wash'} ${c.reachable ? '' : 'text-soft'} ${c.undone ? 'text-soft line-through decoration-soft/50' : ''}`}
              >
                <span className="line-clamp-2">{c.words}</span>
                <span className="block font-narrow text-[13.5px] text-soft">
                  {[
                    whenWords(c.createdAt),
                    c.person,
                    c.undone ? 'taken back' : c.id === here ? 'the plan stands here' : '',
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </button>
            </li>
          ))}
          {isWhole && (
            <li>
              <button
                type="button"
                disabled={busy || here === 0}
                aria-current={here === 0 ? 'step' : undefined}
                onClick={() => void go(0)}
                className={`w-full rounded-md border-l-2 px-2.5 py-1 text-left ${here === 0 ? 'border-kelp bg-wash' : 'border-transparent hover:bg-wash'}`}
              >
                {changes.length === 200 ? 'Before everything that is remembered' : 'As the plan was taken in'}
              </button>
            </li>
          )}
        </ol>
      )}
    </aside>
  );
}
