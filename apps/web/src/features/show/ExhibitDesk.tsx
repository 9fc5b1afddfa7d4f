'use client';
import { type Brief, type HandoffsBrief, type Picture } from '@clembo/scene/brief';
import { MessageSquarePlus } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { AboutThis } from '@/ui/comments/AboutThis';
import { Frame, type FramePlan } from '@/ui/Frame';
import { useKeys } from '@/ui/keys';
import type { Found } from '@/ui/SearchAndAct';
import { wrong } from '@/ui/Toasts';
import { UndoRedo } from '@/ui/UndoRedo';
import { useMay } from '@/ui/useMay';
import type { Facts } from '@/workers/answers/facts';
import type { ComposedPage } from '@/workers/composing';
import { usePlanRoom } from '@/workers/planRoom';
import { usePlanSearch } from '@/ui/plan/usePlanSearch';
import { BalancePanel } from './line/BalancePanel';
import { LineControls } from './line/LineControls';
import { LinePanel } from './line/LinePanel';
import { useLineMoves } from './line/useLineMoves';
import { BriefLine } from './BriefLine';
import { ExportMenu, exportExhibit, FORMATS } from './ExportMenu';
import { FitStrip } from './FitStrip';
import { ByHand } from './hand/ByHand';
import { type Chosen, thing } from './hand/chosen';
import { StepsPanel } from './handoffs/StepsPanel';
import { HandMargin } from './hand/HandMargin';
import type { Anchor } from '@clembo/scene/brief';
import { PagePins } from './hand/PagePins';
import { PutOn, TOOLS } from './hand/PutOn';
import { type Looks, newNote, useHand } from './hand/useHand';
import type { HandActions, Tool } from './hand/usePageHands';
import { PageView } from './PageView';
import { pictureOf } from '@/ui/pictureOf';
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
  const may = useMay(plan.id);
  const { brief, change, undo, redo, canUndo, canRedo, unsaved, saved, alone } = useBrief(
    exhibit.id,
    exhibit.brief,
    exhibit.version,
    may.edit,
  );
  const [page, setPage] = useState<ComposedPage | null>(null);
  const [sheet, setSheet] = useState(1);
  const [chosen, setChosen] = useState<Chosen>(null);
  const [tool, setTool] = useState<Tool | null>(null);
  /** Where something is about to be said. */
  const [placing, setPlacing] = useState<Anchor | null>(null);
  const placed = useCallback(() => setPlacing(null), []);
  const [picture, setPicture] = useState<Picture | null>(null);
  const [copied, setCopied] = useState<Looks | null>(null);
  const [facts, setFacts] = useState<Facts | null>(null);
  const one = chosen?.kind === 'things' && chosen.refs.length === 1 ? chosen.refs[0]! : null;
  const hand = useHand(brief, page, change);
  /** A line whose works can be balanced, and the page as it would then be. */
  const line = brief.kind === 'linear' ? brief : null;
  const [balancing, setBalancing] = useState(false);
  const [proposed, setProposed] = useState<ComposedPage | null>(null);
  const endBalance = useCallback(() => {
    setBalancing(false);
    setProposed(null);
  }, []);
  const moves = useLineMoves(line ? open : null, (proposed ?? page)?.plane ?? null);
  const endMove = useCallback(() => {
    moves.setProposed(null);
    setProposed(null);
  }, [moves.setProposed]);
  /** A process that is typed here. */
  const typed = brief.kind === 'handoffs' && brief.of === 'typed' ? brief : null;
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
    if (one === null || typed) setFacts(null);
    else open?.room.facts(one).then((f) => current && setFacts(f), wrong);
    return () => {
      current = false;
    };
  }, [open, one, typed]);

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
    Escape: () => (tool ? setTool(null) : moves.proposed ? endMove() : setChosen(null)),
    ...(hand && chosen?.kind === 'note'
      ? {
          Delete: () => {
            hand.removeNote(chosen.id);
            setChosen(null);
          },
          ArrowLeft: () => hand.moveNote(chosen.id, -0.5, 0),
          ArrowRight: () => hand.moveNote(chosen.id, 0.5, 0),
          ArrowUp: () => hand.moveNote(chosen.id, 0, -0.5),
          ArrowDown: () => hand.moveNote(chosen.id, 0, 0.5),
        }
      : {}),
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
      ...(hand
        ? TOOLS.filter(([own]) => (own === 'comment' ? may.comment : own !== 'picture' && may.edit)).map(
            ([own, title, how]): Found => ({
              id: `put ${own}`,
              group: 'Actions',
              label: `Put ${title.toLowerCase()} onto the page`,
              hint: how,
              run: () => setTool(own),
            }),
          )
        : []),
      ...(page?.handles?.lanes ?? []).map(
        (l): Found => ({
          id: `lane ${l.codes.join('/')}`,
          group: 'Lanes',
          label: l.title,
          run: () => setChosen({ kind: 'lane', codes: l.codes }),
        }),
      ),
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
    [exhibit.id, siblings, plan.id, router, saved, undo, redo, editBrief, wide, page, sheet, hand, may],
  );
  const search = usePlanSearch(plan.id, open, actions);

  const names = useMemo(() => {
    const { rows = [], named = 0 } = page?.content ?? {};
    const cards = page?.cards?.cards ?? [];
    return new Map([
      ...cards.map((c): [string | null, string] => [c.ref, c.name]),
      ...rows.map((r): [string | null, string] => [r.ref, r.cells[named] ?? '']),
    ]);
  }, [page]);
  const nameOf = useCallback((ref: string) => names.get(ref) || ref, [names]);
  const allPages = async (): Promise<ComposedPage[]> => {
    if (!open || !page) return [];
    const numbers = Array.from({ length: page.sheet.of }, (_, k) => k + 1);
    return Promise.all(numbers.map((n) => open.room.compose(brief, n)));
  };
  const handActions: HandActions = {
    onChoose: setChosen,
    onLabel: (ref, at) => hand?.look([ref], { at, side: undefined }),
    onNote: (id, dx, dy) => hand?.moveNote(id, dx, dy),
    onLane: (code, slot) => hand?.moveLane(code, slot),
    onCard: (place) => {
      hand?.place(place);
      setChosen(thing(place.ref));
    },
    onPlace: (own, from, to) => {
      setTool(null);
      if (own === 'comment') return setPlacing(from);
      const note = hand && newNote(own, from, to, hand.marks, picture);
      if (!note) return;
      hand.addNote(note);
      setChosen({ kind: 'note', id: note.id });
    },
  };

  return (
    <Frame
      stage="Show"
      plan={plan}
      search={search}
      controls={
        <>
          {hand && may.edit && (
            <PutOn
              tool={tool}
              onTool={setTool}
              onFile={(file) =>
                void pictureOf(file).then((own) => {
                  setPicture(own);
                  setTool('picture');
                }, wrong)
              }
            />
          )}
          {hand && !may.edit && may.comment && (
            <button type="button" className="quiet" onClick={() => setTool('comment')}>
              <MessageSquarePlus size={15} aria-hidden /> Comment
            </button>
          )}
          <UndoRedo canUndo={canUndo} canRedo={canRedo} onUndo={undo} onRedo={redo} />
          <ExportMenu
            planId={plan.id}
            exhibitId={exhibit.id}
            saved={saved}
            sheet={page?.sheet.number ?? 1}
            page={page}
            brief={brief}
            name={exhibit.name}
            allPages={allPages}
          />
        </>
      }
    >
      <div className="flex h-full flex-col">
        {open ? (
          <BriefLine
            brief={brief}
            open={open}
            onChange={change}
            name={exhibit.name}
            onBalance={() => {
              endMove();
              if (balancing) endBalance();
              else setBalancing(true);
            }}
          />
        ) : (
          <div className="h-[68px]" />
        )}
        <div className="flex min-h-0 flex-1">
          <div className="min-h-0 min-w-0 flex-1 px-6 pb-3">
            {error ? (
              <p role="alert" className="p-8 text-madder">
                {error}
              </p>
            ) : page ? (
              <PageView
                page={proposed ?? page}
                chosen={chosen}
                tool={tool}
                actions={handActions}
                onRetitle={(title) => change({ title })}
                automatic={brief.title === null}
                wide={wide}
                over={
                  hand && (
                    <PagePins planId={plan.id} exhibitId={exhibit.id} page={page} placing={placing} onPlaced={placed} />
                  )
                }
                was={moves.proposed?.was ?? null}
                line={line && !balancing && !moves.proposed ? moves : null}
              />
            ) : (
              <p role="status" className="p-8 text-soft">
                Composing the page …
              </p>
            )}
          </div>
          {line && balancing && open && (
            <BalancePanel
              planId={plan.id}
              brief={line}
              open={open}
              onPage={setProposed}
              onKeep={(keep) => change({ keep } as Partial<Brief>)}
              onClose={endBalance}
            />
          )}
          {line && moves.proposed && open && (
            <LinePanel
              planId={plan.id}
              brief={line}
              open={open}
              proposed={moves.proposed}
              onPage={setProposed}
              onClose={endMove}
            />
          )}
          {typed && (
            <StepsPanel
              brief={typed}
              open={open}
              chosen={one}
              onChange={change as (part: Partial<HandoffsBrief>) => void}
              onChoose={(id) => setChosen(thing(id))}
            />
          )}
          {!moves.proposed && (
            <HandMargin
              planId={plan.id}
              page={page}
              hand={hand}
              chosen={chosen}
              facts={typed ? null : facts}
              nameOf={nameOf}
              copied={copied}
              onCopy={setCopied}
              onChoose={setChosen}
            >
              {line && one && open && <LineControls open={open} chosen={one} onAsk={moves.setProposed} />}
              {one && !typed && facts?.kind !== 'sum' && (
                <AboutThis planId={plan.id} anchor={{ ref: one, exhibitId: exhibit.id }} />
              )}
            </HandMargin>
          )}
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
            alone={alone}
            mayEdit={may.edit}
            exhibitId={exhibit.id}
            sheet={page.sheet}
            onSheet={setSheet}
            wide={wide}
            onWide={setWide}
            onMend={change}
            onChoose={(ref) => setChosen(thing(ref))}
          >
            {hand && (
              <ByHand hand={hand} handles={page.handles} cards={page.cards} nameOf={nameOf} onChoose={setChosen} />
            )}
          </FitStrip>
        )}
      </div>
    </Frame>
  );
}
