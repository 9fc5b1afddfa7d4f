'use client';
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import type { RowsToPick } from '@clembo/formats/columns';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';
import type { Intake } from './useIntake';

/** How many rows are listed; a word brings out the others. */
const LISTED = 300;

interface Row {
  row: number;
  ref: string;
  name: string;
}

/** The rows of the table that is looked at, once they are listed. */
function useRows(id: string, onFail: () => void): Row[] | null {
  const [rows, setRows] = useState<Row[] | null>(null);
  const fail = useRef(onFail);
  useEffect(() => {
    const stop = new AbortController();
    const { signal } = stop;
    const list = async () => {
      const { job } = await ask<{ job: string }>(`/api/intakes/${id}/rows`, { method: 'POST', signal });
      await awaitJob(job, { signal });
      const found = await ask<RowsToPick>(`/api/jobs/${job}/file`, { signal });
      setRows(found.rows.map((row, k) => ({ row, ref: found.refs[k]!, name: found.names[k]! })));
    };
    list().catch((error: Error) => {
      if (error.name === 'AbortError') return;
      wrong(error);
      fail.current();
    });
    return () => stop.abort();
  }, [id]);
  return rows;
}

/** Rows to be taken or left out by hand. */
export function RowPicker({ id, intake, onClose }: { id: string; intake: Intake; onClose: () => void }) {
  const { map, changeMap } = intake;
  const rows = useRows(id, onClose);
  const [without, setWithout] = useState(new Set(map.pick.without));
  const [text, setText] = useState('');
  const found = useMemo(() => {
    const wanted = text.trim().toLowerCase();
    return (rows ?? []).filter((r) => `${r.ref} ${r.name}`.toLowerCase().includes(wanted));
  }, [rows, text]);
  const taken = useMemo(() => (rows ?? []).filter((r) => !without.has(r.ref)).length, [rows, without]);
  const set = (refs: string[], taken: boolean) =>
    setWithout((old) => {
      const next = new Set(old);
      for (const ref of refs) taken ? next.delete(ref) : next.add(ref);
      return next;
    });
  const keep = () => {
    changeMap({ pick: { ...map.pick, without: [...without] } });
    onClose();
  };
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-ink/20" aria-hidden />
      <DialogPanel className="fixed top-20 left-1/2 flex max-h-[75vh] w-[620px] -translate-x-1/2 flex-col rounded-xl border border-line bg-paper p-5 shadow-xl">
        <DialogTitle className="font-serif text-[20px] font-semibold">Which rows?</DialogTitle>
        <p className="text-soft">
          {rows
            ? `${taken} of ${rows.length} rows are taken. The choice holds for the next file of this source too.`
            : 'Looking through the rows …'}
        </p>
        <div className="mt-3 flex items-center gap-2">
          <input
            autoFocus
            aria-label="Rows that hold"
            placeholder="Rows that hold …"
            value={text}
            onChange={(e) => setText(e.target.value)}
            className="flex-1 rounded-md border border-line bg-paper px-2.5 py-1"
          />
          <button
            type="button"
            className="quiet py-1"
            onClick={() =>
              set(
                found.map((r) => r.ref),
                true,
              )
            }
          >
            Take {text.trim() ? 'these' : 'all'}
          </button>
          <button
            type="button"
            className="quiet py-1"
            onClick={() =>
              set(
                found.map((r) => r.ref),
                false,
              )
            }
          >
            Leave {text.trim() ? 'these' : 'all'} out
          </button>
        </div>
        <ul
          aria-label="Rows"
          aria-busy={!rows}
          className="mt-3 min-h-0 flex-1 overflow-auto rounded-lg border border-line"
        >
          {found.slice(0, LISTED).map((r) => (
            <li key={r.ref}>
              <label className="flex items-center gap-3 px-3 py-1 hover:bg-wash">
                <input
                  type="checkbox"
                  checked={!without.has(r.ref)}
                  onChange={(e) => set([r.ref], e.target.checked)}
                  className="size-4 accent-kelp"
                />
                <span className="w-12 shrink-0 text-right text-soft">{r.row}</span>
                <span className="truncate">{r.name || r.ref}</span>
              </label>
            </li>
          ))}
        </ul>
        {found.length > LISTED && <p className="mt-1 text-[14px] text-soft">… and {found.length - LISTED} more.</p>}
        <div className="mt-4 flex justify-end gap-2">
          <button type="button" className="quiet" onClick={onClose}>
            Leave it
          </button>
          <button type="button" className="action" disabled={!rows} onClick={keep}>
            Keep it
          </button>
        </div>
      </DialogPanel>
    </Dialog>
  );
}
