'use client';
import { type RefObject, useEffect, useMemo, useState } from 'react';
import type { OpenRoom } from '@/workers/planRoom';
import { groundOf, panned, timesOff, type View, zoomed } from './stripView';

/** What a turn of the wheel does. */
const STEP = 1.0015;

/**
 * The time that the strips show: the range of the arrangement until somebody looks nearer; by the wheel over a strip
 * (with Ctrl nearer, with Shift to the side) and by keys. `ground` gives what lies behind bars of a calendar.
 */
export function useView(open: OpenRoom, whole: View, scroller: RefObject<HTMLElement | null>) {
  const [near, setNear] = useState<View | null>(null);
  const [width, setWidth] = useState(400);
  const { from, to } = whole;
  useEffect(() => setNear(null), [from, to]);
  const view = near ?? whole;
  useEffect(() => {
    const head = scroller.current?.querySelector('[data-strip-head]');
    if (!head) return;
    const watch = new ResizeObserver(() => setWidth(Math.max(50, Math.round(head.getBoundingClientRect().width))));
    watch.observe(head);
    return () => watch.disconnect();
  }, [scroller]);
  useEffect(() => {
    const el = scroller.current;
    if (!el) return;
    const wheel = (e: WheelEvent) => {
      const strip = (e.target as HTMLElement).closest('[data-strip], [data-strip-head]');
      if (!strip || !(e.ctrlKey || e.metaKey || e.shiftKey)) return;
      e.preventDefault();
      const box = strip.getBoundingClientRect();
      const delta = e.deltaY || e.deltaX;
      setNear((now) => {
        const v = now ?? { from, to };
        const at = v.from + ((e.clientX - box.left) / box.width) * (v.to - v.from);
        return e.shiftKey ? panned(v, delta / box.width) : zoomed(v, STEP ** delta, at);
      });
    };
    el.addEventListener('wheel', wheel, { passive: false });
    return () => el.removeEventListener('wheel', wheel);
  }, [scroller, from, to]);
  const { calendars } = open.head;
  const ground = useMemo(() => {
    const made = new Map<string, string>();
    return (calendar: string): string => {
      const known = made.get(calendar);
      if (known !== undefined) return known;
      const spec = calendars.find((c) => c.id === calendar);
      const css = spec ? groundOf(timesOff(spec, view, width), view) : '';
      made.set(calendar, css);
      return css;
    };
  }, [calendars, view.from, view.to, width]);
  return { view, setView: setNear, width, ground };
}
