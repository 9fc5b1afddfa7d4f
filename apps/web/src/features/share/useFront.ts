'use client';
import {
  COVER,
  type Folio,
  frontCount,
  leadsOfFacts,
  OVERVIEW,
  type PageBox,
  pageRef,
  type Place,
} from '@clembo/scene/folio';
import { useEffect, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { FrontAsked, FrontPages } from '@/workers/answers/front';
import type { ComposedPage } from '@/workers/composing';
import type { FolioPages, ShownPage } from './useRooms';

const NONE: FrontPages = { cover: null, overview: null };
/** A4 lying, until a page says otherwise. */
const PAPER = { width: 841.89, height: 595.28 };

/** The numbers of the pages of a folio, each that of its first sheet. */
export function numbersOf(folio: Pick<Folio, 'cover' | 'overview'>, pages: readonly ShownPage[]): number[] {
  let next = frontCount(folio) + 1;
  return pages.map((p) => {
    const own = next;
    if (p.plan !== null) next += p.composed?.length ?? 1;
    return own;
  });
}

const known = new WeakMap<ComposedPage, ReadonlySet<string>>();

/** The references of what is drawn on a page. */
function thingsOn(page: ComposedPage): ReadonlySet<string> {
  const own =
    known.get(page) ??
    new Set(
      [...page.svg.matchAll(/data-ref="([^"]*)"/g)].map(([, ref]) =>
        ref!
          .replace(/&lt;/g, '<')
          .replace(/&gt;/g, '>')
          .replace(/&quot;/g, '"')
          .replace(/&amp;/g, '&'),
      ),
    );
  known.set(page, own);
  return own;
}

/** Whether something with this reference is drawn on a page. */
export const hasThing = (page: ShownPage, ref: string): boolean =>
  (page.composed ?? []).some((c) => thingsOn(c).has(ref));

/** Where something leads: to a page, or to things or a rectangle on it, enlarged. */
export interface Target {
  page: string;
  things: readonly string[];
  box: PageBox | null;
}
export const targetOf = ({ page, ref, box }: Place): Target => ({ page, things: ref === null ? [] : [ref], box });

/** Where things of the cover and the overview lead by themselves, by their references. */
export function leadsOf(folio: Folio, { pages, facts }: Pick<FolioPages, 'pages' | 'facts'>): Map<string, Target> {
  const leads = new Map<string, Target>();
  const numbers = numbersOf(folio, pages);
  pages.forEach((p, k) => leads.set(pageRef(numbers[k]!), { page: p.page.id, things: [], box: null }));
  for (const { ref, plan, things } of leadsOfFacts(facts)) {
    const to = pages.find((p) => p.plan?.id === plan && things.some((thing) => hasThing(p, thing)));
    if (to) leads.set(ref, { page: to.page.id, things, box: null });
  }
  return leads;
}

/** Whether a page is one of the first, which the folio makes by itself. */
export const isFront = (page: string): boolean => page === COVER || page === OVERVIEW;

/**
 * The cover and the overview of a folio as pictures, in the size of its pages or, where that is said, of a screen; on
 * a narrow one with blocks below each other in type of a size.
 */
export function useFront(
  folio: Folio,
  { pages, facts, anyRoom }: FolioPages,
  screen: { width: number; height: number } | null = null,
  stacked: number | null = null,
): FrontPages {
  const [front, setFront] = useState(NONE);
  const numbers = numbersOf(folio, pages);
  const first = pages.find((p) => p.composed)?.composed?.[0];
  const paper = first ?? PAPER;
  const { name, under, cover, overview, blocks } = folio;
  const asked: FrontAsked | null =
    first && frontCount(folio) > 0
      ? {
          folio: { name, under, cover, overview, blocks },
          plans: facts,
          names: [...new Set(pages.flatMap((p) => p.plan?.name ?? []))],
          pages: pages.flatMap((p, k) => {
            const own = p.composed?.[0] ?? paper;
            if (p.plan === null) return [];
            const { id, section } = p.page;
            return [{ id, name: p.name, section, number: numbers[k]!, width: own.width, height: own.height }];
          }),
          size: screen ?? { width: paper.width, height: paper.height },
          stacked,
        }
      : null;
  const key = JSON.stringify(asked);
  useEffect(() => {
    let current = true;
    const room = anyRoom();
    const said = JSON.parse(key) as FrontAsked | null;
    if (said === null || !room) setFront(NONE);
    else room.frontPages(said).then((made) => current && setFront(made), wrong);
    return () => {
      current = false;
    };
    // biome-ignore lint: what it is made of is in the key
  }, [key]);
  return front;
}
