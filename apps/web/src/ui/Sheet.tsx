'use client';
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

/** Something large that is laid over the desk for a while. */
export function Sheet({
  title,
  note,
  onClose,
  children,
}: {
  title: string;
  note?: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-ink/30" aria-hidden />
      <div className="fixed inset-0 flex justify-center p-6">
        <DialogPanel className="flex w-full max-w-[1100px] flex-col rounded-lg bg-wash shadow-xl">
          <div className="flex items-baseline gap-4 border-b border-line px-7 py-4">
            <DialogTitle className="font-serif text-[20px] font-semibold">{title}</DialogTitle>
            {note && <p className="text-soft">{note}</p>}
            <button type="button" aria-label="Close" className="ml-auto rounded p-1 hover:bg-line" onClick={onClose}>
              <X size={18} />
            </button>
          </div>
          <div className="min-h-0 flex-1 overflow-auto px-7 py-5">{children}</div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
