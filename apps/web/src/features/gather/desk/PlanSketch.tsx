'use client';
import type { Bar } from '@clembo/formats/columns';
import { dayOf, finishDayOf, isoDate, monthStart } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { useState } from 'react';
import { DayField, dayOfField } from '@/ui/DayField';
import { many } from './Outcome';
import { RowPicker } from './RowPicker';
import type { Intake } from './useIntake';

const WIDTH = 316;
const ROW = 8;

/** What would come of the intake: a small picture of the plan, and what a reader would want to know of it. */
export function PlanSketch({ intake }: { intake: Intake }) {
  const { view } = intake;
  const { counts, span, bars } = view;
  const [picking, setPicking] = useState(false);
  const { pick } = intake.map;
  const without = pick.without.length;
  const set = (change: Partial<typeof pick>) => intake.changeMap({ pick: { ...pick, ...change } });
  return (
    <aside aria-label="What would come of it" className="w-[340px] shrink-0 overflow-auto">
      <div className="rounded-xl border border-line bg-paper p-3">
        <h2 className="text-[15px] font-semibold">What would come of it</h2>
        {span ? (
          <>
            <p className="text-[14px] text-soft">
              {formatDay(dayOf(span[0]), 'weekday')} to {formatDay(finishDayOf(span[1]), 'weekday')}
            </p>
            <Sketch bars={bars} from={dayOf(span[0])} to={finishDayOf(span[1])} />
          </>
        ) : (
          <p className="mt-1 text-[14px] text-soft">
            {view.dates === 'computed' ? 'Its dates are computed once it has a start.' : 'Nothing with a date yet.'}
          </p>
        )}
        <ul className="mt-2 space-y-0.5 text-[14px]">
          {counts.undated > 0 && (
            <li className="text-madder">
              {many(counts.undated, 'row has', 'rows have')} no date: they wait in the tray
            </li>
          )}
          {counts.vague > 0 && (
            <li className="text-soft">
              {many(counts.vague, 'date is', 'dates are')} vaguer than a day: drawn with soft ends
            </li>
          )}
        </ul>
        <div className="mt-2 grid w-fit grid-cols-[auto_auto] items-center gap-x-2 gap-y-1 text-[14px] text-soft">
          Only from
          <DayField label="Only from" value={isoOf(pick.from)} onChange={(v) => set({ from: dayOfField(v) })} />
          to
          <DayField label="Only to" value={isoOf(pick.to)} onChange={(v) => set({ to: dayOfField(v) })} />
        </div>
        <button type="button" className="quiet mt-2 py-0.5 text-[14px]" onClick={() => setPicking(true)}>
          {without > 0 ? `${without} rows left out by hand` : 'Choose rows'}
        </button>
      </div>
      {picking && <RowPicker intake={intake} onClose={() => setPicking(false)} />}
    </aside>
  );
}

const isoOf = (day: number | null): string => (day === null ? '' : isoDate(day));

function Sketch({ bars, from, to }: { bars: Bar[]; from: number; to: number }) {
  const days = Math.max(1, to - from + 1);
  const x = (day: number) => ((day - from) / days) * WIDTH;
  const height = bars.length * ROW + 14;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} className="mt-2 w-full" role="img" aria-label={`${bars.length} bars`}>
      {monthLines(from, to).map(({ day, label }) => (
        <g key={day}>
          <line x1={x(day)} x2={x(day)} y1={11} y2={height} stroke="var(--color-line)" strokeWidth={0.7} />
          {label && (
            <text x={x(day) + 2} y={8.5} fontSize={8.5} fill="var(--color-soft)">
              {label}
            </text>
          )}
        </g>
      ))}
      {bars.map((b, k) => (
        // biome-ignore lint: bars have no other name
        <Mark key={k} bar={b} x={x} y={14 + k * ROW} />
      ))}
    </svg>
  );
}

function Mark({ bar, x, y }: { bar: Bar; x: (day: number) => number; y: number }) {
  const [start, finish] = [bar.start ?? bar.finish, bar.finish ?? bar.start];
  if (start === null || finish === null) {
    if (bar.kind === 'summary') return null;
    return <circle cx={3} cy={y + 3} r={1.6} fill="none" stroke="var(--color-madder)" strokeWidth={0.8} />;
  }
  const left = x(bar.start !== null ? dayOf(start) : finishDayOf(start));
  const right = x((bar.finish !== null ? finishDayOf(finish) : dayOf(finish)) + 1);
  if (bar.kind === 'startMilestone' || bar.kind === 'finishMilestone')
    return (
      <path d={`M${left} ${y - 0.2}l3.2 3.2l-3.2 3.2l-3.2 -3.2z`} fill="var(--color-ink)">
        <title>{bar.name}</title>
      </path>
    );
  const summary = bar.kind === 'summary';
  return (
    <rect
      x={left}
      y={summary ? y + 2.4 : y + 0.6}
      width={Math.max(1, right - left)}
      height={summary ? 1.2 : 4.8}
      rx={summary ? 0.6 : 1.4}
      fill={summary ? 'var(--color-soft)' : 'var(--color-kelp)'}
      opacity={bar.isSoft ? 0.35 : summary ? 1 : 0.8}
    >
      <title>{bar.name}</title>
    </rect>
  );
}

/** Lines at months, quarters or years, as many as can be told apart. */
function monthLines(from: number, to: number): { day: number; label: string }[] {
  const months = Math.max(1, Math.round((to - from) / 30.4));
  const step = [1, 3, 12, 24, 60, 120].find((s) => months / s <= 7) ?? 120;
  const lines: { day: number; label: string }[] = [];
  const first = new Date(from * 86_400_000);
  const offset = step >= 12 ? -first.getUTCMonth() : -(first.getUTCMonth() % step);
  for (let m = offset; ; m += step) {
    const day = monthStart(from, m);
    if (day > to) return lines;
    if (day < from) continue;
    const date = new Date(day * 86_400_000);
    const label = step >= 12 ? String(date.getUTCFullYear()) : formatDay(day, 'short').replace(/^\d+\s/, '');
    lines.push({ day, label });
  }
}
