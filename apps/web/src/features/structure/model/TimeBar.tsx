'use client';
import { Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { formatDay } from '@clembo/scene/dates';
import type { MatchingShown } from '@/workers/answers/models';

const PACES: [days: number, words: string][] = [
  [1, 'a day a second'],
  [7, 'a week a second'],
  [30, 'a month a second'],
];
/** So often a second the model is drawn while it plays. */
const STEPS = 4;

/** What is built in each step of time, with the day that is looked at; it can be dragged, stepped and played. */
export function TimeBar({
  curve,
  day,
  status,
  onDay,
}: {
  curve: NonNullable<MatchingShown['curve']>;
  day: number;
  status: number | null;
  onDay: (day: number) => void;
}) {
  const [pace, setPace] = useState(7);
  const [playing, setPlaying] = useState(false);
  const { bounds, steps } = curve;
  const [first, last] = [bounds[0]! - 1, bounds.at(-1)!];
  const most = Math.max(...steps, 1e-9);
  const at = useRef(day);
  at.current = day;
  useEffect(() => {
    if (!playing) return;
    let own = at.current >= last ? first : at.current;
    const timer = setInterval(() => {
      own = Math.min(last, own + pace / STEPS);
      onDay(Math.round(own));
      if (own >= last) setPlaying(false);
    }, 1000 / STEPS);
    return () => clearInterval(timer);
  }, [playing, pace, first, last, onDay]);
  const left = (d: number) => `${(100 * (d - first)) / Math.max(1, last - first)}%`;
  const ticks = [0, 0.25, 0.5, 0.75, 1].map((t) => Math.round(first + (last - first) * t));
  return (
    <div className="flex items-center gap-3 rounded-md border border-line bg-paper px-3 py-1.5">
      <button
        type="button"
        className="quiet px-2! py-1!"
        aria-label={playing ? 'Stop' : 'Play'}
        onClick={() => setPlaying((v) => !v)}
      >
        {playing ? <Pause size={15} /> : <Play size={15} />}
      </button>
      <select
        aria-label="Pace"
        value={pace}
        onChange={(e) => setPace(Number(e.target.value))}
        className="rounded border border-line bg-paper px-1 py-0.5 text-[13px]"
      >
        {PACES.map(([days, words]) => (
          <option key={days} value={days}>
            {words}
          </option>
        ))}
      </select>
      <div className="relative h-[52px] min-w-0 flex-1">
        <div className="absolute inset-x-0 top-0 flex h-[34px] items-end" aria-hidden>
          {steps.map((v, k) => (
            <div
              key={bounds[k]}
              className={`mr-px flex-1 ${bounds[k]! <= day ? 'bg-kelp/55' : 'bg-kelp/20'}`}
              style={{ height: `${Math.max(v > 0 ? 4 : 0, (100 * v) / most)}%` }}
            />
          ))}
        </div>
        {status !== null && status >= first && status <= last && (
          <div
            className="absolute top-0 h-[36px] w-px bg-soft"
            style={{ left: left(status) }}
            title="Status date"
            aria-hidden
          />
        )}
        <div className="pointer-events-none absolute top-[-4px] h-[42px]" style={{ left: left(day) }} aria-hidden>
          <div className="absolute -ml-[5px] size-[10px] rounded-full bg-kelp" />
          <div className="absolute top-[8px] h-[34px] w-[2px] -ml-px bg-kelp" />
        </div>
        <input
          type="range"
          aria-label="Day"
          aria-valuetext={formatDay(day, 'long')}
          min={first}
          max={last}
          value={Math.max(first, Math.min(last, day))}
          onChange={(e) => onDay(Number(e.target.value))}
          className="absolute inset-x-[-8px] top-0 h-[36px] w-[calc(100%+16px)] cursor-ew-resize opacity-0"
        />
        <div className="absolute inset-x-0 bottom-0 h-[14px] text-[11.5px] text-soft" aria-hidden>
          {ticks.map((d, k) => (
            <span
              key={d}
              className={`absolute whitespace-nowrap ${k === 0 ? '' : k === ticks.length - 1 ? '-translate-x-full' : '-translate-x-1/2'}`}
              style={{ left: left(d) }}
            >
              {formatDay(d, 'medium')}
            </span>
          ))}
        </div>
      </div>
    </div>
  );
}
