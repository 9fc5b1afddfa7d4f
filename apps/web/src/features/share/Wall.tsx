'use client';
import type { Folio } from '@clembo/scene/folio';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { PageThumb } from './PageThumb';
import { type FolioPlan, useFolioPages } from './useRooms';

/** After so long the wall turns to its next pages, in milliseconds. */
const TURN = 20_000;

/** How many pages have room side by side; on a phone they stand below each other, all of them. */
function roomFor(count: number): { columns: number; shown: number } {
  if (typeof window === 'undefined' || window.innerWidth < 700) return { columns: 1, shown: count };
  const most = window.innerWidth >= 1700 ? 9 : 6;
  const shown = Math.min(count, most);
  return { columns: Math.ceil(Math.sqrt(shown)), shown };
}

/** The pages of a folio side by side, live: for a wall, a desk or a phone. It turns by itself where not all have room. */
export function Wall({ id, folio, plans }: { id: string; folio: Folio; plans: FolioPlan[] }) {
  const { pages, left } = useFolioPages(folio, plans);
  const [room, setRoom] = useState({ columns: 1, shown: pages.length });
  const [turn, setTurn] = useState(0);
  const count = pages.length;
  useEffect(() => {
    const measure = () => setRoom(roomFor(count));
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  }, [count]);
  const turns = Math.max(1, Math.ceil(count / Math.max(1, room.shown)));
  useEffect(() => {
    if (turns === 1) return;
    const timer = setInterval(() => setTurn((t) => t + 1), TURN);
    return () => clearInterval(timer);
  }, [turns]);
  const first = (turn % turns) * room.shown;
  const shown = pages.slice(first, first + room.shown);
  const isPhone = room.columns === 1 && count > 1;
  return (
    <main
      className={`fixed inset-0 z-50 bg-desk p-3 ${isPhone ? 'overflow-auto' : 'overflow-hidden'}`}
      data-testid="dashboard"
    >
      <div
        className={`grid gap-3 ${isPhone ? '' : 'h-full'}`}
        style={{
          gridTemplateColumns: `repeat(${room.columns}, minmax(0, 1fr))`,
          ...(isPhone ? {} : { gridAutoRows: 'minmax(0, 1fr)' }),
        }}
      >
        {shown.map((p) => (
          <figure key={p.page.id} className="flex min-h-0 min-w-0 items-center justify-center" data-live={p.page.id}>
            {p.error ? (
              <p className="text-madder">{p.error}</p>
            ) : (
              <PageThumb page={p.composed?.[0] ?? null} className={isPhone ? 'w-full' : 'max-h-full max-w-full grow'} />
            )}
          </figure>
        ))}
      </div>
      {left > 0 && (
        <p role="status" className="fixed bottom-2 left-4 text-[13px] text-soft">
          {left} pages are being composed …
        </p>
      )}
      {count === 0 && <p className="p-8 text-soft">This folio has no pages yet.</p>}
      <Link
        href={`/folios/${id}`}
        className="fixed right-3 bottom-2 rounded bg-paper/80 px-2 py-0.5 text-[13px] text-soft opacity-0 transition-opacity hover:opacity-100 focus:opacity-100"
      >
        to the folio{turns > 1 && ` · ${(turn % turns) + 1} of ${turns}`}
      </Link>
    </main>
  );
}
