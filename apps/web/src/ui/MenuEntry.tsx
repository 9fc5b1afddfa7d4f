'use client';
import { MenuItem } from '@headlessui/react';

/** An entry of a menu: what it is, and what for. */
export function MenuEntry({ title, use, onTake }: { title: string; use: string; onTake: () => void }) {
  return (
    <MenuItem>
      <button type="button" className="choice w-full justify-between" onClick={onTake}>
        <span className="font-semibold">{title}</span>
        <span className="text-[14px] text-soft">{use}</span>
      </button>
    </MenuItem>
  );
}
