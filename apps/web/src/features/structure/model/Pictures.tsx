import type { BuildElement, Look } from '@clembo/core';
import type { ComponentProps } from 'react';
import { ModelCanvas } from './ModelCanvas';

/** A thing of the model under the pointer, in pixels of its picture. */
export interface Hover {
  element: number;
  x: number;
  y: number;
}

type Canvas = ComponentProps<typeof ModelCanvas>;

interface Props extends Pick<Canvas, 'body' | 'bounds' | 'storeys' | 'looks' | 'framing'> {
  look: Look;
  onLook: Canvas['onLook'];
  /** How it would look as promised; null when only one picture is wanted. */
  promised: Uint8Array | null;
  /** What is said of the picture. */
  words: string;
  /** What is under the pointer, and where; null when nothing is said of it. */
  pointed: { element: Pick<BuildElement, 'name' | 'class' | 'type' | 'storey'>; x: number; y: number } | null;
  onChoose: (elements: readonly number[], more: boolean) => void;
  onHover: (hover: Hover) => void;
}

/** The model as it stands, and beside it as it was promised, both seen from the same place. */
export function Pictures({ promised, looks, words, pointed, onChoose, onHover, ...shared }: Props) {
  const both = {
    ...shared,
    onPoint: (e: number, more: boolean) => onChoose(e < 0 ? [] : [e], more),
    onFrame: onChoose,
  };
  return (
    <div className={`grid h-full min-h-0 gap-2 ${promised ? 'grid-cols-2' : ''}`}>
      {promised && (
        <figure className="flex min-h-0 flex-col">
          <figcaption className="text-[13px] text-soft">promised</figcaption>
          <ModelCanvas {...both} looks={promised} label="The model as it was promised" />
        </figure>
      )}
      <figure className="relative flex min-h-0 flex-col">
        {promised && <figcaption className="text-[13px] text-soft">now</figcaption>}
        <ModelCanvas {...both} looks={looks} label={words} onHover={(element, at) => onHover({ element, ...at })} />
        {pointed && (
          <div
            className="pointer-events-none absolute z-10 w-max max-w-[240px] rounded bg-ink px-2 py-1 text-[13px] leading-tight text-paper"
            // It stays within the picture, however wide it is.
            style={{ left: `min(${pointed.x + 14}px, calc(100% - 240px))`, top: pointed.y + 14 }}
          >
            {pointed.element.name || pointed.element.class}
            <span className="block font-narrow text-[12px] opacity-80">
              {[pointed.element.type, pointed.element.storey].filter(Boolean).join(' · ')}
            </span>
          </div>
        )}
      </figure>
    </div>
  );
}
