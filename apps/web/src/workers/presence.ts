'use client';
import { useEffect } from 'react';
import { newId } from '@/ui/newId';
import { signal } from './signal';

/** Somebody else who looks at the plan, and the activity that is chosen there. */
export interface Other {
  who: string;
  name: string | null;
  ref: string | null;
}

/** This window, among those who look at a plan. */
export const ME = typeof crypto === 'undefined' ? '' : newId();

const others = signal<readonly Other[]>([]);

/** Takes note of who else is told to be here. */
export function setOthers(now: readonly Other[]): void {
  if (JSON.stringify(now) !== JSON.stringify(others.get())) others.set(now);
}

/** Who else looks at the open plan. */
export const useOthers = others.use;

/** How often it is said that somebody is still here, in milliseconds. */
const STILL_HERE = 20_000;
/** Where one only passes by is not told. */
const STAYS = 250;

const say = (planId: string, ref: string | null, gone: boolean) =>
  navigator.sendBeacon(
    `/api/plans/${planId}/here`,
    new Blob([JSON.stringify({ who: ME, ref, gone })], { type: 'application/json' }),
  );

/** Tells the others where one is in the open plan, for as long as the page stands. */
export function useTellWhere(planId: string, ref: string | null): void {
  useEffect(() => {
    const first = setTimeout(() => say(planId, ref, false), STAYS);
    const again = setInterval(() => !document.hidden && say(planId, ref, false), STILL_HERE);
    return () => {
      clearTimeout(first);
      clearInterval(again);
    };
  }, [planId, ref]);
  useEffect(() => {
    const leave = () => say(planId, null, true);
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [planId]);
}
