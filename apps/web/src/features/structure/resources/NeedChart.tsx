'use client';
import { useMemo } from 'react';
import { CHART_LOOK as L, Chart } from '@/ui/Chart';
import type { NeedShown } from '@/workers/answers/resources';

/** Need over time as bars, against what there is as a stepped line; what is too much stands out. */
export function NeedChart({ steps, need, name }: { steps: string[]; need: NeedShown; name: string }) {
  const option = useMemo(() => {
    const axis = { axisLine: { lineStyle: { color: L.line } }, axisTick: { show: false } };
    return {
      animation: false,
      textStyle: { fontFamily: L.font, fontSize: 13, color: L.soft },
      grid: { left: 8, right: 12, top: 16, bottom: 8, containLabel: true },
      tooltip: {
        trigger: 'axis',
        axisPointer: { type: 'shadow' },
        valueFormatter: (v: unknown) => (typeof v === 'number' ? `${v} h` : '–'),
        textStyle: { fontFamily: L.font, color: L.ink },
      },
      xAxis: { type: 'category', data: steps, ...axis, axisLabel: { color: L.soft, hideOverlap: true } },
      yAxis: { type: 'value', splitLine: { lineStyle: { color: L.line } }, axisLabel: { color: L.soft } },
      series: [
        {
          id: 'need',
          name: 'needed',
          type: 'bar',
          barCategoryGap: '22%',
          data: need.need.map((h, k) => {
            const most = need.most[k] ?? null;
            return {
              value: h,
              itemStyle: { color: most !== null && h > most ? L.madder : L.kelp, borderRadius: [2, 2, 0, 0] },
            };
          }),
        },
        ...(need.most.some((m) => m !== null)
          ? [
              {
                id: 'most',
                name: 'there is',
                type: 'line',
                step: 'middle',
                symbol: 'none',
                lineStyle: { color: L.ink, width: 1.4 },
                itemStyle: { color: L.ink },
                data: need.most,
              },
            ]
          : []),
      ],
    };
  }, [steps, need]);
  if (steps.length === 0) return <p className="mt-2 text-soft">Nothing of this plan has dates yet.</p>;
  return (
    <Chart
      option={option}
      height={220}
      label={`Need of ${name} in ${steps.length} steps from ${steps[0]} to ${steps.at(-1)}: ${need.total} hours in all${need.over > 0 ? `, too much in ${need.over} of them` : ''}`}
    />
  );
}
