'use client';
import { SPOKEN } from '@clembo/scene/brief';
import { useState } from 'react';
import { Sheet } from '@/ui/Sheet';
import type { FolioPlan } from '@/server/folioPage';

/** Exhibits of all plans, to be put into a folio. */
export function AddPages({
  plans,
  taken,
  onAdd,
  onClose,
}: {
  plans: readonly FolioPlan[];
  taken: ReadonlySet<string>;
  onAdd: (exhibits: string[]) => void;
  onClose: () => void;
}) {
  const [chosen, setChosen] = useState<string[]>([]);
  const flip = (id: string) => setChosen((list) => (list.includes(id) ? list.filter((x) => x !== id) : [...list, id]));
  return (
    <Sheet title="Put in pages" note="In the order in which you choose them" onClose={onClose}>
      <div className="grid gap-x-8 gap-y-6 md:grid-cols-2">
        {plans
          .filter((p) => p.exhibits.length > 0)
          .map((p) => (
            <section key={p.id} aria-label={p.name}>
              <h3 className="font-serif text-[16px] font-semibold">{p.name}</h3>
              <ul className="mt-1.5">
                {p.exhibits.map((e) => (
                  <li key={e.id}>
                    <label className="flex cursor-pointer items-baseline gap-2 rounded px-2 py-1 hover:bg-paper">
                      <input
                        type="checkbox"
                        checked={chosen.includes(e.id)}
                        onChange={() => flip(e.id)}
                        className="accent-[#0F6E6E]"
                      />
                      <span className="min-w-0 flex-1 truncate">{e.name}</span>
                      <span className="text-[13px] text-soft">
                        {SPOKEN[e.brief.kind].title.toLowerCase()}
                        {taken.has(e.id) && ', is in it'}
                      </span>
                    </label>
                  </li>
                ))}
              </ul>
            </section>
          ))}
      </div>
      <div className="mt-5">
        <button type="button" className="action" disabled={chosen.length === 0} onClick={() => onAdd(chosen)}>
          Put in{' '}
          {chosen.length === 0 ? 'what you choose' : `${chosen.length} ${chosen.length === 1 ? 'page' : 'pages'}`}
        </button>
      </div>
    </Sheet>
  );
}
