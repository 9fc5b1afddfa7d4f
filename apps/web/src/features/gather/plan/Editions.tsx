'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';
import { useMay } from '@/ui/useMay';
import { Words } from '@/ui/Words';

export interface EditionCard {
  id: string;
  name: string;
  note: string;
  working: boolean;
  baseline: boolean;
  activities: number | null;
  status: string | null;
  when: string;
}

/** The editions of a plan: named, noted, compared by two, measured against, worked on again. */
export function Editions({ planId, editions }: { planId: string; editions: EditionCard[] }) {
  const router = useRouter();
  const [chosen, setChosen] = useState<string[]>([]);
  const [keeping, setKeeping] = useState('');
  const [busy, setBusy] = useState(false);
  const { edit } = useMay(planId);
  const run = async (work: () => Promise<unknown>, words?: string) => {
    setBusy(true);
    try {
      await work();
      if (words) toast(words);
      router.refresh();
    } catch (error) {
      wrong(error);
    } finally {
      setBusy(false);
    }
  };
  const path = `/api/plans/${planId}/editions`;
  const describe = (id: string, json: object) => run(() => ask(`${path}/${id}`, { method: 'PATCH', json }));
  const working = editions.find((e) => e.working)!;
  const choose = (id: string) =>
    setChosen((list) => (list.includes(id) ? list.filter((x) => x !== id) : [...list.slice(-1), id]));
  // The older of two is what was.
  const pair = [...editions].reverse().filter((e) => chosen.includes(e.id));
  return (
    <section aria-labelledby="editions">
      <div className="flex items-baseline gap-4">
        <h2 id="editions" className="font-serif text-[22px] font-semibold">
          Editions
        </h2>
        <button
          type="button"
          className="quiet ml-auto py-1"
          disabled={pair.length !== 2}
          title={pair.length === 2 ? undefined : 'Choose two editions first'}
          onClick={() => router.push(`/plans/${planId}/gather/compare?from=${pair[0]!.id}&to=${pair[1]!.id}`)}
        >
          Compare the two chosen
        </button>
      </div>
      <ul className="mt-2 divide-y divide-line border-y border-line">
        {editions.map((e) => (
          <li key={e.id} className="flex items-start gap-3 py-2">
            <input
              type="checkbox"
              aria-label={`Choose ${e.name} to compare`}
              checked={chosen.includes(e.id)}
              onChange={() => choose(e.id)}
              className="mt-1.5 size-4 accent-kelp"
            />
            <div className="min-w-0 flex-1">
              <div className="flex items-baseline gap-2">
                <Words
                  label={`Name of the edition ${e.name}`}
                  value={e.name}
                  className="font-semibold"
                  fixed={!edit}
                  onSay={(name) => name !== '' && describe(e.id, { name })}
                />
                {e.working && <Tag>working edition</Tag>}
                {e.baseline && <Tag>baseline</Tag>}
              </div>
              <Words
                label={`Note on ${e.name}`}
                value={e.note}
                placeholder="Add a note"
                fixed={!edit}
                className="text-[14.5px]"
                onSay={(note) => describe(e.id, { note })}
              />
              <p className="text-[14px] text-soft">
                {[
                  e.working ? `since ${e.when}` : e.when,
                  e.status && `status ${e.status}`,
                  e.activities !== null && `${e.activities} rows`,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </p>
            </div>
            {edit && !e.working && (
              <span className="flex shrink-0 gap-2">
                {!e.baseline && (
                  <button
                    type="button"
                    className="quiet py-0.5"
                    disabled={busy}
                    onClick={() => describe(e.id, { baseline: true })}
                  >
                    Measure against it
                  </button>
                )}
                <button
                  type="button"
                  className="quiet py-0.5"
                  disabled={busy}
                  onClick={() =>
                    run(
                      () =>
                        ask(`${path}/${e.id}/work`, { method: 'POST', json: { keepAs: `${working.name}, set aside` } }),
                      `“${e.name}” is the working edition again; what you worked on is kept as “${working.name}, set aside”.`,
                    )
                  }
                >
                  Work on it again
                </button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {edit && (
        <form
          className="mt-3 flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const name = keeping.trim();
            if (name === '') return;
            void run(
              () => ask(path, { method: 'POST', json: { name } }),
              `The plan as it stands is kept as “${name}”.`,
            );
            setKeeping('');
          }}
        >
          <label className="flex items-center gap-2">
            <span className="text-soft">Keep the plan as it stands, as</span>
            <input
              value={keeping}
              onChange={(event) => setKeeping(event.target.value)}
              placeholder="Name of the edition"
              className="w-56 rounded-md border border-line bg-paper px-2.5 py-1"
            />
          </label>
          <button type="submit" className="quiet py-1" disabled={keeping.trim() === '' || busy}>
            Keep it
          </button>
        </form>
      )}
    </section>
  );
}

const Tag = ({ children }: { children: string }) => (
  <span className="rounded-full bg-wash px-2 text-[13px] whitespace-nowrap text-soft">{children}</span>
);
