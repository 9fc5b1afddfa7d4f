'use client';
import type { PointerEvent } from 'react';
import type { WouldBar } from '@/workers/answers/consequences';
import type { Strip as StripOf } from '@/workers/answers/ledger';
import type { View } from './stripView';

/** What of a bar is held by the pointer. */
export type Grip = 'move' | 'finish' | 'progress' | 'link';

interface Props {
  /** Whose strip it is. */
  reference: string;
  strip: StripOf | null;
  view: View;
  statusDay: number | null;
  /** Where it would stand, while something is being changed. */
  would: WouldBar | null;
  /** A larger bar, where there is room to work on it. */
  big?: boolean;
  onGrip: ((e: PointerEvent, grip: Grip) => void) | null;
}

/** The row's time as a small bar: progress along its lower edge, what is critical along its upper one, the promise as an outline below. */
export function Strip({ reference, strip, view, statusDay, would, big = false, onGrip }: Props) {
  const length = view.to - view.from;
  const at = (day: number) => `${(100 * (day - view.from)) / length}%`;
  const wide = (from: number, to: number) => `${(100 * (to - from)) / length}%`;
  const box = (from: number, to: number) => ({ left: at(from), width: wide(from, to) });
  const inside = (from: number, to: number) => to > view.from && from < view.to;
  const point = strip?.kind.endsWith('Milestone') === true && !strip.summary;
  const moved =
    would && strip && (would.first !== strip.first || would.last !== strip.last || would.late > 0 || would.critical)
      ? would
      : null;
  const spot = strip ? (Number.isInteger(strip.to) ? strip.last + 0.5 : strip.to) : 0;
  const [top, tall] = big ? [9, 16] : [7, 12];
  const grip = (which: Grip) => (e: PointerEvent) => {
    e.stopPropagation();
    onGrip!(e, which);
  };
  return (
    <span aria-hidden className="group/strip relative block h-full overflow-hidden">
      {statusDay !== null && inside(statusDay, statusDay + 0.001) && (
        <span className="absolute inset-y-0 w-px bg-kelp/60" style={{ left: at(statusDay) }} />
      )}
      {strip?.promised && point && strip.promised.last !== strip.last && (
        <span
          className="absolute size-[9px] -translate-x-1/2 rotate-45 border border-soft/70"
          style={{ left: at(strip.promised.last + 0.5), top: top + 2 }}
        />
      )}
      {strip?.promised && !strip.summary && !point && inside(strip.promised.first, strip.promised.last + 1) && (
        <span
          className="absolute h-[5px] min-w-[3px] rounded-[2px] border border-soft/70"
          style={{ ...box(strip.promised.first, strip.promised.last + 1), top: top + tall + 1 }}
        />
      )}
      {strip && inside(strip.from, Math.max(strip.to, strip.from + 0.001)) && (
        <span
          data-grip="move"
          data-bar={reference}
          className={`absolute ${onGrip ? 'cursor-grab touch-none' : ''} ${point ? '-translate-x-1/2' : strip.summary ? 'h-[18px]' : 'min-w-[4px]'}`}
          style={
            point
              ? { left: at(spot), top: top + 1 }
              : {
                  ...box(strip.from, strip.to),
                  top: strip.summary ? top - 1 : top,
                  ...(strip.summary ? {} : { height: tall }),
                }
          }
          onPointerDown={onGrip ? grip('move') : undefined}
        >
          {point ? (
            <span
              className={`block rotate-45 border ${big ? 'size-[13px]' : 'size-[11px]'} ${strip.critical ? 'border-2 border-ink' : 'border-kelp'} ${strip.percent === 100 ? 'bg-kelp' : 'bg-paper'}`}
            />
          ) : strip.summary ? (
            <span className="absolute inset-x-0 top-[8px] h-[2px] rounded bg-soft" />
          ) : strip.pieces ? (
            <Pieces strip={strip} />
          ) : (
            <span
              className={`absolute inset-0 overflow-hidden rounded-[3px] border border-kelp/60 ${strip.kind === 'levelOfEffort' ? 'border-x-transparent bg-linear-to-r from-transparent via-kelp/30 to-transparent' : 'bg-kelp/30'}`}
            >
              <span className="absolute bottom-0 left-0 h-[5px] bg-kelp" style={{ width: `${strip.percent}%` }} />
              {strip.critical && <span className="absolute inset-x-0 top-0 h-[2px] bg-ink" />}
            </span>
          )}
          {onGrip && !point && !strip.summary && strip.kind !== 'levelOfEffort' && (
            <>
              <span
                data-grip="progress"
                title={`${strip.percent} % complete`}
                className="absolute -bottom-[3px] hidden h-[9px] w-[7px] -translate-x-1/2 cursor-col-resize rounded-[2px] border border-paper bg-kelp-deep group-hover/strip:block"
                style={{ left: `${strip.percent}%` }}
                onPointerDown={grip('progress')}
              />
              <span
                data-grip="finish"
                className="absolute inset-y-0 -right-1 w-2 cursor-ew-resize"
                onPointerDown={grip('finish')}
              />
            </>
          )}
          {onGrip && !strip.summary && (
            <span
              data-grip="link"
              title="Draw a link to another bar"
              className={`absolute hidden size-[9px] cursor-crosshair rounded-full border-2 border-ink bg-paper group-hover/strip:block ${point ? 'top-[1px] left-[14px]' : '-right-[13px] top-[calc(50%-4px)]'}`}
              onPointerDown={grip('link')}
            />
          )}
        </span>
      )}
      {moved && inside(moved.first, moved.last + 1) && (
        <>
          <span
            className={`pointer-events-none absolute border-2 ${moved.late > 0 ? 'border-madder' : 'border-marigold'} ${point ? 'size-[11px] -translate-x-1/2 rotate-45' : 'min-w-[4px] rounded-[4px]'}`}
            style={
              point
                ? { left: at(moved.last + 0.5), top: top + 1 }
                : { ...box(moved.first, moved.last + 1), top: top - 2, height: tall + 4 }
            }
          />
          {(moved.late > 0 || moved.critical) && (
            <span
              className={`pointer-events-none absolute top-0 ml-2 rounded bg-paper/90 px-1 font-narrow text-[12px] whitespace-nowrap ${moved.late > 0 ? 'text-madder' : 'font-semibold text-ink'}`}
              style={{ left: at(moved.last + 1) }}
            >
              {moved.late > 0 ? `${moved.late} d late` : 'critical'}
            </span>
          )}
        </>
      )}
      {would?.needed && inside(would.needed, would.needed + 1) && (
        <span
          className="pointer-events-none absolute inset-y-[3px] border-r-2 border-dotted border-madder"
          style={{ left: at(would.needed + 1) }}
          title="Needed by"
        />
      )}
    </span>
  );
}

/** Interrupted work: a piece for each stretch, a thin line through the pauses; progress fills one after the other. */
function Pieces({ strip }: { strip: StripOf }) {
  const whole = strip.to - strip.from;
  const worked = strip.pieces!.reduce((sum, p) => sum + p.to - p.from, 0);
  let left = (worked * strip.percent) / 100;
  return (
    <>
      <span className="absolute inset-x-0 top-1/2 border-t border-dotted border-kelp" />
      {strip.pieces!.map((p) => {
        const length = p.to - p.from;
        const done = Math.max(0, Math.min(length, left));
        left -= done;
        return (
          <span
            key={p.from}
            className="absolute inset-y-0 overflow-hidden rounded-[3px] border border-kelp/60 bg-[#b8d4d1]"
            style={{ left: `${(100 * (p.from - strip.from)) / whole}%`, width: `${(100 * length) / whole}%` }}
          >
            <span className="absolute bottom-0 left-0 h-[5px] bg-kelp" style={{ width: `${(100 * done) / length}%` }} />
            {strip.critical && <span className="absolute inset-x-0 top-0 h-[2px] bg-ink" />}
          </span>
        );
      })}
    </>
  );
}
