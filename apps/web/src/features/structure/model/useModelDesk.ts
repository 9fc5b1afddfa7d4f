'use client';
import type { BuildView, Condition, Effect, Look } from '@clembo/core';
import { dayOf, startOfDay } from '@clembo/core/time';
import { defaultBrief, PROMISED } from '@clembo/scene/brief';
import { formatDay } from '@clembo/scene/dates';
import { type DragEndEvent, type DragStartEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { ask } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';
import type { ModelBook } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';
import type { Hover } from './Pictures';
import { useMatching } from './useMatching';
import {
  type Asked,
  EVERYTHING,
  FIRST_LOOK,
  type Mode,
  useBounds,
  useStanding,
  useStoreys,
  withChosen,
} from './useModel';

const NOBODY: ReadonlySet<number> = new Set();

/** What the model desk is about: the day and colours that are asked for, what is chosen, and what comes of matching. */
export function useModelDesk({ planId, open, book }: { planId: string; open: OpenRoom; book: ModelBook }) {
  const { head } = open;
  const status = head.statusDate === null ? null : dayOf(head.statusDate);
  const [asked, setAsked] = useState<Omit<Asked, 'day'> & { day: number | null }>({
    day: status,
    where: EVERYTHING,
    colour: head.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 8)?.id ?? null,
    compare: head.editions.length > 0 ? PROMISED : null,
    beside: false,
  });
  const askFor = (change: Partial<typeof asked>) => setAsked((was) => ({ ...was, ...change }));
  const [all, setAll] = useState({ works: false, kinds: false });
  const [look, setLook] = useState<Look>(FIRST_LOOK);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(NOBODY);
  const [work, setWork] = useState<string | null>(null);
  const [lit, setLit] = useState<ReadonlySet<number>>(NOBODY);
  const [modes, setModes] = useState<ReadonlyMap<number, Mode>>(new Map());
  const [framing, setFraming] = useState(false);
  const [asList, setAsList] = useState(false);
  const [sheet, setSheet] = useState<'models' | 'rules' | null>(null);
  const [hover, setHover] = useState<Hover | null>(null);
  const shownDay = asked.day ?? status ?? 0;
  const shown: Asked = { ...asked, day: shownDay };
  const { standing, matching } = useStanding(open, book, shown, all);
  const storeys = useStoreys(book);
  const bounds = useBounds(book, storeys, look.lift);
  const days = matching?.curve?.bounds;
  useEffect(() => {
    // Without a status date the model is looked at in the middle of what is built.
    if (asked.day === null && status === null && days) setAsked((was) => ({ ...was, day: days[days.length >> 1]! }));
  }, [asked.day, status, days]);

  const looks = useMemo(
    () => (standing ? withChosen(standing.looks, standing.meant, chosen, lit, modes) : null),
    [standing, chosen, lit, modes],
  );
  const promised = useMemo(
    () => (standing?.promisedLooks ? withChosen(standing.promisedLooks, standing.meant, chosen, lit, modes) : null),
    [standing, chosen, lit, modes],
  );

  const choose = useCallback((elements: readonly number[], more: boolean) => {
    setChosen((was) => {
      if (!more) return new Set(elements);
      const next = new Set(was);
      const has = elements.every((e) => next.has(e));
      for (const e of elements)
        if (has) next.delete(e);
        else next.add(e);
      return next;
    });
  }, []);
  const chooseWhere = async (condition: Condition) => choose(await open.room.elementsWhere(condition), false);
  const light = useCallback(
    (ref: string | null) => {
      if (ref === null) setLit(NOBODY);
      else open.room.elementsOfWork(ref).then((list) => setLit(new Set(list)), wrong);
    },
    [open.room],
  );
  const workName = (ref: string): string => matching?.works.find((w) => w.ref === ref)?.name ?? ref;
  const acts = useMatching(planId, open, book, workName);
  const match = async (ref: string, elements: readonly number[], effect: Effect) => {
    if (await acts.match(ref, elements, effect)) setWork(null);
  };

  const heights: [number, number] = bounds ? [bounds.least[2], bounds.greatest[2]] : [0, 1];
  /** Shows a view that was kept. */
  const show = (v: BuildView) => {
    setLook(v.look);
    askFor({ where: v.where, day: v.day ?? status });
  };
  const keepView = (name: string) => {
    const views = head.buildViews;
    const number = views.reduce((n, v) => Math.max(n, Number(/\d+$/.exec(v.id)?.[0] ?? 0)), 0) + 1;
    const view: BuildView = {
      id: `view ${number}`,
      name,
      look,
      where: asked.where,
      day: shownDay === status ? null : shownDay,
    };
    void acts.put({ buildViews: [...views, view] }, `Keep the view ${name}`);
  };
  const dropView = (v: BuildView) =>
    void acts.put({ buildViews: head.buildViews.filter((x) => x.id !== v.id) }, `Let go of the view ${v.name}`);
  /** How the chosen elements, or all others, are shown. */
  const setMode = (mode: Mode, others: boolean) => {
    const next = new Map(modes);
    book.elements.forEach((_, e) => {
      if (chosen.has(e) !== others) next.set(e, mode);
    });
    setModes(next);
    if (!others) setChosen(NOBODY);
  };
  const nothing = () => setChosen(NOBODY);
  /** After models came or went. */
  const anew = () => {
    nothing();
    setModes(new Map());
  };
  return {
    head,
    status,
    asked,
    askFor,
    shown,
    shownDay,
    all,
    setAll,
    look,
    setLook,
    chosen,
    choose,
    chooseWhere,
    nothing,
    anew,
    work,
    setWork,
    light,
    modes,
    setModes,
    setMode,
    framing,
    setFraming,
    asList,
    setAsList,
    sheet,
    setSheet,
    hover,
    setHover,
    standing,
    matching,
    storeys,
    bounds,
    heights,
    looks,
    promised,
    workName,
    acts,
    match,
    show,
    keepView,
    dropView,
  };
}

export type ModelDeskState = ReturnType<typeof useModelDesk>;

/** Carries work to elements, and elements to work. */
export function useCarrying({ hover, chosen, match }: ModelDeskState) {
  const [carried, setCarried] = useState<string | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const onDragStart = ({ active }: DragStartEvent) =>
    setCarried((active.data.current?.title as string | undefined) ?? '');
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    setCarried(null);
    const from = active.data.current as { work?: string; elements?: number[] } | undefined;
    const to = over?.data.current as { work?: string; elements?: number[]; model?: boolean } | undefined;
    if (!from || !to) return;
    if (from.elements && to.work) void match(to.work, from.elements, 'builds');
    else if (from.work && to.elements) void match(from.work, to.elements, 'builds');
    else if (from.work && to.model) {
      const at = hover?.element ?? -1;
      const own = chosen.size > 0 ? [...chosen] : at >= 0 ? [at] : [];
      if (own.length > 0) void match(from.work, own, 'builds');
      else toast('Choose elements first, or drop the activity onto one.');
    }
  };
  return { carried, sensors, onDragStart, onDragEnd, onDragCancel: () => setCarried(null) };
}

/** Makes an exhibit of what is seen, and goes to it. */
export function useMakeExhibit(planId: string, { look, asked, shownDay, status }: ModelDeskState): () => Promise<void> {
  const router = useRouter();
  return async () => {
    try {
      const brief = {
        ...defaultBrief('build'),
        ...look,
        where: asked.where,
        colour: asked.colour,
        compare: asked.compare,
        page: 'A3 landscape' as const,
        ...(shownDay === status
          ? {}
          : {
              when: 'own' as const,
              dates: [{ name: formatDay(shownDay, 'long'), start: startOfDay(shownDay), finish: null }],
            }),
      };
      const name = `The model on ${formatDay(shownDay, 'long')}`;
      const { id } = await ask<{ id: string }>(`/api/plans/${planId}/exhibits`, {
        method: 'POST',
        json: { name, brief },
      });
      router.push(`/plans/${planId}/show/${id}`);
    } catch (e) {
      wrong(e);
    }
  };
}
