'use client';
import { useSyncExternalStore } from 'react';

/** A value of the whole page that components follow. */
export interface Signal<T> {
  get: () => T;
  set: (value: T) => void;
  use: () => T;
}

/** A value to be followed; setting what is the same already wakes nobody. */
export function signal<T>(initial: T): Signal<T> {
  let now = initial;
  const listeners = new Set<() => void>();
  const get = () => now;
  const listen = (l: () => void) => {
    listeners.add(l);
    return () => listeners.delete(l);
  };
  return {
    get,
    set: (value) => {
      if (Object.is(value, now)) return;
      now = value;
      for (const l of listeners) l();
    },
    use: () => useSyncExternalStore(listen, get, () => initial),
  };
}
