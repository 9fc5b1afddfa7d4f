'use client';
import { type Brief, pageSizeOf } from '@clembo/scene/brief';
import { useEffect, useRef, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { ComposedPage } from '@/workers/composing';
import type { OpenRoom } from '@/workers/planRoom';

/** A page that could be: what it is called, and its brief. */
export interface Preview {
  key: string;
  name: string;
  about?: string | undefined;
  brief: Brief;
}

/** Pages as small live pictures, to choose one of them. What would show nothing is not offered. */
export function Previews({
  open,
  list,
  onTake,
  columns = 3,
  none = 'None of these pages would show anything.',
}: {
  open: OpenRoom;
  list: Preview[];
  onTake: (preview: Preview) => void;
  columns?: 2 | 3;
  /** What is said where none can be offered. */
  none?: string;
}) {
  const [useless, setUseless] = useState<ReadonlySet<string>>(new Set());
  const drop = (key: string) => setUseless((keys) => (keys.has(key) ? keys : new Set([...keys, key])));
  if (list.every((p) => useless.has(p.key))) return <p className="text-soft">{none}</p>;
  return (
    <ul className={`grid gap-x-5 gap-y-6 ${columns === 3 ? 'grid-cols-3' : 'grid-cols-2'}`}>
      {list.map((p) => (
        <Tile key={p.key} open={open} preview={p} onTake={() => onTake(p)} onUseless={() => drop(p.key)} />
      ))}
    </ul>
  );
}

function Tile({
  open,
  preview,
  onTake,
  onUseless,
}: {
  open: OpenRoom;
  preview: Preview;
  onTake: () => void;
  onUseless: () => void;
}) {
  const place = useRef<HTMLLIElement>(null);
  const page = useComposed(open, preview.brief, place);
  const { width, height } = pageSizeOf(preview.brief);
  // A process can be begun with nothing.
  const begins = preview.brief.kind === 'handoffs' && preview.brief.of === 'typed';
  const isUseless = page !== null && !begins && (page.content.rows.length === 0 || !page.fit.readable);
  useEffect(() => {
    if (isUseless) onUseless();
    // biome-ignore lint: it is told once
  }, [isUseless]);
  if (isUseless) return null;
  return (
    <li ref={place}>
      <button type="button" data-preview={preview.name} className="group block w-full text-left" onClick={onTake}>
        <span
          className="block overflow-hidden rounded-sm bg-paper shadow-md shadow-ink/10 outline-marigold group-hover:outline-2"
          style={{ aspectRatio: '1.45' }}
        >
          <span
            aria-hidden
            className="mx-auto block h-full [&_svg]:block [&_svg]:size-full"
            style={{ aspectRatio: `${width} / ${height}`, maxWidth: '100%' }}
            dangerouslySetInnerHTML={{ __html: page?.svg ?? '' }}
          />
        </span>
        <span className="mt-2 block font-semibold group-hover:text-kelp">{preview.name}</span>
        {preview.about && <span className="block text-[13.5px] leading-snug text-soft">{preview.about}</span>}
      </button>
    </li>
  );
}

/** Composes a page once it comes into sight. */
function useComposed(open: OpenRoom, brief: Brief, place: React.RefObject<HTMLElement | null>): ComposedPage | null {
  const [page, setPage] = useState<ComposedPage | null>(null);
  useEffect(() => {
    let current = true;
    const compose = () => open.room.compose(brief).then((p) => current && setPage(p), wrong);
    const watch = new IntersectionObserver((seen) => {
      if (!seen.some((s) => s.isIntersecting)) return;
      watch.disconnect();
      void compose();
    });
    if (place.current) watch.observe(place.current);
    return () => {
      current = false;
      watch.disconnect();
    };
  }, [open, brief, place]);
  return page;
}
