'use client';
import type { CalendarSpec, Resource } from '@clembo/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import type { NeedShown } from '@/workers/answers/resources';

interface Props {
  resource: Resource;
  need: NeedShown | null;
  steps: string[];
  /** What its steps are called: weeks, months. */
  stepName: string;
  calendars: CalendarSpec[];
  chosen: boolean;
  busy: boolean;
  onChoose: () => void;
  onChange: (part: Partial<Omit<Resource, 'id'>>, words: string) => void;
  onRemove: () => void;
}

/** A resource with what is said of it, to be changed in place, and how it is loaded at a glance. */
export function ResourceRow(props: Props) {
  const { resource: r, need, stepName, calendars, chosen, busy, onChoose, onChange, onRemove } = props;
  const number = (text: string): number | null | undefined => {
    if (text.trim() === '') return null;
    const value = Number(text.replace(',', '.'));
    return Number.isFinite(value) && value >= 0 ? value : undefined;
  };
  return (
    <tr
      data-resource={r.id}
      className={`border-b border-line/60 ${chosen ? 'bg-marigold/12' : 'hover:bg-wash'}`}
      onFocus={onChoose}
      onPointerDown={onChoose}
    >
      <td className="py-0.5 pr-3">
        <Field
          label={`Name of ${r.name}`}
          text={r.name}
          wide
          onKeep={(text) => {
            if (text.trim() === '') return false;
            onChange({ name: text.trim() }, `Call the resource ${text.trim()}`);
            return true;
          }}
        />
      </td>
      <td className="py-0.5 pr-3">
        <Field
          label={`Unit of ${r.name}`}
          text={r.unit}
          onKeep={(text) => {
            onChange({ unit: text.trim() }, `Count ${r.name} in ${text.trim()}`);
            return true;
          }}
        />
      </td>
      <td className="py-0.5 pr-3 text-right">
        <Field
          label={`How many of ${r.name} at a time`}
          text={r.limit === null ? '' : String(r.limit)}
          number
          onKeep={(text) => {
            const limit = number(text);
            if (limit === undefined) return false;
            onChange({ limit }, `Limit ${r.name}`);
            return true;
          }}
        />
      </td>
      <td className="py-0.5 pr-3 text-right">
        <Field
          label={`Rate of ${r.name}`}
          text={r.rate === null ? '' : String(r.rate / 100)}
          number
          onKeep={(text) => {
            const rate = number(text);
            if (rate === undefined) return false;
            onChange({ rate: rate === null ? null : Math.round(rate * 100) }, `Set the rate of ${r.name}`);
            return true;
          }}
        />
      </td>
      <td className="py-0.5 pr-3">
        <select
          aria-label={`Calendar of ${r.name}`}
          value={r.calendar ?? ''}
          disabled={busy}
          onChange={(e) =>
            onChange({ calendar: e.target.value === '' ? null : e.target.value }, `Change the calendar of ${r.name}`)
          }
          className="max-w-44 rounded-md border border-transparent bg-transparent py-0.5 hover:border-line"
        >
          <option value="">the plan’s own</option>
          {calendars.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name}
            </option>
          ))}
        </select>
      </td>
      <td className="py-0.5 pr-3 text-right font-narrow">{need ? need.total : ''}</td>
      <td className="py-0.5 pr-3 text-right font-narrow">{need ? need.activities.length : ''}</td>
      <td className="py-0.5 pr-3">
        {need && <Load need={need} />}
        {need && need.over > 0 && (
          <span className="ml-2 text-[13.5px] text-madder">
            too much in {need.over} {need.over === 1 ? stepName.slice(0, -1) : stepName}
          </span>
        )}
      </td>
      <td className="py-0.5 text-right">
        <button
          type="button"
          aria-label={`Remove ${r.name}`}
          className="rounded p-0.5 text-soft hover:bg-line"
          disabled={busy}
          onClick={onRemove}
        >
          <X size={15} />
        </button>
      </td>
    </tr>
  );
}

/** The need as a row of small bars; what is more than there is stands out. */
function Load({ need }: { need: NeedShown }) {
  const top = Math.max(1, ...need.need, ...need.most.map((m) => m ?? 0));
  const n = need.need.length;
  return (
    <svg
      aria-hidden
      viewBox={`0 0 ${Math.max(1, n)} 10`}
      preserveAspectRatio="none"
      className="inline-block h-[18px] w-36"
    >
      {need.need.map((h, k) => {
        const most = need.most[k] ?? null;
        const over = most !== null && h > most;
        return (
          // biome-ignore lint: steps stand where they stand
          <rect
            key={k}
            x={k + 0.1}
            y={10 - (10 * h) / top}
            width={0.8}
            height={(10 * h) / top}
            fill={over ? 'var(--color-madder)' : 'var(--color-kelp)'}
          />
        );
      })}
    </svg>
  );
}

function Field({
  label,
  text,
  number = false,
  wide = false,
  onKeep,
}: {
  label: string;
  text: string;
  number?: boolean;
  wide?: boolean;
  /** False where it cannot be used. */
  onKeep: (text: string) => boolean;
}) {
  const [typed, setTyped] = useState(text);
  const [before, setBefore] = useState(text);
  if (before !== text) {
    setBefore(text);
    setTyped(text);
  }
  const keep = () => {
    if (typed !== text && !onKeep(typed)) setTyped(text);
  };
  return (
    <input
      aria-label={label}
      value={typed}
      inputMode={number ? 'decimal' : undefined}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === 'Enter') keep();
        if (e.key === 'Escape') setTyped(text);
      }}
      className={`rounded-md border border-transparent bg-transparent px-1.5 py-0.5 hover:border-line focus:bg-paper ${wide ? 'w-full min-w-40 font-semibold' : 'w-20'} ${number ? 'text-right' : ''}`}
    />
  );
}
