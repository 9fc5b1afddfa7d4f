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
        {(counts.onlyPromised > 0 || counts.underWay > 0) && <PromisedRows intake={intake} />}
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

/** Rows that state nothing but what was promised: asked about once, and kept with the column map. */
function PromisedRows({ intake }: { intake: Intake }) {
  const { onlyPromised, underWay } = intake.view.counts;
  const { asPromised } = intake.map;
  const under =
    underWay === 0
      ? ''
      : ` ${many(underWay, 'row is under way without a finish: it ends', 'rows are under way without a finish: each ends')} when its promised length is over.`;
  return (
    <div
      role="group"
      aria-label="Rows with only promised dates"
      data-testid="only-promised"
      className="mt-2 rounded-lg border border-marigold bg-marigold/15 p-2 text-[14px]"
    >
      {onlyPromised > 0 && (
        <p>
          {many(onlyPromised, 'row has', 'rows have')} only promised dates.{under}
        </p>
      )}
      {onlyPromised === 0 && <p>{under.trim()}</p>}
      {onlyPromised > 0 && (
        <div className="mt-1.5 flex flex-wrap gap-1.5">
          <button
            type="button"
            aria-pressed={asPromised === true}
            className="quiet bg-paper py-0.5"
            onClick={() => intake.changeMap({ asPromised: true })}
          >
            Take them as they stand
          </button>
          <button
            type="button"
            aria-pressed={asPromised === false}
            className="quiet bg-paper py-0.5"
            onClick={() => intake.changeMap({ asPromised: false })}
          >
            Leave them without dates
          </button>
        </div>
      )}
    </div>
  );
}

const isoOf = (day: number | null): string => (day === null ? '' : isoDate(day));
