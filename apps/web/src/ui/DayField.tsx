'use client';
import { isUsableDay, parseIsoDate } from '@clembo/core';
import { useState } from 'react';

/** The day that such a field holds; null while it is none that a plan may use. */
export function dayOfField(value: string): number | null {
  const day = parseIsoDate(value);
  return day !== null && isUsableDay(day) ? day : null;
}

/**
 * A day to be typed or picked, within what a plan may use; as ISO text, empty where it is open. What is half typed (no
 * month yet, the year 2 of 2026) stands in the field and is told to nobody.
 */
export function DayField({
  label,
  value,
  onChange,
  className = 'rounded-md border border-line bg-paper px-2 py-0.5',
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  className?: string;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      type="date"
      aria-label={label}
      value={typed ?? value}
      min="1900-01-01"
      max="2299-12-31"
      onChange={(e) => {
        const { value: said, validity } = e.target;
        setTyped(said);
        if (said === '' ? !validity.badInput : dayOfField(said) !== null) onChange(said);
      }}
      onBlur={() => setTyped(null)}
      className={className}
    />
  );
}
