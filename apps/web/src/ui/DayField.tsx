'use client';
import { isUsableDay, parseIsoDate } from '@clembo/core';

/** The day that such a field holds; null while it is none that a plan may use. */
export function dayOfField(value: string): number | null {
  const day = parseIsoDate(value);
  return day !== null && isUsableDay(day) ? day : null;
}

/** A day to be typed or picked, within what a plan may use; as ISO text, empty where it is open. */
export function DayField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <input
      type="date"
      aria-label={label}
      value={value}
      min="1900-01-01"
      max="2299-12-31"
      onChange={(e) => onChange(e.target.value)}
      className="rounded-md border border-line bg-paper px-2 py-0.5"
    />
  );
}
