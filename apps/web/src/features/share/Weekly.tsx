'use client';
import { Play, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useCallback, useEffect, useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';
import { useMay } from '@/ui/useMay';
import { type Said, WeeklyForm } from './WeeklyForm';

interface Report {
  id: string;
  at: string;
  state: 'done' | 'nothing' | 'waiting' | 'failed';
  file: string | null;
  words: string;
  intakeId: string | null;
  written: string[];
}

interface Shown {
  weekly: { said: Said; nextAt: string | null; reports: Report[] } | null;
  hasFolders: boolean;
  folders: string[];
}

const STATES: Record<Report['state'], [title: string, style: string]> = {
  done: ['done', 'bg-kelp/12 text-kelp-deep'],
  nothing: ['nothing new', 'bg-line text-soft'],
  waiting: ['waits for you', 'bg-marigold/25 text-marigold-deep'],
  failed: ['failed', 'bg-madder/12 text-madder'],
};

const when = (iso: string, zone: string): string =>
  new Date(iso).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    timeZone: zone,
  });

/** What a plan does by itself every week: the newest file of a folder in, a folio out; and how that went. */
export function Weekly({ planId, folios }: { planId: string; folios: { id: string; name: string }[] }) {
  const [shown, setShown] = useState<Shown | null>(null);
  const { edit } = useMay(planId);
  const [editing, setEditing] = useState(false);
  const [busy, setBusy] = useState('');
  const path = `/api/plans/${planId}/weekly`;
  const look = useCallback(() => ask<Shown>(path).then(setShown, wrong), [path]);
  useEffect(() => {
    void look();
  }, [look]);
  if (!shown) return null;
  const { weekly, folders, hasFolders } = shown;
  const keep = async (said: Said) => {
    try {
      await ask(path, { method: 'PUT', json: said });
      setEditing(false);
      await look();
    } catch (error) {
      wrong(error);
    }
  };
  const drop = async () => {
    const was = weekly!.said;
    try {
      await ask(path, { method: 'DELETE' });
      await look();
      toast('The weekly run was removed, with its reports.', {
        action: { label: 'Set it up again', run: () => void keep(was) },
      });
    } catch (error) {
      wrong(error);
    }
  };
  const runNow = async () => {
    setBusy('Beginning …');
    try {
      const { job } = await ask<{ job: string }>(`${path}/now`, { method: 'POST' });
      await awaitJob(job, { onStep: (words) => setBusy(words === '' ? 'Waiting for its turn …' : `${words} …`) });
    } catch (error) {
      wrong(error);
    }
    setBusy('');
    await look();
  };
  // Whoever may only look is not asked to set one up.
  if (!edit && !weekly) return null;
  return (
    <section aria-label="Every week" className="mt-10">
      <h2 className="font-serif text-[17px] font-semibold">Every week</h2>
      {!hasFolders && (
        <p className="mt-2 max-w-2xl text-soft">
          This server has no folder from which weekly runs may take files. Whoever runs it says which, in
          CLEMBO_FOLDERS.
        </p>
      )}
      {editing || (weekly && hasFolders) ? (
        <WeeklyForm
          key={JSON.stringify(weekly?.said ?? null)}
          said={weekly?.said ?? null}
          folders={folders}
          folios={folios}
          onKeep={keep}
          onCancel={weekly ? null : () => setEditing(false)}
        />
      ) : (
        hasFolders && (
          <p className="mt-2 max-w-2xl text-soft">
            Clembo can take the planner’s newest file by itself, accept what may be accepted or wait for you, and put
            the folio where it belongs.{' '}
            <button type="button" className="font-semibold text-kelp hover:underline" onClick={() => setEditing(true)}>
              Set up a weekly run
            </button>
          </p>
        )
      )}
      {weekly && (
        <>
          <div className="mt-3 flex flex-wrap items-center gap-3">
            <button type="button" className="quiet py-1!" disabled={busy !== ''} onClick={() => void runNow()}>
              <Play size={15} aria-hidden /> Run now
            </button>
            <span role="status" className="text-soft">
              {busy ||
                (weekly.nextAt
                  ? `Next on ${when(weekly.nextAt, weekly.said.zone)} (${weekly.said.zone}).`
                  : 'It rests: nothing is done by itself.')}
            </span>
            <button
              type="button"
              className="ml-auto flex items-center gap-1 text-[14px] text-soft hover:text-ink"
              onClick={() => void drop()}
            >
              <Trash2 size={14} aria-hidden /> Remove it
            </button>
          </div>
          <ol aria-label="How it went" className="mt-3 divide-y divide-line rounded-md bg-wash px-4">
            {weekly.reports.length === 0 && <li className="py-3 text-soft">It has not been done yet.</li>}
            {weekly.reports.map((r, k) => (
              <li key={r.id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-2.5" data-state={r.state}>
                <span className="w-[150px] shrink-0 text-[14px] text-soft">{when(r.at, weekly.said.zone)}</span>
                <span className="w-[104px] shrink-0">
                  <span className={`rounded px-1.5 text-[13px] font-semibold ${STATES[r.state][1]}`}>
                    {STATES[r.state][0]}
                  </span>
                </span>
                <span className="min-w-0 flex-1">
                  {r.words}
                  {r.state === 'waiting' &&
                    r.intakeId &&
                    !weekly.reports.slice(0, k).some((x) => x.state === 'done') && (
                      <Link href={`/intake/${r.intakeId}`} className="ml-2 font-semibold text-kelp hover:underline">
                        Look at it
                      </Link>
                    )}
                  {r.written.length > 0 && (
                    <span className="block text-[13.5px] text-soft">{r.written.join(' · ')}</span>
                  )}
                </span>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}
