'use client';
import { type Arrangement, fieldType } from '@clembo/core';
import { type PointerEvent, useState } from 'react';
import { StripHead } from './StripHead';
import type { View } from './stripView';

/** Headings over narrow columns. */
const SHORT: Record<string, string> = {
  days: 'days',
  percent: '%',
  ref: 'ref.',
  off: 'off',
  free: 'free',
  remaining: 'to go',
  level: 'level',
};

interface Props {
  fields: string[];
  names: Map<string, string>;
  grid: string;
  width: number;
  view: View;
  stripWidth: number;
  onView: (view: View | null) => void;
  statusDay: number | null;
  arrangement: Arrangement;
  about: (field: string) => string;
  onArrange: (part: Partial<Arrangement>) => void;
}

/** Headings that explain themselves: clicked to sort, dragged into another order, drawn wider. */
export function GridHead(props: Props) {
  const { fields, names, grid, width, statusDay, arrangement, about, onArrange } = props;
  const [carried, setCarried] = useState<string | null>(null);
  const [first] = arrangement.sort;
  const sort = (field: string) => {
    if (first?.field !== field) onArrange({ sort: [{ field, down: false }] });
    else if (!first.down) onArrange({ sort: [{ field, down: true }] });
    else onArrange({ sort: [] });
  };
  const put = (field: string, before: string) => {
    if (field === before || before === 'name') return;
    const { columns } = arrangement;
    const moved = columns.find((c) => c.field === field);
    if (!moved) return;
    const rest = columns.filter((c) => c.field !== field);
    const at = rest.findIndex((c) => c.field === before);
    onArrange({ columns: [...rest.slice(0, at), moved, ...rest.slice(at)] });
  };
  const widen = (e: PointerEvent, field: string) => {
    e.preventDefault();
    e.stopPropagation();
    const begun = e.clientX;
    const was = (e.currentTarget as HTMLElement).parentElement!.getBoundingClientRect().width;
    const set = (m: globalThis.PointerEvent) => {
      const now = Math.round(Math.max(field === 'name' ? 120 : 36, Math.min(900, was + m.clientX - begun)));
      if (field === 'name') onArrange({ nameWidth: now });
      else onArrange({ columns: arrangement.columns.map((c) => (c.field === field ? { ...c, width: now } : c)) });
    };
    const end = () => {
      window.removeEventListener('pointermove', set);
      window.removeEventListener('pointerup', end);
    };
    window.addEventListener('pointermove', set);
    window.addEventListener('pointerup', end);
  };
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="sticky top-0 z-20 grid border-b border-line bg-paper text-[13.5px] text-soft"
      style={{ gridTemplateColumns: grid, minWidth: width }}
    >
      {fields.map((field) => {
        const number = fieldType(field) === 'number';
        return (
          <span
            key={field}
            role="columnheader"
            aria-sort={first?.field === field ? (first.down ? 'descending' : 'ascending') : 'none'}
            draggable={field !== 'name'}
            onDragStart={() => setCarried(field)}
            onDragOver={(e) => carried && e.preventDefault()}
            onDrop={() => {
              if (carried) put(carried, field);
              setCarried(null);
            }}
            className={`group relative flex items-center ${field === 'name' ? 'sticky left-0 z-10 bg-paper pl-5' : 'px-1.5'}`}
          >
            <button
              type="button"
              tabIndex={-1}
              title={about(field)}
              onClick={() => sort(field)}
              className={`w-full truncate py-1 first-letter:uppercase hover:text-ink ${number ? 'text-right' : 'text-left'}`}
            >
              {SHORT[field] ?? names.get(field) ?? field}
              {first?.field === field ? (first.down ? ' ↓' : ' ↑') : ''}
            </button>
            <span
              aria-hidden
              data-widen={field}
              onPointerDown={(e) => widen(e, field)}
              className="absolute inset-y-0 -right-1 z-10 w-2 cursor-col-resize hover:bg-line"
            />
          </span>
        );
      })}
      <span
        role="columnheader"
        data-strip-head
        className="sticky right-0 z-10 h-[34px] min-w-0 border-l border-line/60 bg-paper"
      >
        <StripHead view={props.view} width={props.stripWidth} statusDay={statusDay} onView={props.onView} />
      </span>
    </div>
  );
}
