'use client';
import { useState } from 'react';
import { useKeys } from '@/ui/keys';
import { toast, wrong } from '@/ui/Toasts';
import { useMay } from '@/ui/useMay';
import { UndoRedo } from '@/ui/UndoRedo';
import { type OpenRoom, turnPlan, useAway, useKeeping, usePlanTurns } from '@/workers/planRoom';

/** Back and forward through the changes of a plan, whoever made them, also after a reload. */
export function PlanTurns({ planId, open }: { planId: string; open: OpenRoom | null }) {
  const turns = usePlanTurns(planId, open);
  const [busy, setBusy] = useState(false);
  const { edit } = useMay(planId);
  const turn = async (undo: boolean) => {
    if (busy || !edit || (undo ? turns.undo : turns.redo) === null) return;
    setBusy(true);
    try {
      const words = await turnPlan(planId, undo);
      toast(`${undo ? 'Taken back' : 'Done again'}: ${words}`, { seconds: 3 });
    } catch (error) {
      wrong(error);
    } finally {
      setBusy(false);
    }
  };
  useKeys({ 'mod+z': () => void turn(true), 'mod+shift+z': () => void turn(false) });
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
          onUndo={() => void turn(true)}
          onRedo={() => void turn(false)}
        />
      )}
    </>
  );
}
