'use client';
import { useEffect } from 'react';
import { wrong } from '@/ui/Toasts';
import type { LedgerShown } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import { type Range, tableText } from './grid';

interface Options {
  open: OpenRoom;
  /** Whether the sheet has the keys. */
  own: () => boolean;
  at: (row: number) => LedgerShown | null;
  area: Range;
  onClear: () => void;
  onPaste: (text: string) => void;
}

/** Copies, cuts and pastes ranges of cells as text that spreadsheets take. */
export function useClipboard({ open, own, at, area, onClear, onPaste }: Options) {
  useEffect(() => {
    const copy = (e: ClipboardEvent) => {
      if (!own()) return;
      e.preventDefault();
      const columns = Array.from({ length: area.right - area.left + 1 }, (_, k) => area.left + k);
      // What is in sight is at hand at once; more than that is asked for and put in when it comes.
      const near = Array.from({ length: area.bottom - area.top + 1 }, (_, k) => at(area.top + k));
      if (near.every((l) => l !== null))
        e.clipboardData!.setData(
          'text/plain',
          tableText(near.map((l) => columns.map((c) => (c === 0 ? l!.name : (l!.cells[c - 1] ?? ''))))),
        );
      else
        void open.room
          .copied(area.top, area.bottom + 1, columns)
          .then((table) => navigator.clipboard.writeText(tableText(table)))
          .catch(wrong);
    };
    const cut = (e: ClipboardEvent) => {
      if (!own()) return;
      copy(e);
      onClear();
    };
    const put = (e: ClipboardEvent) => {
      if (!own()) return;
      e.preventDefault();
      onPaste(e.clipboardData?.getData('text/plain') ?? '');
    };
    document.addEventListener('copy', copy);
    document.addEventListener('cut', cut);
    document.addEventListener('paste', put);
    return () => {
      document.removeEventListener('copy', copy);
      document.removeEventListener('cut', cut);
      document.removeEventListener('paste', put);
    };
  });
}
