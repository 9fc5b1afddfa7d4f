'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { PanelHead } from '@/ui/PanelHead';
import { wrong } from '@/ui/Toasts';
import type { Behind, Measuring, RowsShown } from '@/workers/answers/measure';
import type { OpenRoom } from '@/workers/planRoom';

interface Props {
  planId: string;
  open: OpenRoom;
  measuring: Measuring;
  behind: Behind;
  title: string;
  onClose: () => void;
}

/** The rows that a figure is made of; each leads to its place in the ledger. */
export function RowsPanel({ planId, open, measuring, behind, title, onClose }: Props) {
  const [shown, setShown] = useState<RowsShown | null>(null);
  useEffect(() => {
    let current = true;
    open.room.rowsBehind(measuring, behind).then((found) => current && setShown(found), wrong);
    return () => {
      current = false;
    };
  }, [open, measuring, behind]);
  return (
    <aside aria-label="Rows" className="flex w-[460px] shrink-0 flex-col border-l border-line bg-paper">
      <div className="px-4 pt-3 pb-2">
        <PanelHead
          title={
            <>
              {title} <span className="font-sans text-[14px] font-normal text-soft">{shown?.count}</span>
            </>
          }
          close="Close the rows"
          onClose={onClose}
        />
      </div>
      <div className="min-h-0 flex-1 overflow-auto px-4 pb-4">
        <table className="w-full text-[13.5px]">
          <thead className="sticky top-0 bg-paper text-left text-soft">
            <tr>
              <th className="py-1 font-normal">Name</th>
              <th className="py-1 pl-2 font-normal">Finish</th>
              <th className="py-1 pl-2 font-normal">Promised</th>
              <th className="py-1 pl-2 text-right font-normal">Off</th>
              <th className="py-1 pl-2 text-right font-normal">%</th>
            </tr>
          </thead>
          <tbody>
            {shown?.rows.map((r) => (
              <tr key={r.ref} className="border-t border-line/60">
                <td className="max-w-0 py-0.5">
                  <Link
                    href={`/plans/${planId}/structure?ref=${encodeURIComponent(r.ref)}`}
                    className="block truncate hover:text-kelp hover:underline"
                    title={`${r.name} (${r.ref})`}
                  >
                    {r.name}
                  </Link>
                </td>
                <td className="w-[72px] pl-2 font-narrow whitespace-nowrap">{r.finish}</td>
                <td className="w-[72px] pl-2 font-narrow whitespace-nowrap">{r.promised}</td>
                <td
                  className={`w-10 pl-2 text-right font-narrow ${(r.late ?? 0) > 0 ? 'text-madder' : (r.late ?? 0) < 0 ? 'text-harebell-deep' : 'text-soft'}`}
                >
                  {r.late === null ? 'new' : r.late === 0 ? '0' : r.late > 0 ? `+${r.late}` : `−${-r.late}`}
                </td>
                <td className="w-8 pl-2 text-right font-narrow">{r.percent}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {shown && shown.count > shown.rows.length && (
          <p className="mt-2 text-soft">and {shown.count - shown.rows.length} more; measure less to see them</p>
        )}
      </div>
    </aside>
  );
}
