'use client';
import type { PlanFacts } from '@clembo/scene/folio';
import { PageThumb } from './PageThumb';
import type { ShownPage } from './useRooms';

/** All pages of a folio small, each leading to itself, and how its plans stand. */
export function Overview({
  name,
  pages,
  facts,
  onGo,
}: {
  name: string;
  pages: readonly ShownPage[];
  facts: readonly PlanFacts[];
  onGo: (page: string) => void;
}) {
  const columns = Math.max(1, Math.ceil(Math.sqrt(pages.length)));
  return (
    <div className="flex h-full w-full flex-col px-[4vw] py-[3.5vh]" data-testid="overview">
      <h1 className="font-serif text-[3.4vh] leading-tight font-semibold">{name}</h1>
      {facts.map((p) => (
        <p key={p.plan} className="mt-[1vh] flex flex-wrap gap-x-[2.2vw] text-[1.9vh]">
          <b className="w-[16vw] truncate">{p.plan}</b>
          {p.facts.map((f) => (
            <span key={f.name} className="text-soft">
              {f.name} <b className={f.late ? 'text-madder' : 'text-ink'}>{f.value}</b>
            </span>
          ))}
        </p>
      ))}
      <div
        className="mt-[2.5vh] grid min-h-0 flex-1 gap-[2vh]"
        style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`, gridAutoRows: 'minmax(0, 1fr)' }}
      >
        {pages.map((p, k) => (
          <button
            key={p.page.id}
            type="button"
            className="flex min-h-0 min-w-0 flex-col items-start text-left"
            onClick={() => onGo(p.page.id)}
          >
            <span className="flex min-h-0 w-full flex-1 items-start">
              <PageThumb page={p.composed?.[0] ?? null} className="pointer-events-none max-h-full max-w-full" />
            </span>
            <span className="mt-[0.6vh] w-full truncate text-[1.8vh] text-soft">
              {k + 1} {p.name}
            </span>
          </button>
        ))}
      </div>
    </div>
  );
}
