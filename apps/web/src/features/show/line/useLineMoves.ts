'use client';
import type { FlowPoint, LineMove } from '@clembo/core';
import type { PlaneShape } from '@clembo/scene';
import { useCallback, useMemo, useRef, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { LineAsked, LineMoving, LineWork } from '@/workers/answers/lineMoves';
import type { OpenRoom } from '@/workers/planRoom';
import type { Point } from '../hand/places';
import { pointOnPlane, readPlane } from './onPlane';

/** A work where it is dragged to, over the page. */
export interface Ghost {
  points: FlowPoint[];
  holds: boolean;
  at: Point;
  words: string;
  clashes: number | null;
}

export interface Proposed {
  ref: string;
  asked: LineAsked;
  /** Where it runs now. */
  was: FlowPoint[];
}

/** So near to the end of a line, in points, the end is taken and not the whole. */
const END = 9;

/** A line that runs later, and one that ends later from the start that it has; until the true one is worked out. */
const shifted = (points: readonly FlowPoint[], days: number): FlowPoint[] =>
  points.map((p) => ({ place: p.place, time: p.time + days }));
function stretched(points: readonly FlowPoint[], days: number): FlowPoint[] {
  const [start, finish] = [points[0]!.time, points.at(-1)!.time];
  const factor = (finish + days - start) / (finish - start);
  return points.map((p) => ({ place: p.place, time: start + (p.time - start) * Math.max(0.001, factor) }));
}

interface Held {
  work: LineWork;
  end: boolean;
  move: LineMove | null;
}

/**
 * Takes hold of works on a page of a line: a drag moves one in time, or turns it at its end. What it would be follows
 * the hand; where it is let go it is proposed.
 */
export function useLineMoves(open: OpenRoom | null, plane: PlaneShape | null) {
  const [ghost, setGhost] = useState<Ghost | null>(null);
  const [proposed, setProposed] = useState<Proposed | null>(null);
  const held = useRef<Promise<Held | null> | null>(null);
  const now = useRef<Held | null>(null);
  /** One question at a time; the last one that came meanwhile is asked next. */
  const asking = useRef(false);
  const next = useRef<(() => Promise<void>) | null>(null);

  const ask = useCallback(async (question: () => Promise<void>) => {
    next.current = question;
    if (asking.current) return;
    asking.current = true;
    try {
      while (next.current) {
        const own = next.current;
        next.current = null;
        await own();
      }
    } catch (error) {
      wrong(error);
    } finally {
      asking.current = false;
    }
  }, []);

  const begin = useCallback(
    (ref: string, from: Point) => {
      if (!open || !plane) return;
      now.current = null;
      const mine = open.room.lineWork(ref).then((work): Held | null => {
        if (!work || work.done) return null;
        const end = pointOnPlane(plane, work.points.at(-1)!);
        const near = Math.hypot(end.x - from.x, end.y - from.y) <= END;
        return { work, end: near || work.begun, move: null };
      });
      held.current = mine;
      mine.then((found) => held.current === mine && (now.current = found), wrong);
    },
    [open, plane],
  );

  const carry = useCallback(
    (from: Point, to: Point) => {
      const own = now.current;
      if (!open || !plane || !own) return;
      const by = Math.round(readPlane(plane, to).day - readPlane(plane, from).day);
      const { points, holds, ref } = own.work;
      const [start, finish] = [Math.floor(points[0]!.time + 1e-9), Math.ceil(points.at(-1)!.time - 1e-9) - 1];
      const move: LineMove = own.end
        ? { do: 'finish', day: Math.max(start, finish + by) }
        : { do: 'start', day: start + by };
      const same = own.move?.do === move.do && 'day' in own.move && own.move.day === move.day;
      own.move = move;
      if (same) return setGhost((g) => g && { ...g, at: to });
      const rough = own.end ? stretched(points, by) : shifted(points, by);
      setGhost({
        points: rough,
        holds,
        at: to,
        words: `${Math.abs(by)} d ${by < 0 ? 'earlier' : 'later'}`,
        clashes: null,
      });
      void ask(async () => {
        const found: LineMoving | null = await open.room.lineMoving(ref, move);
        // It was let go, or has gone on, meanwhile.
        if (now.current !== own || own.move !== move) return;
        if (found) setGhost((g) => g && { ...g, ...found });
        else setGhost((g) => g && { ...g, words: 'It cannot be done by then' });
      });
    },
    [open, plane, ask],
  );

  const drop = useCallback(() => {
    const own = now.current;
    held.current = null;
    now.current = null;
    setGhost(null);
    if (own?.move) setProposed({ ref: own.work.ref, asked: own.move, was: own.work.points });
  }, []);

  const cancel = useCallback(() => {
    held.current = null;
    now.current = null;
    setGhost(null);
  }, []);

  return useMemo(
    () => ({ ghost, proposed, setProposed, begin, carry, drop, cancel }),
    [ghost, proposed, begin, carry, drop, cancel],
  );
}

export type LineMoves = ReturnType<typeof useLineMoves>;
