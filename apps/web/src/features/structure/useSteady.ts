'use client';
import { useMemo, useRef } from 'react';

/** The same functions for as long as a component stands; each does what its latest form does. */
export function useSteady<T extends object>(acts: T): T {
  const latest = useRef(acts);
  latest.current = acts;
  return useMemo(() => {
    const steady = Object.keys(latest.current).map((name) => [
      name,
      (...args: unknown[]) => (latest.current[name as keyof T] as (...a: unknown[]) => unknown)(...args),
    ]);
    return Object.fromEntries(steady) as T;
  }, []);
}
