'use client';
import type { Day } from '@clembo/core';
import type { PointerEvent } from 'react';
import type { Strip as StripOf } from '@/workers/plan.worker';

export type Grip = 'move' | 'finish';

interface Props {
  strip: StripOf | null;
  range: [Day, Day];
  statusDay: number | null;
  /** Where it would stand, while something is being changed. */
  would: { first: Day; last: Day } | null;
  onGrip: ((e: PointerEvent, grip: Grip) => void) | null;
}

/** The row's time as a small bar: progress along its lower edge, what is critical along its upper one, the promise as an outline below. */
export function Strip({ strip, range, statusDay, would, onGrip }: Props) {
  const length = range[1] + 1 - range[0];
  const at = (day: number) => `${(100 * (day - range[0])) / length}%`;
  const box = (first: Day, last: Day) => ({ left: at(first), width: `${(100 * (last + 1 - first)) / length}%` });
  const inside = (first: Day, last: Day) => last >= range[0] && first <= range[1];
  const point = strip?.kind.endsWith('Milestone') && !strip.summary;
  const moved = would && strip && (would.first !== strip.first || would.last !== strip.last) ? would : null;
  return (
    <span aria-hidden className="relative block h-full overflow-hidden">
      {statusDay !== null && statusDay >= range[0] && statusDay <= range[1] && (
        <span className="absolute inset-y-0 w-px bg-kelp/60" style={{ left: at(statusDay) }} />
      )}
      {strip?.promised && point && strip.promised.last !== strip.last && (
        <span
          className="absolute top-[9px] size-[9px] -translate-x-1/2 rotate-45 border border-soft/70"
          style={{ left: at(strip.promised.last + 0.5) }}
        />
      )}
      {strip?.promised && !strip.summary && !point && inside(strip.promised.first, strip.promised.last) && (
        <span
          className="absolute top-[20px] h-[5px] min-w-[3px] rounded-[2px] border border-soft/70"
          style={box(strip.promised.first, strip.promised.last)}
        />
      )}
      {strip && inside(strip.first, strip.last) && (
        <span
          data-grip="move"
          className={`absolute ${onGrip ? 'cursor-grab touch-none' : ''} ${point ? 'top-[8px] -translate-x-1/2' : strip.summary ? 'top-[6px] h-[18px]' : 'top-[7px] h-[12px] min-w-[4px]'}`}
          style={point ? { left: at(strip.last + 0.5) } : box(strip.first, strip.last)}
          onPointerDown={onGrip ? (e) => onGrip(e, 'move') : undefined}
        >
          {point ? (
            <span
              className={`block size-[11px] rotate-45 border ${strip.critical ? 'border-2 border-ink' : 'border-kelp'} ${strip.percent === 100 ? 'bg-kelp' : 'bg-paper'}`}
            />
          ) : strip.summary ? (
            <span className="absolute inset-x-0 top-[8px] h-[2px] rounded bg-soft" />
          ) : (
            <span className="absolute inset-0 overflow-hidden rounded-[3px] border border-kelp/60 bg-kelp/30">
              <span className="absolute bottom-0 left-0 h-[5px] bg-kelp" style={{ width: `${strip.percent}%` }} />
              {strip.critical && <span className="absolute inset-x-0 top-0 h-[2px] bg-ink" />}
            </span>
          )}
          {onGrip && !point && !strip.summary && (
            <span
              data-grip="finish"
              className="absolute inset-y-0 -right-1 w-2 cursor-ew-resize"
              onPointerDown={(e) => {
                e.stopPropagation();
                onGrip(e, 'finish');
              }}
            />
          )}
        </span>
      )}
      {moved && inside(moved.first, moved.last) && (
        <span
          className={`pointer-events-none absolute border-2 border-marigold ${point ? 'top-[8px] size-[11px] -translate-x-1/2 rotate-45' : 'top-[5px] h-[16px] min-w-[4px] rounded-[4px]'}`}
          style={point ? { left: at(moved.last + 0.5) } : box(moved.first, moved.last)}
        />
      )}
    </span>
  );
}
