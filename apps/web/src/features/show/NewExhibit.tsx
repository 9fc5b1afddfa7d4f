'use client';
import { type Brief, type BriefKind, House, inHouse, laidOver, type Ready, SPOKEN } from '@clembo/scene/brief';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { Sheet } from '@/ui/Sheet';
import { toast, wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';
import { type Preview, Previews } from './Previews';

interface KeptBrief {
  id: string;
  name: string;
  brief: Brief;
  fields: Record<string, string>;
}

/** Pages that could be made of this plan, as small live pictures: ready-made ones, kept ones, and one of each kind. */
export function NewExhibit({
  open,
  onAdd,
  onClose,
}: {
  open: OpenRoom;
  onAdd: (name: string, brief: Brief) => void;
  onClose: () => void;
}) {
  const [ready, setReady] = useState<Ready[] | null>(null);
  const [plain, setPlain] = useState<Preview[]>([]);
  const [kept, setKept] = useState<KeptBrief[]>([]);
  const [house, setHouse] = useState<House | null>(null);
  useEffect(() => {
    ask<{ house: House }>('/api/workspace').then(({ house }) => setHouse(house), wrong);
    open.room.readyMade().then(setReady, wrong);
    ask<KeptBrief[]>('/api/briefs').then(setKept, wrong);
    const kinds = Object.keys(SPOKEN) as BriefKind[];
    Promise.all(
      kinds.map(async (kind) => ({
        key: kind,
        name: SPOKEN[kind].title,
        about: SPOKEN[kind].about,
        brief: await open.room.suggest(kind),
      })),
    ).then(setPlain, wrong);
  }, [open]);
  const take = ({ name, brief }: Preview) => onAdd(name, brief);
  /** New pages begin as the house would have them; kept briefs are as they were kept. */
  const begun = <P extends { brief: Brief }>(list: readonly P[]): P[] =>
    list.map((p) => ({ ...p, brief: inHouse(p.brief, house ?? House.parse({})) }));
  const laid = kept.map((k) => ({ ...k, ...laidOver(k.brief, open.head, k.fields) }));
  const offered = house && ready ? begun(ready) : [];
  const timelines = offered.filter((r) => r.brief.kind === 'timeline');
  const isNetwork = ({ brief }: Ready) => brief.kind === 'network' || brief.kind === 'handoffs';
  const networks = offered.filter(isNetwork);
  const lines = offered.filter((r) => r.brief.kind === 'linear');
  const builds = offered.filter((r) => r.brief.kind === 'build');
  const others = offered.filter((r) => !['timeline', 'linear', 'build'].includes(r.brief.kind) && !isNetwork(r));
  const previews = (list: Ready[]): Preview[] =>
    list.map((r) => ({ key: r.name, name: r.name, about: r.about ?? SPOKEN[r.brief.kind].about, brief: r.brief }));
  return (
    <Sheet title="A new exhibit" note="Of this plan, as it would be" onClose={onClose}>
      {laid.length > 0 && (
        <Section title="Kept briefs">
          <Previews
            open={open}
            list={laid.map((k) => ({
              key: k.id,
              name: k.name,
              about: k.lost.length > 0 ? `without ${k.lost.join(', ')}: this plan has no such field` : undefined,
              brief: k.brief,
            }))}
            onTake={(p) => {
              const { lost } = laid.find((k) => k.id === p.key)!;
              if (lost.length > 0) toast(`This plan has no field ${lost.join(', ')}: the page is made without.`);
              take(p);
            }}
          />
          <ul className="mt-3 flex flex-wrap gap-2 text-[14px]">
            {kept.map((k) => (
              <li key={k.id} className="flex items-center gap-1 rounded border border-line px-2 py-0.5">
                {k.name}
                <button
                  type="button"
                  aria-label={`Let go of the kept brief ${k.name}`}
                  className="rounded p-0.5 text-soft hover:bg-line"
                  onClick={() =>
                    ask(`/api/briefs/${k.id}`, { method: 'DELETE' }).then(
                      () => setKept((list) => list.filter((x) => x.id !== k.id)),
                      wrong,
                    )
                  }
                >
                  <X size={13} />
                </button>
              </li>
            ))}
          </ul>
        </Section>
      )}
      <Section title="Time lines for usual questions">
        {ready === null || house === null ? <p role="status">Looking at the plan …</p> : null}
        <Previews open={open} list={previews(timelines)} onTake={take} />
      </Section>
      {networks.length > 0 && (
        <Section title="What leads to what">
          <Previews open={open} list={previews(networks)} onTake={take} />
        </Section>
      )}
      {lines.length > 0 && (
        <Section title="Along a line">
          <Previews open={open} list={previews(lines)} onTake={take} />
        </Section>
      )}
      {builds.length > 0 && (
        <Section title="The model on a date">
          <Previews open={open} list={previews(builds)} onTake={take} />
        </Section>
      )}
      {others.length > 0 && (
        <Section title="Against the promise, and amounts">
          <Previews open={open} list={previews(others)} onTake={take} />
        </Section>
      )}
      <Section title="One of each kind, to begin with">
        <Previews open={open} list={house ? begun(plain) : []} onTake={take} />
      </Section>
    </Sheet>
  );
}

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section aria-label={title} className="mb-8">
      <h3 className="mb-3 text-[17px] font-semibold">{title}</h3>
      {children}
    </section>
  );
}
