'use client';
import type { AmountWords } from '@clembo/formats/amounts';
import { useMemo } from 'react';
import { CHART_LOOK as L, Chart, shortNumber } from '@/ui/Chart';
import type { StandingShown } from '@/workers/answers/measure';

interface Props {
  payments: StandingShown['payments'];
  words: AmountWords;
  /** A month was clicked; its first day. */
  onPick: (month: number) => void;
}

/** Payments that hang on milestones, month by month: as promised, as they are due now, and those that are earned. */
export function PaymentChart({ payments, words, onPick }: Props) {
  const option = useMemo(
    () => ({
      animation: false,
      textStyle: { fontFamily: L.font, fontSize: 12.5, color: L.soft },
      grid: { left: 4, right: 4, top: 8, bottom: 4, containLabel: true },
      tooltip: {
        trigger: 'axis',
        axisPointer: { type: 'shadow' },
        valueFormatter: (v: unknown) => (typeof v === 'number' ? words.money(v * 100) : '–'),
        textStyle: { fontFamily: L.font, color: L.ink },
      },
      xAxis: {
        type: 'category',
        data: payments.map((p) => p.month),
        axisLine: { lineStyle: { color: L.line } },
        axisTick: { show: false },
        axisLabel: { color: L.soft, hideOverlap: true },
      },
      yAxis: {
        type: 'value',
        splitNumber: 2,
        splitLine: { lineStyle: { color: L.line } },
        axisLabel: { color: L.soft, formatter: (v: number) => shortNumber(v, words) },
      },
      series: [
        {
          id: 'promised',
          name: 'promised',
          type: 'bar',
          barGap: '10%',
          itemStyle: { color: 'transparent', borderColor: L.soft, borderWidth: 1 },
          data: payments.map((p) => p.promised),
        },
        {
          id: 'earned',
          name: 'earned',
          type: 'bar',
          stack: 'due',
          itemStyle: { color: L.kelp },
          data: payments.map((p) => p.earned),
        },
        {
          id: 'due',
          name: 'still due',
          type: 'bar',
          stack: 'due',
          itemStyle: { color: '#a9c4c1' },
          data: payments.map((p) => p.due - p.earned),
        },
      ],
    }),
    [payments, words],
  );
  if (payments.length === 0) return <p className="text-[14.5px] text-soft">No payment hangs on a milestone here.</p>;
  return (
    <Chart
      option={option}
      height={150}
      onPick={({ index }) => payments[index] && onPick(payments[index].start)}
      label="Payments at milestones by month: promised, earned, still due"
      table={[
        ['month', 'promised', 'due', 'earned'],
        ...payments.map((p) => [p.month, String(p.promised), String(p.due), String(p.earned)]),
      ]}
    />
  );
}
