'use client';
import { dayOf } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';
import type { RoundRow } from '@/workers/answers/round';
import { type OpenRoom, reopen } from '@/workers/planRoom';
import { whenKept } from '@/workers/planWrites';
import { labelOf } from './Asked';

interface Props {
  planId: string;
  open: OpenRoom;
  rows: RoundRow[];
  last: string | null;
}

/** What was said in this round: `percent 40 → 60, finished 2026-09-11`. */
function changeWords(r: RoundRow): string {
  return r.asksFor
    .filter((f) => r.last && r.last[f] !== r.now[f])
    .map((f) =>
      f === 'notes'
        ? 'comment'
        : `${labelOf(r, f).toLowerCase()} ${r.last![f] === '' ? '' : `${r.last![f]} → `}${r.now[f] || 'nothing'}`,
    )
    .concat(r.onHold ? ['on hold'] : [])
    .join(', ');
}

/** The end of the round: what changed, kept as an edition under the status date. */
export function KeepRound({ planId, open, rows, last }: Props) {
  const router = useRouter();
  const { statusDate } = open.head;
  const own = statusDate === null ? 'Edition' : `Status ${formatDay(dayOf(statusDate), 'long')}`;
  const [name, setName] = useState<string | null>(null);
  const changed = rows.filter((r) => r.changed);
  const keep = async () => {
    try {
      await whenKept(planId);
      await ask(`/api/plans/${planId}/editions`, {
        method: 'POST',
        json: {
          name: (name ?? own).trim() || own,
          note: changed
            .slice(0, 60)
            .map((r) => `${r.name}: ${changeWords(r)}`)
            .join('\n')
            .slice(0, 5000),
        },
      });
      reopen(planId);
      toast(`Kept as “${(name ?? own).trim() || own}”`);
      router.push(`/plans/${planId}/measure`);
    } catch (e) {
      wrong(e);
    }
  };
  return (
    <Popover>
      <PopoverButton className="action">End the round</PopoverButton>
      <PopoverPanel anchor={{ to: 'top end', gap: 10 }} className="panel w-[460px] p-4!" focus>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            void keep();
          }}
        >
          <p className="font-semibold">
            {last === null
              ? 'What was reported'
              : changed.length === 0
                ? `Nothing was reported since ${last}`
                : `${changed.length} ${changed.length === 1 ? 'activity' : 'activities'} reported since ${last}`}
          </p>
          <ul className="mt-1.5 max-h-64 space-y-0.5 overflow-auto text-[14px]">
            {changed.map((r) => (
              <li key={r.ref}>
                {r.name} <span className="text-soft">{changeWords(r)}</span>
              </li>
            ))}
          </ul>
          <label className="mt-3 block">
            <span className="text-soft">Keep the plan as it stands now as</span>
            <input
              aria-label="Name of the edition"
              value={name ?? own}
              onChange={(e) => setName(e.target.value)}
              className="mt-1 w-full rounded border border-line bg-paper px-2 py-1"
            />
          </label>
          <button type="submit" className="action mt-3">
            Keep this edition
          </button>
        </form>
      </PopoverPanel>
    </Popover>
  );
}
