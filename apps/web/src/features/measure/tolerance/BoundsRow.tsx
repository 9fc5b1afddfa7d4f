'use client';
import type { Bounds, Tolerance } from '@clembo/core';
import { useState } from 'react';

interface Props {
  title: string;
  tolerance: Tolerance;
  onChange: (next: Tolerance) => void;
  action: { label: string; title: string; run: () => void } | null;
}

/** Bounds of dates in days, of amounts in percent. */
export function BoundsRow({ title, tolerance, onChange, action }: Props) {
  return (
    <tr className="border-t border-line">
      <th scope="row" className="py-2 pr-2 text-left font-semibold">
        {title}
      </th>
      {(['days', 'effort', 'cost'] as const).map((of) => (
        <td key={of} className="py-2 pl-4">
          <BoundsCell
            label={`${title}, ${of === 'days' ? 'days late' : `${of} over budget`}`}
            bounds={tolerance[of]}
            factor={of === 'days' ? 1 : 100}
            unit={of === 'days' ? 'days' : '%'}
            onChange={(bounds) => onChange({ ...tolerance, [of]: bounds })}
          />
        </td>
      ))}
      <td className="py-2 pl-4 text-right">
        {action && (
          <button
            type="button"
            className="quiet py-0.5"
            title={action.title}
            aria-label={action.title}
            onClick={action.run}
          >
            {action.label}
          </button>
        )}
      </td>
    </tr>
  );
}

interface CellProps {
  label: string;
  bounds: Bounds;
  /** What is shown is so many times what is kept. */
  factor: number;
  unit: string;
  onChange: (bounds: Bounds) => void;
}

function BoundsCell({ label, bounds, factor, unit, onChange }: CellProps) {
  const shown = (v: number) => String(Math.round(v * factor * 1000) / 1000);
  const [typed, setTyped] = useState<{ watch: string; breach: string } | null>(null);
  const value = typed ?? { watch: shown(bounds.watch), breach: shown(bounds.breach) };
  const read = (text: string) =>
    /^\s*\d+([.,]\d+)?\s*%?\s*$/.test(text) ? Number.parseFloat(text.replace(',', '.')) : null;
  const [watch, breach] = [read(value.watch), read(value.breach)];
  const why =
    watch === null || breach === null
      ? 'Type numbers from 0 up.'
      : watch > breach
        ? 'What is normal must not reach beyond what is far off.'
        : null;
  const keep = () => {
    if (typed === null || why !== null) return;
    setTyped(null);
    const next = { watch: watch! / factor, breach: breach! / factor };
    if (next.watch !== bounds.watch || next.breach !== bounds.breach) onChange(next);
  };
  const field = (which: 'watch' | 'breach', name: string) => (
    <input
      aria-label={`${label}, ${name}`}
      aria-invalid={why !== null}
      inputMode="decimal"
      value={value[which]}
      onChange={(e) => setTyped({ ...value, [which]: e.target.value })}
      onKeyDown={(e) => {
        if (e.key === 'Enter') keep();
        if (e.key === 'Escape') setTyped(null);
      }}
      className={`w-14 rounded border bg-paper px-1.5 py-0.5 text-right font-narrow ${why ? 'border-madder' : 'border-line'}`}
    />
  );
  return (
    <span
      className="block whitespace-nowrap"
      onBlur={(e) => {
        if (!e.currentTarget.contains(e.relatedTarget)) keep();
      }}
    >
      <span className="text-soft">up to </span>
      {field('watch', 'normal up to')}
      <span className="text-soft">, far off from </span>
      {field('breach', 'far off from')}
      <span className="text-soft"> {unit}</span>
      {why && (
        <span role="alert" className="block text-[13.5px] text-madder">
          {why}
        </span>
      )}
    </span>
  );
}
