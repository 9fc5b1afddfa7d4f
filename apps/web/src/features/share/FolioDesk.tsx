'use client';
import { type Folio, FolioPage, type Hop, type Place } from '@clembo/scene/folio';
import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { arrayMove, rectSortingStrategy, SortableContext, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Download, LayoutGrid, Plus, Presentation, X } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { Frame } from '@/ui/Frame';
import type { FrontPicture } from '@/workers/answers/front';
import { takeFile } from '@/ui/takeFile';
import { Tick } from '@/ui/Tick';
import { UndoRedo } from '@/ui/UndoRedo';
import { useKeys } from '@/ui/keys';
import { AddPages } from './AddPages';
import { Arrange } from './Arrange';
import { Front } from './Front';
import { PageMargin } from './PageMargin';
import { PageThumb } from './PageThumb';
import { useFolio } from './useFolio';
import { hasThing, isFront, numbersOf, useFront } from './useFront';
import type { FolioPlan } from '@/server/folioPage';
import { type ShownPage, useFolioPages } from './useRooms';

interface Props {
  id: string;
  version: number;
  folio: Folio;
  written: { at: string; versions: Record<string, number> } | null;
  plans: FolioPlan[];
}

const FORMATS: [format: string, title: string, about: string][] = [
  ['pdf', 'PDF', 'with outline and hops that work'],
  ['pptx', 'Slides', 'with links from slide to slide, and notes'],
  ['html', 'Web page', 'one file that presents itself, without a network'],
  ['png', 'Pictures', 'a picture for each page, in an archive'],
];

/** A folio: its pages in their order as small live pages, and the one that is chosen in the margin. */
export function FolioDesk({ id, version, folio: first, written, plans }: Props) {
  const { folio, set, undo, redo, canUndo, canRedo, saved } = useFolio(id, version, first);
  const all = useFolioPages(folio, plans);
  const { pages, left } = all;
  const front = useFront(folio, all);
  const numbers = numbersOf(folio, pages);
  const [chosen, setChosen] = useState<string | null>(null);
  const [adding, setAdding] = useState(folio.pages.length === 0);
  const [arranging, setArranging] = useState(false);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  useKeys({
    'mod+z': undo,
    'mod+shift+z': redo,
    Escape: () => (arranging ? setArranging(false) : setChosen(null)),
    Delete: () => chosen && !arranging && remove(chosen),
  });
  const change = (pageId: string, part: Partial<FolioPage>) =>
    set({ ...folio, pages: folio.pages.map((p) => (p.id === pageId ? { ...p, ...part } : p)) });
  const remove = (pageId: string) => {
    set({ ...folio, pages: folio.pages.filter((p) => p.id !== pageId) });
    setChosen(null);
  };
  const addHop = (from: Place, to: Place) => {
    const number = folio.hops.reduce((n, h) => Math.max(n, Number(/\d+$/.exec(h.id)?.[0] ?? 0)), 0) + 1;
    set({ ...folio, hops: [...folio.hops, { id: `hop ${number}`, from, to }] });
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const at = (x: string | number) => folio.pages.findIndex((p) => p.id === x);
    set({ ...folio, pages: arrayMove(folio.pages, at(active.id), at(over.id)) });
  };
  const frame = pages.find((p) => p.plan)?.plan;
  const version0 = new Map(plans.map((p) => [p.id, p.version]));
  const shown = pages.find((p) => p.page.id === chosen) ?? null;
  const lost = folio.hops.filter((h) => isLost(h, pages));
  return (
    <Frame
      stage="Share"
      plan={frame ? { id: frame.id, name: frame.name, edition: 'folio', status: null } : null}
      controls={
        <>
          <UndoRedo canUndo={canUndo} canRedo={canRedo} onUndo={undo} onRedo={redo} />
          <Link href={`/folios/${id}/present`} className="quiet" onClick={() => void saved()}>
            <Presentation size={16} aria-hidden /> Present
          </Link>
          <Menu>
            <MenuButton className="action">
              <Download size={16} aria-hidden /> Write out
            </MenuButton>
            <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="panel w-80">
              {FORMATS.map(([format, title, about]) => (
                <MenuItem key={format}>
                  <button
                    type="button"
                    className="choice w-full flex-col items-start! gap-0!"
                    onClick={() => void saved().then(() => takeFile(`/api/folios/${id}/file`, format))}
                  >
                    {title}
                    <span className="text-[13px] text-soft">{about}</span>
                  </button>
                </MenuItem>
              ))}
            </MenuItems>
          </Menu>
        </>
      }
    >
      <h1 className="sr-only">{folio.name}</h1>
      {arranging && front.overview ? (
        <Arrange
          folio={folio}
          picture={front.overview}
          pages={pages}
          onChange={(blocks) => set({ ...folio, blocks })}
          onClose={() => setArranging(false)}
        />
      ) : (
        <div className="flex h-full">
          <div
            className="min-w-0 flex-1 overflow-auto px-7 pt-5 pb-8"
            onClick={(e) => e.target === e.currentTarget && setChosen(null)}
            onKeyDown={() => {}}
          >
            <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
              <input
                aria-label="Name of the folio"
                value={folio.name}
                maxLength={200}
                onChange={(e) => e.target.value.trim() !== '' && set({ ...folio, name: e.target.value })}
                className="min-w-0 flex-1 border-b border-transparent bg-transparent font-serif text-[22px] font-semibold outline-none hover:border-line focus:border-kelp"
              />
              <Tick
                checked={folio.cover}
                onFlip={() => set({ ...folio, cover: !folio.cover })}
                className="text-[14px] text-soft"
              >
                with a cover
              </Tick>
              <Tick
                checked={folio.overview}
                onFlip={() => set({ ...folio, overview: !folio.overview })}
                title="A page that leads to the others: how the plans stand, phases, small pages"
                className="text-[14px] text-soft"
              >
                and an overview
              </Tick>
              <Link
                href={`/folios/${id}/wall`}
                className="quiet py-1!"
                title="The overview and all pages, live, as large as the screen"
                onClick={() => void saved()}
              >
                <LayoutGrid size={15} aria-hidden /> Wall
              </Link>
              <button type="button" className="quiet py-1!" onClick={() => setAdding(true)}>
                <Plus size={15} aria-hidden /> Put in pages
              </button>
            </div>
            <input
              aria-label="Below the name"
              placeholder="What stands below the name on the cover"
              value={folio.under}
              maxLength={500}
              onChange={(e) => set({ ...folio, under: e.target.value })}
              className="mt-1 w-full border-b border-transparent bg-transparent text-soft outline-none hover:border-line focus:border-kelp"
            />
            {left > 0 && (
              <p role="status" className="mt-2 text-[14px] text-soft">
                Composing {left} of {pages.length} pages …
              </p>
            )}
            {lost.length > 0 && (
              <div role="alert" className="mt-3 rounded-md bg-marigold/15 px-3 py-2 text-[14px]">
                {lost.length === 1 ? 'A hop has' : `${lost.length} hops have`} lost an end: what led there, or where it
                led, is not on its page any more.{' '}
                <button
                  type="button"
                  className="font-semibold text-kelp hover:underline"
                  onClick={() => set({ ...folio, hops: folio.hops.filter((h) => !lost.includes(h)) })}
                >
                  Let go of {lost.length === 1 ? 'it' : 'them'}
                </button>
              </div>
            )}
            <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
              <SortableContext items={folio.pages.map((p) => p.id)} strategy={rectSortingStrategy}>
                <ol className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-x-5 gap-y-6">
                  {front.cover && <FrontCard name="Cover" number={1} picture={front.cover} pages={pages} />}
                  {front.overview && (
                    <FrontCard
                      name="Overview"
                      number={folio.cover ? 2 : 1}
                      picture={front.overview}
                      pages={pages}
                      onOpen={() => setArranging(true)}
                    />
                  )}
                  {pages.map((p, k) => (
                    <Card
                      key={p.page.id}
                      shown={p}
                      number={numbers[k]!}
                      hops={folio.hops.filter((h) => h.from.page === p.page.id).length}
                      isNewer={
                        written !== null &&
                        p.plan !== null &&
                        (version0.get(p.plan.id) ?? 0) > (written.versions[p.plan.id] ?? 0)
                      }
                      wasWritten={written !== null}
                      chosen={chosen === p.page.id}
                      onChoose={() => setChosen(p.page.id)}
                      onRemove={() => remove(p.page.id)}
                    />
                  ))}
                </ol>
              </SortableContext>
            </DndContext>
            {folio.pages.length === 0 && !adding && (
              <p className="mt-6 text-soft">No pages yet. Put in exhibits of any plan.</p>
            )}
          </div>
          {shown && (
            <PageMargin
              key={shown.page.id}
              shown={shown}
              pages={pages}
              hops={folio.hops.filter((h) => h.from.page === shown.page.id)}
              folio={folio}
              numbers={numbers}
              open={shown.plan && all.roomOf(shown.plan.id)}
              onChange={(part) => change(shown.page.id, part)}
              onHop={addHop}
              onDropHop={(hop) => set({ ...folio, hops: folio.hops.filter((h) => h.id !== hop.id) })}
              onClose={() => setChosen(null)}
            />
          )}
        </div>
      )}
      {adding && (
        <AddPages
          plans={plans}
          taken={new Set(folio.pages.map((p) => p.exhibit))}
          onAdd={(exhibits) => {
            let number = folio.pages.reduce((n, p) => Math.max(n, Number(/\d+$/.exec(p.id)?.[0] ?? 0)), 0);
            const more = exhibits.map((exhibit) => FolioPage.parse({ id: `p${++number}`, exhibit }));
            set({ ...folio, pages: [...folio.pages, ...more] });
            setAdding(false);
          }}
          onClose={() => setAdding(false)}
        />
      )}
    </Frame>
  );
}

/** Whether an end of a hop is not on its page; pages that are not composed yet are not judged. */
function isLost({ from, to }: Hop, pages: readonly ShownPage[]): boolean {
  return [from, to].some(({ page, ref }) => {
    if (isFront(page)) return false;
    const own = pages.find((p) => p.page.id === page);
    if (!own) return true;
    if (own.composed === null || ref === null) return false;
    return !hasThing(own, ref);
  });
}

/** The cover, or the overview, which can be put together by hand. */
function FrontCard({
  name,
  number,
  picture,
  pages,
  onOpen,
}: {
  name: string;
  number: number;
  picture: FrontPicture;
  pages: readonly ShownPage[];
  onOpen?: () => void;
}) {
  const small = <Front picture={picture} pages={pages} className="shadow-sm shadow-ink/15" />;
  return (
    <li className="min-w-0" data-front={name}>
      <p className="mb-1 h-[19px]" />
      {onOpen ? (
        <button
          type="button"
          aria-label={`Arrange the ${name.toLowerCase()}`}
          className="block w-full"
          onClick={onOpen}
        >
          <span aria-hidden className="block">
            {small}
          </span>
        </button>
      ) : (
        small
      )}
      <p className="mt-1.5 flex gap-1.5 leading-tight">
        <span className="text-soft">{number}</span>
        <span className="font-semibold">{name}</span>
        {onOpen && (
          <button type="button" className="ml-auto text-[14px] text-kelp hover:underline" onClick={onOpen}>
            Arrange
          </button>
        )}
      </p>
    </li>
  );
}

function Card({
  shown,
  number,
  hops,
  isNewer,
  wasWritten,
  chosen,
  onChoose,
  onRemove,
}: {
  shown: ShownPage;
  number: number;
  hops: number;
  isNewer: boolean;
  wasWritten: boolean;
  chosen: boolean;
  onChoose: () => void;
  onRemove: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: shown.page.id });
  const [first] = shown.composed ?? [];
  const trouble = shown.error ?? (first && !first.fit.readable ? 'cannot be read on its page' : null);
  const hides = first?.blind?.words ?? '';
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`min-w-0 ${isDragging ? 'z-10 opacity-80' : ''}`}
      data-page={shown.page.id}
    >
      <p className="mb-1 h-[19px] truncate text-[13px] font-semibold text-soft">{shown.page.section}</p>
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-pressed={chosen}
        aria-label={`Page ${number}: ${shown.name}`}
        className={`block w-full cursor-grab touch-none rounded-sm ${chosen ? 'outline-2 outline-offset-2 outline-marigold' : ''}`}
        onClick={onChoose}
      >
        <span aria-hidden className="block">
          <PageThumb page={first ?? null} />
        </span>
      </button>
      <div className="mt-1.5 flex items-start gap-1.5">
        <span className="text-soft">{number}</span>
        <span className="min-w-0 flex-1 leading-tight">
          <span className="block truncate font-semibold">{shown.name}</span>
          <span className="block truncate text-[13px] text-soft">
            {shown.plan?.name}
            {(shown.composed?.length ?? 1) > 1 && ` · ${shown.composed!.length} pages`}
            {hops > 0 && ` · ${hops} ${hops === 1 ? 'hop' : 'hops'}`}
          </span>
          <span
            className={`block truncate text-[13px] ${trouble ? 'text-madder' : isNewer ? 'text-marigold-deep' : 'text-soft'}`}
            title={trouble ?? hides}
          >
            {trouble ??
              (isNewer
                ? 'plan changed since it was written out'
                : hides !== ''
                  ? `hides ${hides}`
                  : wasWritten
                    ? 'as it was written out'
                    : 'fresh')}
          </span>
        </span>
        <button
          type="button"
          aria-label={`Take out ${shown.name}`}
          className="rounded p-0.5 text-soft hover:bg-line"
          onClick={onRemove}
        >
          <X size={14} />
        </button>
      </div>
    </li>
  );
}
