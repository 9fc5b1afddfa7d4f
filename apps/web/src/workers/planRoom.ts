'use client';
import type { Command } from '@clembo/core';
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import { ask, Refused } from '@/ui/ask';
import { newId } from '@/ui/newId';
import { LOOK_ONLY, mayNow } from '@/ui/useMay';
import type { PlanHead, PlanRoom } from './plan.worker';
import { ME, type Other, setOthers } from './presence';
import { signal } from './signal';
import { steady } from './steady';

export interface OpenRoom {
  room: Remote<PlanRoom>;
  head: PlanHead;
}

/** What can be taken back next, and done again, in words. */
export interface Turns {
  undo: string | null;
  redo: string | null;
}

const NOTHING: Turns = { undo: null, redo: null };

interface Opened {
  planId: string;
  version: number;
  room: Remote<PlanRoom>;
  ready: Promise<OpenRoom>;
  /** The head as it was shown last. */
  head: PlanHead | null;
  turns: Turns | null;
  /** The last change that was asked for, as it is shown, and as it is kept: one comes after the other. */
  seen: Promise<unknown>;
  last: Promise<unknown>;
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
      fail(new Refused('The plan was opened anew meanwhile. Look at it, then do it again.'));
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
    seen: Promise.resolve(),
    last: Promise.resolve(),
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

/** Has a new head shown, of which only what has changed is new. */
function showHead(opened: Opened, head: PlanHead): void {
  opened.head = steady(opened.head, head);
  opened.ready = Promise.resolve({ room: opened.room, head: opened.head });
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

interface Written {
  version: number;
  turns: Turns;
  command?: Command;
  words?: string;
}

/** What a worker answers, unless it is ended before. */
const answered = <T>(opened: Opened, answer: Promise<T>): Promise<T> => Promise.race([answer, opened.ended]);

/**
 * Sends again for as long as the server does not answer: what was typed is kept until it is there again. It carries the
 * same id each time, so that it is done once.
 */
async function patiently(opened: Opened, send: () => Promise<Written>): Promise<Written> {
  for (;;)
    try {
      const written = await send();
      away.set(false);
      return written;
    } catch (error) {
      const gone = error instanceof Refused && (error.status === 0 || error.status === 503);
      if (!gone || open !== opened) throw error;
      away.set(true);
      await new Promise((r) => setTimeout(r, AGAIN));
    }
}

/** Does here what was done elsewhere, up to a version; opens the plan anew where that is not known. */
async function catchUp(opened: Opened, upTo: number): Promise<void> {
  const found = await ask<Steps>(`/api/plans/${opened.planId}/steps?after=${opened.version}`);
  if (!found.steps) return reopen(opened.planId);
  const missed = found.steps.slice(0, Math.max(0, upTo - opened.version));
  if (missed.length === 0) return;
  const version = opened.version + missed.length;
  const head = await answered(opened, opened.room.follow(missed, version));
  opened.version = version;
  showHead(opened, head);
}

interface Steps {
  version: number;
  steps: Command[] | null;
  others?: Other[];
  /** A mark of who else is where. */
  mark?: string;
}

/** After so long the server is asked again when it did not answer, in milliseconds. */
const AGAIN = 1500;

/** Follows what others do to the plan that is open, for as long as it is. */
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
      const found = await ask<Steps>(
        `/api/plans/${opened.planId}/steps?after=${opened.version}&me=${ME}&here=${encodeURIComponent(mark)}`,
        { signal: hidden.signal },
      );
      if (open !== opened) return;
      away.set(false);
      mark = found.mark ?? '';
      setOthers(found.others ?? []);
      if (found.version === opened.version) continue;
      // In turn with what is done here.
      const turn = opened.last
        .catch(() => {})
        .then(async () => {
          if (open !== opened || found.version <= opened.version) return;
          if (!found.steps) return reopen(opened.planId);
          await catchUp(opened, found.version);
          opened.turns = null;
          if (open === opened) tell();
        });
      opened.last = turn;
      await turn;
    } catch (error) {
      if ((error as Error).name === 'AbortError') continue;
      if (error instanceof Refused && error.status === 404) return;
      away.set(true);
      await new Promise((r) => setTimeout(r, AGAIN));
    } finally {
      document.removeEventListener('visibilitychange', hide);
    }
  }
}

/** How many changes are shown and not yet kept. */
const keeping = signal(0);

/** Whether anything that is shown is not kept yet. */
export const useKeeping = (): boolean => keeping.use() > 0;

const away = signal(false);

/** Whether the server is not to be reached, so that what others do is not seen and nothing can be kept. */
export const useAway = away.use;

const OVERTAKEN =
  'Somebody else changed the same just before you, so your change was not kept. Theirs is shown; make yours again if it is right.';

/** A command, or a question to the room that makes one; null where there is nothing to do. */
export type Wanted = Command | ((room: Remote<PlanRoom>) => Promise<Command | null>);

/**
 * Writes something to the plan that is open and shows it here; what the server refuses leaves all as it was. After a
 * refusal because somebody else was quicker the plan is opened anew.
 */
function write(
  planId: string,
  send: (about: { version: number; request: string }, command: Command | null) => Promise<Written>,
  wanted: Wanted | null,
): Promise<Written | null> {
  const opened = open;
  if (opened?.planId !== planId) return Promise.reject(new Refused('The plan is not open any more. Open it again.'));
  if (!mayNow(planId).edit) return Promise.reject(new Refused(LOOK_ONLY));
  const show = (head: PlanHead) => {
    showHead(opened, head);
    if (open === opened) tell();
  };
  // It is seen at once, and kept while it is looked at.
  const seen = opened.seen
    .catch(() => {})
    .then(async () => {
      await opened.ready;
      const command = typeof wanted === 'function' ? await answered(opened, wanted(opened.room)) : wanted;
      if (command) show(await answered(opened, opened.room.foresee(command, opened.version)));
      return command;
    });
  opened.seen = seen;
  const work = opened.last
    .catch(() => {})
    .then(async () => {
      const command = await seen;
      if (wanted !== null && command === null) return null;
      try {
        // It was made before somebody else's change of the same was seen here, and must not undo that unsaid.
        if (command && (await answered(opened, opened.room.isOvertaken()))) throw new Refused(OVERTAKEN, 422);
        const about = { version: opened.version, request: newId() };
        const written = await patiently(opened, () => send(about, command));
        // It may have been opened anew meanwhile: then it has this change already.
        if (open !== opened) return written;
        // Others were quicker with something else: what they did comes first.
        if (written.version > opened.version + 1) {
          await catchUp(opened, written.version - 1);
          if (open !== opened) return written;
          if (command) tell();
        }
        opened.version = written.version;
        opened.turns = written.turns;
        if (command) {
          await answered(opened, opened.room.settle());
          tellTurns();
        } else show(await answered(opened, opened.room.apply([written.command!], written.version)));
        return written;
      } catch (error) {
        if (error instanceof Refused && error.status === 409) reopen(planId);
        else if (command && open === opened) show(await answered(opened, opened.room.refuse(opened.version)));
        throw error;
      }
    });
  opened.last = work;
  keeping.set(keeping.get() + 1);
  const kept = () => keeping.set(keeping.get() - 1);
  work.then(kept, kept);
  return work;
}

/**
 * Changes the plan by a command; `words` is what the history calls it. A command that is made by a question to the room
 * is asked for once everything before it has been done.
 */
export const changePlan = (planId: string, wanted: Wanted, words?: string): Promise<unknown> =>
  write(
    planId,
    (about, command) =>
      ask<Written>(`/api/plans/${planId}`, { method: 'PATCH', json: { ...about, command, ...(words && { words }) } }),
    wanted,
  );

/** Takes the last change back, or does it again; gives what it was, and what can be taken back and done again then. */
export const turnPlan = async (planId: string, undo: boolean): Promise<{ words: string; turns: Turns }> => {
  const written = await write(
    planId,
    (about) => ask<Written>(`/api/plans/${planId}/turn`, { method: 'POST', json: { ...about, undo } }),
    null,
  );
  return { words: written?.words ?? '', turns: written?.turns ?? NOTHING };
};

/** Goes to a point of the history: behind the change of this number, 0 before all that is remembered. */
export const turnPlanTo = async (planId: string, to: number): Promise<string> => {
  const written = await write(
    planId,
    (about) => ask<Written>(`/api/plans/${planId}/turn`, { method: 'POST', json: { ...about, to } }),
    null,
  );
  return written?.words ?? '';
};

/** Ends when all that is shown of a plan is kept; fails with what could not be. */
export const whenKept = async (planId: string): Promise<void> => {
  if (open?.planId === planId) await open.last;
};

/** The room of a plan once it is open, or what went wrong. */
export function usePlanRoom(planId: string, version: number): { open: OpenRoom | null; error: string | null } {
  const [state, setState] = useState<{ open: OpenRoom | null; error: string | null }>({ open: null, error: null });
  useEffect(() => {
    let current = true;
    const take = () =>
      openRoom(planId, version).ready.then(
        (ready) => current && setState({ open: ready, error: null }),
        (error: Error) => current && setState({ open: null, error: error.message }),
      );
    void take();
    listeners.add(take);
    return () => {
      current = false;
      listeners.delete(take);
    };
  }, [planId, version]);
  return state;
}

/** What of the open plan can be taken back and done again. */
export function usePlanTurns(planId: string, room: OpenRoom | null): Turns {
  const [turns, setTurns] = useState<Turns>(NOTHING);
  useEffect(() => {
    let current = true;
    const opened = open;
    if (opened?.planId !== planId || !room) return;
    const take = () => opened.turns && setTurns(opened.turns);
    turnListeners.add(take);
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
      turnListeners.delete(take);
    };
  }, [planId, room]);
  return turns;
}
