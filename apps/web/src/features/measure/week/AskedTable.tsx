'use client';
import { useRef } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import type { RoundField, RoundRow, RoundWould } from '@/workers/answers/round';
import type { OpenRoom } from '@/workers/planRoom';
import { FIELD_LABELS, labelOf } from './Asked';
import { AskedInput } from './AskedInput';

interface Props {
  planId: string;
  open: OpenRoom;
  rows: RoundRow[];
  onWould: (would: RoundWould | null) => void;
}

const FIELDS = Object.keys(FIELD_LABELS) as RoundField[];

/** So many rows stand in the list at once; the others come with the next page of it. */
const PAGE = 200;

/** The round as a list: Enter goes down, Tab to the right. */
export function AskedTable({ planId, open, rows, onWould }: Props) {
  const table = useRef<HTMLTableElement>(null);
  const { change } = usePlanChange(planId);
  const next = (input: HTMLElement, back: boolean) => {
    const same = [...table.current!.querySelectorAll<HTMLElement>(`[data-field="${input.dataset.field}"]`)];
    same[same.indexOf(input) + (back ? -1 : 1)]?.focus();
  };
  return (
    <div className="min-h-0 flex-1 overflow-auto border-t border-line">
      <table ref={table} className="w-full min-w-[1180px] border-collapse text-[14.5px]">
        <thead className="sticky top-0 z-10 bg-desk text-left text-[13.5px] text-soft">
          <tr>
            <th className="py-1.5 pr-2 pl-6 font-normal">Activity</th>
            <th className="w-[132px] px-1 py-1.5 font-normal">Asked</th>
            {FIELDS.map((f) => (
              <th key={f} className={`px-1 py-1.5 font-normal ${f === 'notes' ? 'w-[220px]' : 'w-[108px]'}`}>
                {FIELD_LABELS[f]}
              </th>
            ))}
            <th className="w-[70px] px-1 py-1.5 pr-6 font-normal">On hold</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, PAGE).map((r) => (
            <tr key={r.ref} className="border-t border-line">
              <th scope="row" className="max-w-0 py-1 pr-2 pl-6 text-left font-normal">
                <span className={`block truncate ${r.changed ? 'font-semibold' : ''}`} title={`${r.name} (${r.ref})`}>
                  {r.name}
                </span>
              </th>
              <td
                className={`px-1 py-1 font-narrow text-[13.5px] leading-tight ${r.why === 'shouldHaveFinished' || r.why === 'shouldHaveStarted' ? 'text-madder' : 'text-soft'}`}
              >
                {r.asks}
              </td>
              {FIELDS.map((f) => (
                <td key={f} className="px-1 py-1">
                  {r.asksFor.includes(f) && (
                    <AskedInput
                      planId={planId}
                      open={open}
                      reference={r.ref}
                      field={f}
                      label={`${labelOf(r, f)}, ${r.name}`}
                      value={r.now[f]}
                      onWould={onWould}
                      onEnter={next}
                    />
                  )}
                </td>
              ))}
              <td className="px-1 py-1 pr-6 text-center">
                <input
                  type="checkbox"
                  aria-label={`On hold, ${r.name}`}
                  checked={r.onHold}
                  onChange={(e) =>
                    void change({ do: 'changeActivity', ref: r.ref, part: { onHold: e.target.checked } })
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > PAGE && (
        <p className="px-6 py-3 text-soft">
          and {rows.length - PAGE} more; report one after the other to reach them, or look less far ahead
        </p>
      )}
    </div>
  );
}
