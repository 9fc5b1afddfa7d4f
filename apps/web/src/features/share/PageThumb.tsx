'use client';
import type { ComposedPage } from '@/workers/composing';

/** A page as a small live picture, in its true proportions. */
export function PageThumb({ page, className = '' }: { page: ComposedPage | null; className?: string }) {
  return (
    <div
      className={`overflow-hidden bg-paper shadow-sm shadow-ink/15 [&_svg]:block [&_svg]:h-full [&_svg]:w-full ${className}`}
      style={{ aspectRatio: page ? `${page.width} / ${page.height}` : '1.414' }}
      // biome-ignore lint: the drawing is made by our own writer
      dangerouslySetInnerHTML={{ __html: page?.svg ?? '' }}
    />
  );
}
