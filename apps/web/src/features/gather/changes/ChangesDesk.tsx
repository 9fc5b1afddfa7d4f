'use client';
import { type AlikePair, dayOf, type SourceChange } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { Frame } from '@/ui/Frame';
import { toast, wrong } from '@/ui/Toasts';
import { ChangesList } from './ChangesList';
import type { ChangesPlan } from './changesList';

/** What a person decided so far. */
export interface Choices {
  refused: string[];
  same: { was: string; is: string }[];
  apart: string[];
}

interface Compared {
  planId?: string;
  version: number;
  changes: SourceChange[];
  alike: AlikePair[];
  doubtful: string[];
  statusDate: { from: number | null; to: number | null };
  plan: ChangesPlan;
}

/** What next week's file would change, before anything is changed. */
export function ChangesDesk({
  id,
  source,
  plan,
  edition,
  first,
}: {
  id: string;
  source: string;
  plan: { id: string; name: string };
  edition: string;
  first: Choices;
}) {
  const router = useRouter();
  const [choices, setChoices] = useState(first);
  const [compared, setCompared] = useState<Compared | null>(null);
  const [doing, setDoing] = useState<string | null>('Comparing');
  const saved = useRef<Promise<unknown>>(Promise.resolve());

  const compare = useCallback(async () => {
    setDoing('Comparing');
    try {
      await saved.current;
      const { job } = await ask<{ job: string }>(`/api/intakes/${id}/changes`, { method: 'POST' });
      const result = await awaitJob<Compared>(job, { onStep: (words) => words !== '' && setDoing(words) });
      if (result.planId) router.replace(`/plans/${result.planId}/show`);
      else setCompared(result);
    } catch (error) {
      wrong(error);
    } finally {
      setDoing(null);
    }
  }, [id, router]);
  useEffect(() => {
    void compare();
  }, [compare]);

  const decide = (next: Choices) => {
    setChoices(next);
    saved.current = saved.current
      .then(() => ask(`/api/intakes/${id}/choices`, { method: 'PUT', json: next }))
      .catch(wrong);
  };
  const setAccepted = (ids: string[], accept: boolean) => {
    const refused = new Set(choices.refused);
    for (const c of ids) accept ? refused.delete(c) : refused.add(c);
    decide({ ...choices, refused: [...refused] });
  };
  const refresh = async () => {
    setDoing('Refreshing the plan');
    try {
      await saved.current;
      const { job } = await ask<{ job: string }>(`/api/intakes/${id}/refresh`, {
        method: 'POST',
        json: { version: compared!.version },
      });
      await awaitJob(job, { onStep: (words) => words !== '' && setDoing(words) });
      toast('The plan is refreshed. It can be taken back as a whole under Gather.');
      router.push(`/plans/${plan.id}/gather`);
    } catch (error) {
      wrong(error);
      setDoing(null);
    }
  };
  const letGo = () => {
    ask(`/api/intakes/${id}`, { method: 'DELETE' }).then(() => router.push(`/plans/${plan.id}/gather`), wrong);
  };
  const refused = new Set(choices.refused);
  const alike = compared?.alike.filter((p) => !choices.apart.includes(`${p.was} ${p.is}`)) ?? [];
  const accepted = compared ? compared.changes.filter((c) => !refused.has(c.id)).length : 0;
  const status = compared?.statusDate;
  const statusMoves = status && status.to !== null && status.to !== status.from;

  return (
    <Frame
      stage="Gather"
      plan={{ id: plan.id, name: plan.name, edition, status: null }}
      controls={
        <button
          type="button"
          className="action"
          disabled={compared === null || doing !== null}
          onClick={() => void refresh()}
        >
          {doing !== null && compared !== null
            ? `${doing} …`
            : accepted > 0 || statusMoves
              ? 'Refresh the plan'
              : 'Keep this file as read'}
        </button>
      }
    >
      <div className="flex h-full flex-col px-6 pt-5">
        <div className="flex items-baseline gap-4 pb-3">
          <h1 className="font-serif text-[24px] font-semibold">What has changed since {edition}?</h1>
          <span className="truncate text-soft">
            {source}, beside what it said when it was read last. Nothing is changed yet.
          </span>
        </div>
        {compared === null ? (
          <p role="status" className="text-soft">
            {doing ?? 'It could not be compared.'} …
          </p>
        ) : (
          <>
            {alike.length > 0 && (
              <Alike
                pairs={alike}
                onSay={(pair, same) => {
                  if (same) {
                    decide({ ...choices, same: [...choices.same, { was: pair.was, is: pair.is }] });
                    void compare();
                  } else decide({ ...choices, apart: [...choices.apart, `${pair.was} ${pair.is}`] });
                }}
                onAll={() => {
                  decide({ ...choices, same: [...choices.same, ...alike.map(({ was, is }) => ({ was, is }))] });
                  void compare();
                }}
              />
            )}
            {compared.doubtful.length > 0 && (
              <p className="mb-3 rounded-lg border border-marigold bg-marigold/15 px-4 py-2">
                Rows have no references here, and several are called “{compared.doubtful.slice(0, 3).join('”, “')}”
                {compared.doubtful.length > 3 ? ' …' : ''}: they come as gone and new. Give the rows references, or say
                above which are the same.
              </p>
            )}
            {statusMoves && (
              <label className="mb-2 flex items-center gap-2">
                <input
                  type="checkbox"
                  checked={!refused.has('statusDate')}
                  onChange={(e) => setAccepted(['statusDate'], e.target.checked)}
                  className="size-4 accent-kelp"
                />
                Status date {status.from === null ? 'none' : formatDay(dayOf(status.from), 'long')} →{' '}
                {formatDay(dayOf(status.to!), 'long')}
              </label>
            )}
            {compared.changes.length === 0 ? (
              <p className="text-soft">Nothing has changed at the source since it was read last.</p>
            ) : (
              <ChangesList changes={compared.changes} plan={compared.plan} refused={refused} onDecide={setAccepted} />
            )}
          </>
        )}
        <footer className="-mx-6 mt-3 flex shrink-0 items-center gap-5 border-t border-line bg-paper px-6 py-2">
          {compared && (
            <span role="status">
              <b>{accepted}</b> of {compared.changes.length} changes accepted
              {doing ? ` · ${doing} …` : ''}
            </span>
          )}
          <Link href={`/intake/${id}`} className="quiet ml-auto">
            Back to the columns
          </Link>
          <button type="button" className="quiet" onClick={letGo} disabled={doing !== null && compared !== null}>
            Let go of it
          </button>
        </footer>
      </div>
    </Frame>
  );
}

/** Rows that are gone and new and look the same, side by side. */
function Alike({
  pairs,
  onSay,
  onAll,
}: {
  pairs: AlikePair[];
  onSay: (pair: AlikePair, same: boolean) => void;
  onAll: () => void;
}) {
  return (
    <section aria-label="The same?" className="mb-3 rounded-lg border border-marigold bg-marigold/15 px-4 py-2.5">
      <div className="flex items-baseline gap-4">
        <p>
          {pairs.length === 1 ? 'One row has' : `${pairs.length} rows have`} another reference than before and{' '}
          {pairs.length === 1 ? 'looks' : 'look'} the same. {pairs.length === 1 ? 'Is it?' : 'Are they?'}
        </p>
        {pairs.length > 1 && (
          <button type="button" className="quiet py-0.5" onClick={onAll}>
            All are the same
          </button>
        )}
      </div>
      <ul className="mt-1.5 max-h-36 overflow-auto">
        {pairs.slice(0, 100).map((p) => (
          <li key={`${p.was} ${p.is}`} className="flex items-center gap-3 py-0.5">
            <span className="min-w-0 flex-1 truncate">
              {p.wasName} <span className="text-soft">({p.was}) is gone;</span> {p.name}{' '}
              <span className="text-soft">({p.is}) is new</span>
            </span>
            <button type="button" className="quiet py-0" onClick={() => onSay(p, true)}>
              The same
            </button>
            <button type="button" className="quiet py-0" onClick={() => onSay(p, false)}>
              Not the same
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
