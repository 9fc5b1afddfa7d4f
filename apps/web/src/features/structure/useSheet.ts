'use client';
import { type Arrangement, dayOf } from '@clembo/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type RefObject, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import type { LedgerShape, Sight } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import { HEAD_HEIGHT, ROW_HEIGHT } from './grid';
import { nearDay } from './nearDay';
import { blockHeight } from './NeighbourBlock';
import { useByAndBy } from './useByAndBy';
import { useLines } from './useLines';
import { useOpened } from './useOpened';
import { useView } from './useView';

/** How many lines that come into sight are drawn in one frame. */
const AT_ONCE = 6;

/** What of the ledger is in sight: its lines, the activity that stands open, and the time that the strips show. */
export function useSheet(
  open: OpenRoom,
  shape: LedgerShape,
  sight: RefObject<Sight>,
  arrangement: Arrangement,
  scroller: RefObject<HTMLDivElement | null>,
) {
  const lines = useLines(open, shape, sight);
  const opening = useOpened(open, shape);
  const { around, openAt } = opening;
  const total = shape.lines + 1;
  const list = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: (k) => (k === openAt && around ? ROW_HEIGHT + blockHeight(around) + 8 : ROW_HEIGHT),
    overscan: 6,
    // The head stays over the lines.
    scrollPaddingEnd: HEAD_HEIGHT,
    useFlushSync: false,
  });
  useEffect(() => {
    list.measure();
    // What has opened is in sight.
    if (openAt >= 0) list.scrollToIndex(openAt);
  }, [openAt, around, list]);
  const items = list.getVirtualItems();
  const slots = useRef(1);
  slots.current = Math.max(slots.current, items.length);
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useLayoutEffect(() => lines.want(from, to), [lines, from, to]);
  const inFull = useByAndBy(
    items.map((v) => v.index).filter((k) => k === shape.lines || lines.at(k)),
    AT_ONCE,
  );
  const time = useView(open, useWhole(open, shape, arrangement), scroller);
  /** References whose places are drawn. */
  const inSight = useRef<string[]>([]);
  inSight.current = [
    ...items.map((v) => lines.at(v.index)?.ref ?? '').filter((r) => r !== ''),
    ...(around ? [...around.before, ...around.after].map((n) => n.ref) : []),
  ];
  const statusDay = open.head.statusDate === null ? null : dayOf(open.head.statusDate) + 1;
  return { at: lines.at, list, items, slots: slots.current, total, inFull, inSight, statusDay, ...time, ...opening };
}

/** All the time that the rows take, with a little room at both ends, so that nothing is cut in two. */
function useWhole(open: OpenRoom, shape: LedgerShape, arrangement: Arrangement) {
  const near = nearDay(open.head);
  const all = shape.range ?? [near, near + 30];
  const room = Math.max(1, Math.round((all[1] - all[0]) / 50));
  const from = arrangement.from === null ? all[0] - room : dayOf(arrangement.from);
  const to = arrangement.to === null ? all[1] + room + 1 : dayOf(arrangement.to - 1) + 1;
  return useMemo(() => ({ from, to }), [from, to]);
}
