'use client';
import { CATEGORIES, NEUTRAL } from '@clembo/scene/ink';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';

/** The colour of a value: one of the eight, any other, or the next of the eight by its place in the book. */
export function ColourPick({
  name,
  colour,
  place,
  onChange,
}: {
  name: string;
  colour: string | null;
  place: number;
  onChange: (colour: string | null) => void;
}) {
  const shown = colour ?? CATEGORIES[place] ?? NEUTRAL;
  return (
    <Popover className="shrink-0">
      <PopoverButton
        aria-label={`Colour of ${name}: ${colour ?? 'by its place'}`}
        className={`block h-5 w-8 rounded border ${colour ? 'border-ink/40' : 'border-dashed border-ink/40'}`}
        style={{ background: shown }}
        title={colour ? undefined : 'By its place in the book'}
      />
      <PopoverPanel anchor={{ to: 'bottom start', gap: 4 }} className="panel w-56 p-3!">
        {({ close }) => (
          <>
            <div className="grid grid-cols-4 gap-2">
              {CATEGORIES.map((c, k) => (
                <button
                  key={c}
                  type="button"
                  aria-label={`Category colour ${k + 1}`}
                  aria-pressed={c === colour}
                  className={`h-7 rounded border-2 ${c === colour?.toUpperCase() ? 'border-marigold' : 'border-transparent'}`}
                  style={{ background: c }}
                  onClick={() => {
                    onChange(c);
                    close();
                  }}
                />
              ))}
            </div>
            <label className="mt-3 flex items-center gap-2 text-[14px]">
              Another
              <input
                type="color"
                aria-label="Another colour"
                defaultValue={shown}
                onBlur={(e) =>
                  e.target.value.toUpperCase() !== shown.toUpperCase() && onChange(e.target.value.toUpperCase())
                }
                className="h-6 w-10"
              />
            </label>
            <button
              type="button"
              className="quiet mt-3 w-full justify-center py-0.5"
              disabled={colour === null}
              onClick={() => {
                onChange(null);
                close();
              }}
            >
              By its place in the book
            </button>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}
