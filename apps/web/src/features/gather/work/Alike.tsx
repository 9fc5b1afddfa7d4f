'use client';
import { useEffect, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { AlikeRow } from '@/workers/answers/work';
import type { OpenRoom } from '@/workers/planRoom';

interface Props {
  refs: string[];
  open: OpenRoom;
  busy: boolean;
  onMerge: (keep: string) => void;
  onKeep: (keep: string) => void;
}

/** Activities that may be one, side by side: what they say differently stands out. */
export function Alike({ refs, open, busy, onMerge, onKeep }: Props) {
  const [rows, setRows] = useState<AlikeRow[]>([]);
  const key = refs.join('\n');
  useEffect(() => {
    let current = true;
    open.room.alike(key.split('\n')).then((found) => current && setRows(found), wrong);
    return () => {
      current = false;
    };
  }, [open, key]);
  return (
    <div className="overflow-x-auto">
      <table className="mt-1 text-[14.5px]">
        <thead>
          <tr>
            <td />
            {refs.map((ref) => (
              <th key={ref} scope="col" className="px-3 pb-1 text-left font-narrow font-semibold">
                {ref}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.label}>
              <th scope="row" className="py-0.5 pr-4 text-left font-normal whitespace-nowrap text-soft">
                {r.label}
              </th>
              {r.values.map((v, k) => (
                <td key={refs[k]} className={`max-w-64 px-3 py-0.5 align-top ${r.differs ? 'bg-marigold/15' : ''}`}>
                  {v || <span className="text-soft">–</span>}
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <td />
            {refs.map((ref) => (
              <td key={ref} className="px-3 pt-2">
                <span className="flex flex-wrap gap-1.5">
                  <button
                    type="button"
                    className="quiet py-0.5"
                    disabled={busy}
                    title="It keeps its own values, takes over what only the others say, and all their links"
                    onClick={() => onMerge(ref)}
                  >
                    Merge into {ref}
                  </button>
                  <button type="button" className="quiet py-0.5" disabled={busy} onClick={() => onKeep(ref)}>
                    Keep only {ref}
                  </button>
                </span>
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}
