'use client';
import { type PointerEvent, useCallback, useRef } from 'react';
import type { ComposedPage } from '@/workers/composing';
import { pathsThrough } from './cards';

/** While a card is pointed at, what leads to it and what it leads to stays lit, and the rest of the page is dim. */
export function useLights(page: ComposedPage) {
  const lit = useRef<string | null>(null);
  const light = useCallback(
    (sheet: HTMLElement, ref: string | null) => {
      if (!page.cards || ref === lit.current) return;
      lit.current = ref;
      sheet.classList.toggle('lights', ref !== null);
      const on = ref === null ? new Set<string>() : pathsThrough(page.cards, ref);
      const has = (element: Element, name: string) => on.has(element.getAttribute(name) ?? '');
      for (const item of sheet.querySelectorAll('g[data-role="item"]'))
        item.classList.toggle('on', has(item, 'data-ref'));
      for (const link of sheet.querySelectorAll('[data-from]'))
        link.classList.toggle('on', has(link, 'data-from') && has(link, 'data-to'));
    },
    [page],
  );
  return {
    onPointerOver: (event: PointerEvent<HTMLElement>) => {
      const item = (event.target as Element).closest('g[data-role="item"]');
      light(event.currentTarget, event.buttons === 0 ? (item?.getAttribute('data-ref') ?? null) : null);
    },
    onPointerLeave: (event: PointerEvent<HTMLElement>) => light(event.currentTarget, null),
  };
}
