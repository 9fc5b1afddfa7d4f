'use client';
import { TextField } from '@/ui/TextField';
import type { Line, RoundedTo } from '@clembo/core';
import { PlaceField } from './PlaceField';

const UNITS = ['m', 'km', 'chainage', 'mile', 'floors'];

/** What a line is called, what it is counted in, where it begins and ends. */
export function LineHead({
  line,
  works,
  busy,
  onChange,
  onLengths,
  onRemove,
}: {
  line: Line;
  /** How many activities have their places on it. */
  works: number;
  busy: boolean;
  onChange: (part: Partial<Line>, words: string) => void;
  /** Lengths from the rates of the works on it. */
  onLengths: (to: RoundedTo) => void;
  onRemove: () => void;
}) {
  const words = (what: string) => `${what} of the line ${line.name}`;
  return (
    <div className="mt-5 flex flex-wrap items-center gap-x-5 gap-y-2">
      <label className="flex items-center gap-2">
        <span className="text-soft">Name</span>
        <TextField
          value={line.name}
          maxLength={200}
          className="w-56 rounded-md border border-line bg-paper px-2 py-0.5"
          onKeep={(name) => (name === '' ? false : onChange({ name }, `Rename the line ${line.name}`))}
        />
      </label>
      <label className="flex items-center gap-2">
        <span className="text-soft">Counted in</span>
        <TextField
          value={line.unit}
          list="units-of-lines"
          maxLength={40}
          className="w-28 rounded-md border border-line bg-paper px-2 py-0.5"
          onKeep={(unit) => onChange({ unit }, words('Change the unit'))}
        />
        <datalist id="units-of-lines">
          {UNITS.map((u) => (
            <option key={u} value={u} />
          ))}
        </datalist>
      </label>
      <span className="flex items-center gap-2">
        <span className="text-soft">From</span>
        <PlaceField
          label="First place"
          place={line.from}
          unit={line.unit}
          onChange={(from) => onChange({ from }, words('Change the beginning'))}
        />
        <span className="text-soft">to</span>
        <PlaceField
          label="Last place"
          place={line.to}
          unit={line.unit}
          onChange={(to) => onChange({ to }, words('Change the end'))}
        />
      </span>
      <span className="ml-auto text-[14px] text-soft">
        {works === 0 ? 'nothing on it yet' : works === 1 ? '1 activity on it' : `${works} activities on it`}
      </span>
      {works > 0 && (
        <span className="flex items-center gap-2 text-[14px]">
          <span className="text-soft">Lengths by their rates, up to whole</span>
          {(['day', 'week'] as const).map((to) => (
            <button key={to} type="button" className="quiet py-0.5" disabled={busy} onClick={() => onLengths(to)}>
              {to}s
            </button>
          ))}
        </span>
      )}
      <button type="button" className="quiet py-0.5" disabled={busy} onClick={onRemove}>
        Remove the line
      </button>
    </div>
  );
}
