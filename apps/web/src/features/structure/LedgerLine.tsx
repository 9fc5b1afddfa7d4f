'use client';
import type { CodeField } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import type { VirtualItem } from '@tanstack/react-virtual';
import { ChevronDown, ChevronRight } from 'lucide-react';
import type { LedgerRow } from '@/workers/plan.worker';
import { TimeStrip } from './TimeStrip';

export const ROW_HEIGHT = 30;

interface Props {
  row: LedgerRow;
  at: VirtualItem;
  fields: CodeField[];
  columns: string;
  range: [number, number] | null;
  statusDay: number | null;
  chosen: boolean;
  closed: boolean;
  onChoose: () => void;
  onToggle: () => void;
}

/** One row of the ledger, with its strip. */
export function LedgerLine({ row, at, fields, columns, range, statusDay, chosen, closed, onChoose, onToggle }: Props) {
  return (
    <div
      role="row"
      aria-rowindex={at.index + 2}
      aria-selected={chosen}
      onClick={onChoose}
      className={`absolute inset-x-0 grid items-center border-b border-line/50 px-5 text-[14.5px] ${chosen ? 'bg-marigold/20' : 'hover:bg-wash'} ${row.summary ? 'font-semibold' : ''}`}
      style={{ gridTemplateColumns: columns, height: ROW_HEIGHT, transform: `translateY(${at.start}px)` }}
    >
      <span role="cell" className="truncate pr-3 font-narrow font-normal text-soft">
        {row.ref}
      </span>
      <span role="cell" className="flex min-w-0 items-center pr-3" style={{ paddingLeft: (row.level - 1) * 18 }}>
        {row.summary ? (
          <button
            type="button"
            aria-label={`${closed ? 'Open' : 'Close'} ${row.name}`}
            aria-expanded={!closed}
            onClick={(e) => {
              e.stopPropagation();
              onToggle();
            }}
            className="mr-1 rounded hover:bg-line"
          >
            {closed ? <ChevronRight size={15} /> : <ChevronDown size={15} />}
          </button>
        ) : (
          <span className="mr-1 w-[15px] shrink-0 text-center text-kelp">
            {row.kind.endsWith('Milestone') ? '◆' : ''}
          </span>
        )}
        <span className="truncate" title={row.name}>
          {row.name}
        </span>
      </span>
      <span role="cell" className="font-narrow">
        {row.start === null ? '' : formatDay(row.start, 'medium')}
      </span>
      <span role="cell" className="font-narrow">
        {row.finish === null ? '' : formatDay(row.finish, 'medium')}
      </span>
      <span role="cell" className="pr-4 text-right">
        {row.days ?? ''}
      </span>
      <span
        role="cell"
        className={`pr-4 text-right ${row.float !== null && row.float < 0 ? 'text-madder' : row.critical ? 'font-semibold' : ''}`}
        title={row.critical ? 'critical' : undefined}
      >
        {row.float ?? ''}
      </span>
      <span
        role="cell"
        className={`pr-4 text-right ${row.off !== null && row.off > 0 ? 'text-madder' : 'text-harebell'}`}
        title={
          row.off
            ? `computed ${Math.abs(row.off)} working days ${row.off > 0 ? 'later' : 'earlier'} than given`
            : undefined
        }
      >
        {row.off ? (row.off > 0 ? `+${row.off}` : `−${-row.off}`) : ''}
      </span>
      <span role="cell" className="pr-4 text-right">
        {row.percent === 0 ? '' : row.percent}
      </span>
      {fields.map((f) => (
        <span key={f.id} role="cell" className="truncate pr-3 font-narrow font-normal">
          {f.values.find((x) => x.code === row.codes[f.id])?.title ?? row.codes[f.id] ?? ''}
        </span>
      ))}
      <TimeStrip row={row} range={range} statusDay={statusDay} />
    </div>
  );
}
