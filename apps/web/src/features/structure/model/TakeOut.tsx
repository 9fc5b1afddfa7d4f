'use client';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Download } from 'lucide-react';
import type { ModelOut } from '@/workers/answers/models';

const KINDS: [kind: ModelOut, title: string, about: string][] = [
  ['csv', 'Matches as CSV', 'who builds what, a row for each element'],
  ['ifc', 'Tasks as IFC', 'activities with the elements that they are assigned to'],
  ['glb', 'This day as glTF', 'the model as it stands, for other viewers'],
];

/** What can be taken out of the matching, as files that other programs read. */
export function TakeOut({ onTake }: { onTake: (kind: ModelOut) => void }) {
  return (
    <Menu>
      <MenuButton className="quiet py-0.5!">
        <Download size={14} aria-hidden /> Take out
      </MenuButton>
      <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="panel w-72">
        {KINDS.map(([kind, title, about]) => (
          <MenuItem key={kind}>
            <button type="button" className="choice w-full flex-col items-start! gap-0!" onClick={() => onTake(kind)}>
              {title}
              <span className="text-[13px] text-soft">{about}</span>
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}

/** Hands a file over to whoever asked for it. */
export function saveFile({ name, type, bytes }: { name: string; type: string; bytes: Uint8Array }): void {
  const address = URL.createObjectURL(new Blob([bytes as BlobPart], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
