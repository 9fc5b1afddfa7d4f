'use client';
import type { SnapshotLine } from '@clembo/scene';
import { BAND_TEXT } from './bands';

/** The small table: now, promised, actual, to go, off by. */
export function SnapshotTable({ rows }: { rows: SnapshotLine[] }) {
  return (
    <table className="w-full font-narrow text-[14px]">
      <thead>
        <tr className="text-right text-[13px] text-soft">
          <th />
          {['now', 'promised', 'actual', 'to go', 'off by'].map((h) => (
            <th key={h} className="py-0.5 pl-2 font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.name} className="border-t border-line text-right">
            <th scope="row" className="py-1 text-left font-semibold whitespace-nowrap">
              {r.name}
            </th>
            <td className="pl-2 whitespace-nowrap">{r.now}</td>
            <td className="pl-2 whitespace-nowrap">{r.promised}</td>
            <td className="pl-2 whitespace-nowrap">{r.actual}</td>
            <td className="pl-2 whitespace-nowrap">{r.toGo}</td>
            <td className={`pl-2 font-semibold ${r.band ? BAND_TEXT[r.band] : ''}`}>{r.off}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
