'use client';
import type { Looking } from '@clembo/core';
import { editorOf } from '@clembo/formats/typed';
import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { FoundCell, FoundCells } from '@/workers/answers/finding';
import type { LedgerShape } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';

interface Props {
  open: OpenRoom;
  shape: LedgerShape;
  /** Fields that have columns. */
  fields: string[];
  names: Map<string, string>;
  onShow: (cell: FoundCell) => void;
  onReplace: (cells: FoundCell[], looking: Looking, by: string) => Promise<void>;
  onClose: () => void;
}

/** Finds a text in the rows that are listed, and puts another in its place: cell by cell, or in all of them as one change. */
export function FindBar({ open, shape, fields, names, onShow, onReplace, onClose }: Props) {
  const [text, setText] = useState('');
  const [by, setBy] = useState('');
  const [field, setField] = useState('');
  const [exact, setExact] = useState(false);
  const [whole, setWhole] = useState(false);
  const [found, setFound] = useState<FoundCells>({ cells: [], open: 0 });
  const [at, setAt] = useState(-1);
  const looking: Looking = { text, exact, whole };
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  useEffect(() => {
    let current = true;
    open.room.found({ text, exact, whole }, field === '' ? fields : [field]).then((cells) => {
      if (!current) return;
      setFound(cells);
      setAt((k) => Math.min(k, cells.cells.length - 1));
    }, wrong);
    return () => {
      current = false;
    };
  }, [open, shape, text, exact, whole, field, fields]);
  const step = (way: 1 | -1) => {
    const n = found.cells.length;
    if (n === 0) return;
    const next = at < 0 ? (way === 1 ? 0 : n - 1) : (at + way + n) % n;
    setAt(next);
    onShow(found.cells[next]!);
  };
  const here = at >= 0 ? found.cells[at] : undefined;
  const canHere = here !== undefined && editorOf(here.field) !== null;
  const box = 'rounded-md border border-line bg-paper px-2 py-0.5';
  return (
    <search
      aria-label="Find and replace"
      className="flex shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-t border-line bg-wash px-5 py-1.5 text-[14px]"
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') onClose();
      }}
    >
      <input
        ref={input}
        aria-label="Find"
        placeholder="Find"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter') step(e.shiftKey ? -1 : 1);
        }}
        className={`${box} w-44`}
      />
      <select aria-label="In" value={field} onChange={(e) => setField(e.target.value)} className={`${box} py-1`}>
        <option value="">in all columns</option>
        {fields.map((f) => (
          <option key={f} value={f}>
            in {names.get(f) ?? f}
          </option>
        ))}
      </select>
      <label className="flex items-center gap-1">
        <input type="checkbox" checked={exact} onChange={(e) => setExact(e.target.checked)} /> same capitals
      </label>
      <label className="flex items-center gap-1">
        <input type="checkbox" checked={whole} onChange={(e) => setWhole(e.target.checked)} /> whole cell
      </label>
      <span role="status" className="min-w-20 text-soft">
        {text === ''
          ? ''
          : found.cells.length === 0
            ? 'not found'
            : `${at >= 0 ? `${at + 1} of ` : ''}${found.cells.length} ${found.cells.length === 1 ? 'cell' : 'cells'}`}
      </span>
      <button type="button" className="quiet py-0.5" disabled={found.cells.length === 0} onClick={() => step(1)}>
        Next
      </button>
      <input
        aria-label="Replace by"
        placeholder="Replace by"
        value={by}
        onChange={(e) => setBy(e.target.value)}
        className={`${box} w-44`}
      />
      <button
        type="button"
        className="quiet py-0.5"
        disabled={!canHere}
        onClick={() => here && void onReplace([here], looking, by)}
      >
        This one
      </button>
      <button
        type="button"
        className="quiet py-0.5"
        disabled={found.open === 0}
        title={
          found.open < found.cells.length
            ? `${found.cells.length - found.open} are worked out, and stay as they are`
            : ''
        }
        onClick={() => void onReplace(found.cells, looking, by)}
      >
        All {found.open > 0 ? found.open : ''}
      </button>
      <button type="button" aria-label="Close" className="ml-auto rounded p-0.5 hover:bg-line" onClick={onClose}>
        <X size={16} />
      </button>
    </search>
  );
}
