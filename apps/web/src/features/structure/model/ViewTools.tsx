'use client';
import type { BuildView, Look } from '@clembo/core';
import { Bookmark, BoxSelect, Maximize2, X } from 'lucide-react';
import { useState } from 'react';

const SIDES: [turn: number, height: number, title: string][] = [
  [35, 30, 'corner'],
  [0, 0, 'front'],
  [90, 0, 'right'],
  [180, 0, 'back'],
  [-90, 0, 'left'],
  [0, 90, 'down'],
];

interface Props {
  look: Look;
  onLook: (look: Look) => void;
  /** The least and the greatest height of the model, in metres. */
  heights: [number, number];
  framing: boolean;
  onFraming: (framing: boolean) => void;
  aside: number;
  onShowAll: () => void;
  views: readonly BuildView[];
  onView: (view: BuildView) => void;
  onKeep: (name: string) => void;
  onDrop: (view: BuildView) => void;
}

const BUTTON =
  'rounded border border-line bg-paper px-1 py-0.5 hover:border-kelp aria-pressed:border-ink aria-pressed:font-semibold';

/** How the model is looked at: from where, cut, storeys apart, what is put aside, kept views. */
export function ViewTools(p: Props) {
  const { look, onLook } = p;
  const [name, setName] = useState<string | null>(null);
  const [low, high] = p.heights;
  const set = (part: Partial<Look>) => onLook({ ...look, ...part });
  return (
    <div className="flex flex-wrap items-center gap-x-1.5 gap-y-1 text-[13px]">
      <span className="flex gap-0.5" role="group" aria-label="Seen from">
        {SIDES.map(([turn, height, title]) => (
          <button
            key={title}
            type="button"
            aria-pressed={look.turn === turn && look.height === height}
            className={BUTTON}
            onClick={() => set({ turn, height })}
          >
            {title}
          </button>
        ))}
      </span>
      <button
        type="button"
        className={BUTTON}
        aria-pressed={look.perspective}
        onClick={() => set({ perspective: !look.perspective })}
      >
        perspective
      </button>
      {look.middle !== null && (
        <button
          type="button"
          className={BUTTON}
          title="See all of it"
          aria-label="See all of it"
          onClick={() => set({ middle: null, span: null })}
        >
          <Maximize2 size={13} aria-hidden className="inline" /> all
        </button>
      )}
      <button
        type="button"
        className={BUTTON}
        aria-pressed={p.framing}
        title="Choose by a frame (Alt and drag)"
        onClick={() => p.onFraming(!p.framing)}
      >
        <BoxSelect size={13} aria-hidden className="inline" /> frame
      </button>
      <label className="flex items-center gap-1 text-soft">
        storeys
        <input
          type="range"
          aria-label="Storeys apart"
          min={0}
          max={10}
          step={0.5}
          value={look.lift}
          className="w-12 accent-[#0F6E6E]"
          onChange={(e) => set({ lift: Number(e.target.value) })}
        />
      </label>
      <label className="flex items-center gap-1 text-soft">
        cut
        <input
          type="range"
          aria-label="Cut at a height"
          min={low}
          max={high}
          step={(high - low) / 100 || 1}
          value={look.cut ?? high}
          className="w-14 accent-[#0F6E6E]"
          onChange={(e) =>
            set({ cut: Number(e.target.value) >= high - 1e-6 ? null : Math.round(Number(e.target.value) * 100) / 100 })
          }
        />
        {look.cut !== null && <span className="text-ink">{look.cut.toFixed(1)} m</span>}
      </label>
      {p.aside > 0 && (
        <button type="button" className={`${BUTTON} border-marigold`} onClick={p.onShowAll}>
          show all again ({p.aside} aside)
        </button>
      )}
      {p.views.map((v) => (
        <span key={v.id} className="inline-flex items-center rounded-full border border-line bg-paper pl-2">
          <button type="button" className="hover:text-kelp" onClick={() => p.onView(v)}>
            {v.name}
          </button>
          <button
            type="button"
            aria-label={`Let go of the view ${v.name}`}
            className="rounded p-0.5 text-soft hover:bg-line"
            onClick={() => p.onDrop(v)}
          >
            <X size={12} />
          </button>
        </span>
      ))}
      {name === null ? (
        <button type="button" className={BUTTON} onClick={() => setName('')}>
          <Bookmark size={13} aria-hidden className="inline" /> keep view
        </button>
      ) : (
        <form
          className="flex gap-1"
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim() !== '') p.onKeep(name.trim());
            setName(null);
          }}
        >
          <input
            // biome-ignore lint: it was asked for by a click
            autoFocus
            aria-label="Name of the view"
            value={name}
            maxLength={100}
            onChange={(e) => setName(e.target.value)}
            onKeyDown={(e) => e.key === 'Escape' && setName(null)}
            className="w-28 rounded border border-line bg-paper px-1.5"
          />
          <button type="submit" className={BUTTON}>
            keep
          </button>
        </form>
      )}
    </div>
  );
}
