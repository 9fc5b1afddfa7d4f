'use client';
import type { SlipShown } from '@/workers/answers/measure';

/** What slipped most, as arrows from where it was promised: late to the right, ahead to the left. Clicked, it is chosen. */
export function SlipChart({
  slips,
  chosen,
  onPick,
}: {
  slips: SlipShown[];
  chosen: string[];
  onPick: (ref: string) => void;
}) {
  if (slips.length === 0) return <p className="text-[14.5px] text-soft">Everything is where it was promised.</p>;
  const [least, most] = [Math.min(0, ...slips.map((s) => s.late)), Math.max(0, ...slips.map((s) => s.late))];
  const span = Math.max(1, most - least);
  const at = (days: number) => `${(100 * (days - least)) / span}%`;
  return (
    <ul className="text-[14px]">
      {slips.map((s) => {
        const late = s.late > 0;
        const [from, to] = late ? [0, s.late] : [s.late, 0];
        return (
          <li key={s.ref}>
            <button
              type="button"
              data-slip={s.ref}
              aria-pressed={chosen.includes(s.ref)}
              title={`${s.name}: ${Math.abs(s.late)} working days ${late ? 'late' : 'ahead'}`}
              onClick={() => onPick(s.ref)}
              className={`grid w-full grid-cols-[38%_minmax(0,1fr)] items-center gap-2 rounded px-1 text-left ${chosen.includes(s.ref) ? 'bg-marigold/20' : 'hover:bg-wash'}`}
            >
              <span className="truncate">{s.name}</span>
              <span className="relative mr-12 ml-10 block h-[22px]">
                <span aria-hidden className="absolute inset-y-0 w-px bg-line" style={{ left: at(0) }} />
                <span
                  aria-hidden
                  className={`absolute top-[10px] h-[2px] ${late ? 'bg-madder' : 'bg-harebell'}`}
                  style={{ left: at(from), width: `${(100 * (to - from)) / span}%` }}
                />
                <span
                  aria-hidden
                  className="absolute top-[7.5px] size-[7px] -translate-x-1/2 rounded-full border border-soft bg-desk"
                  style={{ left: at(0) }}
                />
                <span
                  aria-hidden
                  className={`absolute top-[6px] size-0 border-y-[5px] border-y-transparent ${late ? '-translate-x-1 border-l-[7px] border-l-madder' : 'border-r-[7px] border-r-harebell'}`}
                  style={{ left: at(s.late) }}
                />
                <span
                  className={`absolute top-0 font-narrow whitespace-nowrap ${late ? 'translate-x-2 text-madder' : '-translate-x-[calc(100%+4px)] text-harebell-deep'}`}
                  style={{ left: at(s.late) }}
                >
                  {Math.abs(s.late)} d
                </span>
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
