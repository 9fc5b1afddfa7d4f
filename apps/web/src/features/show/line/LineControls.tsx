'use client';
import { type LineMove, readPlace } from '@clembo/core';
import { type ReactNode, useEffect, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { LineWork } from '@/workers/answers/lineMoves';
import type { OpenRoom } from '@/workers/planRoom';
import type { Proposed } from './useLineMoves';

/** What can be done to the work that is chosen, for those who do not drag. */
export function LineControls({
  open,
  chosen,
  onAsk,
}: {
  open: OpenRoom;
  chosen: string;
  onAsk: (proposed: Proposed) => void;
}) {
  const [work, setWork] = useState<LineWork | null>(null);
  const [place, setPlace] = useState('');
  useEffect(() => {
    let current = true;
    setWork(null);
    open.room.lineWork(chosen).then((found) => current && setWork(found), wrong);
    return () => {
      current = false;
    };
  }, [open, chosen]);
  if (!work || work.done) return null;
  const first = Math.floor(work.points[0]!.time + 1e-9);
  const last = Math.ceil(work.points.at(-1)!.time - 1e-9) - 1;
  const ask = (asked: LineMove | { do: 'divide'; place: number }) => onAsk({ ref: work.ref, asked, was: work.points });
  const divide = (text: string) => {
    const at = readPlace(text, work.unit);
    if (at === null) return wrong(new Error(`“${text}” is no place of this line. Type one between its two ends.`));
    ask({ do: 'divide', place: at });
  };
  return (
    <section aria-label="Along the line" className="mt-5 border-t border-line pt-3">
      <h3 className="font-semibold">Along the line</h3>
      {!work.begun && (
        <Days label="Days later" onSet={(days) => ask({ do: 'start', day: first + days })}>
          begins
        </Days>
      )}
      <Days label="Days longer" onSet={(days) => ask({ do: 'finish', day: last + days })}>
        ends
      </Days>
      {!work.holds && (
        <>
          <div className="mt-2 flex flex-wrap gap-2">
            {!work.begun && (
              <button type="button" className="quiet py-1" onClick={() => ask({ do: 'turn' })}>
                The other way round
              </button>
            )}
            <button type="button" className="quiet py-1" onClick={() => ask({ do: 'crews', crews: work.crews + 1 })}>
              {work.crews + 1} crews
            </button>
            {work.crews > 1 && (
              <button type="button" className="quiet py-1" onClick={() => ask({ do: 'crews', crews: work.crews - 1 })}>
                {work.crews - 1} {work.crews === 2 ? 'crew' : 'crews'}
              </button>
            )}
          </div>
          <form
            className="mt-2 flex items-center gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              divide(place);
            }}
          >
            <label className="text-soft" htmlFor="divide-at">
              Divide at
            </label>
            <input
              id="divide-at"
              value={place}
              onChange={(e) => setPlace(e.target.value)}
              list="divide-stations"
              className="w-24 rounded-md border border-line bg-paper px-2 py-0.5"
            />
            <button type="submit" className="quiet py-0.5" disabled={place.trim() === ''}>
              Divide
            </button>
          </form>
          {work.stations.length > 0 && (
            <p className="mt-1.5 flex flex-wrap gap-x-3">
              {work.stations.slice(0, 8).map((s) => (
                <button
                  key={s.place}
                  type="button"
                  className="text-kelp underline underline-offset-2"
                  onClick={() => ask({ do: 'divide', place: s.place })}
                >
                  at {s.name}
                </button>
              ))}
            </p>
          )}
        </>
      )}
    </section>
  );
}

/** A number of days that is typed, or stepped one by one. */
function Days({ label, onSet, children }: { label: string; onSet: (days: number) => void; children: ReactNode }) {
  const [days, setDays] = useState('');
  return (
    <form
      className="mt-2 flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const count = Math.round(Number(days));
        if (Number.isFinite(count) && count !== 0) onSet(count);
      }}
    >
      <span className="w-12 text-soft">{children}</span>
      <input
        type="number"
        aria-label={label}
        value={days}
        onChange={(e) => setDays(e.target.value)}
        className="w-16 rounded-md border border-line bg-paper px-2 py-0.5 text-right"
      />
      <span className="text-soft">days later</span>
      <button type="submit" className="quiet py-0.5" disabled={days === '' || Number(days) === 0}>
        See it
      </button>
    </form>
  );
}
