'use client';
import { TextField } from '@/ui/TextField';
import {
  isChainage,
  type Line,
  type MapStrip,
  type PlanPicture,
  placeInStrip,
  pinTrouble,
  placeWords,
} from '@clembo/core';
import { ImagePlus, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import { newId } from '@/ui/newId';
import type { OpenRoom } from '@/workers/planRoom';
import { StripBoard } from './StripBoard';
import { stripPicture } from './stripPicture';

/** So many pictures lie along one line, as its schema has it. */
const MOST = 20;

/** Pictures along a line, each held by its pins. */
export function Strips({
  open,
  line,
  busy,
  onAdd,
  onRemove,
  onChange,
}: {
  open: OpenRoom;
  line: Line;
  busy: boolean;
  onAdd: (picture: PlanPicture, strip: MapStrip) => void;
  onRemove: (strip: MapStrip) => void;
  onChange: (part: Partial<Line>, words: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [pictures, setPictures] = useState<ReadonlyMap<string, PlanPicture>>(new Map());
  const [reading, setReading] = useState(false);
  useEffect(() => {
    let current = true;
    open.room.pictures().then((list) => current && setPictures(new Map(list.map((p) => [p.id, p]))), wrong);
    return () => {
      current = false;
    };
  }, [open]);
  const strips = line.strips ?? [];
  const set = (strip: MapStrip, part: Partial<MapStrip>, words: string) =>
    onChange({ strips: strips.map((s) => (s.id === strip.id ? { ...s, ...part } : s)) }, words);
  const take = async (file: File) => {
    setReading(true);
    try {
      const made = await stripPicture(file);
      const name = file.name.replace(/\.[a-z0-9]+$/i, '').slice(0, 200);
      const id = newId();
      onAdd({ id, name, ...made }, { id: newId(), name, picture: id, pins: [] });
    } catch (error) {
      wrong(error);
    } finally {
      setReading(false);
    }
  };
  return (
    <section aria-label="Pictures along the line">
      <div className="flex items-baseline gap-3">
        <h2 className="font-serif text-[18px] font-semibold">Pictures along the line</h2>
        <span className="text-[13.5px] text-soft">
          {strips.length > 0
            ? strips.length
            : 'A map, an aerial view, an elevation: held by pins at places that you know.'}
        </span>
      </div>
      {strips.map((strip, k) => {
        const picture = pictures.get(strip.picture);
        return (
          <div key={strip.id} className="mt-3">
            <div className="flex items-center gap-3">
              <TextField
                aria-label={`Name of picture ${k + 1}`}
                value={strip.name}
                maxLength={200}
                className="w-56 rounded-md border border-line bg-paper px-2 py-0.5"
                onKeep={(name) => set(strip, { name }, `Rename a picture of the line ${line.name}`)}
              />
              <span className="text-[14px] text-soft" data-testid="strip-reach">
                {reachWords(strip, line)}
              </span>
              <button
                type="button"
                aria-label={`Remove picture ${k + 1}`}
                className="ml-auto rounded p-1 text-soft hover:bg-line"
                disabled={busy}
                onClick={() => onRemove(strip)}
              >
                <X size={14} />
              </button>
            </div>
            {picture && (
              <StripBoard
                number={k + 1}
                line={line}
                picture={picture}
                pins={strip.pins}
                onPins={(pins, words) => set(strip, { pins }, words)}
              />
            )}
          </div>
        );
      })}
      <button
        type="button"
        className="quiet mt-3 py-0.5"
        disabled={busy || reading || strips.length >= MOST}
        onClick={() => input.current?.click()}
      >
        <ImagePlus size={15} aria-hidden /> {reading ? 'Reading it …' : 'Add a picture'}
      </button>
      <input
        ref={input}
        type="file"
        aria-label="Picture for the line"
        accept="image/png,image/jpeg,image/svg+xml,application/pdf"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          if (file) void take(file);
          e.target.value = '';
        }}
      />
    </section>
  );
}

/** From where to where a picture reaches, or what its pins do not say yet. */
function reachWords({ pins }: MapStrip, { unit }: Line): string {
  const trouble = pinTrouble(pins);
  if (trouble !== null) return trouble;
  const at = (x: number) => placeWords(Math.round(placeInStrip(pins, x)! / 1000) * 1000, unit);
  return `It reaches from ${at(0)} to ${at(1)}${unit === '' || isChainage(unit) ? '' : ` ${unit}`}.`;
}
