'use client';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

/** The head of a panel at the side: what it is, and the way to close it. */
export function PanelHead({ title, close, onClose }: { title: ReactNode; close: string; onClose: () => void }) {
  return (
    <div className="flex items-start justify-between gap-2">
      <h2 className="font-serif text-[17px] leading-tight font-semibold">{title}</h2>
      <button type="button" aria-label={close} className="rounded p-0.5 hover:bg-line" onClick={onClose}>
        <X size={16} />
      </button>
    </div>
  );
}
