'use client';
import type { CodeField, PartTolerance } from '@clembo/core';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Plus } from 'lucide-react';
import { Fragment } from 'react';

interface Props {
  fields: CodeField[];
  taken: PartTolerance[];
  onAdd: (field: string, code: string) => void;
}

/** Chooses a code value that gets bounds of its own. */
export function AddPart({ fields, taken, onAdd }: Props) {
  const useful = fields.filter((f) => f.values.length > 0);
  if (useful.length === 0)
    return (
      <p className="mt-3 text-[14px] text-soft">With code fields, parts of the plan can have bounds of their own.</p>
    );
  return (
    <Menu>
      <MenuButton className="quiet mt-3">
        <Plus size={15} aria-hidden /> Bounds for a part of the plan
      </MenuButton>
      <MenuItems anchor="bottom start" className="panel max-h-96! w-72">
        {useful.map((f) => (
          <Fragment key={f.id}>
            <p className="px-2 pt-2 pb-0.5 text-[13.5px] text-soft">{f.name}</p>
            {f.values
              .filter((v) => !taken.some((p) => p.field === f.id && p.code === v.code))
              .map((v) => (
                <MenuItem key={v.code}>
                  <button type="button" className="choice w-full" onClick={() => onAdd(f.id, v.code)}>
                    {v.title}
                  </button>
                </MenuItem>
              ))}
          </Fragment>
        ))}
      </MenuItems>
    </Menu>
  );
}
