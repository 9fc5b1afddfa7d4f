'use client';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Download } from 'lucide-react';
import { takeFile } from '@/ui/takeFile';
import { wrong } from '@/ui/Toasts';

export const FORMATS = [
  ['pdf', 'PDF', 'for paper and mail'],
  ['svg', 'SVG', 'a drawing with its fonts'],
  ['png', 'PNG', 'a picture, twice the size'],
] as const;

/** Has the server write the exhibit, once it has the brief that is on screen, and hands the file over. */
export async function exportExhibit(
  exhibitId: string,
  format: string,
  saved: () => Promise<void>,
  sheet = 1,
): Promise<void> {
  try {
    await saved();
  } catch (error) {
    wrong(error);
    return;
  }
  await takeFile(`/api/exhibits/${exhibitId}/page`, format, { sheet });
}

interface Props {
  exhibitId: string;
  saved: () => Promise<void>;
  /** The page on screen, of an exhibit that runs over several: a drawing or a picture is of that one. */
  sheet: number;
}

export function ExportMenu({ exhibitId, saved, sheet }: Props) {
  return (
    <Menu>
      <MenuButton className="action">
        <Download size={15} aria-hidden /> Export
      </MenuButton>
      <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="panel w-60">
        {FORMATS.map(([format, title, use]) => (
          <MenuItem key={format}>
            <button
              type="button"
              className="choice w-full justify-between"
              onClick={() => void exportExhibit(exhibitId, format, saved, sheet)}
            >
              <span className="font-semibold">{title}</span>
              <span className="text-[14px] text-soft">{use}</span>
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
