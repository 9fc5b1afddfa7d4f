'use client';
import type { BuildView, Command, Condition, Effect, Look, MatchRule } from '@clembo/core';
import { dayOf, startOfDay } from '@clembo/core/time';
import { defaultBrief, editionChoices, editionName, PROMISED } from '@clembo/scene/brief';
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
import { PlanFrame } from '@/features/plan/PlanFrame';
import { usePlanChange } from '@/features/plan/usePlanChange';
import { WherePart } from '@/features/plan/WherePart';
import { DatePart } from '@/features/show/parts/DatePart';
import { OnePart } from '@/features/show/parts/ListParts';
import { ask } from '@/ui/ask';
import type { FramePlan } from '@/ui/Frame';
import { toast, wrong } from '@/ui/Toasts';
import type { ModelBook } from '@/workers/plan.worker';
import type { OpenRoom } from '@/workers/planRoom';
import { turnPlan } from '@/workers/planRoom';
import { StructureTabs } from '../StructureTabs';
import { ChosenPanel } from './ChosenPanel';
import { ElementList } from './ElementList';
import { ModelCanvas } from './ModelCanvas';
import { ModelsSheet, TakeModel, takeModelIn } from './ModelsSheet';
import { RulesSheet } from './RulesSheet';
import { saveFile, TakeOut } from './TakeOut';
import { TimeBar } from './TimeBar';
import { KindTray, WorkTray } from './Trays';
import {
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
  const { busy, change } = usePlanChange(planId);
  const status = head.statusDate === null ? null : dayOf(head.statusDate);
  const [day, setDay] = useState<number | null>(status);
  const [where, setWhere] = useState<Condition>(EVERYTHING);
  const [colour, setColour] = useState<string | null>(
    head.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 8)?.id ?? null,
  );
  const [compare, setCompare] = useState<string | null>(head.editions.length > 0 ? PROMISED : null);
  const [beside, setBeside] = useState(false);
  const [all, setAll] = useState({ works: false, kinds: false });
  const [look, setLook] = useState<Look>(FIRST_LOOK);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(NOBODY);
  const [work, setWork] = useState<string | null>(null);
  const [lit, setLit] = useState<ReadonlySet<number>>(NOBODY);
  const [modes, setModes] = useState<ReadonlyMap<number, Mode>>(new Map());
  const [framing, setFraming] = useState(false);
  const [asList, setAsList] = useState(false);
  const [sheet, setSheet] = useState<'models' | 'rules' | null>(null);
  const [hover, setHover] = useState<{ element: number; x: number; y: number } | null>(null);
  const [carried, setCarried] = useState<string | null>(null);
  const shownDay = day ?? status ?? 0;
  const { standing, matching } = useStanding(open, book, { day: shownDay, where, colour, compare, beside }, all);
  const storeys = useStoreys(book);
  const bounds = useBounds(book, storeys, look.lift);
  useEffect(() => {
    // Without a status date the model is looked at in the middle of what is built.
    if (day === null && status === null && matching?.curve) {
      const { bounds: b } = matching.curve;
      setDay(b[b.length >> 1]!);
    }
  }, [day, status, matching]);

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
  const done = (words: string) =>
    toast(words, { action: { label: 'Undo', run: () => void turnPlan(planId, true).catch(wrong) } });
  const elementsWords = (n: number) => `${n} ${n === 1 ? 'element' : 'elements'}`;
  const EFFECT = {
    builds: ['is', 'are', 'built by'],
    removes: ['is', 'are', 'removed by'],
    stands: ['stands', 'stand', 'for'],
  };
  const match = async (ref: string, elements: readonly number[], effect: Effect) => {
    if (elements.length === 0) return;
    const refs = elements.map((e) => book.elements[e]!.ref);
    const [one, many, by] = EFFECT[effect] as [string, string, string];
    if (await change({ do: 'matchElements', match: { activity: ref, effect, elements: refs } })) {
      done(`${elementsWords(refs.length)} ${refs.length === 1 ? one : many} ${by} ${workName(ref)}.`);
      setWork(null);
    }
  };
  const run = async (rules: MatchRule[], words: string) => {
    const command = await open.room.rulesCommand(rules);
    if (!command) return toast('Nothing new was found.');
    const count = countOf(command);
    if (await change(command, words)) done(`${elementsWords(count)} matched.`);
  };
  const put = (settings: Extract<Command, { do: 'setPlan' }>['settings'], words: string) =>
    change({ do: 'setPlan', settings }, words);

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
        where,
        colour,
        compare,
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
                  .modelFile(kind, { day: shownDay, where, colour, promised: false }, compare, Date.now())
                  .then(saveFile, wrong)
              }
            />
            <button type="button" className="quiet py-0.5!" onClick={() => setSheet('models')}>
              Models ({book.models.filter((m) => m.taken).length})
            </button>
          </span>
        </div>
        <p className="mt-2 text-[16px] leading-[26px] text-soft" aria-label="What is looked at">
          Elements where{' '}
          <WherePart
            open={open}
            where={where}
            act="Show"
            onChange={setWhere}
            of={{ fields: book.fields, textsOf: (id) => open.room.elementTexts(id) }}
          />
          , coloured by{' '}
          <OnePart
            part="colour"
            label="Coloured by"
            text={head.codeFields.find((f) => f.id === colour)?.name.toLowerCase() ?? 'one colour'}
            value={colour ?? ''}
            options={[
              ['', 'one colour'],
              ...head.codeFields.map((f): [string, string] => [f.id, f.name.toLowerCase()]),
            ]}
            onChange={(v) => setColour(v === '' ? null : v)}
          />
          , as they stand on{' '}
          <DatePart
            part="day"
            label="Date"
            text={formatDay(shownDay, 'long')}
            open={status === null ? 'the middle of it' : 'the status date'}
            moment={startOfDay(shownDay)}
            isFinish={false}
            onChange={(moment) => setDay(moment === null ? status : dayOf(moment))}
          />
          {head.editions.length > 0 && (
            <>
              , against{' '}
              <OnePart
                part="compare"
                label="Against"
                text={editionName(compare, head)}
                value={compare ?? ''}
                options={[['', 'nothing'], ...editionChoices(head)]}
                onChange={(v) => {
                  setCompare(v === '' ? null : v);
                  if (v === '') setBeside(false);
                }}
              />
              {compare !== null && (
                <>
                  ,{' '}
                  <OnePart
                    part="beside"
                    label="The promise"
                    text={beside ? 'side by side' : 'in one picture'}
                    value={beside ? 'yes' : 'no'}
                    options={[
                      ['no', 'in one picture'],
                      ['yes', 'side by side'],
                    ]}
                    onChange={(v) => setBeside(v === 'yes')}
                  />
                </>
              )}
            </>
          )}
          .
        </p>
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
                  disabled={busy}
                  onClick={() =>
                    void run([{ id: 'offer', ...offer.rule }], `Pair elements with work by the same value`)
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
                    setWhere(v.where);
                    setDay(v.day ?? status);
                  }}
                  onKeep={(name) => {
                    const view: BuildView = {
                      id: `view ${views.reduce((n, v) => Math.max(n, Number(/\d+$/.exec(v.id)?.[0] ?? 0)), 0) + 1}`,
                      name,
                      look,
                      where,
                      day: shownDay === status ? null : shownDay,
                    };
                    void put({ buildViews: [...views, view] }, `Keep the view ${name}`);
                  }}
                  onDrop={(v) =>
                    void put({ buildViews: views.filter((x) => x.id !== v.id) }, `Let go of the view ${v.name}`)
                  }
                />
              </div>
            )}
            <Dropping>
              {asList ? (
                <ElementList
                  open={open}
                  fields={book.fields}
                  where={where}
                  chosen={chosen}
                  onChoose={choose}
                  onAll={(w) => void chooseWhere(w)}
                  onFill={(field, from, characters) =>
                    void (async () => {
                      const { command, count } = await open.room.codesFromField(field, from, characters);
                      if (!command) toast('No element says anything there.');
                      else if (await change(command, `Code ${elementsWords(count)} by what they say`))
                        done(`${elementsWords(count)} coded.`);
                    })().catch(wrong)
                  }
                  onPaste={(field, key, table) =>
                    void (async () => {
                      const { command, count, unknown, twofold } = await open.room.pastedElementCodes(
                        field,
                        key,
                        table,
                      );
                      if (command && (await change(command, `Code ${elementsWords(count)} by a paste`)))
                        done(`${elementsWords(count)} coded.`);
                      const trouble = [
                        ...(unknown.length > 0
                          ? [
                              `${unknown.length} keys are of no element: ${unknown.slice(0, 5).join(', ')}${unknown.length > 5 ? ' …' : ''}`,
                            ]
                          : []),
                        ...(twofold.length > 0
                          ? [
                              `${twofold.length} keys have several codes and were left: ${twofold.slice(0, 5).join(', ')}`,
                            ]
                          : []),
                      ];
                      if (trouble.length > 0) wrong(new Error(`${trouble.join('. ')}.`));
                      else if (!command) toast('No row was about an element.');
                    })().catch(wrong)
                  }
                />
              ) : bounds && looks ? (
                <div className={`grid h-full min-h-0 gap-2 ${promised ? 'grid-cols-2' : ''}`}>
                  {promised && (
                    <figure className="flex min-h-0 flex-col">
                      <figcaption className="text-[13px] text-soft">promised</figcaption>
                      <ModelCanvas
                        body={book.body}
                        bounds={bounds}
                        looks={promised}
                        storeys={storeys}
                        look={look}
                        label="The model as it was promised"
                        framing={framing}
                        onLook={setLook}
                        onPoint={(e, more) => choose(e < 0 ? [] : [e], more)}
                        onFrame={choose}
                      />
                    </figure>
                  )}
                  <figure className="relative flex min-h-0 flex-col">
                    {promised && <figcaption className="text-[13px] text-soft">now</figcaption>}
                    <ModelCanvas
                      body={book.body}
                      bounds={bounds}
                      looks={looks}
                      storeys={storeys}
                      look={look}
                      label={standing?.words ?? 'The model'}
                      framing={framing}
                      onLook={setLook}
                      onPoint={(e, more) => choose(e < 0 ? [] : [e], more)}
                      onFrame={choose}
                      onHover={(element, at) => setHover({ element, ...at })}
                    />
                    {pointed && hover && !carried && (
                      <div
                        className="pointer-events-none absolute z-10 max-w-[240px] rounded bg-ink px-2 py-1 text-[13px] leading-tight text-paper"
                        style={{ left: Math.min(hover.x + 14, 420), top: hover.y + 14 }}
                      >
                        {pointed.name || pointed.class}
                        <span className="block font-narrow text-[12px] opacity-80">
                          {[pointed.type, pointed.storey].filter(Boolean).join(' · ')}
                        </span>
                      </div>
                    )}
                  </figure>
                </div>
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
              onUnmatch={(ref, effect) =>
                void (async () => {
                  const elements = [...chosen].map((e) => book.elements[e]!.ref);
                  if (await change({ do: 'unmatchElements', match: { activity: ref, effect, elements } }))
                    done(`Taken from ${workName(ref)}.`);
                })()
              }
              onWhere={setWhere}
              onChoose={(w) => void chooseWhere(w)}
              onMode={(mode, others) => {
                const next = new Map(modes);
                book.elements.forEach((_, e) => {
                  if (chosen.has(e) !== others) next.set(e, mode);
                });
                setModes(next);
                if (!others) setChosen(NOBODY);
              }}
              onCode={(field, code) =>
                void (async () => {
                  const { command, count } = await open.room.codedElements(field, code, [...chosen]);
                  if (command && (await change(command, `Code ${elementsWords(count)}`)))
                    done(`${elementsWords(count)} coded.`);
                })().catch(wrong)
              }
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
            <TimeBar curve={matching.curve} day={shownDay} status={status} onDay={setDay} />
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
          busy={busy}
          onRules={(rules, words) => void put({ matchRules: rules }, words)}
          onRun={(rules) => void run(rules, 'Match by rules')}
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
          onAssigned={(m) =>
            void (async () => {
              const command = await open.room.assignedCommand(m.id);
              if (!command) return toast('The plan has none of the tasks that the model names.');
              if (await change(command, 'Match as the model says')) done(`${elementsWords(countOf(command))} matched.`);
            })().catch(wrong)
          }
          onClose={() => setSheet(null)}
        />
      )}
    </DndContext>
  );
}

/** How many elements a command matches. */
function countOf(command: Command): number {
  if (command.do === 'matchElements') return command.match.elements.length;
  return command.do === 'all' ? command.commands.reduce((n, c) => n + countOf(c), 0) : 0;
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
