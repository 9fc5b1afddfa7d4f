'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { ReactNode } from 'react';
import { PART_STYLE } from './ListParts';

/** What every part of the sentence is given: its name, what it is called, and the words that stand for it. */
export interface SaidPart {
  part: string;
  label: string;
  text: string;
}

/** A part of the sentence that opens a small panel in place. */
export function PartPanel({ part, label, text, children }: SaidPart & { children: (close: () => void) => ReactNode }) {
  return (
    <Popover as="span">
      <PopoverButton data-brief-part={part} aria-label={`${label}: ${text}`} className={PART_STYLE}>
        {text}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel p-3!" focus>
        {({ close }) => <>{children(close)}</>}
      </PopoverPanel>
    </Popover>
  );
}
