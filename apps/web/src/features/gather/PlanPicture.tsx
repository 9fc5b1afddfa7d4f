'use client';
import { dayOf, finishDayOf, monthStart } from '@clembo/core';
import type { Bar } from '@clembo/formats/columns';
import { formatDay } from '@clembo/scene/dates';

const WIDTH = 316;
const ROW = 8;

/** A small picture of a plan, to see at a glance whether it is the one that was meant. */
export function PlanPicture({
  bars,
  from,
  to,
  labels = true,
}: {
  bars: Bar[];
  from: number;
  to: number;
  /** Whether months are named. */
  labels?: boolean;
}) {
  const days = Math.max(1, to - from + 1);
  const x = (day: number) => ((day - from) / days) * WIDTH;
  const height = bars.length * ROW + 14;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} className="mt-2 w-full" role="img" aria-label={`${bars.length} bars`}>
      {monthLines(from, to).map(({ day, label }) => (
        <g key={day}>
          <line x1={x(day)} x2={x(day)} y1={11} y2={height} stroke="var(--color-line)" strokeWidth={0.7} />
          {labels && label && (
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
