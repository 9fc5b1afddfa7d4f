'use client';
import { useLayoutEffect, useRef, useState } from 'react';

/**
 * Which of the things in sight are drawn in full. What was so stays so; of what comes into sight, only so many are drawn
 * in one frame, and the others in the next ones: no frame waits for all of them.
 */
export function useByAndBy(keys: readonly number[], atOnce: number): (key: number) => boolean {
  const before = useRef<ReadonlySet<number>>(new Set());
  const [, setTick] = useState(0);
  const full = new Set(keys.filter((k) => before.current.has(k)));
  const coming = keys.filter((k) => !full.has(k));
  for (const k of coming.slice(0, atOnce)) full.add(k);
  useLayoutEffect(() => {
    before.current = full;
    if (coming.length <= atOnce) return;
    const frame = requestAnimationFrame(() => setTick((t) => t + 1));
    return () => cancelAnimationFrame(frame);
  });
  return (key) => full.has(key);
}
