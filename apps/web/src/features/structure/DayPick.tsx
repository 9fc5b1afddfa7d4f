'use client';
import { civilFromDay, type Day, hasWorkingTime, workingTimeOf } from '@clembo/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { MonthGrid } from '@/ui/MonthGrid';
import type { DayMeant } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import { nearDay } from './nearDay';

interface Props {
  open: OpenRoom;
  meant: DayMeant;
  onPick: (day: Day) => void;
}

/** What a typed day is understood as, and a month to pick one from; days off of the activity's own calendar stand back. */
export function DayPick({ open, meant, onPick }: Props) {
  const near = meant.day ?? nearDay(open.head);
  const at = civilFromDay(near);
  const [by, setBy] = useState(0);
  const month = at.year * 12 + at.month - 1 + by;
  const spec = open.head.calendars.find((c) => c.id === meant.calendar);
  const time = spec && hasWorkingTime(spec) ? workingTimeOf(spec, 'day', near) : null;
  return (
    <span
      className="panel block w-48 p-2!"
      // What is typed stays, and so does the editor.
      onPointerDown={(e) => {
        e.preventDefault();
        e.stopPropagation();
      }}
    >
      {meant.words && <span className="mb-1 block font-semibold">{meant.words}</span>}
      <span className="float-right flex">
        <button
          type="button"
          tabIndex={-1}
          aria-label="The month before"
          className="rounded hover:bg-line"
          onClick={() => setBy(by - 1)}
        >
          <ChevronLeft size={15} />
        </button>
        <button
          type="button"
          tabIndex={-1}
          aria-label="The next month"
          className="rounded hover:bg-line"
          onClick={() => setBy(by + 1)}
        >
          <ChevronRight size={15} />
        </button>
      </span>
      <MonthGrid
        year={Math.floor(month / 12)}
        month={(month % 12) + 1}
        dayLook={(day) => ({
          className: `${day === meant.day ? 'bg-kelp text-paper' : time && !time.isWorkday(day) ? 'text-soft/60 hover:bg-wash' : 'hover:bg-line'}`,
        })}
        withYear
        onPick={onPick}
      />
    </span>
  );
}
