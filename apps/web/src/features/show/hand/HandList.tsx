'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';

/** Something that was set by hand. */
export interface HandEntry {
  key: string;
  name: string;
  words: string;
  onLook: () => void;
  onClear: () => void;
}

/** How many things of a page are set by hand, and the list of them: each can be looked at and taken back. */
export function HandList({
  entries,
  lost,
  onClearAll,
}: {
  entries: HandEntry[];
  /** How many of them have lost their activity. */
  lost: number;
  onClearAll: () => void;
}) {
  if (entries.length === 0) return null;
  return (
    <Popover className="relative">
      <PopoverButton
        data-testid="by-hand"
        className={
          lost > 0 ? 'text-madder underline' : 'underline decoration-line underline-offset-3 hover:decoration-soft'
        }
      >
        {entries.length} set by hand{lost > 0 ? `, ${lost} without its activity` : ''}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'top start', gap: 8 }} className="panel max-h-96! w-96 overflow-auto p-3!">
        {({ close }) => (
          <>
            <ul aria-label="Set by hand" className="space-y-1">
              {entries.map(({ key, name, words, onLook, onClear }) => (
                <li key={key} className="flex items-baseline gap-2">
                  <button
                    type="button"
                    className="min-w-0 flex-1 truncate text-left hover:text-kelp hover:underline"
                    onClick={() => {
                      onLook();
                      close();
                    }}
                  >
                    {name}
                  </button>
                  <span className="shrink-0 text-[14px] text-soft">{words}</span>
                  <button
                    type="button"
                    aria-label={`Take back: ${name}`}
                    className="shrink-0 text-kelp underline"
                    onClick={onClear}
                  >
                    take back
                  </button>
                </li>
              ))}
            </ul>
            <button
              type="button"
              className="quiet mt-3 py-0.5"
              onClick={() => {
                onClearAll();
                close();
              }}
            >
              Take all of it back
            </button>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}
