'use client';
import type { CSSProperties, ReactNode } from 'react';
import type { FrontPicture, OverviewPicture } from '@/workers/answers/front';
import { PageThumb } from './PageThumb';
import type { ShownPage } from './useRooms';

interface Props {
  picture: FrontPicture | OverviewPicture;
  pages: readonly ShownPage[];
  className?: string;
  style?: CSSProperties;
  /** A part of it is shown enlarged. */
  zoomed?: boolean;
  /** What lies over it. */
  children?: ReactNode;
}

/** Where a rectangle of a picture lies on the screen. */
export const spotOf = (
  box: { x: number; y: number; width: number; height: number },
  { width, height }: FrontPicture,
): CSSProperties => ({
  left: `${(100 * box.x) / width}%`,
  top: `${(100 * box.y) / height}%`,
  width: `${(100 * box.width) / width}%`,
  height: `${(100 * box.height) / height}%`,
});

/** The cover or the overview of a folio, with its small pages live in their frames. */
export function Front({ picture, pages, className = '', style, zoomed = false, children }: Props) {
  const frames = 'frames' in picture ? picture.frames : [];
  return (
    <div
      className={`relative bg-paper ${className}`}
      style={{ aspectRatio: `${picture.width} / ${picture.height}`, ...style }}
      data-zoomed={zoomed ? 'yes' : 'no'}
    >
      <div
        className="absolute inset-0 [&_svg]:block [&_svg]:h-full [&_svg]:w-full"
        // biome-ignore lint: the drawing is made by our own writer
        dangerouslySetInnerHTML={{ __html: picture.svg }}
      />
      {frames.map(({ page, box }) => (
        <div key={page} data-live={page} className="pointer-events-none absolute" style={spotOf(box, picture)}>
          <PageThumb page={pages.find((p) => p.page.id === page)?.composed?.[0] ?? null} className="shadow-none!" />
        </div>
      ))}
      {children}
    </div>
  );
}
