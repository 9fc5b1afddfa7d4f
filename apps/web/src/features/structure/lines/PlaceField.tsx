'use client';
import { placeWords, readPlace } from '@clembo/core';
import { TextField } from '@/ui/TextField';
import { wrong } from '@/ui/Toasts';

/** A place that is typed in the unit of its line. */
export function PlaceField({
  label,
  place,
  unit,
  onChange,
}: {
  label: string;
  place: number;
  unit: string;
  onChange: (place: number) => void;
}) {
  const text = placeWords(place, unit);
  return (
    <TextField
      aria-label={label}
      value={text}
      maxLength={30}
      className="w-24 rounded-md border border-line bg-paper px-2 py-0.5 text-right tabular-nums"
      onKeep={(typed) => {
        const read = readPlace(typed, unit);
        if (read !== null) return onChange(read);
        wrong(new Error(`“${typed}” is no place. Type a number${unit ? ` in ${unit}` : ''}, or 12+350.`));
        return false;
      }}
    />
  );
}
