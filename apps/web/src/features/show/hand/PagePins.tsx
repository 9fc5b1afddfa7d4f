'use client';
import type { Anchor as PlaceAnchor } from '@clembo/scene/brief';
import { X } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { SayBox } from '@/ui/comments/SayBox';
import { Thread } from '@/ui/comments/Thread';
import { useComments } from '@/ui/comments/useComments';
import type { ComposedPage } from '@/workers/composing';
import { type Point, pointOf } from '@clembo/scene/pointOf';

/** How wide a comment is that stands over the page, in pixels. */
const WIDE = 290;

/** What was said at places of the page: a numbered mark for each, over the page and never in it. */
export function PagePins({
  planId,
  exhibitId,
  page,
  placing,
  onPlaced,
}: {
  planId: string;
  exhibitId: string;
  page: ComposedPage;
  /** Where something is about to be said. */
  placing: PlaceAnchor | null;
  onPlaced: () => void;
}) {
  const { found, again } = useComments(planId);
  const [shown, setShown] = useState<string | null>(null);
  useEffect(() => {
    if (placing) setShown(null);
  }, [placing]);
  if (!found) return null;
  const pins = found.comments
    .filter((c) => c.exhibitId === exhibitId && c.place !== null && c.answers === null && c.doneAt === null)
    .map((said, k) => ({ said, number: k + 1, at: pointOf(page, said.place!) }))
    .flatMap((p) => (p.at ? [{ ...p, at: p.at }] : []));
  const open = pins.find((p) => p.said.id === shown);
  const at = placing && pointOf(page, placing);
  return (
    <>
      {pins.map(({ said, number, at }) => (
        <button
          key={said.id}
          type="button"
          data-pin={number}
          aria-label={`Comment ${number}: ${said.text.slice(0, 80)}`}
          aria-expanded={said.id === shown}
          title={said.text.slice(0, 200)}
          className="absolute z-10 flex size-[22px] items-center justify-center rounded-full border border-paper bg-ink text-[12px] font-semibold text-paper shadow outline-offset-1"
          // Above its place, which can still be taken hold of.
          style={{ ...placed(at, page), transform: 'translate(-50%, calc(-100% - 3px))' }}
          onClick={() => setShown(said.id === shown ? null : said.id)}
          onKeyDown={(e) => {
            if (e.key !== 'Escape' || shown === null) return;
            e.stopPropagation();
            setShown(null);
          }}
        >
          {number}
        </button>
      ))}
      {open && (
        <Beside at={open.at} page={page} label={`Comment ${open.number}`} onClose={() => setShown(null)}>
          <ul>
            <Thread
              planId={planId}
              said={open.said}
              answers={found.comments.filter((a) => a.answers === open.said.id)}
              found={found}
              again={again}
            />
          </ul>
        </Beside>
      )}
      {placing && at && (
        <Beside at={at} page={page} label="A comment here" onClose={onPlaced}>
          <SayBox
            planId={planId}
            anchor={{ ref: null, exhibitId, place: placing }}
            people={found.people}
            label="Say something about this place"
            begun
            onSaid={async () => {
              onPlaced();
              await again();
            }}
          />
        </Beside>
      )}
    </>
  );
}

const placed = ({ x, y }: Point, { width, height }: ComposedPage) => ({
  left: `${(100 * x) / width}%`,
  top: `${(100 * y) / height}%`,
});

/** A panel beside a point of the page, on the side that has room. */
function Beside({
  at,
  page,
  label,
  onClose,
  children,
}: {
  at: Point;
  page: ComposedPage;
  label: string;
  onClose: () => void;
  children: ReactNode;
}) {
  const { left, top } = placed(at, page);
  const across = at.x > page.width / 2 ? `calc(-100% - 16px)` : '16px';
  const down = at.y > page.height / 2 ? '-100%' : '0';
  return (
    <aside
      aria-label={label}
      className="absolute z-20 max-h-[60%] overflow-auto rounded-lg border border-line bg-paper px-3 py-2 text-[14.5px] shadow-xl shadow-ink/15"
      style={{ left, top, width: WIDE, transform: `translate(${across}, ${down})` }}
      onKeyDown={(e) => {
        if (e.key !== 'Escape') return;
        e.stopPropagation();
        onClose();
      }}
    >
      <div className="flex justify-end">
        <button
          type="button"
          aria-label="Close the comment"
          className="rounded p-0.5 text-soft hover:bg-line"
          onClick={onClose}
        >
          <X size={14} />
        </button>
      </div>
      {children}
    </aside>
  );
}
