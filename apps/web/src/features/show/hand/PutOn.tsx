'use client';
import { Menu, MenuButton, MenuItems } from '@headlessui/react';
import { PenLine } from 'lucide-react';
import { useRef } from 'react';
import { MenuEntry } from '@/ui/MenuEntry';
import type { Tool } from './usePageHands';

export const TOOLS: [tool: Tool, title: string, how: string][] = [
  ['text', 'Words', 'click where they belong'],
  ['arrow', 'Arrow', 'drag from one place to another'],
  ['box', 'Frame', 'drag from corner to corner'],
  ['picture', 'Picture', 'choose a file, then click'],
  ['comment', 'Comment', 'click what it is about; not in what is exported'],
];

/** What can be put onto the page by hand. */
export function PutOn({
  tool,
  onTool,
  onFile,
}: {
  tool: Tool | null;
  onTool: (tool: Tool | null) => void;
  onFile: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Menu>
        <MenuButton className={`quiet ${tool ? 'border-marigold bg-marigold/15' : ''}`} aria-label="Put onto the page">
          <PenLine size={15} aria-hidden /> Put on
        </MenuButton>
        <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="panel w-72">
          {TOOLS.map(([own, title, how]) => (
            <MenuEntry
              key={own}
              title={title}
              use={how}
              onTake={() => (own === 'picture' ? input.current?.click() : onTool(own))}
            />
          ))}
        </MenuItems>
      </Menu>
      <input
        ref={input}
        type="file"
        aria-label="Picture for the page"
        accept="image/png,image/jpeg,image/svg+xml"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          if (file) onFile(file);
          e.target.value = '';
        }}
      />
    </>
  );
}
