'use client';
import { Search } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ReactNode, useCallback, useState } from 'react';
import { Account } from './Account';
import { MayHere } from './MayHere';
import { ask } from './ask';
import { PlanComments } from './comments/PlanComments';
import { useKeys } from './keys';
import { type Found, SearchAndAct } from './SearchAndAct';
import { type FoundScreen, screensMeant } from './screens';
import { STAGES, type StageName, stagePath } from './stages';

/** The plan that the bar speaks of. */
export interface FramePlan {
  id: string;
  name: string;
  edition: string;
  status: string | null;
}

interface Props {
  /** Null where it is about people and the workspace, not about a plan. */
  stage: StageName | null;
  plan: FramePlan | null;
  /** Controls of the page at the right end of the bar. */
  controls?: ReactNode;
  /** What searching finds beside the stages. */
  search?: (text: string) => Promise<Found[]>;
  children: ReactNode;
}

/** Edition and status date; an edition that is named by the date says it already. */
const about = ({ edition, status }: FramePlan): string =>
  status === null || edition.includes(status) ? edition : `${edition} · status ${status}`;

/** The one slim bar over everything; the rest of the screen belongs to the work. */
export function Frame({ stage, plan, controls, search, children }: Props) {
  const router = useRouter();
  const [searching, setSearching] = useState(false);
  const planId = plan?.id ?? null;
  const go = (k: number) => () => {
    const path = stagePath(STAGES[k]!, planId);
    if (path) router.push(path);
  };
  const openSearch = () => setSearching(true);
  useKeys({
    '1': go(0),
    '2': go(1),
    '3': go(2),
    '4': go(3),
    '5': go(4),
    '/': openSearch,
    'mod+k': openSearch,
    '?': () => router.push('/keys'),
  });
  const keyHelp: Found = { id: 'keys', group: 'Go to', label: 'Keys', hint: '?', run: () => router.push('/keys') };
  const plans: Found = { id: 'plans', group: 'Go to', label: 'All plans', run: () => router.push('/') };
  const stages: Found[] = STAGES.flatMap((s, k) => {
    const path = stagePath(s, planId);
    return path
      ? [{ id: `stage ${s.name}`, group: 'Go to', label: s.name, hint: String(k + 1), run: () => router.push(path) }]
      : [];
  });
  const searchAll = useCallback(
    async (text: string): Promise<Found[]> => {
      const [own, plans] = await Promise.all([
        search?.(text) ?? [],
        text.trim() === ''
          ? []
          : ask<{ id: string; name: string; changed: string }[]>(`/api/plans?find=${encodeURIComponent(text.trim())}`),
      ]);
      // Screens by their titles come first, screens by their subjects behind everything that is called so.
      const { titled, about } = screensMeant(planId === null ? '' : text);
      const screen = ({ stage: own, path, title, also }: FoundScreen): Found => ({
        id: `screen ${path}`,
        group: 'Go to',
        label: title,
        hint: own,
        also,
        run: () => router.push(`/plans/${planId}/${path}`),
      });
      return [
        ...titled.map(screen),
        ...own,
        ...about.map(screen),
        ...plans.map(
          ({ id, name, changed }): Found => ({
            id: `plan ${id}`,
            group: 'Plans',
            label: name,
            hint: changed,
            run: () => router.push(`/plans/${id}/show`),
          }),
        ),
      ];
    },
    [search, router, planId],
  );
  return (
    <div className="flex h-full min-w-[900px] flex-col">
      <header className="flex h-[46px] shrink-0 items-center border-b border-line bg-paper px-4">
        <div className="flex min-w-0 flex-1 items-baseline gap-3 pr-4">
          {plan ? (
            <>
              <Link href="/" className="shrink-0 font-serif text-[17px] font-semibold" title="All plans">
                Clembo
              </Link>
              <span className="max-w-48 shrink-0 truncate font-semibold" title={plan.name}>
                {plan.name}
              </span>
              <span className="truncate text-[14px] text-soft" title={about(plan)}>
                {about(plan)}
              </span>
              <MayHere planId={plan.id} />
            </>
          ) : (
            <Link href="/" className="font-serif text-[17px] font-semibold" title="All plans">
              Clembo
            </Link>
          )}
        </div>
        <nav aria-label="Stages" className="flex items-center gap-1">
          {STAGES.map((s, k) => (
            <StageStep
              key={s.name}
              number={k + 1}
              name={s.name}
              path={stagePath(s, planId)}
              later={s.later ?? (plan ? null : 'Open a plan first.')}
              current={s.name === stage}
            />
          ))}
        </nav>
        <div className="flex min-w-max flex-1 items-center justify-end gap-2">
          <button
            type="button"
            className="quiet border-transparent px-2 text-soft"
            onClick={openSearch}
            aria-label="Search and act"
            title="Search and act (/ or Ctrl K)"
          >
            <Search size={16} aria-hidden /> <kbd className="font-sans">/</kbd>
          </button>
          {plan && <PlanComments planId={plan.id} />}
          {controls}
          <Account />
        </div>
      </header>
      <main className="min-h-0 flex-1">{children}</main>
      {searching && (
        <SearchAndAct
          always={plan ? [plans, ...stages, keyHelp] : [...stages, keyHelp]}
          search={searchAll}
          onClose={() => setSearching(false)}
        />
      )}
    </div>
  );
}

function StageStep({
  number,
  name,
  path,
  later,
  current,
}: {
  number: number;
  name: string;
  path: string | null;
  later: string | null;
  current: boolean;
}) {
  const inside = (
    <>
      <span
        className={`flex size-5 items-center justify-center rounded-full border text-[12px] ${current ? 'border-paper/60' : 'border-line'}`}
      >
        {number}
      </span>
      {name}
    </>
  );
  const shape = 'flex items-center gap-2 rounded-full px-3 py-1';
  if (current) {
    const look = `${shape} bg-ink font-semibold text-paper`;
    return path ? (
      <Link href={path} aria-current="step" className={look} title={`${name}: its first page`}>
        {inside}
      </Link>
    ) : (
      <span aria-current="step" className={look}>
        {inside}
      </span>
    );
  }
  if (path) {
    return (
      <Link href={path} className={`${shape} hover:bg-wash`}>
        {inside}
      </Link>
    );
  }
  return (
    // biome-ignore lint: the note has to be reachable by keyboard
    <span className={`${shape} group relative cursor-default text-soft`} tabIndex={0} aria-label={`${name}. ${later}`}>
      {inside}
      <span
        role="tooltip"
        className="pointer-events-none absolute top-9 left-1/2 z-40 hidden w-60 -translate-x-1/2 rounded-lg bg-ink px-3 py-2 text-[14px] leading-snug text-paper shadow-lg group-hover:block group-focus:block"
      >
        {later}
      </span>
    </span>
  );
}
