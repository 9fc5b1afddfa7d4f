'use client';
import { formatDay } from '@clembo/scene/dates';
import { useMemo } from 'react';
import { CHART_LOOK as L, Chart } from '@/ui/Chart';
import type { EditionsShown } from '@/workers/answers/editions';

const COLOURS = [L.ink, '#264a61', '#427859', '#6f472a', '#79519e', '#cb5c83', '#8f813e', '#409995', '#8e83c5'];
const ms = (day: number) => day * 86_400_000;
const words = (day: number | null): string => (day === null ? '' : formatDay(day, 'medium'));

/** Editions down, dates across: where each was expected, from edition to edition. */
export function TrendChart({ editions, trends }: Pick<EditionsShown, 'editions' | 'trends'>) {
  const option = useMemo(
    () => ({
      animation: false,
      textStyle: { fontFamily: L.font, fontSize: 13, color: L.soft },
      grid: { left: 4, right: 14, top: 8, bottom: 4, containLabel: true },
      tooltip: {
        trigger: 'item',
        textStyle: { fontFamily: L.font, color: L.ink },
        formatter: ({ seriesName, value }: { seriesName: string; value: [number, number] }) =>
          `${seriesName}: ${words(Math.round(value[0] / 86_400_000))} (${editions[value[1]]!.name})`,
      },
      xAxis: {
        type: 'time',
        axisLine: { lineStyle: { color: L.line } },
        axisTick: { show: false },
        splitLine: { show: true, lineStyle: { color: L.line } },
        axisLabel: {
          color: L.soft,
          hideOverlap: true,
          formatter: (v: number) =>
            words(Math.round(v / 86_400_000))
              .split(' ')
              .slice(1)
              .join(' '),
        },
        splitNumber: 6,
        scale: true,
      },
      yAxis: {
        type: 'value',
        inverse: true,
        min: 0,
        max: Math.max(1, editions.length - 1),
        interval: 1,
        axisLine: { show: false },
        splitLine: { show: false },
        axisLabel: {
          color: L.ink,
          fontSize: 13,
          formatter: (k: number) => {
            const name = editions[k]?.name ?? '';
            return name.length > 26 ? `${name.slice(0, 25)}…` : name;
          },
        },
      },
      series: trends.map((t, n) => ({
        id: t.ref ?? 'finish',
        name: t.name,
        type: 'line',
        symbol: n === 0 ? 'circle' : 'diamond',
        symbolSize: n === 0 ? 7 : 9,
        lineStyle: { color: COLOURS[n % COLOURS.length], width: n === 0 ? 2.4 : 1.6 },
        itemStyle: { color: COLOURS[n % COLOURS.length] },
        data: t.days.flatMap((day, k) => (day === null ? [] : [[ms(day), k]])),
      })),
    }),
    [editions, trends],
  );
  return (
    <>
      <Chart
        option={option}
        height={Math.min(460, Math.max(240, 70 + 34 * editions.length))}
        label="Expected finish of the plan and of milestones over the editions"
        table={[
          ['', ...editions.map((e) => e.name), 'working days moved'],
          ...trends.map((t) => [t.name, ...t.days.map(words), t.moved === null ? '' : String(t.moved)]),
        ]}
      />
      <ul aria-hidden className="mt-2 grid grid-cols-2 gap-x-6 text-[14px]">
        {trends.map((t, n) => (
          <li key={t.ref ?? 'finish'} className="flex items-baseline gap-2">
            <span
              className={`size-[9px] shrink-0 self-center ${n === 0 ? 'rounded-full' : 'rotate-45'}`}
              style={{ background: COLOURS[n % COLOURS.length] }}
            />
            <span className="min-w-0 truncate">{t.name}</span>
            <span
              className={`ml-auto font-narrow whitespace-nowrap ${(t.moved ?? 0) > 0 ? 'text-madder' : (t.moved ?? 0) < 0 ? 'text-harebell-deep' : 'text-soft'}`}
            >
              {t.moved === null
                ? ''
                : t.moved === 0
                  ? 'where it was'
                  : `${Math.abs(t.moved)} d ${t.moved > 0 ? 'later' : 'earlier'}`}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
