'use client';
import { dayOf, startOfDay } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { PART_STYLE } from '@/ui/sentence/ListParts';
import { DayField, dayOfField } from '@/ui/DayField';
import type { OpenRoom } from '@/workers/planRoom';

/** The status date, which belongs to the plan. */
export function StatusPart({ planId, open }: { planId: string; open: OpenRoom }) {
  const { change } = usePlanChange(planId);
  const { statusDate } = open.head;
  const said = statusDate === null ? 'a day to be said' : formatDay(dayOf(statusDate), 'long');
  const [typed, setTyped] = useState('');
  const wanted = dayOfField(typed);
  return (
    <Popover as="span">
      <PopoverButton data-brief-part="status" aria-label={`Status date: ${said}`} className={PART_STYLE}>
        {said}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel p-3!" focus>
        {({ close }) => (
          <form
            className="flex items-center gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              if (wanted === null) return;
              void change({ do: 'setPlan', settings: { statusDate: startOfDay(wanted) } }, 'Set the status date');
              close();
            }}
          >
            <DayField label="Status date" value={typed} onChange={setTyped} />
            <button type="submit" className="action py-1" disabled={wanted === null}>
              Set the status date
            </button>
          </form>
        )}
      </PopoverPanel>
    </Popover>
  );
}
