'use client';
import type { ReactNode } from 'react';

/** A part of the standing, with the rows that it is made of at hand. */
export function Section({
  title,
  note = '',
  onRows = null,
  onPage = null,
  children,
}: {
  title: string;
  note?: string;
  onRows?: (() => void) | null;
  /** Makes an exhibit that shows it. */
  onPage?: (() => void) | null;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="mb-5 min-w-0">
      <div className="mb-1.5 flex items-baseline gap-3">
        <h2 className="font-semibold">{title}</h2>
        <span className="text-[13.5px] text-soft">{note}</span>
        <span className="ml-auto flex gap-3">
          {onPage && (
            <button
              type="button"
              className="text-[13.5px] text-kelp hover:underline"
              aria-label={`Make an exhibit of ${title}`}
              onClick={onPage}
            >
              make exhibit
            </button>
          )}
          {onRows && (
            <button
              type="button"
              className="text-[13.5px] text-kelp hover:underline"
              aria-label={`Rows of ${title}`}
              onClick={onRows}
            >
              rows
            </button>
          )}
        </span>
      </div>
      {children}
    </section>
  );
}
