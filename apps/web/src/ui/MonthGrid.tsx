'use client';
import { civilFromDay, type Day, dayFromCivil, weekdayOf } from '@clembo/core';
import { formatDay, MONTHS } from '@clembo/scene/dates';
import type { PointerEvent } from 'react';

const WEEKDAYS = ['M', 'T', 'W', 'T', 'F', 'S', 'S'];

interface Props {
  year: number;
  /** 1 to 12. */
  month: number;
  /** How a day looks, and what it is. */
  dayLook: (day: Day) => { className: string; title?: string };
  onDown?: (day: Day, e: PointerEvent) => void;
  onOver?: (day: Day) => void;
  onPick?: (day: Day) => void;
  withYear?: boolean;
}

/** A month as a small table of days, Monday first. */
export function MonthGrid({ year, month, dayLook, onDown, onOver, onPick, withYear = false }: Props) {
  const first = dayFromCivil(year, month, 1);
  const length = (month === 12 ? dayFromCivil(year + 1, 1, 1) : dayFromCivil(year, month + 1, 1)) - first;
  return (
    <div role="group" aria-label={`${MONTHS[month - 1]} ${year}`}>
      <p className="mb-1 font-semibold">
        {MONTHS[month - 1]}
        {withYear ? ` ${year}` : ''}
      </p>
      <div className="grid grid-cols-7 gap-px text-center font-narrow text-[13px]">
        {WEEKDAYS.map((w, k) => (
          // biome-ignore lint: weekdays stand where they stand
          <span key={k} aria-hidden className="text-[12px] text-soft">
            {w}
          </span>
        ))}
        {Array.from({ length: weekdayOf(first) }, (_, k) => (
          // biome-ignore lint: room before the first day
          <span key={`room${k}`} />
        ))}
        {Array.from({ length }, (_, k) => {
          const day = first + k;
          const { className, title } = dayLook(day);
          return (
            <button
              key={day}
              type="button"
              data-day={day}
              aria-label={`${formatDay(day, 'weekday')}${title ? `: ${title}` : ''}`}
              title={title}
              className={`rounded-[3px] leading-[19px] ${className}`}
              onPointerDown={onDown && ((e) => onDown(day, e))}
              onPointerEnter={onOver && (() => onOver(day))}
              onClick={onPick && (() => onPick(day))}
            >
              {civilFromDay(day).day}
            </button>
          );
        })}
      </div>
    </div>
  );
}
