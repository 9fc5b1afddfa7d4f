'use client';
import { useState } from 'react';
import { PartPanel, type SaidPart } from './PartPanel';

interface Props extends SaidPart {
  /** What the part says while no place is set. */
  open: string;
  /** The place as its line writes it; empty while none is set. */
  value: string;
  unit: string;
  read: (text: string) => number | null;
  onChange: (place: number | null) => void;
}

/** A part that is a place on a line, or is left to the line. */
export function PlacePart({ part, label, text, open, value, unit, read, onChange }: Props) {
  const [wrong, setWrong] = useState(false);
  return (
    <PartPanel part={part} label={label} text={text}>
      {(close) => (
        <form
          className="flex items-center gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            const typed = String(new FormData(e.currentTarget).get('place'));
            const place = read(typed);
            setWrong(place === null);
            if (place === null) return;
            onChange(place);
            close();
          }}
        >
          <input
            autoFocus
            name="place"
            aria-label={label}
            aria-invalid={wrong}
            defaultValue={value}
            className={`w-32 rounded border bg-paper px-2 py-1 ${wrong ? 'border-madder' : 'border-line'}`}
          />
          <span className="text-soft">{unit}</span>
          <button type="submit" className="action py-1">
            Show
          </button>
          <button
            type="button"
            className="quiet py-1"
            onClick={() => {
              onChange(null);
              close();
            }}
          >
            {open}
          </button>
        </form>
      )}
    </PartPanel>
  );
}
