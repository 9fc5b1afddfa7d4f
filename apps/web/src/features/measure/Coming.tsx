'use client';
import type { ComingShown } from '@/workers/answers/measure';

interface Props {
  coming: ComingShown[];
  weeks: number;
  onWeeks: (weeks: number) => void;
  onPick: (ref: string) => void;
}

/** What ends in the next weeks, with what was promised of it. */
export function Coming({ coming, weeks, onWeeks, onPick }: Props) {
  return (
    <>
      {coming.length === 0 ? (
        <p className="text-[14.5px] text-soft">Nothing ends in this time.</p>
      ) : (
        <ul className="text-[14px]">
          {coming.slice(0, 9).map((c) => (
            <li key={c.ref}>
              <button
                type="button"
                className="grid w-full grid-cols-[52px_minmax(0,1fr)_auto] gap-2 rounded px-1 py-px text-left hover:bg-wash"
                onClick={() => onPick(c.ref)}
              >
                <span className="font-narrow font-semibold">{c.day}</span>
                <span className="truncate">
                  {c.milestone && <span className="text-kelp">◆ </span>}
                  {c.name}
                </span>
                <span
                  className={`font-narrow ${c.late > 0 ? 'text-madder' : c.late < 0 ? 'text-harebell-deep' : 'text-soft'}`}
                >
                  {c.promised}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
      <p className="mt-1 flex items-center gap-1 px-1 text-[13.5px] text-soft">
        {coming.length > 9 && <span className="mr-2">and {coming.length - 9} more</span>}
        weeks:
        {[1, 2, 4, 8, 13].map((w) => (
          <button
            key={w}
            type="button"
            aria-pressed={w === weeks}
            className={`rounded px-1.5 ${w === weeks ? 'bg-ink text-paper' : 'hover:bg-line'}`}
            onClick={() => onWeeks(w)}
          >
            {w}
          </button>
        ))}
      </p>
    </>
  );
}
