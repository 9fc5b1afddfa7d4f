'use client';
import { type Brief, type BriefKind, type Ready, readyMade, SPOKEN } from '@clembo/scene/brief';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';
import { wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';

/** Exhibits of every kind, and briefs that are made for questions that are asked often. */
export function ReadyMade({ open, onAdd }: { open: OpenRoom; onAdd: (name: string, brief: Brief) => void }) {
  const ready = readyMade(open.head);
  const kinds = Object.keys(SPOKEN) as BriefKind[];
  return (
    <Menu>
      <MenuButton className="quiet" aria-label="Exhibits by their kind">
        of a kind <ChevronDown size={15} aria-hidden />
      </MenuButton>
      <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="panel max-h-[640px]! w-[760px] p-4!">
        <div className="columns-2 gap-8">
          {kinds.map((kind) => (
            <section key={kind} aria-label={SPOKEN[kind].title} className="mb-4 break-inside-avoid">
              <MenuItem>
                <button
                  type="button"
                  className="choice w-full font-semibold"
                  onClick={() => open.room.suggest(kind).then((brief) => onAdd(SPOKEN[kind].title, brief), wrong)}
                >
                  {SPOKEN[kind].title}
                </button>
              </MenuItem>
              <p className="px-2 pb-0.5 text-[13.5px] leading-snug text-soft">{SPOKEN[kind].about}</p>
              {ready
                .filter((r: Ready) => r.brief.kind === kind)
                .map((r) => (
                  <MenuItem key={r.name}>
                    <button type="button" className="choice w-full" onClick={() => onAdd(r.name, r.brief)}>
                      {r.name}
                    </button>
                  </MenuItem>
                ))}
            </section>
          ))}
        </div>
      </MenuItems>
    </Menu>
  );
}
