'use client';
import { formatDay } from '@clembo/scene/dates';
import { Minus, MoveHorizontal, Plus } from 'lucide-react';
import { type PointerEvent, useMemo } from 'react';
import { panned, tieredTicks, type View, zoomed } from './stripView';

interface Props {
  view: View;
  width: number;
  statusDay: number | null;
  /** Null shows the whole range again. */
  onView: (view: View | null) => void;
}

/** Half the width of the flag of the status date, and the width of a short name, in pixels. */
const [FLAG, NAME] = [20, 18];

/** The time scale over the strips: dragged to another time, made finer and coarser. */
export function StripHead({ view, width, statusDay, onView }: Props) {
  const { upper, lower } = useMemo(() => tieredTicks(view, width), [view, width]);
  const at = (day: number) => `${(100 * (day - view.from)) / (view.to - view.from)}%`;
  const drag = (e: PointerEvent) => {
    if (e.button !== 0 || (e.target as HTMLElement).closest('button')) return;
    e.preventDefault();
    const begun = e.clientX;
    const move = (m: globalThis.PointerEvent) => onView(panned(view, (begun - m.clientX) / width));
    const end = () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', end);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', end);
  };
  const zoom = (factor: number) => onView(zoomed(view, factor, (view.from + view.to) / 2));
  const acts = [
    ['Coarser', 'Coarser (Alt −)', Minus, () => zoom(1.6)],
    ['Finer', 'Finer (Alt +)', Plus, () => zoom(1 / 1.6)],
    ['All of it', 'The whole range (Alt 0)', MoveHorizontal, () => onView(null)],
  ] as const;
  /** Whether the flag of the status date lies over the name of a tick. */
  const isUnderFlag = (day: number) => {
    const right = (((statusDay ?? 0) - day) * width) / (view.to - view.from);
    return inside && right > -FLAG && right < FLAG + NAME;
  };
  const inside = statusDay !== null && statusDay > view.from && statusDay < view.to;
  return (
    <div
      className="relative h-full cursor-ew-resize overflow-hidden font-narrow text-[12.5px] leading-none select-none"
      onPointerDown={drag}
    >
      {upper.map(({ tick, name }) => (
        <span
          key={`u${tick.from}`}
          className="absolute top-[3px] truncate border-l border-line pl-1 whitespace-nowrap text-ink"
          style={{ left: at(tick.from / 1440), height: 15 }}
        >
          {name}
        </span>
      ))}
      {lower.map(({ tick, name }) => (
        <span
          key={`l${tick.from}`}
          className="absolute top-[19px] border-l border-line pl-1 whitespace-nowrap"
          style={{ left: at(tick.from / 1440), height: 14 }}
        >
          {isUnderFlag(tick.from / 1440) ? '' : name}
        </span>
      ))}
      {inside && (
        <span
          className="absolute bottom-0 -translate-x-1/2 rounded-t bg-kelp px-1 py-px text-paper"
          style={{ left: at(statusDay) }}
        >
          {/* The line is where the status date ends. */}
          {formatDay(statusDay - 1, 'short')}
        </span>
      )}
      <span className="absolute top-0 right-0 flex bg-paper pl-1">
        {acts.map(([name, title, Icon, run]) => (
          <button
            key={name}
            type="button"
            tabIndex={-1}
            aria-label={name}
            title={title}
            className="rounded p-0.5 hover:bg-line"
            onClick={run}
          >
            <Icon size={13} />
          </button>
        ))}
      </span>
    </div>
  );
}
