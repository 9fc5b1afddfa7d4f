'use client';
import { type Block, type Folio, MOST_BLOCKS, type PageBox } from '@clembo/scene/folio';
import { X } from 'lucide-react';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { Pick } from '@/ui/Pick';
import type { OverviewPicture } from '@/workers/answers/front';
import { carried, freePlace, resized, STEPS } from './blockPlaces';
import { Front, spotOf } from './Front';
import type { ShownPage } from './useRooms';

interface Props {
  folio: Folio;
  picture: OverviewPicture;
  pages: readonly ShownPage[];
  onChange: (blocks: Block[] | null) => void;
  onClose: () => void;
}

interface Drag {
  id: string;
  from: { x: number; y: number };
  resizing: boolean;
  place: PageBox;
}

const ADDABLE: [what: 'facts' | 'phases' | 'text', title: string, size: { width: number; height: number }][] = [
  ['facts', 'How the plans stand', { width: 1, height: 0.16 }],
  ['phases', 'Phases', { width: 1, height: 0.32 }],
  ['text', 'Text', { width: 1 / 3, height: 0.2 }],
];
const SMALL_PAGE = { width: 1 / 3, height: 0.34 };

/** The overview of a folio as it is put together by hand: blocks are carried, drawn larger, put in and taken out. */
export function Arrange({ folio, picture, pages, onChange, onClose }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const paper = useRef<HTMLDivElement>(null);
  const blocks = folio.blocks ?? picture.blocks.map((b) => b.block);
  const own = blocks.find((b) => b.id === chosen) ?? null;
  const plans = [...new Map(pages.flatMap((p) => (p.plan ? [[p.plan.id, p.plan.name] as const] : [])))];
  const nameOf = (b: Block): string => {
    switch (b.what) {
      case 'facts':
        return 'How the plans stand';
      case 'phases':
        return 'Phases';
      case 'text':
        return b.text.trim().slice(0, 40) || 'Text';
      case 'page':
        return pages.find((p) => p.page.id === b.page)?.name ?? 'A page that is gone';
    }
  };
  const change = (id: string, part: Partial<Block>) =>
    onChange(blocks.map((b) => (b.id === id ? ({ ...b, ...part } as Block) : b)));
  const remove = (id: string) => {
    onChange(blocks.filter((b) => b.id !== id));
    setChosen(null);
  };
  const othersOf = (id: string) => blocks.filter((b) => b.id !== id).map((b) => b.place);
  const put = (what: Block['what'], size: { width: number; height: number }, page = '') => {
    const number = blocks.reduce((n, b) => Math.max(n, Number(/^block (\d+)$/.exec(b.id)?.[1] ?? 0)), 0) + 1;
    const id = `block ${number}`;
    const place = freePlace(
      blocks.map((b) => b.place),
      size,
    );
    onChange([...blocks, { id, place, what, plan: null, page, text: '' } as Block]);
    setChosen(id);
  };
  const shares = (e: { clientX: number; clientY: number }) => {
    const { width, height } = paper.current!.getBoundingClientRect();
    const { field } = picture;
    return {
      x: e.clientX / ((width * field.width) / picture.width),
      y: e.clientY / ((height * field.height) / picture.height),
    };
  };
  const begin = (e: PointerEvent, b: Block, resizing: boolean) => {
    if (e.button !== 0) return;
    e.stopPropagation();
    e.currentTarget.setPointerCapture(e.pointerId);
    setChosen(b.id);
    setDrag({ id: b.id, from: shares(e), resizing, place: b.place });
  };
  const move = (e: PointerEvent, b: Block) => {
    if (drag?.id !== b.id) return;
    const at = shares(e);
    const act = drag.resizing ? resized : carried;
    setDrag({ ...drag, place: act(b.place, at.x - drag.from.x, at.y - drag.from.y, othersOf(b.id)) });
  };
  const end = (b: Block) => {
    if (drag?.id !== b.id) return;
    if (JSON.stringify(drag.place) !== JSON.stringify(b.place)) change(b.id, { place: drag.place });
    setDrag(null);
  };
  const onKey = (e: KeyboardEvent, b: Block) => {
    if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      e.stopPropagation();
      return remove(b.id);
    }
    const [dx, dy] = ARROWS[e.key] ?? [0, 0];
    if (dx === 0 && dy === 0) return;
    e.preventDefault();
    const act = e.shiftKey ? resized : carried;
    change(b.id, { place: act(b.place, dx / STEPS.x, dy / STEPS.y, []) });
  };
  const onField = (place: PageBox) => {
    const { field } = picture;
    return spotOf(
      {
        x: field.x + place.x * field.width,
        y: field.y + place.y * field.height,
        width: place.width * field.width,
        height: place.height * field.height,
      },
      picture,
    );
  };
  const missing = pages.filter((p) => p.plan && !blocks.some((b) => b.what === 'page' && b.page === p.page.id));
  const isFull = blocks.length >= MOST_BLOCKS;
  return (
    <div className="flex h-full">
      <div
        className="flex min-w-0 flex-1 items-center justify-center bg-desk p-5"
        onPointerDown={() => setChosen(null)}
      >
        <div
          ref={paper}
          className="w-full shadow-sm shadow-ink/15"
          style={{ maxWidth: `calc((100vh - 140px) * ${picture.width / picture.height})` }}
        >
          <Front picture={picture} pages={pages}>
            {blocks.map((b) => (
              <div
                key={b.id}
                role="button"
                tabIndex={0}
                data-block={b.id}
                aria-label={`Block: ${nameOf(b)}`}
                aria-pressed={b.id === chosen}
                className={`absolute cursor-grab touch-none rounded-sm outline-offset-2 hover:outline-1 hover:outline-marigold ${b.id === chosen ? 'outline-2! outline-marigold!' : 'outline-none'} ${drag?.id === b.id ? 'z-10 cursor-grabbing bg-marigold/10' : ''}`}
                style={onField(drag?.id === b.id ? drag.place : b.place)}
                onFocus={() => setChosen(b.id)}
                onPointerDown={(e) => begin(e, b, false)}
                onPointerMove={(e) => move(e, b)}
                onPointerUp={() => end(b)}
                onPointerCancel={() => setDrag(null)}
                onKeyDown={(e) => onKey(e, b)}
              >
                {b.id === chosen && (
                  <span
                    data-testid="larger"
                    className="absolute -right-1.5 -bottom-1.5 h-3.5 w-3.5 cursor-nwse-resize rounded-full border-2 border-paper bg-marigold"
                    onPointerDown={(e) => begin(e, b, true)}
                  />
                )}
              </div>
            ))}
          </Front>
        </div>
      </div>
      <aside
        aria-label="Blocks of the overview"
        className="flex w-[320px] shrink-0 flex-col gap-4 overflow-auto border-l border-line bg-wash px-4 py-4"
      >
        <div className="flex items-start gap-2">
          <h2 className="min-w-0 flex-1 font-serif text-[18px] leading-tight font-semibold">Overview</h2>
          <button type="button" className="action py-1!" onClick={onClose}>
            Done
          </button>
        </div>
        {own ? (
          <section className="space-y-2">
            <div className="flex items-baseline gap-2">
              <h3 className="min-w-0 flex-1 truncate font-semibold">{nameOf(own)}</h3>
              <button
                type="button"
                className="flex items-center gap-1 text-[14px] text-soft hover:text-ink"
                onClick={() => remove(own.id)}
              >
                <X size={14} aria-hidden /> Take off
              </button>
            </div>
            {own.what === 'text' && (
              <textarea
                aria-label="Text of the block"
                rows={6}
                maxLength={2000}
                value={own.text}
                placeholder="What should be read here"
                onChange={(e) => change(own.id, { text: e.target.value })}
                className="w-full rounded border border-line bg-paper px-2 py-1"
              />
            )}
            {(own.what === 'facts' || own.what === 'phases') && plans.length > 1 && (
              <Pick
                label="Of which plan"
                value={own.plan ?? ''}
                options={[['', 'of all plans'], ...plans]}
                onChange={(plan) => change(own.id, { plan: plan || null })}
              />
            )}
            <p className="text-[13px] text-soft">
              Drag it, or its corner. By keys: arrows carry it, with Shift they make it larger or smaller, Delete takes
              it off.
            </p>
          </section>
        ) : (
          <p className="text-[14px] text-soft">
            {folio.blocks === null
              ? 'This is what the pages and plans suggest; it follows them. Drag a block, and the overview is yours.'
              : 'Drag blocks where they belong. New pages of the folio wait below until they are put on.'}
          </p>
        )}
        <section>
          <h3 className="text-[14px] font-semibold text-soft">Put on it</h3>
          <div className="mt-1 flex flex-col items-start gap-1">
            {ADDABLE.map(([what, title, size]) => (
              <button
                key={what}
                type="button"
                disabled={isFull}
                className="quiet w-full py-1!"
                onClick={() => put(what, size)}
              >
                {title}
              </button>
            ))}
            {missing.map((p) => (
              <button
                key={p.page.id}
                type="button"
                disabled={isFull}
                className="quiet w-full min-w-0 py-1!"
                onClick={() => put('page', SMALL_PAGE, p.page.id)}
              >
                <span className="truncate">{p.name}</span>
              </button>
            ))}
          </div>
        </section>
        {folio.blocks !== null && (
          <button
            type="button"
            className="self-start text-[14px] text-kelp hover:underline"
            onClick={() => {
              setChosen(null);
              onChange(null);
            }}
          >
            As it is suggested
          </button>
        )}
      </aside>
    </div>
  );
}

const ARROWS: Record<string, [dx: number, dy: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
