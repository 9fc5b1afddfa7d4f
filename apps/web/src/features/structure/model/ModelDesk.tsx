'use client';
import type { BuildView, Condition, Effect, Look } from '@clembo/core';
import { dayOf, startOfDay } from '@clembo/core/time';
import { defaultBrief, PROMISED } from '@clembo/scene/brief';
import { formatDay } from '@clembo/scene/dates';
import {
  DndContext,
  type DragEndEvent,
  DragOverlay,
  type DragStartEvent,
  PointerSensor,
  pointerWithin,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useRouter } from 'next/navigation';
import { type ReactNode, useCallback, useEffect, useMemo, useState } from 'react';
import { PlanFrame } from '@/ui/plan/PlanFrame';
import { ask } from '@/ui/ask';
import type { FramePlan } from '@/ui/Frame';
import { toast, wrong } from '@/ui/Toasts';
import type { ModelBook } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';
import { StructureTabs } from '../StructureTabs';
import { ChosenPanel } from './ChosenPanel';
import { ElementList } from './ElementList';
import { ModelLine } from './ModelLine';
import { ModelsSheet, TakeModel, takeModelIn } from './ModelsSheet';
import { type Hover, Pictures } from './Pictures';
import { RulesSheet } from './RulesSheet';
import { saveFile, TakeOut } from './TakeOut';
import { TimeBar } from './TimeBar';
import { KindTray, WorkTray } from './Trays';
import { useMatching } from './useMatching';
import {
  type Asked,
  EVERYTHING,
  FIRST_LOOK,
  type Mode,
  useBounds,
  useModelBook,
  useStanding,
  useStoreys,
  withChosen,
} from './useModel';
import { ViewTools } from './ViewTools';

/** The model between the two hands of its matching: work at the left, elements at the right, time below. */
export function ModelDesk({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <PlanFrame stage="Structure" plan={plan} version={version}>
      {(open) => <Desk planId={plan.id} open={open} />}
    </PlanFrame>
  );
}

function Desk({ planId, open }: { planId: string; open: OpenRoom }) {
  const { book, error, again } = useModelBook(open);
  const [busy, setBusy] = useState(false);
  if (error)
    return (
      <p role="alert" className="p-8 text-madder">
        {error}
      </p>
    );
  if (!book)
    return (
      <p role="status" className="p-8 text-soft">
        Opening the model …
      </p>
    );
  if (book.elements.length === 0)
    return (
      <div className="mx-auto max-w-[1240px] px-8 pt-6">
        <StructureTabs planId={planId} current="Model" />
        <div className="mt-10 max-w-xl">
          <p className="text-soft">
            This plan has no model yet. With one, its elements are matched to the activities, and the plan is seen as it
            stands on any date. IFC (2x3, 4, 4x3), glTF and GLB are read; who has no model takes in a table of blocks
            with the columns name, x, y, z, width, depth and height in metres.
          </p>
          <div className="mt-5">
            <TakeModel
              title={busy ? 'Reading …' : 'Take in a model'}
              onFile={(file) => {
                setBusy(true);
                void takeModelIn(planId, file, null).finally(() => {
                  setBusy(false);
                  again();
                });
              }}
            />
          </div>
        </div>
      </div>
    );
  return <Matching planId={planId} open={open} book={book} onAgain={again} />;
}

interface Props {
  planId: string;
  open: OpenRoom;
  book: ModelBook;
  onAgain: () => void;
}

const NOBODY: ReadonlySet<number> = new Set();

function Matching({ planId, open, book, onAgain }: Props) {
  const router = useRouter();
  const { head } = open;
  const status = head.statusDate === null ? null : dayOf(head.statusDate);
  const [asked, setAsked] = useState<Omit<Asked, 'day'> & { day: number | null }>({
    day: status,
    where: EVERYTHING,
    colour: head.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 8)?.id ?? null,
    compare: head.editions.length > 0 ? PROMISED : null,
    beside: false,
  });
  const askFor = (change: Partial<typeof asked>) => setAsked((was) => ({ ...was, ...change }));
  const [all, setAll] = useState({ works: false, kinds: false });
  const [look, setLook] = useState<Look>(FIRST_LOOK);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(NOBODY);
  const [work, setWork] = useState<string | null>(null);
  const [lit, setLit] = useState<ReadonlySet<number>>(NOBODY);
  const [modes, setModes] = useState<ReadonlyMap<number, Mode>>(new Map());
  const [framing, setFraming] = useState(false);
  const [asList, setAsList] = useState(false);
  const [sheet, setSheet] = useState<'models' | 'rules' | null>(null);
  const [hover, setHover] = useState<Hover | null>(null);
  const [carried, setCarried] = useState<string | null>(null);
  const shownDay = asked.day ?? status ?? 0;
  const shown: Asked = { ...asked, day: shownDay };
  const { standing, matching } = useStanding(open, book, shown, all);
  const storeys = useStoreys(book);
  const bounds = useBounds(book, storeys, look.lift);
  const days = matching?.curve?.bounds;
  useEffect(() => {
    // Without a status date the model is looked at in the middle of what is built.
    if (asked.day === null && status === null && days) setAsked((was) => ({ ...was, day: days[days.length >> 1]! }));
  }, [asked.day, status, days]);

  const looks = useMemo(
    () => (standing ? withChosen(standing.looks, standing.meant, chosen, lit, modes) : null),
    [standing, chosen, lit, modes],
  );
  const promised = useMemo(
    () => (standing?.promisedLooks ? withChosen(standing.promisedLooks, standing.meant, chosen, lit, modes) : null),
    [standing, chosen, lit, modes],
  );

  const choose = useCallback((elements: readonly number[], more: boolean) => {
    setChosen((was) => {
      if (!more) return new Set(elements);
      const next = new Set(was);
      const has = elements.every((e) => next.has(e));
      for (const e of elements)
        if (has) next.delete(e);
        else next.add(e);
      return next;
    });
  }, []);
  const chooseWhere = async (condition: Condition) => choose(await open.room.elementsWhere(condition), false);
  const light = useCallback(
    (ref: string | null) => {
      if (ref === null) setLit(NOBODY);
      else open.room.elementsOfWork(ref).then((list) => setLit(new Set(list)), wrong);
    },
    [open.room],
  );
  const workName = (ref: string): string => matching?.works.find((w) => w.ref === ref)?.name ?? ref;
  const acts = useMatching(planId, open, book, workName);
  const match = async (ref: string, elements: readonly number[], effect: Effect) => {
    if (await acts.match(ref, elements, effect)) setWork(null);
  };

  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const onDragStart = ({ active }: DragStartEvent) =>
    setCarried((active.data.current?.title as string | undefined) ?? '');
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    setCarried(null);
    const from = active.data.current as { work?: string; elements?: number[] } | undefined;
    const to = over?.data.current as { work?: string; elements?: number[]; model?: boolean } | undefined;
    if (!from || !to) return;
    if (from.elements && to.work) void match(to.work, from.elements, 'builds');
    else if (from.work && to.elements) void match(from.work, to.elements, 'builds');
    else if (from.work && to.model) {
      const at = hover?.element ?? -1;
      const own = chosen.size > 0 ? [...chosen] : at >= 0 ? [at] : [];
      if (own.length > 0) void match(from.work, own, 'builds');
      else toast('Choose elements first, or drop the activity onto one.');
    }
  };

  const makeExhibit = async () => {
    try {
      const brief = {
        ...defaultBrief('build'),
        ...look,
        where: asked.where,
        colour: asked.colour,
        compare: asked.compare,
        page: 'A3 landscape' as const,
        ...(shownDay === status
          ? {}
          : {
              when: 'own' as const,
              dates: [{ name: formatDay(shownDay, 'long'), start: startOfDay(shownDay), finish: null }],
            }),
      };
      const name = `The model on ${formatDay(shownDay, 'long')}`;
      const { id } = await ask<{ id: string }>(`/api/plans/${planId}/exhibits`, {
        method: 'POST',
        json: { name, brief },
      });
      router.push(`/plans/${planId}/show/${id}`);
    } catch (e) {
      wrong(e);
    }
  };
  const offer = matching?.offers[0];
  const conflict = matching?.conflicts[0];
  const pointed = hover && hover.element >= 0 ? book.elements[hover.element] : null;
  const views = head.buildViews;
  const heights: [number, number] = bounds ? [bounds.least[2], bounds.greatest[2]] : [0, 1];

  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={onDragStart}
      onDragEnd={onDragEnd}
      onDragCancel={() => setCarried(null)}
    >
      <div className="flex h-full flex-col px-6 pt-3">
        <div className="flex items-baseline gap-6">
          <StructureTabs planId={planId} current="Model" />
          <span className="ml-auto flex gap-2 text-[14px]">
            <button type="button" className="quiet py-0.5!" aria-pressed={asList} onClick={() => setAsList((v) => !v)}>
              {asList ? 'See the model' : 'See the list'}
            </button>
            <button type="button" className="quiet py-0.5!" onClick={() => setSheet('rules')}>
              Match rules{head.matchRules.length > 0 ? ` (${head.matchRules.length})` : ''}
            </button>
            <TakeOut
              onTake={(kind) =>
                void open.room
                  .modelFile(
                    kind,
                    { day: shownDay, where: asked.where, colour: asked.colour, promised: false },
                    asked.compare,
                    Date.now(),
                  )
                  .then(saveFile, wrong)
              }
            />
            <button type="button" className="quiet py-0.5!" onClick={() => setSheet('models')}>
              Models ({book.models.filter((m) => m.taken).length})
            </button>
          </span>
        </div>
        <ModelLine open={open} book={book} asked={shown} status={status} onAsk={askFor} />
        <div className="mt-2 grid min-h-0 flex-1 grid-cols-[228px_minmax(0,1fr)_236px] gap-4">
          {matching ? (
            <WorkTray
              matching={matching}
              all={all.works}
              onAll={(works) => setAll((a) => ({ ...a, works }))}
              chosen={work}
              onChoose={setWork}
              onPoint={light}
            />
          ) : (
            <div />
          )}
          <div className="flex min-h-0 min-w-0 flex-col">
            {conflict && (
              <Note tone="late">
                {conflict.words}
                {matching!.conflicts.length > 1 && ` · ${matching!.conflicts.length - 1} more such`}
                <button
                  type="button"
                  className="font-semibold text-kelp hover:underline"
                  onClick={() => choose(conflict.elements, false)}
                >
                  Choose {conflict.elements.length === 1 ? 'it' : 'them'}
                </button>
              </Note>
            )}
            {offer && !conflict && (
              <Note>
                {offer.words}
                <button
                  type="button"
                  className="shrink-0 font-semibold text-kelp hover:underline disabled:opacity-50"
                  disabled={acts.busy}
                  onClick={() =>
                    acts.run([{ id: 'offer', ...offer.rule }], 'Pair elements with work by the same value')
                  }
                >
                  Pair {offer.elements}
                </button>
              </Note>
            )}
            {!asList && (
              <div className="mt-1.5">
                <ViewTools
                  look={look}
                  onLook={setLook}
                  heights={heights}
                  framing={framing}
                  onFraming={setFraming}
                  aside={modes.size}
                  onShowAll={() => setModes(new Map())}
                  views={views}
                  onView={(v) => {
                    setLook(v.look);
                    askFor({ where: v.where, day: v.day ?? status });
                  }}
                  onKeep={(name) => {
                    const view: BuildView = {
                      id: `view ${views.reduce((n, v) => Math.max(n, Number(/\d+$/.exec(v.id)?.[0] ?? 0)), 0) + 1}`,
                      name,
                      look,
                      where: asked.where,
                      day: shownDay === status ? null : shownDay,
                    };
                    void acts.put({ buildViews: [...views, view] }, `Keep the view ${name}`);
                  }}
                  onDrop={(v) =>
                    void acts.put({ buildViews: views.filter((x) => x.id !== v.id) }, `Let go of the view ${v.name}`)
                  }
                />
              </div>
            )}
            <Dropping>
              {asList ? (
                <ElementList
                  open={open}
                  fields={book.fields}
                  where={asked.where}
                  chosen={chosen}
                  onChoose={choose}
                  onAll={(w) => void chooseWhere(w)}
                  onFill={acts.codeByField}
                  onPaste={acts.codeByPaste}
                />
              ) : bounds && looks ? (
                <Pictures
                  body={book.body}
                  bounds={bounds}
                  storeys={storeys}
                  looks={looks}
                  promised={promised}
                  words={standing?.words ?? 'The model'}
                  look={look}
                  framing={framing}
                  pointed={pointed && hover && !carried ? { ...hover, element: pointed } : null}
                  onLook={setLook}
                  onChoose={choose}
                  onHover={setHover}
                />
              ) : (
                <p className="p-6 text-soft" role="status">
                  {bounds ? 'Drawing the model …' : 'No element of this model has a body; see the list.'}
                </p>
              )}
            </Dropping>
          </div>
          {chosen.size > 0 ? (
            <ChosenPanel
              open={open}
              chosen={chosen}
              work={work === null ? null : { ref: work, name: workName(work) }}
              onClose={() => setChosen(NOBODY)}
              onMatch={(effect) => work !== null && void match(work, [...chosen], effect)}
              onUnmatch={(ref, effect) => void acts.unmatch(ref, [...chosen], effect)}
              onWhere={(where) => askFor({ where })}
              onChoose={(w) => void chooseWhere(w)}
              onMode={(mode, others) => {
                const next = new Map(modes);
                book.elements.forEach((_, e) => {
                  if (chosen.has(e) !== others) next.set(e, mode);
                });
                setModes(next);
                if (!others) setChosen(NOBODY);
              }}
              onCode={(field, code) => acts.code(field, code, [...chosen])}
            />
          ) : matching ? (
            <KindTray
              matching={matching}
              all={all.kinds}
              onAll={(kinds) => setAll((a) => ({ ...a, kinds }))}
              chosen={chosen}
              onChoose={choose}
            />
          ) : (
            <div />
          )}
        </div>
        <div className="mt-2">
          {matching?.curve ? (
            <TimeBar curve={matching.curve} day={shownDay} status={status} onDay={(day) => askFor({ day })} />
          ) : (
            <p className="rounded-md border border-line bg-paper px-3 py-3 text-soft">
              Nothing is matched yet. Carry an activity to elements, or elements to an activity; then time runs here.
            </p>
          )}
        </div>
        <div className="mt-2 flex items-center gap-4 border-t border-line bg-paper px-4 py-2 -mx-6">
          <p className="min-w-0 flex-1 truncate" data-testid="model-says" role="status">
            {standing?.words}{' '}
            {matching &&
              `${matching.elements - matching.loose} of ${matching.elements} matched, ${matching.of - matching.idle} of ${matching.of} activities.`}
          </p>
          <button type="button" className="action py-1!" onClick={() => void makeExhibit()}>
            Make exhibit
          </button>
        </div>
      </div>
      <DragOverlay dropAnimation={null}>
        {carried !== null && (
          <div className="w-max max-w-[260px] truncate rounded-md border border-marigold bg-paper px-2.5 py-1.5 text-[14px] font-semibold shadow-lg">
            {carried}
          </div>
        )}
      </DragOverlay>
      {sheet === 'rules' && (
        <RulesSheet
          open={open}
          fields={book.fields}
          busy={acts.busy}
          onRules={(rules, words) => void acts.put({ matchRules: rules }, words)}
          onRun={(rules) => acts.run(rules, 'Match by rules')}
          onChoose={(w) => {
            setSheet(null);
            void chooseWhere(w);
          }}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet === 'models' && (
        <ModelsSheet
          planId={planId}
          models={book.models}
          onAgain={() => {
            setChosen(NOBODY);
            setModes(new Map());
            onAgain();
          }}
          onAssigned={(m) => acts.assign(m.id)}
          onClose={() => setSheet(null)}
        />
      )}
    </DndContext>
  );
}

/** The middle, onto which an activity can be dropped. */
function Dropping({ children }: { children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: 'onto the model', data: { model: true } });
  return (
    <div ref={setNodeRef} className={`mt-1.5 min-h-0 flex-1 rounded-md ${isOver ? 'outline-2 outline-marigold' : ''}`}>
      {children}
    </div>
  );
}

/** Something that is offered or is wrong, in words, with what can be done at its end. */
function Note({ tone = 'plain', children }: { tone?: 'plain' | 'late'; children: ReactNode }) {
  return (
    <div
      className={`flex items-center justify-between gap-4 rounded-md px-3 py-1.5 text-[13.5px] ${tone === 'late' ? 'bg-madder/10 text-madder' : 'bg-[#EEF1F0]'}`}
    >
      {children}
    </div>
  );
}
