'use client';
import Link from 'next/link';
import { useMemo } from 'react';
import { CHART_LOOK as L, Chart } from '@/ui/Chart';
import type { StandingShown } from '@/workers/answers/measure';

/** Hours that are needed of all resources over time; what is past stands darker. */
export function LoadChart({
  need,
  planId,
  onPick,
}: {
  need: StandingShown['need'];
  planId: string;
  /** A month was clicked; its first day. */
  onPick: (month: number) => void;
}) {
  const option = useMemo(
    () => ({
      animation: false,
      textStyle: { fontFamily: L.font, fontSize: 12.5, color: L.soft },
      grid: { left: 4, right: 4, top: 8, bottom: 4, containLabel: true },
      tooltip: {
        trigger: 'axis',
        axisPointer: { type: 'shadow' },
        valueFormatter: (v: unknown) => `${String(v)} h`,
        textStyle: { fontFamily: L.font, color: L.ink },
      },
      xAxis: {
        type: 'category',
        data: need.steps,
        axisLine: { lineStyle: { color: L.line } },
        axisTick: { show: false },
        axisLabel: { color: L.soft, hideOverlap: true },
      },
      yAxis: {
        type: 'value',
        splitNumber: 2,
        splitLine: { lineStyle: { color: L.line } },
        axisLabel: { color: L.soft },
      },
      series: [
        {
          id: 'need',
          name: 'needed',
          type: 'bar',
          barCategoryGap: '18%',
          data: need.hours.map((h, k) => ({ value: h, itemStyle: { color: k < need.past ? L.kelp : '#a9c4c1' } })),
        },
      ],
    }),
    [need],
  );
  if (need.steps.length === 0)
    return (
      <p className="text-[14.5px] text-soft">
        No resources work on this.{' '}
        <Link href={`/plans/${planId}/structure/resources`} className="text-kelp underline underline-offset-2">
          Say who does the work
        </Link>{' '}
        to see how much is needed when.
      </p>
    );
  return (
    <Chart
      option={option}
      height={150}
      onPick={({ index }) => need.months[index] !== undefined && onPick(need.months[index])}
      label="Hours needed of people and plant over time"
      table={[['step', 'hours'], ...need.steps.map((s, k) => [s, String(need.hours[k])])]}
    />
  );
}
