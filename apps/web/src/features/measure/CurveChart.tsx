'use client';
import { type Amount, monthStart } from '@clembo/core';
import type { AmountWords } from '@clembo/formats/amounts';
import { formatDay } from '@clembo/scene/dates';
import { useMemo } from 'react';
import { CHART_LOOK as L, Chart, shortNumber } from '@/ui/Chart';
import type { StandingShown } from '@/workers/answers/measure';

interface Props {
  curves: StandingShown['curves'];
  now: number;
  amount: Amount;
  /** What the amounts are in. */
  unit: string;
  words: AmountWords;
  /** A month was clicked; its first day. */
  onPick: (month: number) => void;
}

/** Promised, earned and spent amounts over time, up to the end of the status date: a point is the end of the day before it. */
export function CurveChart({ curves, now, amount, unit, words, onPick }: Props) {
  const option = useMemo(() => {
    if (!curves) return null;
    const ms = (day: number) => day * 86_400_000;
    const line = (
      id: string,
      values: (number | null)[],
      color: string,
      type: 'solid' | 'dashed',
      width: number,
      labelUp = 0,
    ) => ({
      id,
      name: id,
      type: 'line',
      showSymbol: false,
      lineStyle: { color, width, type },
      itemStyle: { color },
      endLabel: {
        show: true,
        formatter: id,
        color,
        fontFamily: L.font,
        fontSize: 13,
        distance: 4,
        offset: [0, -labelUp],
      },
      data: curves.days.flatMap((d, k) => (values[k] === null ? [] : [[ms(d), values[k]]])),
    });
    return {
      animation: false,
      textStyle: { fontFamily: L.font, fontSize: 12.5, color: L.soft },
      grid: { left: 4, right: 62, top: 14, bottom: 4, containLabel: true },
      tooltip: {
        trigger: 'axis',
        textStyle: { fontFamily: L.font, color: L.ink },
        valueFormatter: (v: unknown) => (typeof v === 'number' ? `${words.number(v)} ${unit}`.trim() : '–'),
      },
      xAxis: {
        type: 'time',
        axisLine: { lineStyle: { color: L.line } },
        axisTick: { show: false },
        axisLabel: {
          color: L.soft,
          hideOverlap: true,
          formatter: (v: number) =>
            formatDay(Math.round(v / 86_400_000), 'medium')
              .split(' ')
              .slice(1)
              .join(' '),
        },
        splitNumber: 4,
      },
      yAxis: {
        type: 'value',
        splitNumber: 3,
        splitLine: { lineStyle: { color: L.line } },
        axisLabel: { color: L.soft, formatter: (v: number) => shortNumber(v, words) },
      },
      series: [
        {
          ...line('promised', curves.planned, L.soft, 'dashed', 1.4),
          markLine: {
            silent: true,
            symbol: 'none',
            lineStyle: { color: L.kelp, type: 'solid', width: 1 },
            label: {
              formatter: formatDay(now - 1, 'short'),
              color: L.kelp,
              fontFamily: L.font,
              position: 'insideEndTop',
            },
            data: [{ xAxis: ms(now) }],
          },
        },
        line('spent', curves.spent, L.madder, 'solid', 1.6, 9),
        line('earned', curves.earned, L.kelp, 'solid', 2.4, -9),
      ],
    };
  }, [curves, now, unit, words]);
  if (!curves || !option)
    return (
      <p className="text-[14.5px] text-soft">
        No {amount} was promised, so there is none to be earned. Give activities {amount} under Structure, or measure by{' '}
        {amount === 'effort' ? 'cost' : 'effort'}.
      </p>
    );
  const say = (v: number | null | undefined) => (v === null || v === undefined ? '' : String(v));
  return (
    <Chart
      option={option}
      height={224}
      onPlace={(x) => onPick(monthStart(Math.floor(x / 86_400_000)))}
      label={`Promised, earned and spent ${amount} over time`}
      table={[
        ['day', 'promised', 'earned', 'spent'],
        ...curves.days.map((d, k) => [
          formatDay(d - 1, 'medium'),
          say(curves.planned[k]),
          say(curves.earned[k]),
          say(curves.spent[k]),
        ]),
      ]}
    />
  );
}
