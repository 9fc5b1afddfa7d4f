import { Redo2, Undo2 } from 'lucide-react';

interface Props {
  canUndo: boolean;
  canRedo: boolean;
  onUndo: () => void;
  onRedo: () => void;
  /** What would be taken back, and done again. */
  undoWords?: string | null;
  redoWords?: string | null;
}

/** Back and forward through what was changed here. */
export function UndoRedo({ canUndo, canRedo, onUndo, onRedo, undoWords = null, redoWords = null }: Props) {
  return (
    <>
      <button
        type="button"
        className="quiet px-2"
        aria-label="Undo"
        title={undoWords ? `Undo: ${undoWords} (Ctrl Z)` : 'Undo (Ctrl Z)'}
        disabled={!canUndo}
        onClick={onUndo}
      >
        <Undo2 size={16} />
      </button>
      <button
        type="button"
        className="quiet px-2"
        aria-label="Redo"
        title={redoWords ? `Redo: ${redoWords} (Ctrl Shift Z)` : 'Redo (Ctrl Shift Z)'}
        disabled={!canRedo}
        onClick={onRedo}
      >
        <Redo2 size={16} />
      </button>
    </>
  );
}
