'use client';
import { CATEGORIES } from '@clembo/scene/ink';
import { LEAST_CONTRAST, type PaletteFault, paletteFaults } from '@clembo/scene/brief';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';

/** The colours of categories on new pages; what is hard to see, or to tell apart, is said beside them. */
export function HouseColours({
  colours,
  onChange,
}: {
  colours: readonly string[];
  onChange: (colours: string[]) => void;
}) {
  /** A colour that is being chosen: it is kept once the choice is made. */
  const [trying, setTrying] = useState<{ at: number; colour: string } | null>(null);
  const shown = colours.map((c, k) => (trying?.at === k ? trying.colour : c));
  const faults = paletteFaults(shown);
  const keep = () => {
    if (trying && trying.colour !== colours[trying.at]) onChange(shown);
    setTrying(null);
  };
  return (
    <div className="mt-3" role="group" aria-label="Colours of the house">
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-soft">colours</span>
        {shown.map((colour, k) => (
          // biome-ignore lint: colours stand in their order, and two may be the same
          <span key={k} className="flex items-center">
            <input
              type="color"
              aria-label={`Colour ${k + 1} of the house`}
              value={colour}
              onChange={(e) => setTrying({ at: k, colour: e.target.value.toUpperCase() })}
              onBlur={keep}
              className="h-7 w-9 rounded border border-line bg-paper p-0.5"
            />
            <button
              type="button"
              aria-label={`Without colour ${k + 1}`}
              className="rounded p-0.5 text-soft hover:bg-line"
              onClick={() => onChange(colours.filter((_, j) => j !== k))}
            >
              <X size={13} />
            </button>
          </span>
        ))}
        {colours.length === 0 && <span>those of Clembo</span>}
        {colours.length < CATEGORIES.length && (
          <button
            type="button"
            className="quiet py-1"
            onClick={() => onChange([...colours, CATEGORIES.find((c) => !colours.includes(c))!])}
          >
            <Plus size={14} aria-hidden /> {colours.length === 0 ? 'Colours of the house' : 'Another'}
          </button>
        )}
      </div>
      {colours.length > 0 && (
        <p className="mt-1.5 text-[14px] text-soft" role="status" data-testid="colour-faults">
          {faults.length === 0
            ? 'All of them are seen on paper, and told apart by everyone.'
            : faults.map((f) => `${faultWords(f)}.`).join(' ')}
        </p>
      )}
    </div>
  );
}

function faultWords(f: PaletteFault): string {
  if (f.kind === 'pale')
    return `Colour ${f.at + 1} is too pale on paper (contrast ${f.contrast.toFixed(1)}, at least ${LEAST_CONTRAST} is wanted)`;
  const [a, b] = f.at;
  return `Colours ${a + 1} and ${b + 1} look alike to ${f.to}`;
}
