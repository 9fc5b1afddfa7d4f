'use client';
import { useRef } from 'react';
import { useKeys } from '../keys';
import { toast, wrong } from '../Toasts';
import { useMay } from '../useMay';
import { UndoRedo } from '../UndoRedo';
import { type OpenRoom, usePlanTurns } from '@/workers/planRoom';
import { turnPlan, useKeeping } from '@/workers/planWrites';
import { useAway } from '@/workers/writing';

/** Back and forward through the changes of a plan, whoever made them, also after a reload. */
export function PlanTurns({ planId, open }: { planId: string; open: OpenRoom | null }) {
  const turns = usePlanTurns(planId, open);
  const { edit } = useMay(planId);
  const latest = useRef(turns);
  latest.current = turns;
  /** One after the other, however quickly they are asked for. */
  const last = useRef<Promise<void>>(Promise.resolve());
  const turn = (undo: boolean) => {
    last.current = last.current.then(async () => {
      if (!edit || (undo ? latest.current.undo : latest.current.redo) === null) return;
      try {
        const done = await turnPlan(planId, undo);
        latest.current = done.turns;
        toast(`${undo ? 'Taken back' : 'Done again'}: ${done.words}`, { seconds: 3 });
      } catch (error) {
        wrong(error);
      }
    });
  };
  useKeys({ 'mod+z': () => turn(true), 'mod+shift+z': () => turn(false) });
  const away = useAway();
  const keeping = useKeeping();
  return (
    <>
      {away && (
        <span role="status" className="text-[14px] whitespace-nowrap text-madder">
          The server does not answer; what you do is kept here meanwhile
        </span>
      )}
      {keeping && !away && (
        <span data-testid="keeping" className="text-[13.5px] text-soft">
          keeping …
        </span>
      )}
      {edit && (
        <UndoRedo
          canUndo={turns.undo !== null}
          canRedo={turns.redo !== null}
          undoWords={turns.undo}
          redoWords={turns.redo}
          onUndo={() => turn(true)}
          onRedo={() => turn(false)}
        />
      )}
    </>
  );
}
