'use client';
import { Folio, readyFolios } from '@clembo/scene/folio';
import { Plus, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { usePlanSearch } from '@/ui/plan/usePlanSearch';
import { ask } from '@/ui/ask';
import { Frame, type FramePlan } from '@/ui/Frame';
import { EditOnly } from '@/ui/EditOnly';
import { toast, wrong } from '@/ui/Toasts';
import { useMay } from '@/ui/useMay';
import { usePlanRoom } from '@/workers/planRoom';
import { SharedPages } from './SharedPages';
import { Weekly } from './Weekly';
import type { FolioPlan } from '@/server/folioPage';

interface Props {
  plan: FramePlan;
  version: number;
  plans: FolioPlan[];
  folios: { id: string; name: string; folio: Folio; written: string | null }[];
}

/** The folios of the workspace: those with pages of this plan first; and those that could be made of it. */
export function FolioList({ plan, version, plans, folios }: Props) {
  const router = useRouter();
  const { open } = usePlanRoom(plan.id, version);
  const search = usePlanSearch(plan.id, open, []);
  const [busy, setBusy] = useState(false);
  const { edit } = useMay(plan.id);
  const own = plans.find((p) => p.id === plan.id);
  const exhibits = new Set(own?.exhibits.map((e) => e.id));
  const isOwn = (f: Folio) => f.pages.some((p) => exhibits.has(p.exhibit));
  const sorted = [...folios.filter((f) => isOwn(f.folio)), ...folios.filter((f) => !isOwn(f.folio))];
  const make = async (folio: Folio) => {
    setBusy(true);
    try {
      const { id } = await ask<{ id: string }>('/api/folios', { method: 'POST', json: folio });
      router.push(`/folios/${id}?plan=${plan.id}`);
    } catch (error) {
      wrong(error);
      setBusy(false);
    }
  };
  const drop = async (id: string, name: string) => {
    try {
      await ask(`/api/folios/${id}`, { method: 'DELETE' });
      router.refresh();
      toast(`“${name}” was put away.`, {
        action: {
          label: 'Undo',
          run: () => void ask(`/api/folios/${id}`, { method: 'POST' }).then(() => router.refresh(), wrong),
        },
      });
    } catch (error) {
      wrong(error);
    }
  };
  const names = new Map(plans.flatMap((p) => p.exhibits.map((e) => [e.id, e.name] as const)));
  const ready = readyFolios(own?.exhibits ?? [], plan.name);
  return (
    <Frame stage="Share" plan={plan} search={search}>
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[1240px] px-8 pt-6 pb-10">
          <div className="flex items-baseline gap-4">
            <h1 className="font-serif text-[20px] font-semibold">Folios</h1>
            <p className="text-soft">Pages for an audience, in an order, to present and to send</p>
            {edit && (
              <button
                type="button"
                className="action ml-auto"
                disabled={busy}
                onClick={() => void make(Folio.parse({ name: `Folio of ${plan.name}`.slice(0, 200) }))}
              >
                <Plus size={15} aria-hidden /> A new folio
              </button>
            )}
          </div>
          {sorted.length === 0 && (
            <p className="mt-6 max-w-xl text-soft">
              There is no folio yet. A folio is an ordered set of exhibits, of one plan or of several, with a cover,
              sections and hops from one page to the right spot on another; it is presented from here, and written as
              PDF, slides or one web page.
            </p>
          )}
          <ul className="mt-5 grid gap-3 md:grid-cols-2 lg:grid-cols-3">
            {sorted.map(({ id, name, folio, written }) => (
              <li key={id} className="flex flex-col rounded-md border border-line bg-paper px-4 py-3">
                <div className="flex items-start gap-2">
                  <Link
                    href={`/folios/${id}?plan=${plan.id}`}
                    className="min-w-0 flex-1 font-serif text-[17px] leading-tight font-semibold hover:text-kelp"
                  >
                    {name}
                  </Link>
                  {edit && (
                    <button
                      type="button"
                      aria-label={`Put away ${name}`}
                      className="rounded p-0.5 text-soft hover:bg-line"
                      onClick={() => void drop(id, name)}
                    >
                      <Trash2 size={15} />
                    </button>
                  )}
                </div>
                <p className="mt-1 text-[14px] text-soft">
                  {folio.pages.length} {folio.pages.length === 1 ? 'page' : 'pages'}
                  {folio.hops.length > 0 && `, ${folio.hops.length} hops`}
                  {written && `, written ${new Date(written).toLocaleDateString('en-GB')}`}
                </p>
                <p className="mt-1 line-clamp-2 text-[14px]">
                  {folio.pages.map((p) => names.get(p.exhibit) ?? 'gone').join(' · ')}
                </p>
                <Link
                  href={`/folios/${id}/present`}
                  className="mt-auto pt-2 text-[14px] font-semibold text-kelp hover:underline"
                >
                  Present
                </Link>
              </li>
            ))}
          </ul>
          {edit && ready.length > 0 && (
            <section aria-label="Ready-made folios" className="mt-8">
              <h2 className="font-serif text-[17px] font-semibold">Made of the exhibits of this plan</h2>
              <ul className="mt-3 grid gap-3 md:grid-cols-2 lg:grid-cols-4">
                {ready.map(({ about, folio }) => (
                  <li key={folio.name}>
                    <button
                      type="button"
                      disabled={busy}
                      className="h-full w-full rounded-md border border-dashed border-soft/50 px-4 py-3 text-left hover:border-kelp"
                      onClick={() => void make(folio)}
                    >
                      <b>{folio.name.split(':')[0]}</b>
                      <span className="mt-0.5 block text-[14px] text-soft">
                        {about}; {folio.pages.length} pages
                      </span>
                    </button>
                  </li>
                ))}
              </ul>
            </section>
          )}
          <SharedPages
            planId={plan.id}
            exhibits={(own?.exhibits ?? []).map(({ id, name }) => ({ id, name }))}
            folios={sorted.filter((f) => f.folio.pages.length > 0).map(({ id, name }) => ({ id, name }))}
          />
          <EditOnly planId={plan.id}>
            <Weekly planId={plan.id} folios={sorted.map(({ id, name }) => ({ id, name }))} />
          </EditOnly>
        </div>
      </div>
    </Frame>
  );
}
