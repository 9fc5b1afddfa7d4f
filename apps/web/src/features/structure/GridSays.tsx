'use client';
import type { OpenRoom } from '@/workers/planRoom';
import type { Range } from './grid';
import { type Act, GridFoot } from './GridFoot';
import type { useGridEdits } from './useGridEdits';
import { dragSays, type useStrips } from './useStrips';

interface Props {
  open: OpenRoom;
  acts: Act[];
  /** What is drawn out; null for one cell. */
  area: Range | null;
  mayEdit: boolean;
  strips: ReturnType<typeof useStrips>;
  edits: ReturnType<typeof useGridEdits>;
}

/** The foot of the ledger: what can be done, what would come of what is being done, and what could not be used. */
export function GridSays({ open, acts, area, mayEdit, strips, edits }: Props) {
  const { drag, would, proposal, foreseen } = strips;
  const wrongCells = [...edits.wrongs.values()].flatMap((cells) => [...cells.values()]);
  const [first] = wrongCells;
  const words = drag
    ? `${dragSays(drag)} ${would?.words ?? ''}`
    : proposal
      ? `${proposal.words}. ${proposal.would.words}`
      : first
        ? `${wrongCells.length === 1 ? 'One cell' : `${wrongCells.length} cells`} cannot be used as typed: ${first.why}`
        : '';
  const ways: [string, () => void][] = proposal
    ? [
        ['Keep it', strips.keep],
        ['Leave it', strips.leave],
      ]
    : !drag && first
      ? [['Leave them as they were', edits.leaveWrongs]]
      : [];
  return (
    <GridFoot
      acts={mayEdit ? acts : acts.filter(([, , , , looks]) => looks)}
      chosen={area ? `${area.bottom - area.top + 1} rows, ${area.right - area.left + 1} columns` : ''}
      follow={mayEdit && open.head.source === 'given' ? strips.follow : null}
      onFollow={strips.setFollow}
      bad={foreseen?.bad ?? (drag === null && wrongCells.length > 0)}
      words={words}
      ways={ways}
    />
  );
}
