'use client';
import { DndContext, DragOverlay, pointerWithin } from '@dnd-kit/core';
import { useState } from 'react';
import { PlanFrame } from '@/ui/plan/PlanFrame';
import type { FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import type { ModelBook } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';
import { StructureTabs } from '../StructureTabs';
import { ChosenPanel } from './ChosenPanel';
import { ModelLine } from './ModelLine';
import { ModelMiddle } from './ModelMiddle';
import { ModelsSheet, TakeModel, takeModelIn } from './ModelsSheet';
import { RulesSheet } from './RulesSheet';
import { saveFile, TakeOut } from './TakeOut';
import { TimeBar } from './TimeBar';
import { KindTray, WorkTray } from './Trays';
import { useModelBook } from './useModel';
import { type ModelDeskState, useCarrying, useMakeExhibit, useModelDesk } from './useModelDesk';

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

function Matching(props: Props) {
  const { planId, open, book } = props;
  const desk = useModelDesk(props);
  const { carried, ...carrying } = useCarrying(desk);
  const makeExhibit = useMakeExhibit(planId, desk);
  const { status, shown, shownDay, askFor, all, setAll, matching, standing } = desk;
  return (
    <DndContext collisionDetection={pointerWithin} {...carrying}>
      <div className="flex h-full flex-col px-6 pt-3">
        <Top planId={planId} open={open} book={book} desk={desk} />
        <ModelLine open={open} book={book} asked={shown} status={status} onAsk={askFor} />
        <div className="mt-2 grid min-h-0 flex-1 grid-cols-[228px_minmax(0,1fr)_236px] gap-4">
          {matching ? (
            <WorkTray
              matching={matching}
              all={all.works}
              onAll={(works) => setAll((a) => ({ ...a, works }))}
              chosen={desk.work}
              onChoose={desk.setWork}
              onPoint={desk.light}
            />
          ) : (
            <div />
          )}
          <ModelMiddle open={open} book={book} desk={desk} carrying={carried !== null} />
          <Side open={open} desk={desk} />
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
      <Sheets {...props} desk={desk} />
    </DndContext>
  );
}

/** The tabs of the stage, and what is done with the model as a whole. */
function Top({ planId, open, book, desk }: Omit<Props, 'onAgain'> & { desk: ModelDeskState }) {
  const { asList, asked, shownDay, head } = desk;
  return (
    <div className="flex items-baseline gap-6">
      <StructureTabs planId={planId} current="Model" />
      <span className="ml-auto flex gap-2 text-[14px]">
        <button type="button" className="quiet py-0.5!" aria-pressed={asList} onClick={() => desk.setAsList((v) => !v)}>
          {asList ? 'See the model' : 'See the list'}
        </button>
        <button type="button" className="quiet py-0.5!" onClick={() => desk.setSheet('rules')}>
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
        <button type="button" className="quiet py-0.5!" onClick={() => desk.setSheet('models')}>
          Models ({book.models.filter((m) => m.taken).length})
        </button>
      </span>
    </div>
  );
}

/** What is chosen, or the kinds of elements there are. */
function Side({ open, desk }: { open: OpenRoom; desk: ModelDeskState }) {
  const { chosen, work, workName, match, acts, matching, all, setAll, choose } = desk;
  if (chosen.size > 0)
    return (
      <ChosenPanel
        open={open}
        chosen={chosen}
        work={work === null ? null : { ref: work, name: workName(work) }}
        onClose={desk.nothing}
        onMatch={(effect) => work !== null && void match(work, [...chosen], effect)}
        onUnmatch={(ref, effect) => void acts.unmatch(ref, [...chosen], effect)}
        onWhere={(where) => desk.askFor({ where })}
        onChoose={(w) => void desk.chooseWhere(w)}
        onMode={desk.setMode}
        onCode={(field, code) => acts.code(field, code, [...chosen])}
      />
    );
  if (!matching) return <div />;
  return (
    <KindTray
      matching={matching}
      all={all.kinds}
      onAll={(kinds) => setAll((a) => ({ ...a, kinds }))}
      chosen={chosen}
      onChoose={choose}
    />
  );
}

function Sheets({ planId, open, book, onAgain, desk }: Props & { desk: ModelDeskState }) {
  const { sheet, setSheet, acts, chooseWhere } = desk;
  if (sheet === 'rules')
    return (
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
    );
  if (sheet === 'models')
    return (
      <ModelsSheet
        planId={planId}
        models={book.models}
        onAgain={() => {
          desk.anew();
          onAgain();
        }}
        onAssigned={(m) => acts.assign(m.id)}
        onClose={() => setSheet(null)}
      />
    );
  return null;
}
