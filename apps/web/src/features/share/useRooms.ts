'use client';
import type { Brief } from '@clembo/scene/brief';
import { asShown, type Folio, type FolioPage, type PlanFacts } from '@clembo/scene/folio';
import { type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Step } from '@clembo/sync';
import type { FolioPlan } from '@/server/folioPage';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';
import type { ComposedPage } from '@/workers/composing';
import type { PlanHead } from '@/workers/openPlan';
import type { PlanRoom } from '@/workers/plan.worker';
import type { OpenRoom } from '@/workers/planRoom';

/** A page of a folio with the exhibit that it shows; null where that is gone. */
export interface ShownPage {
  page: FolioPage;
  name: string;
  plan: { id: string; name: string } | null;
  brief: Brief | null;
  composed: ComposedPage[] | null;
  error: string | null;
}

interface Room {
  room: Remote<PlanRoom>;
  ready: Promise<unknown>;
  head: PlanHead | null;
  version: number;
  end: () => void;
}

function openRoom(planId: string): Room {
  const worker = new Worker(new URL('../../workers/plan.worker.ts', import.meta.url), { type: 'module' });
  const room = wrap<PlanRoom>(worker);
  const own: Room = { room, ready: Promise.resolve(), head: null, version: 0, end: () => worker.terminate() };
  own.ready = room.open(planId).then((head) => {
    own.version = head.version;
    own.head = head;
  });
  return own;
}

/** Follows what is done to a plan for as long as it is looked at, and says when it is another. */
async function follow(planId: string, own: Room, alive: () => boolean, changed: () => void): Promise<void> {
  await own.ready;
  while (alive()) {
    try {
      const { version, steps } = await ask<{ version: number; steps: Step[] | null }>(
        `/api/plans/${planId}/steps?after=${own.version}`,
      );
      if (!alive() || version === own.version) continue;
      const taken = await own.room.take({ kind: 'steps', version, steps });
      const isAnew = taken.effects.length > 0;
      own.head = isAnew ? await own.room.open(planId) : (taken.head ?? own.head);
      own.version = isAnew ? own.head!.version : taken.version;
      changed();
    } catch {
      await new Promise((r) => setTimeout(r, 2000));
    }
  }
}

/** The exhibits of plans by their ids, each with its plan. */
const ownersOf = (plans: readonly FolioPlan[]) =>
  new Map(plans.flatMap((p) => p.exhibits.map((e) => [e.id, { plan: p, exhibit: e }] as const)));

/** A folio as it is shown: its pages, how its plans stand, and someone to ask for what is of no plan alone. */
export interface FolioPages {
  pages: ShownPage[];
  /** Pages that are still being composed. */
  left: number;
  facts: PlanFacts[];
  /** A room of any of its plans; undefined for a folio without pages. */
  anyRoom: () => Remote<PlanRoom> | undefined;
  /** The room of a plan, once it is open. */
  roomOf: (planId: string) => OpenRoom | null;
}

/**
 * The pages of a folio, composed from their plans as they are, each plan in a worker of its own; live, unless they are
 * to stay as they were opened.
 */
export function useFolioPages(folio: Folio, plans: readonly FolioPlan[], live = true): FolioPages {
  const rooms = useRef(new Map<string, Room>());
  const [ticks, setTicks] = useState<Record<string, number>>({});
  const [made, setMade] = useState<
    ReadonlyMap<string, { key: string; composed: ComposedPage[] | null; error: string | null }>
  >(new Map());
  const owner = useMemo(() => ownersOf(plans), [plans]);
  const wanted = [...new Set(folio.pages.flatMap((p) => owner.get(p.exhibit)?.plan.id ?? []))].sort().join(' ');

  useEffect(() => {
    let alive = true;
    for (const id of wanted === '' ? [] : wanted.split(' ')) {
      if (rooms.current.has(id)) continue;
      const own = openRoom(id);
      rooms.current.set(id, own);
      if (live)
        void follow(
          id,
          own,
          () => alive || rooms.current.get(id) === own,
          () => setTicks((t) => ({ ...t, [id]: (t[id] ?? 0) + 1 })),
        );
    }
    return () => {
      alive = false;
    };
  }, [wanted, live]);
  useEffect(() => {
    const held = rooms.current;
    return () => {
      for (const r of held.values()) r.end();
      held.clear();
    };
  }, []);

  const keys = folio.pages.map((page) => {
    const own = owner.get(page.exhibit);
    return own
      ? JSON.stringify([page.exhibit, page.from, page.to, page.where, page.group, ticks[own.plan.id] ?? 0])
      : '';
  });
  const mark = keys.join('\n');
  useEffect(() => {
    let current = true;
    const list = mark.split('\n');
    void (async () => {
      for (const [k, page] of folio.pages.entries()) {
        const own = owner.get(page.exhibit);
        const room = own && rooms.current.get(own.plan.id);
        const key = list[k]!;
        if (!own || !room || made.get(page.id)?.key === key) continue;
        let entry: { key: string; composed: ComposedPage[] | null; error: string | null };
        try {
          await room.ready;
          const brief = asShown(own.exhibit.brief, page);
          const first = await room.room.compose(brief, 1);
          const composed = [first];
          for (let n = 2; n <= first.sheet.of; n++) composed.push(await room.room.compose(brief, n));
          entry = { key, composed, error: null };
        } catch (error) {
          entry = { key, composed: null, error: error instanceof Error ? error.message : String(error) };
        }
        if (!current) return;
        setMade((m) => new Map(m).set(page.id, entry));
      }
    })().catch(wrong);
    return () => {
      current = false;
    };
    // biome-ignore lint: what is composed follows the mark
  }, [mark]);

  const [facts, setFacts] = useState<PlanFacts[]>([]);
  const again = Object.values(ticks).join(' ');
  useEffect(() => {
    let current = true;
    if (folio.overview && wanted !== '')
      void Promise.all(
        wanted.split(' ').flatMap((id) => {
          const own = rooms.current.get(id);
          return own ? [own.ready.then(() => own.room.standingFacts())] : [];
        }),
      ).then((list) => current && setFacts(list), wrong);
    return () => {
      current = false;
    };
    // biome-ignore lint: asked again when a plan is another
  }, [wanted, folio.overview, again]);

  const pages = useMemo(() => {
    return folio.pages.map((page): ShownPage => {
      const own = owner.get(page.exhibit);
      const entry = made.get(page.id);
      return {
        page,
        name: own?.exhibit.name ?? 'An exhibit that is gone',
        plan: own ? { id: own.plan.id, name: own.plan.name } : null,
        brief: own?.exhibit.brief ?? null,
        composed: entry?.composed ?? null,
        error: own ? (entry?.error ?? null) : 'The exhibit is not there any more.',
      };
    });
  }, [folio.pages, owner, made]);
  return {
    pages,
    facts,
    left: pages.filter((p) => p.composed === null && p.error === null).length,
    anyRoom: () => [...rooms.current.values()][0]?.room,
    roomOf: (planId) => {
      const own = rooms.current.get(planId);
      return own?.head ? { room: own.room, head: own.head } : null;
    },
  };
}
