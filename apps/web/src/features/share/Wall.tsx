'use client';
import type { Folio } from '@clembo/scene/folio';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type MouseEvent, useEffect, useMemo, useState } from 'react';
import { ask } from '@/ui/ask';
import { Front } from './Front';
import { PageThumb } from './PageThumb';
import { leadsOf, useFront } from './useFront';
import type { FolioPlan } from '@/server/folioPage';
import { type ShownPage, useFolioPages } from './useRooms';

/** After so long the wall turns to its next pages, in milliseconds. */
const TURN = 20_000;
/** How often is looked whether the folio itself is another, in milliseconds. */
const LOOK = 5000;
/** Narrower than this is a phone, in pixels: there everything stands below each other. */
const PHONE = 700;
/** The type of what stands below each other on a phone, in pixels. */
const PHONE_TYPE = 13;

interface Window {
  width: number;
  height: number;
}

/** The size of the window, once it is known. */
function useWindow(): Window | null {
  const [size, setSize] = useState<Window | null>(null);
  useEffect(() => {
    const measure = () => setSize({ width: window.innerWidth, height: window.innerHeight });
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  }, []);
  return size;
}

/** How many pages have room side by side, and in how many columns. */
function roomFor(count: number, { width }: Window): { columns: number; shown: number } {
  if (width < PHONE) return { columns: 1, shown: count };
  const shown = Math.min(count, width >= 1700 ? 9 : 6);
  return { columns: Math.ceil(Math.sqrt(shown)), shown };
}

/**
 * The live pages of a folio for a wall, a desk or a phone: its overview as large as the screen, then the pages that are
 * not on it side by side. It turns by itself where not all have room at once.
 */
export function Wall({ id, version, folio, plans }: { id: string; version: number; folio: Folio; plans: FolioPlan[] }) {
  const shown = useFolioPages(folio, plans);
  const { pages, left, facts } = shown;
  const screen = useWindow();
  const isPhone = screen !== null && screen.width < PHONE;
  const { overview } = useFront(folio, shown, screen, isPhone ? PHONE_TYPE : null);
  const leads = useMemo(() => leadsOf(folio, { pages, facts }), [folio, pages, facts]);
  const router = useRouter();
  // Somebody may arrange it meanwhile.
  useEffect(() => {
    const timer = setInterval(() => {
      ask<{ version: number }>(`/api/folios/${id}`).then(
        (now) => now.version !== version && router.refresh(),
        () => {},
      );
    }, LOOK);
    return () => clearInterval(timer);
  }, [id, version, router]);
  const [turn, setTurn] = useState(0);
  const onIt = new Set(folio.overview ? overview?.frames.map((f) => f.page) : []);
  const others = folio.overview ? pages.filter((p) => !onIt.has(p.page.id)) : pages;
  const room = roomFor(others.length, screen ?? { width: 1280, height: 800 });
  const spreads = Math.ceil(others.length / Math.max(1, room.shown));
  const turns = Math.max(1, spreads + (folio.overview ? 1 : 0));
  useEffect(() => {
    if (turns === 1 || isPhone) return;
    const timer = setInterval(() => setTurn((t) => t + 1), TURN);
    return () => clearInterval(timer);
  }, [turns, isPhone]);
  const at = turn % turns;
  const spread = folio.overview ? at - 1 : at;
  const side = isPhone ? others : others.slice(spread * room.shown, (spread + 1) * room.shown);
  const follow = (e: MouseEvent) => {
    const ref = (e.target as Element).closest('[data-ref]')?.getAttribute('data-ref');
    const to = ref ? leads.get(ref) : undefined;
    if (to) router.push(`/folios/${id}/present?page=${encodeURIComponent(to.page)}`);
  };
  return (
    <main
      className={`fixed inset-0 z-50 ${isPhone ? 'overflow-auto bg-paper' : 'overflow-hidden bg-desk'}`}
      data-testid="dashboard"
    >
      {folio.overview && (isPhone || at === 0) && overview && (
        <>
          {/* What is clicked in the picture; by keyboard the same pages are reached by the links behind it. */}
          <div onClick={follow} onKeyDown={() => {}} data-testid="face">
            <Front picture={overview} pages={pages} />
          </div>
          <nav
            aria-label="Pages of the folio"
            className="sr-only focus-within:not-sr-only focus-within:fixed focus-within:top-2 focus-within:left-3 focus-within:rounded-md focus-within:border focus-within:border-line focus-within:bg-paper focus-within:p-3 focus-within:shadow-lg"
          >
            <ul>
              {pages.map((p) => (
                <li key={p.page.id}>
                  <Link href={`/folios/${id}/present?page=${encodeURIComponent(p.page.id)}`}>{p.name}</Link>
                </li>
              ))}
            </ul>
          </nav>
        </>
      )}
      {(isPhone || spread >= 0) && side.length > 0 && <Side pages={side} columns={room.columns} isPhone={isPhone} />}
      {left > 0 && (
        <p role="status" className="fixed bottom-2 left-4 text-[13px] text-soft">
          {left} {left === 1 ? 'page is' : 'pages are'} being composed …
        </p>
      )}
      {pages.length === 0 && <p className="p-8 text-soft">This folio has no pages yet.</p>}
      <Link
        href={`/folios/${id}`}
        className="fixed right-3 bottom-2 rounded bg-paper/80 px-2 py-0.5 text-[13px] text-soft opacity-0 transition-opacity hover:opacity-100 focus:opacity-100"
      >
        to the folio{turns > 1 && !isPhone && ` · ${at + 1} of ${turns}`}
      </Link>
    </main>
  );
}

/** Pages side by side, or below each other on a phone. */
function Side({ pages, columns, isPhone }: { pages: readonly ShownPage[]; columns: number; isPhone: boolean }) {
  return (
    <div
      className={`grid gap-3 p-3 ${isPhone ? '' : 'h-full'}`}
      style={{
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
        ...(isPhone ? {} : { gridAutoRows: 'minmax(0, 1fr)' }),
      }}
    >
      {pages.map((p) => (
        <figure key={p.page.id} className="flex min-h-0 min-w-0 items-center justify-center" data-live={p.page.id}>
          {p.error ? (
            <p className="text-madder">{p.error}</p>
          ) : (
            <PageThumb page={p.composed?.[0] ?? null} className={isPhone ? 'w-full' : 'max-h-full max-w-full grow'} />
          )}
        </figure>
      ))}
    </div>
  );
}
