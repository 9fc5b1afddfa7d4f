'use client';
import type { IntakePreview } from '@clembo/formats/columns';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { startOfDay } from '@clembo/core';
import { ask, awaitJob } from '@/ui/ask';
import { dayOfField } from '@/ui/DayField';
import { Frame } from '@/ui/Frame';
import { useKeys } from '@/ui/keys';
import { wrong } from '@/ui/Toasts';
import { UndoRedo } from '@/ui/UndoRedo';
import { expectPlan, openSoon } from '@/workers/planRoom';
import { ColumnTable } from './ColumnTable';
import { Outcome } from './Outcome';
import { PlanSketch } from './PlanSketch';
import { Problems } from './Problems';
import { Questions } from './Questions';
import { ReadingLine } from './ReadingLine';
import { TableTabs } from './TableTabs';
import { type OpenIntake, useIntake } from './useIntake';

/** The desk of an intake, once it has been read. */
export function IntakeDesk({
  id,
  first,
  target,
  onMaking,
}: {
  id: string;
  first: OpenIntake;
  target: string | null;
  /** A plan is being made: the place to fetch what will show it. */
  onMaking: () => void;
}) {
  const router = useRouter();
  const [read, setRead] = useState(first);
  const [gone, setGone] = useState<string | null>(null);
  useEffect(() => {
    if (read.planId) router.replace(`/plans/${read.planId}/show`);
    if (read.preview || read.planId || gone) return;
    const timer = setTimeout(() => {
      ask<OpenIntake>(`/api/intakes/${id}`).then(setRead, (error: Error) => setGone(error.message));
    }, 700);
    return () => clearTimeout(timer);
  }, [id, read, gone, router]);
  if (read.preview && !read.planId)
    return (
      <OpenDesk
        id={id}
        source={read.source}
        first={read.preview}
        targetPlan={read.targetPlan}
        target={target}
        onMaking={onMaking}
      />
    );
  return (
    <Frame stage="Gather" plan={null}>
      <p role="status" className="px-8 py-9 text-soft">
        {gone ?? `Reading ${read.source} …`}
      </p>
    </Frame>
  );
}

/** Column maps of what was taken in, over sample values, beside what would come of it. */
function OpenDesk({
  id,
  source,
  first,
  targetPlan,
  target,
  onMaking,
}: {
  id: string;
  source: string;
  first: IntakePreview;
  targetPlan: string | null;
  target: string | null;
  onMaking: () => void;
}) {
  const router = useRouter();
  const intake = useIntake(id, first);
  const { view, map } = intake;
  const [name, setName] = useState(first.name);
  const [strict, setStrict] = useState(false);
  const [start, setStart] = useState('');
  const [making, setMaking] = useState<{ words: string; stop: AbortController } | null>(null);
  useEffect(() => {
    if (!targetPlan) expectPlan();
  }, [targetPlan]);
  useKeys({ 'mod+z': intake.undo, 'mod+shift+z': intake.redo, 'mod+y': intake.redo });

  const make = async () => {
    const stop = new AbortController();
    setMaking({ words: targetPlan ? 'Comparing' : 'Making the plan', stop });
    try {
      await intake.settled.current;
      if (targetPlan) {
        router.push(`/intake/${id}/changes`);
        return;
      }
      onMaking();
      const { job } = await ask<{ job: string }>(`/api/intakes/${id}/plan`, {
        method: 'POST',
        json: { name, strict, start: startDay === null ? null : startOfDay(startDay) },
      });
      const { planId } = await awaitJob<{ planId: string }>(job, {
        signal: stop.signal,
        onStep: (words) => words !== '' && setMaking({ words, stop }),
      });
      openSoon(planId);
      router.push(`/plans/${planId}/show`);
    } catch (error) {
      if ((error as Error).name !== 'AbortError') wrong(error);
      setMaking(null);
    }
  };
  const letGo = () => {
    ask(`/api/intakes/${id}`, { method: 'DELETE' }).then(
      () => router.push(targetPlan ? `/plans/${targetPlan}/gather` : '/'),
      wrong,
    );
  };
  const held = strict && view.problemCount > 0;
  const startDay = view.dates === 'computed' ? dayOfField(start) : null;
  const dated = targetPlan !== null || view.dates === 'given' || startDay !== null;
  const ordered = map.dateOrder !== null;
  const ready = ordered && name.trim() !== '' && view.rowsTaken > 0 && !held && dated;
  const several = view.tables.length > 1;

  return (
    <Frame
      stage="Gather"
      plan={null}
      controls={
        <>
          {making && (
            <button type="button" className="quiet" onClick={() => making.stop.abort()}>
              Cancel
            </button>
          )}
          <button type="button" className="action" disabled={!ready || making !== null} onClick={() => void make()}>
            {making ? `${making.words} …` : targetPlan ? 'See what has changed' : 'Make the plan'}
          </button>
        </>
      }
    >
      <div className="flex h-full flex-col">
        <div className="flex items-center gap-x-5 px-6 pt-4 pb-2">
          <h1 className="min-w-0 truncate font-serif text-[22px] font-semibold" title={source}>
            What is in {source}?
          </h1>
          {target === null ? (
            <label className="flex shrink-0 items-center gap-2">
              <span className="text-soft">Name of the plan</span>
              <input
                value={name}
                onChange={(e) => setName(e.target.value)}
                className="w-60 rounded-md border border-line bg-paper px-2.5 py-1"
              />
            </label>
          ) : (
            <span className="truncate text-soft">to refresh {target}</span>
          )}
          <span className="ml-auto flex shrink-0 gap-2">
            <UndoRedo
              canUndo={intake.canUndo && making === null}
              canRedo={intake.canRedo && making === null}
              onUndo={intake.undo}
              onRedo={intake.redo}
            />
          </span>
        </div>
        {several && <TableTabs intake={intake} />}
        <ReadingLine intake={intake} />
        <div className="flex min-h-0 flex-1 gap-5 px-6 pb-3">
          <div className="min-w-0 flex-1 overflow-auto pr-1">
            <Questions intake={intake} start={start} onStart={setStart} asksStart={targetPlan === null} />
            <ColumnTable intake={intake} />
            <Problems intake={intake} strict={strict} onStrict={setStrict} />
          </div>
          <PlanSketch id={id} intake={intake} />
        </div>
        <footer className="flex shrink-0 items-center gap-6 border-t border-line bg-paper px-6 py-2" role="status">
          <Outcome view={view} />
          {intake.reading && <span className="text-soft">Reading …</span>}
          <button type="button" className="quiet ml-auto" disabled={making !== null} onClick={letGo}>
            Let go of it
          </button>
        </footer>
      </div>
    </Frame>
  );
}
