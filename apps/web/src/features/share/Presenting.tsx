'use client';
import { COVER, enlarged, type Folio, OVERVIEW, type PageBox } from '@clembo/scene/folio';
import { useRouter } from 'next/navigation';
import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { FrontPicture } from '@/workers/answers/front';
import { Front } from './Front';
import { leadsOf, type Target, targetOf, useFront } from './useFront';
import type { FolioPlan } from '@/server/folioPage';
import { type ShownPage, useFolioPages } from './useRooms';

interface Props {
  id: string;
  folio: Folio;
  plans: FolioPlan[];
}

interface Slide {
  page: string;
  name: string;
  notes: string;
  picture: FrontPicture | null;
}

interface Spot {
  at: number;
  /** What is enlarged of it, in shares of the page. */
  zoom: PageBox | null;
}

/** The name of the channel between the wall and the window with the notes. */
const channelOf = (id: string): string => `clembo presenting ${id}`;

/** A folio on the wall: a page at a time, nothing of the interface; or, in a second window, its notes and what is next. */
export function Presenting({ id, folio, plans }: Props) {
  const shown = useFolioPages(folio, plans, false);
  const { pages, left, facts } = shown;
  const front = useFront(folio, shown);
  const router = useRouter();
  const [isNotes, setIsNotes] = useState(false);
  /** The page to begin with, as the address says it. */
  const begin = useRef<string | null>(null);
  useEffect(() => {
    const said = new URLSearchParams(location.search);
    setIsNotes(said.has('notes'));
    begin.current = said.get('page');
  }, []);
  const slides = useMemo(
    (): Slide[] => [
      ...(folio.cover ? [{ page: COVER, name: folio.name, notes: '', picture: front.cover }] : []),
      ...(folio.overview ? [{ page: OVERVIEW, name: folio.name, notes: '', picture: front.overview }] : []),
      ...pages
        .filter((p) => p.plan !== null)
        .flatMap((p) =>
          (p.composed ?? [null]).map((picture, k) => ({
            page: p.page.id,
            name: p.name,
            notes: k === 0 ? p.page.notes : '',
            picture,
          })),
        ),
    ],
    [pages, front, folio.cover, folio.overview, folio.name],
  );
  const [spot, setSpot] = useState<Spot>({ at: 0, zoom: null });
  const [trail, setTrail] = useState<Spot[]>([]);
  const [blank, setBlank] = useState(false);
  const [shows, setShows] = useState(false);
  const [marks, setMarks] = useState(false);
  const stage = useRef<HTMLDivElement>(null);
  const channel = useRef<BroadcastChannel | null>(null);
  const count = slides.length;
  const go = useCallback((next: Spot) => {
    setBlank(false);
    setSpot(next);
    channel.current?.postMessage({ spot: next });
  }, []);
  const step = useCallback(
    (by: number) => go({ at: Math.max(0, Math.min(count - 1, spot.at + by)), zoom: null }),
    [go, count, spot.at],
  );
  useEffect(() => {
    const own = new BroadcastChannel(channelOf(id));
    channel.current = own;
    own.onmessage = ({ data }: MessageEvent<{ spot?: Spot; by?: number; ask?: boolean }>) => {
      if (data.spot) setSpot(data.spot);
    };
    return () => own.close();
  }, [id]);

  useEffect(() => {
    const first = begin.current === null || left > 0 ? -1 : slides.findIndex((s) => s.page === begin.current);
    if (first < 0) return;
    begin.current = null;
    setSpot({ at: first, zoom: null });
  }, [slides, left]);

  const slide = slides[spot.at] ?? null;
  const hopsHere = folio.hops.filter((h) => h.from.page === slide?.page);
  const leads = useMemo(() => leadsOf(folio, { pages, facts }), [folio, pages, facts]);
  /** Where a thing of the page that is shown leads: by hand, else by itself. */
  const leadOf = (ref: string): Target | undefined => {
    const hop = hopsHere.find((h) => h.from.ref === ref);
    return hop ? targetOf(hop.to) : slide?.page === COVER || slide?.page === OVERVIEW ? leads.get(ref) : undefined;
  };
  const isFirstSheet = slides.findIndex((s) => s.page === slide?.page) === spot.at;
  /** Goes along a hop: to a page, or to a thing on it, enlarged. */
  const follow = (to: Target) => {
    const first = slides.findIndex((s) => s.page === to.page);
    if (first < 0) return;
    setTrail((t) => [...t, spot]);
    for (let k = first; k < count && slides[k]!.page === to.page; k++) {
      const own = slides[k]!.picture;
      const box = own && (to.things.length === 0 ? to.box && inPoints(to.box, own) : boxIn(own, to.things));
      if (!own || !box) continue;
      const z = enlarged(box, own);
      return go({
        at: k,
        zoom: { x: z.x / own.width, y: z.y / own.height, width: z.width / own.width, height: z.height / own.height },
      });
    }
    go({ at: first, zoom: null });
  };
  const back = () => {
    const was = trail.at(-1);
    if (was) {
      setTrail(trail.slice(0, -1));
      go(was);
    } else if (spot.zoom) go({ ...spot, zoom: null });
    else step(-1);
  };
  const leave = () => {
    if (document.fullscreenElement) void document.exitFullscreen();
    router.push(`/folios/${id}`);
  };
  const keys: Record<string, () => void> = {
    ArrowRight: () => step(1),
    PageDown: () => step(1),
    ' ': () => step(1),
    ArrowLeft: () => step(-1),
    PageUp: () => step(-1),
    Backspace: back,
    Home: () => go({ at: 0, zoom: null }),
    End: () => go({ at: count - 1, zoom: null }),
    b: () => setBlank((v) => !v),
    g: () => setShows((v) => !v),
    h: () => setMarks((v) => !v),
    f: () => void document.documentElement.requestFullscreen?.().catch(() => {}),
    n: () => void window.open(`${location.pathname}?notes`, 'clembo notes', 'width=900,height=620'),
    Escape: () => (spot.zoom ? go({ ...spot, zoom: null }) : leave()),
  };
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const act = e.ctrlKey || e.metaKey || e.altKey ? undefined : keys[e.key];
      if (!act) return;
      e.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });

  // Things that lead somewhere are marked on the page that is shown.
  useEffect(() => {
    const svg = stage.current?.querySelector('svg');
    if (!svg) return;
    for (const own of svg.querySelectorAll('.leads')) own.classList.remove('leads');
    for (const own of svg.querySelectorAll('[data-ref]'))
      if (leadOf(own.getAttribute('data-ref')!)) own.classList.add('leads');
  });

  const touch = useRef<number | null>(null);
  const next = slides[spot.at + 1] ?? null;
  if (isNotes)
    return (
      <main className="grid h-full grid-cols-[1.3fr_1fr] gap-6 bg-ink p-6 text-paper">
        <section aria-label="Now" className="min-w-0">
          <p className="text-[14px] opacity-70">
            {spot.at + 1} / {count} · {slide?.name}
          </p>
          <Picture page={slide?.picture ?? null} pages={pages} />
          <p className="mt-4 text-[20px] leading-snug whitespace-pre-wrap" data-testid="notes">
            {slide?.notes || 'No notes for this page.'}
          </p>
        </section>
        <section aria-label="Next" className="min-w-0 opacity-80">
          <p className="text-[14px] opacity-70">next{next ? `: ${next.name}` : ': the end'}</p>
          <Picture page={next?.picture ?? null} pages={pages} />
        </section>
      </main>
    );
  return (
    <main
      className={`fixed inset-0 z-50 overflow-hidden select-none ${blank ? 'bg-ink' : 'bg-paper'} ${marks ? 'shows-hops' : ''}`}
      data-testid="wall"
      onClick={(e) => {
        if ((e.target as Element).closest('button')) return;
        const ref = (e.target as Element).closest('[data-ref]')?.getAttribute('data-ref');
        const to = ref ? leadOf(ref) : undefined;
        if (to) follow(to);
        else if (spot.zoom) back();
        else if (e.clientX < window.innerWidth / 3) step(-1);
        else step(1);
      }}
      onKeyDown={() => {}}
      onTouchStart={(e) => {
        touch.current = e.touches[0]?.clientX ?? null;
      }}
      onTouchEnd={(e) => {
        const by = (e.changedTouches[0]?.clientX ?? 0) - (touch.current ?? 0);
        if (Math.abs(by) > 60) {
          e.preventDefault();
          step(by < 0 ? 1 : -1);
        }
      }}
    >
      {!blank && slide && (
        <div ref={stage} className="flex h-full w-full items-center justify-center">
          <Picture page={slide.picture} pages={pages} zoom={spot.zoom} fit>
            {isFirstSheet &&
              hopsHere
                .filter((h) => h.from.ref === null && h.from.box !== null)
                .map((h) => (
                  <button
                    key={h.id}
                    type="button"
                    aria-label="Leads on"
                    className="leads absolute"
                    style={{
                      left: `${100 * h.from.box!.x}%`,
                      top: `${100 * h.from.box!.y}%`,
                      width: `${100 * h.from.box!.width}%`,
                      height: `${100 * h.from.box!.height}%`,
                    }}
                    onClick={() => follow(targetOf(h.to))}
                  />
                ))}
          </Picture>
        </div>
      )}
      {left > 0 && (
        <p role="status" className="fixed bottom-3 left-4 text-[14px] text-soft">
          {left} pages are being composed …
        </p>
      )}
      {shows && !blank && (
        <p className="fixed right-4 bottom-3 text-[15px] text-soft" data-testid="where">
          {spot.at + 1} / {count} · {slide?.name}
        </p>
      )}
      {count === 0 && <p className="p-10 text-soft">This folio has no pages. Esc leads back to it.</p>}
    </main>
  );
}

const inPoints = (box: PageBox, { width, height }: FrontPicture): PageBox => ({
  x: box.x * width,
  y: box.y * height,
  width: box.width * width,
  height: box.height * height,
});

/** The box around things on a page, in points, measured by the browser on the drawing itself. */
function boxIn(page: FrontPicture, things: readonly string[]): PageBox | null {
  const wanted = new Set(things);
  const holder = document.createElement('div');
  holder.style.cssText = `position:fixed;left:-10000px;top:0;width:${page.width}px;height:${page.height}px`;
  holder.innerHTML = page.svg;
  document.body.append(holder);
  try {
    const frame = holder.querySelector('svg')!.getBoundingClientRect();
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const own of holder.querySelectorAll('[data-ref]')) {
      if (!wanted.has(own.getAttribute('data-ref')!)) continue;
      const b = own.getBoundingClientRect();
      [x0, y0, x1, y1] = [Math.min(x0, b.left), Math.min(y0, b.top), Math.max(x1, b.right), Math.max(y1, b.bottom)];
    }
    if (x0 === Infinity) return null;
    const by = page.width / frame.width;
    return { x: (x0 - frame.left) * by, y: (y0 - frame.top) * by, width: (x1 - x0) * by, height: (y1 - y0) * by };
  } finally {
    holder.remove();
  }
}

/** A page in its true proportions, as large as there is room, or a part of it enlarged. */
function Picture({
  page,
  pages,
  zoom = null,
  fit = false,
  children,
}: {
  page: FrontPicture | null;
  pages: readonly ShownPage[];
  zoom?: Spot['zoom'];
  fit?: boolean;
  children?: ReactNode;
}) {
  if (!page) return <div className="aspect-[1.414] w-full bg-paper/10" />;
  const by = zoom ? 1 / Math.max(zoom.width, zoom.height) : 1;
  return (
    <Front
      picture={page}
      pages={pages}
      zoomed={zoom !== null}
      className="transition-transform duration-300 motion-reduce:transition-none"
      style={{
        ...(fit ? { width: `min(100vw, calc(100vh * ${page.width / page.height}))` } : { width: '100%' }),
        transformOrigin: '0 0',
        transform: zoom ? `scale(${by}) translate(${-100 * zoom.x}%, ${-100 * zoom.y}%)` : 'none',
      }}
    >
      {children}
    </Front>
  );
}
