'use client';
import { BAND_WORDS, type Bounds } from '@clembo/core';
import type { AmountShown } from '@/workers/answers/measure';
import { BAND_COLOUR } from './bands';

/** Amounts as shares of what was promised, with the bands of what is normal; clicked, an activity is chosen. */
export function AmountChart({
  amounts,
  bounds,
  chosen,
  onPick,
}: {
  amounts: AmountShown[];
  /** What is normal, as shares over what was promised. */
  bounds: Bounds;
  chosen: string[];
  onPick: (ref: string) => void;
}) {
  if (amounts.length === 0)
    return <p className="text-[14.5px] text-soft">Nothing is off what was promised, as far as is known.</p>;
  const [watch, breach] = [100 + 100 * bounds.watch, 100 + 100 * bounds.breach].map(Math.round);
  const lines = [...new Set([100, watch!, breach!])];
  const most = Math.max(breach! + 10, ...amounts.map((a) => a.percent)) * 1.02;
  const at = (percent: number) => `${(100 * percent) / most}%`;
  return (
    <div className="text-[14px]">
      <ul>
        {amounts.map((a) => (
          <li key={a.ref}>
            <button
              type="button"
              data-amount={a.ref}
              aria-pressed={chosen.includes(a.ref)}
              title={`${a.name}: ${a.words}, ${BAND_WORDS[a.band]}`}
              onClick={() => onPick(a.ref)}
              className={`grid w-full grid-cols-[38%_minmax(0,1fr)] items-center gap-2 rounded px-1 text-left ${chosen.includes(a.ref) ? 'bg-marigold/20' : 'hover:bg-wash'}`}
            >
              <span className="truncate">{a.name}</span>
              <span className="relative mr-11 block h-[22px]">
                <span
                  aria-hidden
                  className="absolute top-[4px] left-0 h-[14px] rounded-[2px]"
                  style={{ width: at(a.percent), background: BAND_COLOUR[a.band] }}
                />
                {lines.map((p) => (
                  <span
                    key={p}
                    aria-hidden
                    className="absolute inset-y-0 w-px border-l border-dashed border-soft/60"
                    style={{ left: at(p) }}
                  />
                ))}
                <span
                  className="absolute top-0 translate-x-1.5 font-narrow whitespace-nowrap"
                  style={{ left: at(a.percent) }}
                >
                  {a.percent} %
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      <div aria-hidden className="grid grid-cols-[38%_minmax(0,1fr)] gap-2 px-1 font-narrow text-[12.5px] text-soft">
        <span />
        <span className="relative mr-11 h-4">
          {lines.map((p, k) => (
            <span
              key={p}
              className={`absolute ${k === 0 ? '-translate-x-full pr-1' : k === 1 ? '' : '-translate-x-1/2'}`}
              style={{ left: at(p) }}
            >
              {k === 0 ? `${p} %` : p}
            </span>
          ))}
        </span>
      </div>
    </div>
  );
}
