'use client';
import { LARGEST_SIDE, LEAST_SIDE, type PageSize } from '@clembo/scene/brief';
import { useState } from 'react';
import { PartPanel, type SaidPart } from './PartPanel';

interface Props extends SaidPart {
  size: PageSize | null;
  onChange: (size: PageSize | null) => void;
}

/** A part that is a page of one's own size, in millimetres. */
export function SizePart({ part, label, text, size, onChange }: Props) {
  return (
    <PartPanel part={part} label={label} text={text}>
      {(close) => <Sides size={size} onChange={onChange} onClose={close} />}
    </PartPanel>
  );
}

const isSide = (n: number): boolean => n >= LEAST_SIDE && n <= LARGEST_SIDE;

function Sides({ size, onChange, onClose }: Pick<Props, 'size' | 'onChange'> & { onClose: () => void }) {
  const [width, setWidth] = useState(String(size?.width ?? ''));
  const [height, setHeight] = useState(String(size?.height ?? ''));
  const sides = [Number(width), Number(height)] as const;
  const isWhole = sides.every(isSide);
  const field = (label: string, value: string, set: (v: string) => void) => (
    <input
      type="number"
      aria-label={label}
      min={LEAST_SIDE}
      max={LARGEST_SIDE}
      value={value}
      onChange={(e) => set(e.target.value)}
      className="w-24 rounded-md border border-line bg-paper px-2 py-0.5"
    />
  );
  return (
    <form
      className="flex flex-col gap-2 text-[15px]"
      onSubmit={(e) => {
        e.preventDefault();
        if (!isWhole) return;
        onChange({ width: sides[0], height: sides[1] });
        onClose();
      }}
    >
      <span className="flex items-center gap-2">
        {field('Width in mm', width, setWidth)} by {field('Height in mm', height, setHeight)} mm
        <button type="submit" className="action py-1" disabled={!isWhole}>
          Use it
        </button>
      </span>
      <span className="flex items-center justify-between gap-4 text-[13px] text-soft">
        From {LEAST_SIDE} to {LARGEST_SIDE} mm a side.
        <button
          type="button"
          className="quiet py-0.5 text-[14px] text-ink"
          onClick={() => {
            onChange(null);
            onClose();
          }}
        >
          A usual page
        </button>
      </span>
    </form>
  );
}
