'use client';
import { dayOf, finishDayOf, isoDate } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { useState } from 'react';
import { DayField, dayOfField } from '@/ui/DayField';
import { PlanPicture } from '../PlanPicture';
import { many } from './Outcome';
import { RowPicker } from './RowPicker';
import type { Intake } from './useIntake';

/** What would come of the intake: a small picture of the plan, and what a reader would want to know of it. */
export function PlanSketch({ id, intake }: { id: string; intake: Intake }) {
  const { view } = intake;
  const { counts, span, bars } = view;
  const [picking, setPicking] = useState(false);
  const { pick } = intake.map;
  const without = pick.without.length;
  const set = (change: Partial<typeof pick>) => intake.changeMap({ pick: { ...pick, ...change } });
  return (
    <aside aria-label="What would come of it" className="w-[340px] shrink-0 overflow-auto">
      <div className="rounded-xl border border-line bg-paper p-3">
        <h2 className="text-[15px] font-semibold">What would come of it</h2>
        {span ? (
          <>
            <p className="text-[14px] text-soft">
              {formatDay(dayOf(span[0]), 'weekday')} to {formatDay(finishDayOf(span[1]), 'weekday')}
            </p>
            <PlanPicture bars={bars} from={dayOf(span[0])} to={finishDayOf(span[1])} />
          </>
        ) : (
          <p className="mt-1 text-[14px] text-soft">
            {view.dates === 'computed' ? 'Its dates are computed once it has a start.' : 'Nothing with a date yet.'}
          </p>
        )}
        <ul className="mt-2 space-y-0.5 text-[14px]">
          {counts.undated > 0 && (
            <li className="text-madder">
              {many(counts.undated, 'row has no date: it waits', 'rows have no date: they wait')} in the tray
            </li>
          )}
          {counts.vague > 0 && (
            <li className="text-soft">
              {many(counts.vague, 'date is', 'dates are')} vaguer than a day: drawn with soft ends
            </li>
          )}
        </ul>
        <div className="mt-2 grid w-fit grid-cols-[auto_auto] items-center gap-x-2 gap-y-1 text-[14px] text-soft">
          Only from
          <DayField label="Only from" value={isoOf(pick.from)} onChange={(v) => set({ from: dayOfField(v) })} />
          to
          <DayField label="Only to" value={isoOf(pick.to)} onChange={(v) => set({ to: dayOfField(v) })} />
        </div>
        <button type="button" className="quiet mt-2 py-0.5 text-[14px]" onClick={() => setPicking(true)}>
          {without > 0 ? `${without} rows left out by hand` : 'Choose rows'}
        </button>
      </div>
      {picking && <RowPicker id={id} intake={intake} onClose={() => setPicking(false)} />}
    </aside>
  );
}

const isoOf = (day: number | null): string => (day === null ? '' : isoDate(day));
