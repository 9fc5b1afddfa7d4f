'use client';
import { type PointerEvent, type RefObject, useEffect, useRef } from 'react';
import { formatDay } from '@clembo/scene/dates';
import type { Strip } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import type { Wanted } from '@/workers/planWrites';
import type { Grip } from './Strip';
import type { View } from './stripView';
import { useFollow } from './useFollow';
import { useProposal } from './useProposal';
import { type Drag, useStripDrag } from './useStripDrag';

interface Options {
  open: OpenRoom;
  view: View;
  inSight: RefObject<string[]>;
  opened: string | null;
  change: (wanted: Wanted, words?: string) => Promise<boolean>;
  toFocus: () => void;
}

/** Bars that are dragged on the strips: done at once in the sheet, proposed first among neighbours. */
export function useStrips({ open, view, inSight, opened, change, toFocus }: Options) {
  const [follow, setFollow] = useFollow();
  const { proposal, propose, keep, leave } = useProposal(open, inSight, change);
  useEffect(leave, [opened, open]);
  /** Whether what is dragged belongs to the activity that stands open. */
  const inBlock = useRef(false);
  const { drag, would, onGrip } = useStripDrag({
    open,
    view,
    follow,
    inSight,
    onDrop: (dragging, words) => {
      toFocus();
      const wanted = (room: OpenRoom['room']) => room.dragged(dragging, follow);
      if (inBlock.current) void propose(wanted, words);
      else void change(wanted, words);
    },
    onEnd: () => toFocus(),
  });
  const grip = (e: PointerEvent, part: Grip, ref: string, strip: Strip, among: boolean) => {
    inBlock.current = among;
    onGrip(e, part, ref, strip);
  };
  return {
    drag,
    would,
    grip,
    proposal,
    propose,
    keep,
    leave,
    follow,
    setFollow,
    foreseen: would ?? proposal?.would ?? null,
  };
}

/** What is being dragged, in words. */
export function dragSays({ grip, strip, by, dragging }: Drag): string {
  if (grip === 'link')
    return dragging?.do === 'link' ? `${dragging.from} → ${dragging.to}, ${dragging.type}.` : 'To which bar?';
  if (grip === 'progress') return dragging?.do === 'progress' ? `${dragging.percent} % complete.` : '';
  return `${formatDay(grip === 'finish' ? strip.last + by : strip.first + by, 'weekday')}.`;
}
