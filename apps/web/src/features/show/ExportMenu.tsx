'use client';
import type { Brief } from '@clembo/scene/brief';
import { Menu, MenuButton, MenuItems } from '@headlessui/react';
import { Download } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { MenuEntry } from '@/ui/MenuEntry';
import { takeFile } from '@/ui/takeFile';
import { toast, wrong } from '@/ui/Toasts';
import type { ComposedPage } from '@/workers/composing';
import { copyPicture, copyTable, printPages, saveBrief } from './otherWays';

export const FORMATS = [
  ['pdf', 'PDF', 'for paper and mail'],
  ['pptx', 'PPTX', 'slides that can be edited'],
  ['svg', 'SVG', 'a drawing with its fonts'],
  ['png', 'PNG', 'a picture, twice the size'],
  ['html', 'HTML', 'one file that opens anywhere'],
  ['xlsx', 'XLSX', 'what is shown, as a table'],
] as const;

/** A process can be taken to programs that know processes. */
const formatsOf = (brief: Brief): readonly (readonly [format: string, title: string, use: string])[] =>
  brief.kind === 'handoffs' ? [...FORMATS, ['bpmn', 'BPMN 2.0', 'the process with its diagram']] : FORMATS;

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
  planId: string;
  exhibitId: string;
  saved: () => Promise<void>;
  /** The page on screen, of an exhibit that runs over several: a drawing or a picture is of that one. */
  sheet: number;
  page: ComposedPage | null;
  brief: Brief;
  name: string;
  /** All pages of the exhibit, for printing. */
  allPages: () => Promise<ComposedPage[]>;
}

/** Files, paper and clipboard. */
export function ExportMenu({ planId, exhibitId, saved, sheet, page, brief, name, allPages }: Props) {
  const router = useRouter();
  const others: [title: string, use: string, run: () => Promise<void>][] = [
    ['Print', 'on paper of its size', async () => printPages(await allPages())],
    ['Share', 'by an address', async () => router.push(`/plans/${planId}/share?share=${exhibitId}`)],
    ['Brief', 'for the command line', async () => saveBrief(name, brief)],
    [
      'Copy the picture',
      'to paste elsewhere',
      async () => {
        await copyPicture(exhibitId, saved, sheet);
        toast('The picture is in the clipboard.');
      },
    ],
    [
      'Copy the table',
      'to paste into a sheet',
      async () => {
        if (page) await copyTable(page.content);
        toast('The table is in the clipboard.');
      },
    ],
  ];
  return (
    <Menu>
      <MenuButton className="action">
        <Download size={15} aria-hidden /> Export
      </MenuButton>
      <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="panel max-h-[560px]! w-72">
        {formatsOf(brief).map(([format, title, use]) => (
          <MenuEntry
            key={format}
            title={title}
            use={use}
            onTake={() => void exportExhibit(exhibitId, format, saved, sheet)}
          />
        ))}
        <hr className="my-1 border-line" />
        {others.map(([title, use, run]) => (
          <MenuEntry key={title} title={title} use={use} onTake={() => void run().catch(wrong)} />
        ))}
      </MenuItems>
    </Menu>
  );
}
