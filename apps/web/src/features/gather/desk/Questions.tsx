import type { ReactNode } from 'react';
import { DayField } from '@/ui/DayField';
import { many } from './Outcome';
import type { Intake } from './useIntake';

const KINDS: Record<string, string> = {
  foot: 'below the table',
  total: 'totals',
  heading: 'headings that are printed again',
  hidden: 'hidden in the sheet',
  notPicked: 'not chosen',
};

/** What the table leaves open, and what was left out of it unasked: each with the answer beside it. */
export function Questions({
  intake,
  start,
  onStart,
  asksStart,
}: {
  intake: Intake;
  start: string;
  onStart: (day: string) => void;
  asksStart: boolean;
}) {
  const { view, map, changeMap } = intake;
  const left = view.left.filter((l) => l.kind !== 'notPicked' && l.kind !== 'hidden');
  return (
    <>
      {map.dateOrder === null && (
        <Ask>
          In {sampleDate(intake)} the dates leave open whether day or month comes first. Choose it under <b>Dates</b>;
          nothing is guessed.
        </Ask>
      )}
      {view.dates === 'computed' && asksStart && (
        <Ask>
          <label className="flex items-center gap-3">
            <span>
              The table has lengths and links, but no dates: they are computed. On which day does the plan start?
            </span>
            <DayField label="Start of the plan" value={start} onChange={onStart} />
          </label>
        </Ask>
      )}
      {view.dates === 'none' && view.rowsTaken > 0 && (
        <Ask>
          No column holds dates, durations or links, so there is nothing to draw. Say below which column holds the
          dates.
        </Ask>
      )}
      {view.hiddenRows > 0 && (
        <Tell>
          {many(view.hiddenRows, 'row is', 'rows are')} hidden in the sheet, and{' '}
          {map.hidden === 'in' ? 'taken in' : 'left out'}.
          <button
            type="button"
            className="text-kelp underline underline-offset-2"
            onClick={() => changeMap({ hidden: map.hidden === 'in' ? 'out' : 'in' })}
          >
            {map.hidden === 'in' ? 'Leave them out' : 'Take them in'}
          </button>
        </Tell>
      )}
      {left.map((l) => (
        <Tell key={l.kind}>
          {many(l.rows.length, 'row', 'rows')} left out ({KINDS[l.kind]}: “{l.text}”, row{' '}
          {l.rows.slice(0, 4).join(', ')}
          {l.rows.length > 4 ? ' …' : ''}).
          {l.kind !== 'heading' && (
            <button
              type="button"
              className="text-kelp underline underline-offset-2"
              onClick={() => changeMap({ foot: 'in' })}
            >
              Take them in
            </button>
          )}
        </Tell>
      ))}
      {map.foot === 'in' && (
        <Tell>
          Totals and what stands below the table are taken in.
          <button
            type="button"
            className="text-kelp underline underline-offset-2"
            onClick={() => changeMap({ foot: 'out' })}
          >
            Leave them out
          </button>
        </Tell>
      )}
    </>
  );
}

const Ask = ({ children }: { children: ReactNode }) => (
  <div role="alert" className="mb-3 rounded-lg border border-marigold bg-marigold/15 px-4 py-2">
    {children}
  </div>
);

const Tell = ({ children }: { children: ReactNode }) => (
  <p className="mb-2 flex flex-wrap items-baseline gap-x-2 text-[14.5px] text-soft">{children}</p>
);

function sampleDate({ view }: Intake): string {
  for (const { cells } of view.samples) {
    const found = cells.find((c) => /^\d{1,2}[-/.]\d{1,2}[-/.]\d{2,4}/.test(c.text));
    if (found) return `“${found.text}” and all others`;
  }
  return 'this table';
}
