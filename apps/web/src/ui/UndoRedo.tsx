import { Redo2, Undo2 } from 'lucide-react';

interface Props {
  canUndo: boolean;
  canRedo: boolean;
  onUndo: () => void;
  onRedo: () => void;
}

/** Back and forward through what was changed here. */
export function UndoRedo({ canUndo, canRedo, onUndo, onRedo }: Props) {
  return (
    <>
      <button
        type="button"
        className="quiet px-2"
        aria-label="Undo"
        title="Undo (Ctrl Z)"
        disabled={!canUndo}
        onClick={onUndo}
      >
        <Undo2 size={16} />
      </button>
      <button
        type="button"
        className="quiet px-2"
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"
        disabled={!canRedo}
        onClick={onRedo}
      >
        <Redo2 size={16} />
      </button>
    </>
  );
}
