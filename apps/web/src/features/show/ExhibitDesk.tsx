'use client';
import type { Brief } from '@clembo/scene/brief';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Frame, type FramePlan } from '@/ui/Frame';
import { useKeys } from '@/ui/keys';
import type { Found } from '@/ui/SearchAndAct';
import { wrong } from '@/ui/Toasts';
import { UndoRedo } from '@/ui/UndoRedo';
import type { ComposedPage, Facts } from '@/workers/plan.worker';
import { usePlanRoom } from '@/workers/planRoom';
import { usePlanSearch } from '../planSearch';
import { BriefLine } from './BriefLine';
import { ExportMenu, exportExhibit, FORMATS } from './ExportMenu';
import { FitStrip } from './FitStrip';
import { Margin } from './Margin';
import { PageView } from './PageView';
import { useBrief } from './useBrief';

interface Props {
  plan: FramePlan;
  version: number;
  exhibit: { id: string; name: string; brief: Brief; version: number };
  siblings: { id: string; name: string }[];
}

/** One exhibit: the brief above, the page in its true proportions, the margin when something is chosen. */
export function ExhibitDesk({ plan, version, exhibit, siblings }: Props) {
  const router = useRouter();
  const { open, error } = usePlanRoom(plan.id, version);
  const { brief, change, undo, redo, canUndo, canRedo, unsaved, saved } = useBrief(
    exhibit.id,
    exhibit.brief,
    exhibit.version,
  );
  const [page, setPage] = useState<ComposedPage | null>(null);
  const [sheet, setSheet] = useState(1);
  const [chosen, setChosen] = useState<string | null>(null);
  const [facts, setFacts] = useState<Facts | null>(null);
  const [wide, setWide] = useState(false);

  useEffect(() => {
    let current = true;
    open?.room.compose(brief, sheet).then((p) => current && setPage(p), wrong);
    return () => {
      current = false;
    };
  }, [open, brief, sheet]);

  useEffect(() => {
    let current = true;
    if (chosen === null) setFacts(null);
    else open?.room.facts(chosen).then((f) => current && setFacts(f), wrong);
    return () => {
      current = false;
    };
  }, [open, chosen]);

  const step = (by: number) => () => {
    const at = siblings.findIndex((s) => s.id === exhibit.id);
    const next = siblings[(at + by + siblings.length) % siblings.length];
    if (next && next.id !== exhibit.id) router.push(`/plans/${plan.id}/show/${next.id}`);
  };
  const editBrief = useCallback(() => document.querySelector<HTMLElement>('[data-brief-part]')?.focus(), []);
  useKeys({
    'mod+z': undo,
    'mod+shift+z': redo,
    'mod+y': redo,
    '[': step(-1),
    ']': step(1),
    e: editBrief,
    w: () => setWide((v) => !v),
    t: () => document.querySelector<HTMLElement>('[data-testid="type-brief"]')?.click(),
    b: () => document.querySelector<HTMLElement>('[data-testid="blind"]')?.click(),
    Escape: () => setChosen(null),
  });

  const actions = useMemo(
    (): Found[] => [
      ...FORMATS.map(
        ([format, title]): Found => ({
          id: `export ${format}`,
          group: 'Actions',
          label: `Export as ${title}`,
          run: () => void exportExhibit(exhibit.id, format, saved, sheet),
        }),
      ),
      { id: 'undo', group: 'Actions', label: 'Undo', hint: 'Ctrl Z', run: undo },
      { id: 'redo', group: 'Actions', label: 'Redo', hint: 'Ctrl ⇧ Z', run: redo },
      {
        id: 'wide',
        group: 'Actions',
        label: wide ? 'See the whole page' : 'See the page at full width',
        hint: 'w',
        run: () => setWide((v) => !v),
      },
      ...(page?.blind
        ? [
            {
              id: 'blind',
              group: 'Actions',
              label: 'See what the page hides',
              hint: 'b',
              run: () => setTimeout(() => document.querySelector<HTMLElement>('[data-testid="blind"]')?.click(), 50),
            } satisfies Found,
          ]
        : []),
      {
        id: 'type',
        group: 'Actions',
        label: 'Type the sentence of the brief',
        hint: 't',
        run: () => setTimeout(() => document.querySelector<HTMLElement>('[data-testid="type-brief"]')?.click(), 50),
      },
      { id: 'edit', group: 'Actions', label: 'Edit the brief', hint: 'e', run: () => setTimeout(editBrief, 50) },
      ...siblings.map(
        (s): Found => ({
          id: `exhibit ${s.id}`,
          group: 'Exhibits',
          label: s.name,
          run: () => router.push(`/plans/${plan.id}/show/${s.id}`),
        }),
      ),
    ],
    [exhibit.id, siblings, plan.id, router, saved, undo, redo, editBrief, wide, page?.blind, sheet],
  );
  const search = usePlanSearch(plan.id, open, actions);

  return (
    <Frame
      stage="Show"
      plan={plan}
      search={search}
      controls={
        <>
          <UndoRedo canUndo={canUndo} canRedo={canRedo} onUndo={undo} onRedo={redo} />
          <ExportMenu exhibitId={exhibit.id} saved={saved} sheet={page?.sheet.number ?? 1} />
        </>
      }
    >
      <div className="flex h-full flex-col">
        {open ? <BriefLine brief={brief} open={open} onChange={change} /> : <div className="h-[68px]" />}
        <div className="flex min-h-0 flex-1">
          <div className="min-h-0 min-w-0 flex-1 px-6 pb-3">
            {error ? (
              <p role="alert" className="p-8 text-madder">
                {error}
              </p>
            ) : page ? (
              <PageView
                page={page}
                chosen={chosen}
                onChoose={setChosen}
                onRetitle={(title) => change({ title })}
                automatic={brief.title === null}
                wide={wide}
              />
            ) : (
              <p role="status" className="p-8 text-soft">
                Composing the page …
              </p>
            )}
          </div>
          {facts && <Margin facts={facts} planId={plan.id} onChoose={setChosen} onClose={() => setChosen(null)} />}
        </div>
        {page && (
          <FitStrip
            open={open}
            brief={brief}
            fit={page.fit}
            blind={page.blind}
            saysBlind={'blind' in brief && brief.blind}
            undated={page.undated}
            name={exhibit.name}
            version={exhibit.version}
            unsaved={unsaved}
            exhibitId={exhibit.id}
            sheet={page.sheet}
            onSheet={setSheet}
            wide={wide}
            onWide={setWide}
            onMend={change}
            onChoose={setChosen}
          />
        )}
      </div>
    </Frame>
  );
}
