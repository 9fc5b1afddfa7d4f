'use client';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { Search } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import type { KindCard, MatchingShown, WorkCard } from '@/workers/answers/models';

const CARD =
  'block w-full cursor-grab touch-none rounded-md border bg-paper px-2.5 py-1.5 text-left leading-tight select-none';

/** A card that can be carried, and on which another can be put down: what its button needs. */
function useCard(id: string, data: { work: string } | { elements: readonly number[] }, title: string, chosen: boolean) {
  const drop = useDroppable({ id: `onto ${id}`, data });
  const drag = useDraggable({ id, data: { ...data, title } });
  return {
    props: {
      ref: (node: HTMLElement | null) => {
        drop.setNodeRef(node);
        drag.setNodeRef(node);
      },
      type: 'button' as const,
      ...drag.listeners,
      ...drag.attributes,
      'aria-pressed': chosen,
    },
    edge: chosen || drop.isOver ? 'border-marigold bg-marigold/10' : 'border-line hover:border-soft',
  };
}

/** One tray: its title, what it holds in numbers, and cards that can be carried across. */
function Tray({
  title,
  note,
  all,
  onAll,
  allWords,
  find,
  onFind,
  children,
}: {
  title: string;
  note: string;
  all: boolean;
  onAll: (all: boolean) => void;
  allWords: [few: string, all: string];
  find: string;
  onFind: (text: string) => void;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="flex min-h-0 flex-col">
      <h2 className="font-serif text-[17px] leading-tight font-semibold">{title}</h2>
      <p className="mt-0.5 text-[13px] text-soft">{note}</p>
      <div className="mt-1.5 flex items-center gap-1.5">
        <label className="flex min-w-0 flex-1 items-center gap-1 rounded border border-line bg-paper px-1.5 text-[13px]">
          <Search size={12} aria-hidden className="text-soft" />
          <input
            aria-label={`Find in ${title.toLowerCase()}`}
            value={find}
            onChange={(e) => onFind(e.target.value)}
            className="w-full bg-transparent py-0.5 outline-none"
          />
        </label>
        <button
          type="button"
          aria-pressed={all}
          className="rounded border border-line px-1.5 py-0.5 text-[13px] text-soft hover:border-kelp aria-pressed:border-ink aria-pressed:text-ink"
          onClick={() => onAll(!all)}
        >
          {allWords[all ? 1 : 0]}
        </button>
      </div>
      <div className="mt-2 min-h-0 flex-1 space-y-1.5 overflow-y-auto pr-1 pb-2">{children}</div>
    </section>
  );
}

/** So many cards are drawn; more are found by typing. */
const MOST = 200;

export function WorkTray({
  matching,
  all,
  onAll,
  chosen,
  onChoose,
  onPoint,
}: {
  matching: MatchingShown;
  all: boolean;
  onAll: (all: boolean) => void;
  chosen: string | null;
  onChoose: (ref: string | null) => void;
  onPoint: (ref: string | null) => void;
}) {
  const [find, setFind] = useState('');
  const wanted = find.trim().toLowerCase();
  const works = matching.works.filter(
    (w) => wanted === '' || w.name.toLowerCase().includes(wanted) || w.ref.toLowerCase().includes(wanted),
  );
  return (
    <Tray
      title={all ? 'Work' : 'Work without elements'}
      note={`${matching.idle} of ${matching.of} activities wait`}
      all={all}
      onAll={onAll}
      allWords={['all', 'waiting']}
      find={find}
      onFind={setFind}
    >
      {works.slice(0, MOST).map((w) => (
        <Work
          key={w.ref}
          work={w}
          chosen={w.ref === chosen}
          onChoose={() => onChoose(w.ref === chosen ? null : w.ref)}
          onPoint={onPoint}
        />
      ))}
      {works.length > MOST && (
        <p className="text-[13px] text-soft">and {works.length - MOST} more: type to find them</p>
      )}
      {works.length === 0 && (
        <p className="text-[13px] text-soft">
          {wanted === '' ? 'Every activity has elements.' : 'Nothing by that name.'}
        </p>
      )}
    </Tray>
  );
}

function Work({
  work,
  chosen,
  onChoose,
  onPoint,
}: {
  work: WorkCard;
  chosen: boolean;
  onChoose: () => void;
  onPoint: (ref: string | null) => void;
}) {
  const card = useCard(`work ${work.ref}`, { work: work.ref }, work.name, chosen);
  return (
    <button
      {...card.props}
      data-work={work.ref}
      className={`${CARD} border-l-[5px] ${card.edge}`}
      style={work.colour ? { borderLeftColor: work.colour } : {}}
      onClick={onChoose}
      onPointerEnter={() => onPoint(work.ref)}
      onPointerLeave={() => onPoint(null)}
    >
      <span className="block truncate text-[14px] font-semibold">{work.name}</span>
      <span className="block truncate font-narrow text-[12.5px] text-soft">
        {work.ref} · {work.dates}
        {work.elements > 0 && ` · ${work.elements} elements`}
      </span>
    </button>
  );
}

export function KindTray({
  matching,
  all,
  onAll,
  chosen,
  onChoose,
}: {
  matching: MatchingShown;
  all: boolean;
  onAll: (all: boolean) => void;
  /** The elements that are chosen. */
  chosen: ReadonlySet<number>;
  onChoose: (elements: readonly number[], more: boolean) => void;
}) {
  const [find, setFind] = useState('');
  const wanted = find.trim().toLowerCase();
  const kinds = matching.kinds.filter(
    (k) => wanted === '' || k.name.toLowerCase().includes(wanted) || k.storey.toLowerCase().includes(wanted),
  );
  return (
    <Tray
      title={all ? 'Elements' : 'Elements without work'}
      note={`${matching.loose} of ${matching.elements} wait, in ${matching.kinds.length} ${matching.kinds.length === 1 ? 'kind' : 'kinds'}`}
      all={all}
      onAll={onAll}
      allWords={['all', 'waiting']}
      find={find}
      onFind={setFind}
    >
      {kinds.slice(0, MOST).map((k) => (
        <Kind key={k.key} kind={k} chosen={k.elements.every((e) => chosen.has(e))} onChoose={onChoose} />
      ))}
      {kinds.length > MOST && (
        <p className="text-[13px] text-soft">and {kinds.length - MOST} more: type to find them</p>
      )}
      {kinds.length === 0 && (
        <p className="text-[13px] text-soft">{wanted === '' ? 'Every element has work.' : 'Nothing by that name.'}</p>
      )}
    </Tray>
  );
}

function Kind({
  kind,
  chosen,
  onChoose,
}: {
  kind: KindCard;
  chosen: boolean;
  onChoose: (elements: readonly number[], more: boolean) => void;
}) {
  const title = `${kind.name}: ${kind.elements.length}`;
  const card = useCard(`kind ${kind.key}`, { elements: kind.elements }, title, chosen);
  return (
    <button
      {...card.props}
      data-kind={kind.name}
      className={`${CARD} border-r-[5px] border-r-soft/40 ${card.edge}`}
      onClick={(e) => onChoose(kind.elements, e.shiftKey || e.ctrlKey || e.metaKey)}
    >
      <span className="block truncate text-[14px] font-semibold">{kind.name}</span>
      <span className="block truncate font-narrow text-[12.5px] text-soft">
        {[kind.storey, String(kind.elements.length)].filter(Boolean).join(' · ')}
      </span>
    </button>
  );
}
