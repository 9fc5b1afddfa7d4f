'use client';
import type { Handles } from '@clembo/scene';
import { PanelHead } from '@/ui/PanelHead';
import { outerLanes } from './places';
import type { Hand } from './useHand';

/** A lane: where it stands among the others, and whether it is one row. */
export function LanePanel({
  hand,
  handles,
  lane,
  onClose,
}: {
  hand: Hand;
  handles: Handles;
  lane: Handles['lanes'][number];
  onClose: () => void;
}) {
  const outer = outerLanes(handles);
  const at = outer.findIndex((l) => l.codes[0] === lane.codes[0]);
  const isOuter = lane.codes.length === 1;
  return (
    <aside aria-label="Margin" className="w-[270px] shrink-0 overflow-auto pr-5 pb-4 text-[14.5px]">
      <PanelHead title={lane.title} close="Close the margin" onClose={onClose} />
      <p className="mt-0.5 text-soft">{isOuter ? 'lane' : 'lane within a lane'}</p>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="quiet py-0.5" onClick={() => hand.fold(lane.codes, !lane.folded)}>
          {lane.folded ? 'Unfold it' : 'Fold it into one row'}
        </button>
        {isOuter && (
          <>
            <button
              type="button"
              className="quiet py-0.5"
              disabled={at === 0}
              onClick={() => hand.moveLane(lane.codes[0]!, at - 1)}
            >
              Up
            </button>
            <button
              type="button"
              className="quiet py-0.5"
              disabled={at === outer.length - 1}
              onClick={() => hand.moveLane(lane.codes[0]!, at + 2)}
            >
              Down
            </button>
          </>
        )}
        {isOuter && hand.laneFirst.length > 0 && (
          <button type="button" className="quiet py-0.5" onClick={() => hand.putLanesBack()}>
            All as the brief orders them
          </button>
        )}
      </div>
      {isOuter && <p className="mt-3 text-soft">Its title can be dragged to another place as well.</p>}
    </aside>
  );
}
