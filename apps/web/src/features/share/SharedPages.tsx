'use client';
import { Copy, Link2Off, Plus } from 'lucide-react';
import { useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';
import { ShareForm, type Wish } from './ShareForm';

interface Shared {
  id: string;
  name: string;
  of: 'exhibit' | 'folio';
  lay: 'pages' | 'wall';
  frozen: boolean;
  edition: string | null;
  hasPassword: boolean;
  comments: boolean;
  origins: string[];
  expiresAt: string | null;
  madeBy: string | null;
  opened: number;
  openedAt: string | null;
  createdAt: string;
  address: string | null;
}

interface Shown {
  mayShare: boolean;
  shared: Shared[];
  editions: { id: string; name: string }[];
}

interface Props {
  planId: string;
  exhibits: { id: string; name: string }[];
  folios: { id: string; name: string }[];
}

const dayWords = (iso: string): string =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** What a shared page is, in a few words. */
function about({ of, lay, frozen, edition, hasPassword, comments, origins, expiresAt, createdAt }: Shared): string {
  return [
    of === 'folio' ? (lay === 'wall' ? 'a folio, side by side' : 'a folio, to be presented') : 'one page',
    frozen ? (edition ? `as it was in ${edition}` : `as it stood on ${dayWords(createdAt)}`) : 'follows the plan',
    // The last moment is the end of a day.
    expiresAt ? `until ${dayWords(new Date(Date.parse(expiresAt) - 1000).toISOString())}` : 'no end',
    ...(comments ? ['with its open comments'] : []),
    ...(hasPassword ? ['with a password'] : []),
    ...(origins.length > 0 ? [`within ${origins.join(', ')}`] : []),
  ].join(', ');
}

const openings = ({ opened, openedAt }: Shared): string =>
  opened === 0
    ? 'Not opened yet'
    : `Opened ${opened === 1 ? 'once' : `${opened} times`}, last on ${dayWords(openedAt!)}`;

async function copy(address: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(address);
    toast('The address is in the clipboard.');
  } catch {
    toast(address, { seconds: 60 });
  }
}

/** Pages that are shown to whoever has their address: which there are, and another one. */
export function SharedPages({ planId, exhibits, folios }: Props) {
  const wanted = useSearchParams().get('share');
  const [shown, setShown] = useState<Shown | null>(null);
  const [making, setMaking] = useState(wanted !== null);
  const path = `/api/plans/${planId}/shared`;
  const look = useCallback(() => ask<Shown>(path).then(setShown, wrong), [path]);
  useEffect(() => {
    void look();
  }, [look]);
  if (!shown) return null;
  const { shared, editions, mayShare } = shown;
  const make = async (wish: Wish) => {
    const { address } = await ask<{ address: string }>(path, { method: 'POST', json: wish });
    setMaking(false);
    await look();
    await copy(address);
  };
  const end = (id: string) =>
    ask(`/api/shared/${id}`, { method: 'DELETE' }).then(() => {
      toast('The address leads nowhere from now on.');
      return look();
    }, wrong);
  return (
    <section aria-label="Shared pages" className="mt-10">
      <div className="flex items-baseline gap-4">
        <h2 className="font-serif text-[17px] font-semibold">Shared pages</h2>
        <p className="text-soft">Whoever has the address sees the page, and nothing else</p>
        {mayShare && !making && (
          <button type="button" className="quiet ml-auto py-1" onClick={() => setMaking(true)}>
            <Plus size={15} aria-hidden /> Share a page
          </button>
        )}
      </div>
      {making && mayShare && (
        <ShareForm
          exhibits={exhibits}
          folios={folios}
          editions={editions}
          first={wanted}
          onShare={make}
          onCancel={() => setMaking(false)}
        />
      )}
      {shared.length > 0 && (
        <ul className="mt-3 divide-y divide-line rounded-md bg-wash px-4" data-testid="shared">
          {shared.map((s) => (
            <li key={s.id} className="flex items-center gap-4 py-2.5">
              <div className="min-w-0 flex-1">
                <p>
                  <b className="font-semibold">{s.name}</b> <span className="text-soft">{about(s)}</span>
                </p>
                <p className="text-[14px] text-soft">
                  {openings(s)}
                  {s.madeBy && ` · shared by ${s.madeBy}`}
                  {s.address && (
                    <>
                      {' · '}
                      <a href={s.address} target="_blank" rel="noreferrer" className="text-kelp underline">
                        Open it
                      </a>
                    </>
                  )}
                </p>
              </div>
              {s.address && (
                <>
                  <button type="button" className="quiet py-1" onClick={() => void copy(s.address!)}>
                    <Copy size={14} aria-hidden /> Copy the address
                  </button>
                  <button type="button" className="quiet py-1" onClick={() => void end(s.id)}>
                    <Link2Off size={14} aria-hidden /> End it
                  </button>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
