/** The answer to a proposal, always in sight at the foot of its panel. */
export function TakeOrLeave({ can, onTake, onLeave }: { can: boolean; onTake: () => void; onLeave: () => void }) {
  return (
    <div className="sticky -bottom-4 mt-4 -mb-4 flex gap-2 bg-desk pt-1 pb-4">
      <button type="button" className="action" disabled={!can} onClick={onTake}>
        Take it
      </button>
      <button type="button" className="quiet" onClick={onLeave}>
        Leave it
      </button>
    </div>
  );
}
