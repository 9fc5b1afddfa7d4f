'use client';
import { type Line, type Pin, type PlanPicture, placeWords, readPlace } from '@clembo/core';
import { X } from 'lucide-react';
import { type PointerEvent as ReactPointerEvent, useRef, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import { PlaceField } from './PlaceField';

/** So many pins hold one picture, as its schema has it. */
const MOST = 200;

type Spot = Pick<Pin, 'x' | 'y'>;
const thousandth = (n: number): number => Math.round(Math.min(1, Math.max(0, n)) * 100_000) / 100_000;

/** A picture with its pins: a click sets one and asks for its place, a drag moves one. */
export function StripBoard({
  number,
  line,
  picture,
  pins,
  onPins,
}: {
  number: number;
  line: Line;
  picture: PlanPicture;
  pins: readonly Pin[];
  onPins: (pins: Pin[], words: string) => void;
}) {
  const board = useRef<HTMLDivElement>(null);
  const [fresh, setFresh] = useState<Spot | null>(null);
  const [text, setText] = useState('');
  const [dragged, setDragged] = useState<{ k: number; at: Spot } | null>(null);
  const spotOf = (e: { clientX: number; clientY: number }): Spot => {
    const frame = board.current!.getBoundingClientRect();
    return {
      x: thousandth((e.clientX - frame.left) / frame.width),
      y: thousandth((e.clientY - frame.top) / frame.height),
    };
  };
  const shown = pins.map((p, k) => (dragged?.k === k ? { ...p, ...dragged.at } : p));
  const add = (place: number) => {
    if (!fresh || pins.length >= MOST) return;
    onPins([...pins, { ...fresh, place }], `Set a pin at ${placeWords(place, line.unit)}`);
    setFresh(null);
    setText('');
  };
  const typed = () => {
    const place = readPlace(text, line.unit);
    if (place === null)
      wrong(new Error(`“${text}” is no place. Type a number${line.unit ? ` in ${line.unit}` : ''}, or 12+350.`));
    else add(place);
  };
  const takeHold = (k: number) => (e: ReactPointerEvent<HTMLButtonElement>) => {
    e.preventDefault();
    e.stopPropagation();
    const move = (m: PointerEvent) => setDragged({ k, at: spotOf(m) });
    const end = (m: PointerEvent) => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', end);
      setDragged(null);
      const at = spotOf(m);
      if (Math.hypot(at.x - pins[k]!.x, at.y - pins[k]!.y) > 0.0005)
        onPins(
          pins.map((p, j) => (j === k ? { ...p, ...at } : p)),
          `Move the pin at ${placeWords(pins[k]!.place, line.unit)}`,
        );
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', end);
  };
  return (
    <>
      <div
        ref={board}
        data-testid="strip-board"
        // The field for the place takes the keys, not the page.
        onMouseDown={(e) => e.preventDefault()}
        className="relative mt-1.5 cursor-crosshair border border-line bg-paper"
        onPointerDown={(e) => {
          if (e.button !== 0) return;
          setFresh(spotOf(e));
        }}
      >
        <img
          src={picture.data}
          alt={picture.name}
          draggable={false}
          className="block max-h-[420px] w-full select-none"
        />
        {shown.map((p, k) => (
          // biome-ignore lint: pins stand where they stand
          <span key={k} className="absolute" style={{ left: `${p.x * 100}%`, top: `${p.y * 100}%` }}>
            <button
              type="button"
              aria-label={`Pin at ${placeWords(p.place, line.unit)}`}
              className="absolute -translate-x-1/2 -translate-y-1/2 cursor-grab rounded-full border-2 border-paper bg-madder p-1.5 shadow"
              onPointerDown={takeHold(k)}
            />
            <span className="pointer-events-none absolute top-2 left-2 rounded bg-ink px-1.5 text-[13px] whitespace-nowrap text-paper tabular-nums">
              {placeWords(p.place, line.unit)}
            </span>
          </span>
        ))}
        {fresh && (
          <span
            aria-hidden
            className="absolute size-3 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-madder bg-paper"
            style={{ left: `${fresh.x * 100}%`, top: `${fresh.y * 100}%` }}
          />
        )}
      </div>
      {fresh && (
        <form
          className="mt-2 flex flex-wrap items-center gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            typed();
          }}
        >
          <label className="text-soft" htmlFor={`pin-${number}`}>
            The place of this point
          </label>
          <input
            autoFocus
            id={`pin-${number}`}
            aria-label={`Place of the new pin of picture ${number}`}
            value={text}
            maxLength={30}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => e.key === 'Escape' && setFresh(null)}
            className="w-28 rounded-md border border-line bg-paper px-2 py-0.5 text-right"
          />
          <button type="submit" className="action py-0.5" disabled={text.trim() === ''}>
            Set the pin
          </button>
          {line.stations.slice(0, 10).map((s) => (
            <button
              key={`${s.name} ${s.at}`}
              type="button"
              className="text-kelp underline underline-offset-2"
              onClick={() => add(s.at)}
            >
              {s.name}
            </button>
          ))}
        </form>
      )}
      {pins.length > 0 && (
        <ul aria-label={`Pins of picture ${number}`} className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-[14px]">
          {pins.map((p, k) => (
            // biome-ignore lint: pins stand where they stand
            <li key={k} className="flex items-center gap-1">
              <PlaceField
                label={`Place of pin ${k + 1} of picture ${number}`}
                place={p.place}
                unit={line.unit}
                onChange={(place) =>
                  onPins(
                    pins.map((q, j) => (j === k ? { ...q, place } : q)),
                    `Change the place of a pin of the line ${line.name}`,
                  )
                }
              />
              <button
                type="button"
                aria-label={`Remove pin ${k + 1} of picture ${number}`}
                className="rounded p-1 text-soft hover:bg-line"
                onClick={() =>
                  onPins(
                    pins.filter((_, j) => j !== k),
                    `Remove a pin of the line ${line.name}`,
                  )
                }
              >
                <X size={13} />
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
