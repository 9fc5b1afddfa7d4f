'use client';
import type { Effect, Event, Step } from '@clembo/sync';
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import { ask, Refused } from '@/ui/ask';
import type { PlanHead } from './openPlan';
import type { PlanRoom } from './plan.worker';
import { ME, type Other, setOthers } from './presence';
import { steady } from './steady';
import { NO_TURNS, pause, refusalOf, send, setAway, type Turns, type Written } from './writing';

export interface OpenRoom {
  room: Remote<PlanRoom>;
  head: PlanHead;
}

/** Something that a person asked for and that has not ended. */
interface Waiting {
  /** What the server answered; null as long as it did not. */
  written: Written | null;
  done: (written: Written | null) => void;
  fail: (error: Error) => void;
}

/** The plan that is open: a thin driver around the state of `@clembo/sync`, which the worker holds. */
export interface Opened {
  planId: string;
  /** The version that is kept, as far as it is known here. */
  version: number;
  room: Remote<PlanRoom>;
  ready: Promise<OpenRoom>;
  /** The head as it was shown last. */
  head: PlanHead | null;
  turns: Turns | null;
  waiting: Map<string, Waiting>;
  /** The last thing that was asked for, as it is shown: one comes after the other. */
  seen: Promise<unknown>;
  /** Ends when all that was asked for is kept; fails with what came last and is not. */
  kept: Promise<unknown>;
  /** Fails when the worker is ended: what was asked of it is not answered any more. */
  ended: Promise<never>;
  end: () => void;
}

/** One worker for the plan that is open; going from page to page keeps it. */
let open: Opened | null = null;
const listeners = new Set<() => void>();
const tell = (): void => {
  for (const l of listeners) l();
};

const turnListeners = new Set<() => void>();
/** Says that other changes can be taken back now, while the plan is as it was shown. */
const tellTurns = (): void => {
  for (const l of turnListeners) l();
};

/** The plan that is open, if it is this one. */
export const openPlan = (planId: string): Opened | null => (open?.planId === planId ? open : null);

/** A worker that has nothing to do yet. */
let spare: Worker | null = null;
const newWorker = (): Worker => new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' });

/** Gets ready for a plan that will be opened soon: its program takes longer to come than its data. */
export function expectPlan(): void {
  spare ??= newWorker();
}

/** Begins to open a plan whose page is on its way. */
export function openSoon(planId: string): void {
  openRoom(planId, 1);
}

function openRoom(planId: string, version: number): Opened {
  // A page that was made before the last change asks for less than there is.
  if (open?.planId === planId && open.version >= version) return open;
  open?.end();
  const worker = spare ?? newWorker();
  spare = null;
  const room = wrap<PlanRoom>(worker);
  let end = () => {};
  const ended = new Promise<never>((_, fail) => {
    end = () => {
      worker.terminate();
      const anew = new Refused('The plan was opened anew meanwhile. Look at it, then do it again.');
      for (const { fail: tellOf } of opened.waiting.values()) tellOf(anew);
      fail(anew);
    };
  });
  ended.catch(() => {});
  const opened: Opened = {
    planId,
    version,
    room,
    ready: room.open(planId).then((head) => {
      opened.version = head.version;
      opened.head = head;
      return { room, head };
    }),
    head: null,
    turns: null,
    waiting: new Map(),
    seen: Promise.resolve(),
    kept: Promise.resolve(),
    ended,
    end,
  };
  open = opened;
  void follow(opened).catch(() => {});
  opened.ready.catch(() => {
    if (open === opened) open = null;
  });
  return opened;
}

/** Opens the plan anew, as it stands on the server now. */
export function reopen(planId: string): void {
  if (open?.planId !== planId) return;
  const { version } = open;
  open.end();
  open = null;
  openRoom(planId, version);
  tell();
}

/** What a worker answers, unless it is ended before. */
export const answered = <T>(opened: Opened, answer: Promise<T>): Promise<T> => Promise.race([answer, opened.ended]);

/** Takes in what happened: what is shown follows, and what is to be done is done. */
export async function take(opened: Opened, event: Event): Promise<void> {
  const taken = await answered(opened, opened.room.take(event));
  if (open !== opened) return;
  opened.version = taken.version;
  if (taken.head) {
    opened.head = steady(opened.head, taken.head);
    opened.ready = Promise.resolve({ room: opened.room, head: opened.head });
    tell();
  }
  for (const effect of taken.effects) perform(opened, effect);
}

function perform(opened: Opened, effect: Effect): void {
  switch (effect.do) {
    case 'send':
      void deliver(opened, effect).catch(() => {});
      break;
    case 'kept': {
      const waiting = opened.waiting.get(effect.id);
      waiting?.done(waiting.written);
      break;
    }
    case 'refused':
      opened.waiting.get(effect.id)?.fail(refusalOf(effect.reason));
      break;
    case 'fetch':
      void ask<Told>(`/api/plans/${opened.planId}/steps?after=${effect.after}&now=1`)
        .then((found) => take(opened, { kind: 'steps', ...found }))
        .catch(() => {});
      break;
    case 'reopen':
      reopen(opened.planId);
  }
}

/** Sends something for as long as the server does not answer. */
async function deliver(opened: Opened, effect: Extract<Effect, { do: 'send' }>): Promise<void> {
  if (effect.isAgain) await pause();
  if (open !== opened) return;
  const { event, written } = await send(opened.planId, effect);
  const waiting = opened.waiting.get(effect.id);
  if (waiting) waiting.written = written;
  if (written) opened.turns = written.turns;
  await take(opened, event);
  tellTurns();
}

/** Steps as the server tells them. */
interface Told {
  version: number;
  steps: Step[] | null;
  others?: Other[];
  /** A mark of who else is where. */
  mark?: string;
}

/** Follows what is done to the plan that is open, by whoever it is, for as long as it is. */
async function follow(opened: Opened): Promise<void> {
  await opened.ready;
  let mark = '';
  while (open === opened) {
    // A page that nobody looks at keeps no connection: a browser has few of them for all its pages.
    if (document.hidden) {
      await new Promise((r) => document.addEventListener('visibilitychange', r, { once: true }));
      continue;
    }
    const hidden = new AbortController();
    const hide = () => document.hidden && hidden.abort();
    document.addEventListener('visibilitychange', hide);
    try {
      const {
        others,
        mark: now,
        ...steps
      } = await ask<Told>(
        `/api/plans/${opened.planId}/steps?after=${opened.version}&me=${ME}&here=${encodeURIComponent(mark)}`,
        { signal: hidden.signal },
      );
      if (open !== opened) return;
      setAway(false);
      mark = now ?? '';
      setOthers(others ?? []);
      const before = opened.head;
      await take(opened, { kind: 'steps', ...steps });
      if (opened.head === before) continue;
      opened.turns = null;
      tell();
    } catch (error) {
      if ((error as Error).name === 'AbortError') continue;
      if (error instanceof Refused && error.status === 404) return;
      setAway(true);
      await pause();
    } finally {
      document.removeEventListener('visibilitychange', hide);
    }
  }
}

/** The room of a plan once it is open, or what went wrong. */
export function usePlanRoom(planId: string, version: number): { open: OpenRoom | null; error: string | null } {
  const [state, setState] = useState<{ open: OpenRoom | null; error: string | null }>({ open: null, error: null });
  useEffect(() => {
    let current = true;
    const show = () =>
      openRoom(planId, version).ready.then(
        (ready) => current && setState({ open: ready, error: null }),
        (error: Error) => current && setState({ open: null, error: error.message }),
      );
    void show();
    listeners.add(show);
    return () => {
      current = false;
      listeners.delete(show);
    };
  }, [planId, version]);
  return state;
}

/** What of the open plan can be taken back and done again. */
export function usePlanTurns(planId: string, room: OpenRoom | null): Turns {
  const [turns, setTurns] = useState<Turns>(NO_TURNS);
  useEffect(() => {
    let current = true;
    const opened = open;
    if (opened?.planId !== planId || !room) return;
    const show = () => opened.turns && setTurns(opened.turns);
    turnListeners.add(show);
    if (opened.turns) setTurns(opened.turns);
    else
      ask<Turns>(`/api/plans/${planId}/turn`).then(
        (found) => {
          opened.turns ??= found;
          if (current) setTurns(opened.turns);
        },
        () => {},
      );
    return () => {
      current = false;
      turnListeners.delete(show);
    };
  }, [planId, room]);
  return turns;
}
