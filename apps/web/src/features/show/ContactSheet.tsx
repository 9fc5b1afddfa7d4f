'use client';
import { type Brief, pageSizeOf, spoken } from '@clembo/scene/brief';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { MoreHorizontal, Plus } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { Frame, type FramePlan } from '@/ui/Frame';
import { useKeys } from '@/ui/keys';
import { useRemoval } from '@/ui/removal';
import { wrong } from '@/ui/Toasts';
import { type OpenRoom, usePlanRoom } from '@/workers/planRoom';
import { usePlanSearch } from '../planSearch';
import { ReadyMade } from './ReadyMade';

interface Sheet {
  id: string;
  name: string;
  brief: Brief;
}

/** All exhibits of a plan as small live pages. */
export function ContactSheet({ plan, version, exhibits }: { plan: FramePlan; version: number; exhibits: Sheet[] }) {
  const router = useRouter();
  const { open, error } = usePlanRoom(plan.id, version);
  const search = usePlanSearch(plan.id, open);
  const { remove, isGone } = useRemoval('/api/exhibits');
  const shown = exhibits.filter((e) => !isGone(e.id));

  const add = async (name: string, brief: Brief | null) => {
    try {
      const what = brief ?? (await open!.room.suggest('timeline'));
      const { id } = await ask<{ id: string }>(`/api/plans/${plan.id}/exhibits`, {
        method: 'POST',
        json: { name, brief: what },
      });
      router.push(`/plans/${plan.id}/show/${id}`);
    } catch (e) {
      wrong(e);
    }
  };
  const create = () => open && void add(`Exhibit ${exhibits.length + 1}`, null);
  useKeys({ n: create });

  return (
    <Frame
      stage="Show"
      plan={plan}
      search={search}
      controls={
        <>
          <button type="button" className="action" disabled={!open} onClick={create}>
            <Plus size={16} aria-hidden /> New exhibit
          </button>
          {open && <ReadyMade open={open} onAdd={(name, brief) => void add(name, brief)} />}
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
            No exhibits yet. Press <b>New exhibit</b> (or <kbd>n</kbd>) and Clembo suggests a first page for this plan.
          </p>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(360px,1fr))] gap-x-7 gap-y-8">
          {shown.map((e) => (
            <li key={e.id}>
              <Link
                href={`/plans/${plan.id}/show/${e.id}`}
                className="block rounded-sm shadow-md shadow-ink/10 hover:shadow-lg hover:shadow-ink/20"
              >
                <Thumbnail open={open} brief={e.brief} />
                <span className="sr-only">Open {e.name}</span>
              </Link>
              <div className="mt-2.5 flex items-start gap-2">
                <div className="min-w-0 flex-1">
                  <p className="truncate font-semibold">{e.name}</p>
                  <p className="text-[14px] text-soft">
                    {spoken(e.brief.kind).title.toLowerCase()} · {e.brief.page}
                  </p>
                </div>
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
              </div>
            </li>
          ))}
        </ul>
      </div>
    </Frame>
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
