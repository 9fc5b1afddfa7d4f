'use client';
import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { Pick } from '@/ui/Pick';
import { wrong } from '@/ui/Toasts';

interface Deed {
  id: number;
  about: string;
  words: string;
  person: string | null;
  at: string;
}

const ABOUT: [string, string][] = [
  ['', 'everything'],
  ['plan', 'plans'],
  ['exhibit', 'pages and folios'],
  ['share', 'links'],
  ['comment', 'comments'],
  ['people', 'people'],
  ['settings', 'settings'],
];

/** So many come at once. */
const STEP = 200;

/** Who did what in the workspace. It is written down as it happens and changed by nobody. */
export function Deeds() {
  const [about, setAbout] = useState('');
  const [words, setWords] = useState('');
  const [deeds, setDeeds] = useState<Deed[] | null>(null);
  const [more, setMore] = useState(false);
  const query = new URLSearchParams({ ...(about && { about }), ...(words.trim() && { words: words.trim() }) });
  const path = `/api/deeds?${query}`;
  useEffect(() => {
    let current = true;
    // What is typed is asked for when it rests.
    const wait = setTimeout(() => {
      ask<{ deeds: Deed[] }>(path).then(({ deeds }) => {
        if (!current) return;
        setDeeds(deeds);
        setMore(deeds.length === STEP);
      }, wrong);
    }, 150);
    return () => {
      current = false;
      clearTimeout(wait);
    };
  }, [path]);
  const goOn = () =>
    ask<{ deeds: Deed[] }>(`${path}&before=${deeds!.at(-1)!.id}`).then((next) => {
      setDeeds([...deeds!, ...next.deeds]);
      setMore(next.deeds.length === STEP);
    }, wrong);
  return (
    <div className="h-full overflow-auto">
      <div className="mx-auto max-w-[960px] px-8 pt-7 pb-12">
        <div className="flex items-center gap-4">
          <h1 className="font-serif text-[26px] font-semibold">Who did what</h1>
          <span className="ml-auto" />
          <Pick label="about" value={about} options={ABOUT} onChange={setAbout} />
          <input
            aria-label="That holds"
            placeholder="that holds …"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            className="w-44 rounded-md border border-line bg-paper px-2.5 py-1"
          />
          <a className="quiet py-1" href={`${path}&form=csv`} download>
            <Download size={15} aria-hidden /> As a table
          </a>
        </div>
        {deeds?.length === 0 && (
          <p className="mt-6 text-soft">{query.size > 0 ? 'Nothing of this kind.' : 'Nothing was done yet.'}</p>
        )}
        <ul className="mt-5 divide-y divide-line" data-testid="deeds">
          {deeds?.map((d) => (
            <li key={d.id} className="grid grid-cols-[150px_150px_1fr] gap-4 py-1.5">
              <span className="text-soft">
                {new Date(d.at).toLocaleString('en-GB', {
                  day: 'numeric',
                  month: 'short',
                  hour: '2-digit',
                  minute: '2-digit',
                })}
              </span>
              <span className="truncate font-semibold">{d.person ?? 'At this machine'}</span>
              <span>{d.words}</span>
            </li>
          ))}
        </ul>
        {more && (
          <button type="button" className="quiet mt-4" onClick={() => void goOn()}>
            Earlier
          </button>
        )}
      </div>
    </div>
  );
}
