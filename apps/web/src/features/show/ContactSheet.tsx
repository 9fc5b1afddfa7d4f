'use client';
import { TextField } from '@/ui/TextField';
import { type Brief, pageSizeOf, spoken } from '@clembo/scene/brief';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Download, MoreHorizontal, Plus } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { ask } from '@/ui/ask';
import { Frame, type FramePlan } from '@/ui/Frame';
import { useKeys } from '@/ui/keys';
import { MenuEntry } from '@/ui/MenuEntry';
import { useRemoval } from '@/ui/removal';
import { moved, Sortable, SortableItem } from '@/ui/Sortable';
import { takeFile } from '@/ui/takeFile';
import { wrong } from '@/ui/Toasts';
import { useMay } from '@/ui/useMay';
import { type OpenRoom, usePlanRoom } from '@/workers/planRoom';
import { usePlanSearch } from '@/ui/plan/usePlanSearch';
import { FORMATS } from './ExportMenu';
import { NewExhibit } from './NewExhibit';
import { useExhibitName } from './useExhibitName';

interface Exhibit {
  id: string;
  name: string;
  brief: Brief;
  version: number;
}

/** All exhibits of a plan as small live pages: put in order, named, chosen to be written into one file. */
export function ContactSheet({ plan, version, exhibits }: { plan: FramePlan; version: number; exhibits: Exhibit[] }) {
  const router = useRouter();
  const { open, error } = usePlanRoom(plan.id, version);
  const { edit } = useMay(plan.id);
  const search = usePlanSearch(plan.id, open);
  const { remove, isGone } = useRemoval('/api/exhibits');
  const [adding, setAdding] = useState(false);
  const [order, setOrder] = useState<string[]>(() => exhibits.map((e) => e.id));
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const shown = useMemo(() => {
    const place = (id: string) => (order.includes(id) ? order.indexOf(id) : order.length);
    return exhibits.filter((e) => !isGone(e.id)).sort((a, b) => place(a.id) - place(b.id));
  }, [exhibits, order, isGone]);

  const add = async (name: string, brief: Brief) => {
    try {
      const { id } = await ask<{ id: string }>(`/api/plans/${plan.id}/exhibits`, {
        method: 'POST',
        json: { name, brief },
      });
      router.push(`/plans/${plan.id}/show/${id}`);
    } catch (e) {
      wrong(e);
    }
  };
  const move = (from: number, to: number) => {
    const before = order;
    const next = moved(
      shown.map((e) => e.id),
      from,
      to,
    );
    setOrder(next);
    ask(`/api/plans/${plan.id}/exhibits`, { method: 'PUT', json: { order: next } }).catch((e) => {
      setOrder(before);
      wrong(e);
    });
  };
  const toggle = (id: string) =>
    setChosen((before) => {
      const next = new Set(before);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const wanted = shown.filter((e) => chosen.size === 0 || chosen.has(e.id));
  useKeys({ n: () => open && edit && setAdding(true) });

  return (
    <Frame
      stage="Show"
      plan={plan}
      search={search}
      controls={
        <>
          {edit && (
            <button type="button" className="action" disabled={!open} onClick={() => setAdding(true)}>
              <Plus size={16} aria-hidden /> New exhibit
            </button>
          )}
          {shown.length > 0 && (
            <Menu>
              <MenuButton className="quiet">
                <Download size={15} aria-hidden /> {chosen.size > 0 ? `Export ${chosen.size}` : 'Export all'}
              </MenuButton>
              <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="panel w-72">
                {FORMATS.map(([format, title, use]) => (
                  <MenuEntry
                    key={format}
                    title={title}
                    use={IN_ONE[format] ?? use}
                    onTake={() =>
                      void takeFile(`/api/plans/${plan.id}/pages`, format, { exhibits: wanted.map((e) => e.id) })
                    }
                  />
                ))}
              </MenuItems>
            </Menu>
          )}
        </>
      }
    >
      <div className="h-full overflow-auto px-8 py-7">
        {error && (
          <p role="alert" className="mb-4 text-madder">
            {error}
          </p>
        )}
        {shown.length === 0 && (
          <p className="text-soft">
            No exhibits yet.
            {edit && (
              <>
                {' '}
                Press <b>New exhibit</b> (or <kbd>n</kbd>) and Clembo shows what pages this plan could give.
              </>
            )}
          </p>
        )}
        <Sortable grid ids={shown.map((e) => e.id)} onMove={move}>
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(360px,1fr))] gap-x-7 gap-y-8">
            {shown.map((e) => (
              <SortableItem
                key={e.id}
                id={e.id}
                name={e.name}
                className="relative"
                fixed={!edit}
                handle="absolute top-2 right-2 z-10 rounded bg-paper/90 p-0.5 text-soft shadow-sm hover:text-ink"
              >
                <Link
                  href={`/plans/${plan.id}/show/${e.id}`}
                  draggable={false}
                  className="block rounded-sm shadow-md shadow-ink/10 hover:shadow-lg hover:shadow-ink/20"
                >
                  <Thumbnail open={open} brief={e.brief} />
                  <span className="sr-only">Open {e.name}</span>
                </Link>
                <div className="mt-2.5 flex items-start gap-2">
                  <input
                    type="checkbox"
                    aria-label={`Choose ${e.name}`}
                    className="mt-1 size-4 accent-kelp"
                    checked={chosen.has(e.id)}
                    onChange={() => toggle(e.id)}
                  />
                  <div className="min-w-0 flex-1">
                    {edit ? <Name exhibit={e} /> : <p className="truncate px-1 font-semibold">{e.name}</p>}
                    <p className="px-1 text-[14px] text-soft">
                      {spoken(e.brief.kind).title.toLowerCase()} · {e.brief.page}
                    </p>
                  </div>
                  {edit && (
                    <Menu>
                      <MenuButton aria-label={`More for ${e.name}`} className="rounded p-1 hover:bg-line">
                        <MoreHorizontal size={18} />
                      </MenuButton>
                      <MenuItems anchor="bottom end" className="panel w-44">
                        <MenuItem>
                          <button
                            type="button"
                            className="choice w-full"
                            onClick={() => void add(`${e.name}, copy`, e.brief)}
                          >
                            Duplicate
                          </button>
                        </MenuItem>
                        <MenuItem>
                          <button type="button" className="choice w-full" onClick={() => remove(e.id, e.name)}>
                            Delete
                          </button>
                        </MenuItem>
                      </MenuItems>
                    </Menu>
                  )}
                </div>
              </SortableItem>
            ))}
          </ul>
        </Sortable>
      </div>
      {adding && open && (
        <NewExhibit open={open} onAdd={(name, brief) => void add(name, brief)} onClose={() => setAdding(false)} />
      )}
    </Frame>
  );
}

/** What several exhibits become, where that is other than for one. */
const IN_ONE: Record<string, string> = {
  pdf: 'one file, with an outline',
  pptx: 'one set of slides',
  svg: 'drawings in an archive',
  png: 'pictures in an archive',
  html: 'one file, with its contents',
  xlsx: 'a sheet for each',
};

/** The name of an exhibit, written anew in its place. */
function Name({ exhibit }: { exhibit: Exhibit }) {
  const { kept, rename } = useExhibitName(exhibit.id, exhibit);
  return (
    <TextField
      aria-label={`Name of ${kept.name}`}
      value={kept.name}
      maxLength={200}
      className="w-full truncate rounded border border-transparent bg-transparent px-1 font-semibold hover:border-line focus:border-line focus:bg-paper"
      onKeep={(name) => (name === '' ? false : rename(name))}
    />
  );
}

function Thumbnail({ open, brief }: { open: OpenRoom | null; brief: Brief }) {
  const [svg, setSvg] = useState<string | null>(null);
  const { width, height } = pageSizeOf(brief);
  useEffect(() => {
    let current = true;
    open?.room.compose(brief).then((page) => current && setSvg(page.svg), wrong);
    return () => {
      current = false;
    };
  }, [open, brief]);
  return (
    <div
      className="overflow-hidden rounded-sm bg-paper [&_svg]:block [&_svg]:h-auto [&_svg]:w-full"
      style={{ aspectRatio: `${width} / ${height}` }}
    >
      {svg && <div aria-hidden className="pointer-events-none" dangerouslySetInnerHTML={{ __html: svg }} />}
    </div>
  );
}
