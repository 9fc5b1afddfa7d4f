'use client';
import type { Bar } from '@clembo/formats/columns';
import { X } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { DayField, dayOfField } from '@/ui/DayField';
import { Frame } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import { openSoon } from '@/workers/planRoom';
import { PlanPicture } from './PlanPicture';

export interface StarterCard {
  /** `own` or `kept`, and its id. */
  key: string;
  name: string;
  about: string;
  activities: number;
  milestones?: number;
  links?: number;
  bars?: Bar[];
}

/** Plans to begin from: those that everybody has, and those that were kept here. */
export function Starters({ own, kept }: { own: StarterCard[]; kept: StarterCard[] }) {
  const [gone, setGone] = useState<string[]>([]);
  const [chosen, setChosen] = useState<StarterCard | null>(null);
  const there = kept.filter((k) => !gone.includes(k.key));
  const letGo = (card: StarterCard) => {
    ask(`/api/starters/${card.key.slice('kept '.length)}`, { method: 'DELETE' }).then(() => {
      setGone((g) => [...g, card.key]);
      if (chosen?.key === card.key) setChosen(null);
    }, wrong);
  };
  return (
    <Frame stage="Gather" plan={null}>
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[1240px] px-8 py-7">
          <div className="flex items-baseline gap-4">
            <h1 className="font-serif text-[26px] font-semibold">Begin from a starter</h1>
            <Link href="/" className="quiet ml-auto py-1">
              All plans
            </Link>
          </div>
          <div className="mt-5 grid grid-cols-2 gap-5 xl:grid-cols-4">
            {own.map((card) => (
              <Card key={card.key} card={card} chosen={chosen?.key === card.key} onChoose={() => setChosen(card)} />
            ))}
          </div>
          {there.length > 0 && (
            <section aria-labelledby="kept-starters" className="mt-7">
              <h2 id="kept-starters" className="font-serif text-[20px] font-semibold">
                Kept here
              </h2>
              <ul className="mt-2 divide-y divide-line border-y border-line">
                {there.map((card) => (
                  <li
                    key={card.key}
                    className={`flex items-center gap-3 px-2 py-2 ${chosen?.key === card.key ? 'bg-marigold/15' : ''}`}
                  >
                    <button
                      type="button"
                      aria-pressed={chosen?.key === card.key}
                      className="min-w-0 flex-1 text-left"
                      onClick={() => setChosen(card)}
                    >
                      <span className="font-semibold">{card.name}</span>
                      <span className="ml-3 text-[14px] text-soft">
                        {card.activities} rows{card.about && ` · ${card.about}`}
                      </span>
                    </button>
                    <button
                      type="button"
                      aria-label={`Let go of the starter ${card.name}`}
                      className="rounded p-1 text-soft hover:bg-line"
                      onClick={() => letGo(card)}
                    >
                      <X size={16} />
                    </button>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {chosen && <Begin key={chosen.key} card={chosen} />}
        </div>
      </div>
    </Frame>
  );
}

function Card({ card, chosen, onChoose }: { card: StarterCard; chosen: boolean; onChoose: () => void }) {
  const dated = card.bars?.flatMap((b) => [b.start, b.finish].filter((m) => m !== null)) ?? [];
  const [from, to] = [Math.min(...dated), Math.max(...dated)].map((m) => Math.floor(m / 1440));
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className={`flex flex-col rounded-xl border bg-paper p-4 text-left ${chosen ? 'border-marigold ring-2 ring-marigold' : 'border-line hover:border-soft'}`}
    >
      <span className="font-serif text-[19px] font-semibold">{card.name}</span>
      <span className="mt-0.5 min-h-[60px] text-[14.5px] text-soft">{card.about}</span>
      {card.bars && (
        <span className="mt-2 block h-[300px] w-full overflow-hidden">
          <PlanPicture bars={card.bars} from={from!} to={to!} labels={false} />
        </span>
      )}
      <span className="mt-2 text-[14px]">
        {card.activities} activities · {card.milestones} milestones · {card.links} links
      </span>
    </button>
  );
}

function Begin({ card }: { card: StarterCard }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [start, setStart] = useState('');
  const [busy, setBusy] = useState(false);
  const day = dayOfField(start);
  const begin = async () => {
    if (day === null || name.trim() === '') return;
    setBusy(true);
    const [kind, id] = card.key.split(' ') as ['own' | 'kept', string];
    try {
      const { job } = await ask<{ job: string }>('/api/plans', {
        method: 'POST',
        json: { name, from: { starter: { [kind]: id }, day } },
      });
      const { planId } = await awaitJob<{ planId: string }>(job);
      openSoon(planId);
      router.push(`/plans/${planId}/show`);
    } catch (error) {
      wrong(error);
      setBusy(false);
    }
  };
  return (
    <form
      aria-label="The new plan"
      className="sticky bottom-0 mt-6 flex flex-wrap items-center gap-3 rounded-xl border border-marigold bg-paper px-5 py-3 shadow-lg"
      onSubmit={(e) => {
        e.preventDefault();
        void begin();
      }}
    >
      <span>
        <span className="font-semibold">{card.name}</span> for
      </span>
      <input
        autoFocus
        aria-label="Name of the plan"
        placeholder="Name of the plan"
        value={name}
        maxLength={300}
        onChange={(e) => setName(e.target.value)}
        className="w-72 rounded-md border border-line bg-paper px-2.5 py-1"
      />
      <label className="flex items-center gap-2">
        starting on <DayField label="First day" value={start} onChange={setStart} />
      </label>
      <button type="submit" className="action ml-auto" disabled={busy || day === null || name.trim() === ''}>
        {busy ? 'Making it …' : 'Make the plan'}
      </button>
    </form>
  );
}
