'use client';
import { X } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { Behind, Measuring, RowShown } from '@/workers/plan.worker';
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
  const [rows, setRows] = useState<RowShown[] | null>(null);
  useEffect(() => {
    let current = true;
    open.room.rowsBehind(measuring, behind).then((found) => current && setRows(found), wrong);
    return () => {
      current = false;
    };
  }, [open, measuring, behind]);
  return (
    <aside aria-label="Rows" className="flex w-[460px] shrink-0 flex-col border-l border-line bg-paper">
      <div className="flex items-center justify-between px-4 pt-3 pb-2">
        <h2 className="font-serif text-[17px] font-semibold">
          {title}{' '}
          {rows && (
            <span className="font-sans text-[14px] font-normal text-soft">
              {rows.length === 2000 ? 'the first 2000' : rows.length}
            </span>
          )}
        </h2>
        <button type="button" aria-label="Close the rows" className="rounded p-0.5 hover:bg-line" onClick={onClose}>
          <X size={16} />
        </button>
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
            {rows?.slice(0, 400).map((r) => (
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
                  className={`w-10 pl-2 text-right font-narrow ${(r.late ?? 0) > 0 ? 'text-madder' : (r.late ?? 0) < 0 ? 'text-[#2f5a97]' : 'text-soft'}`}
                >
                  {r.late === null ? 'new' : r.late === 0 ? '0' : r.late > 0 ? `+${r.late}` : `−${-r.late}`}
                </td>
                <td className="w-8 pl-2 text-right font-narrow">{r.percent}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {rows && rows.length > 400 && <p className="mt-2 text-soft">and {rows.length - 400} more</p>}
      </div>
    </aside>
  );
}
