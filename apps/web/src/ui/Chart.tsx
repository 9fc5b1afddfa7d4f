'use client';
import type { EChartsCoreOption, EChartsType } from 'echarts/core';
import { useEffect, useRef } from 'react';

/** The look of our charts: ink on paper, hairlines, nothing that moves. */
export const CHART_LOOK = {
  ink: '#1e2a32',
  soft: '#55626a',
  line: '#d8d4ca',
  kelp: '#0f6e6e',
  madder: '#b3402e',
  harebell: '#3f6fb5',
  marigold: '#e3a019',
  paper: '#fbfaf6',
  font: '"Sofia Sans Condensed", "Sofia Sans", sans-serif',
} as const;

interface Props {
  option: EChartsCoreOption;
  height: number;
  /** What it shows, for those who do not see it. */
  label: string;
  /** The same as a table, for those who do not see it: headings, then rows. */
  table?: readonly (readonly string[])[];
  /** What was clicked: the series and the position of its value. */
  onPick?: (picked: { series: string; index: number; name: string }) => void;
  /** Anywhere in the plot was clicked; the value of the lower axis there. */
  onPlace?: (x: number) => void;
}

/** A number on an axis: `1.2 M` from a million on. */
export const shortNumber = (v: number, words: { number(value: number): string }): string =>
  Math.abs(v) >= 1e6 ? `${words.number(v / 1e6)} M` : words.number(v);

/** A chart, drawn as SVG; the library is loaded when the first one is shown. */
export function Chart({ option, height, label, table, onPick, onPlace }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType | null>(null);
  const latest = useRef({ option, onPick, onPlace });
  latest.current = { option, onPick, onPlace };
  useEffect(() => {
    let gone = false;
    let watch: ResizeObserver | null = null;
    void import('./chartLibrary').then(({ init }) => {
      if (gone || !box.current) return;
      const made = init(box.current, null, { renderer: 'svg' });
      made.setOption(latest.current.option, true);
      made.on('click', (e) =>
        latest.current.onPick?.({ series: String(e.seriesId ?? ''), index: e.dataIndex ?? -1, name: e.name }),
      );
      made.getZr().on('click', ({ offsetX, offsetY }) => {
        const place = latest.current.onPlace;
        if (!place || !made.containPixel('grid', [offsetX, offsetY])) return;
        const [x] = made.convertFromPixel('grid', [offsetX, offsetY]);
        if (x !== undefined) place(x);
      });
      watch = new ResizeObserver(() => made.resize());
      watch.observe(box.current);
      chart.current = made;
    });
    return () => {
      gone = true;
      watch?.disconnect();
      chart.current?.dispose();
      chart.current = null;
    };
  }, []);
  useEffect(() => chart.current?.setOption(option, true), [option]);
  return (
    <>
      <div ref={box} role="img" aria-label={label} style={{ height }} className="w-full" />
      {table && (
        <table className="sr-only">
          <caption>{label}</caption>
          <tbody>
            {table.map((row, k) => (
              // biome-ignore lint: rows stand where they stand
              <tr key={k}>
                {row.map((cell, c) => (
                  // biome-ignore lint: so do cells
                  <td key={c}>{cell}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
