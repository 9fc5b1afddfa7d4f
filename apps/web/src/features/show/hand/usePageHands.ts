'use client';
import type { Anchor, LabelPlace, Placed } from '@clembo/scene';
import { type PointerEvent as ReactPointerEvent, useCallback, useRef, useState } from 'react';
import type { ComposedPage } from '@/workers/composing';
import { type Chosen, thing, toggled } from './chosen';
import { placedAt } from './cards';
import { spotAt } from '../line/onPlane';
import { anchorAt, labelPlaceAt, laneAt, laneSlot, outerLanes, type Point } from './places';

/** What the pointer is to put onto the page. */
export type Tool = 'text' | 'arrow' | 'box' | 'picture' | 'comment';

export interface HandActions {
  onChoose: (chosen: Chosen) => void;
  onLabel: (ref: string, at: LabelPlace) => void;
  /** A note was moved by so many sizes of the type. */
  onNote: (id: string, dx: number, dy: number) => void;
  onLane: (code: string, slot: number) => void;
  /** A card was carried to another place. */
  onCard: (placed: Placed) => void;
  onPlace: (tool: Tool, from: Anchor, to: Anchor) => void;
}

/** What is drawn over the page while something is carried, in points. */
export type Carried =
  | { kind: 'line'; y: number; width: number }
  | { kind: 'rect' | 'arrow'; from: Point; to: Point }
  | null;

/** So many pixels the pointer moves before something is carried. */
const STILL = 4;

type Grip =
  | { kind: 'tool'; tool: Tool; ref: string | null }
  | { kind: 'note'; id: string; parts: SVGElement[] }
  | { kind: 'label'; ref: string; parts: SVGElement[]; at: Point }
  | { kind: 'lane'; code: string }
  | { kind: 'card'; ref: string; parts: SVGElement[] }
  | { kind: 'flow'; ref: string }
  | { kind: 'area' };

/** What takes hold of a work on a page of a line. */
export interface LineHold {
  begin: (ref: string, from: Point) => void;
  carry: (from: Point, to: Point) => void;
  drop: () => void;
  cancel: () => void;
}

const number = (element: Element, name: string): number => Number(element.getAttribute(name));

/** Takes hold of what is on a page: chooses it by a click, carries it by a drag. */
export function usePageHands(
  page: ComposedPage,
  tool: Tool | null,
  chosen: Chosen,
  { onChoose, onLabel, onNote, onLane, onCard, onPlace }: HandActions,
  line: LineHold | null,
) {
  const [carried, setCarried] = useState<Carried>(null);
  const ending = useRef<() => void>(() => {});
  const { handles, cards } = page;

  const gripOf = useCallback(
    (target: Element, at: Point): Grip | null => {
      const ref = target.closest('[data-ref]')?.getAttribute('data-ref') ?? null;
      if (tool) return { kind: 'tool', tool, ref };
      const note = target.closest<SVGElement>('[data-note]');
      if (note) return { kind: 'note', id: note.getAttribute('data-note')!, parts: [note] };
      const group = target.closest<SVGElement>('g[data-role="item"]');
      if (cards && group && ref !== null) return { kind: 'card', ref, parts: [group] };
      if (cards) return ref === null ? { kind: 'area' } : null;
      if (page.plane && line && group && ref !== null) return { kind: 'flow', ref };
      if (!handles) return null;
      if (target.closest('[data-role="label"]') && group && ref !== null) {
        const parts = [...group.querySelectorAll<SVGElement>('[data-role="label"]')];
        const [first] = parts;
        return { kind: 'label', ref, parts, at: { x: number(first!, 'x'), y: number(first!, 'y') } };
      }
      if (target.closest('[data-role="lane"]')) {
        const lane = laneAt(handles, at);
        return lane && lane.codes.length === 1 ? { kind: 'lane', code: lane.codes[0]! } : null;
      }
      return ref === null ? { kind: 'area' } : null;
    },
    [tool, handles, cards, page.plane, line],
  );

  const onPointerDown = (event: ReactPointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    const svg = event.currentTarget.querySelector('svg');
    if (!svg) return;
    const frame = svg.getBoundingClientRect();
    const scale = page.width / frame.width;
    const pointOf = (e: { clientX: number; clientY: number }): Point => ({
      x: (e.clientX - frame.left) * scale,
      y: (e.clientY - frame.top) * scale,
    });
    const target = page.plane && !tool ? nearFlow(event) : (event.target as Element);
    const from = pointOf(event);
    const grip = gripOf(target, from);
    const start = { x: event.clientX, y: event.clientY };
    const more = event.shiftKey || event.ctrlKey || event.metaKey;
    let moved = false;
    ending.current();
    // A text that is carried is not marked.
    if (grip) event.preventDefault();
    if (grip?.kind === 'flow') line!.begin(grip.ref, from);
    // Typing elsewhere ends with a press on the page.
    (document.activeElement as HTMLElement | null)?.blur?.();

    const carry = (to: Point) => {
      const [dx, dy] = [to.x - from.x, to.y - from.y];
      switch (grip?.kind) {
        case 'note':
        case 'label':
        case 'card':
          for (const part of grip.parts) part.setAttribute('transform', `translate(${dx} ${dy})`);
          return;
        case 'flow':
          return line!.carry(from, to);
        case 'lane': {
          const lanes = outerLanes(handles!);
          const slot = laneSlot(handles!, to.y);
          const y = slot < lanes.length ? lanes[slot]!.top : lanes.at(-1)!.bottom;
          return setCarried({ kind: 'line', y, width: page.width });
        }
        case 'tool':
          if (grip.tool === 'arrow' || grip.tool === 'box')
            setCarried({ kind: grip.tool === 'arrow' ? 'arrow' : 'rect', from, to });
          return;
        case 'area':
          setCarried({ kind: 'rect', from, to });
      }
    };
    const drop = (to: Point) => {
      const size = handles?.size ?? 1;
      switch (grip?.kind) {
        case 'note':
          return onNote(grip.id, (to.x - from.x) / size, (to.y - from.y) / size);
        case 'label': {
          const place = labelPlaceAt(handles!, grip.ref, {
            x: grip.at.x + to.x - from.x,
            y: grip.at.y + to.y - from.y,
          });
          if (place) onLabel(grip.ref, place);
          return;
        }
        case 'flow':
          return line!.drop();
        case 'lane':
          return onLane(grip.code, laneSlot(handles!, to.y));
        case 'card': {
          const place = placedAt(cards!, grip.ref, to.x - from.x, to.y - from.y);
          for (const part of grip.parts) part.removeAttribute('transform');
          if (place) onCard(place);
          return;
        }
        case 'area':
          return onChoose(within(svg, from, to, more ? chosen : null));
      }
    };
    const click = () => {
      if (grip?.kind === 'flow') line!.cancel();
      if (grip?.kind === 'note') return onChoose({ kind: 'note', id: grip.id });
      const ref = target.closest('[data-ref]')?.getAttribute('data-ref') ?? null;
      if (ref !== null) return onChoose(more ? toggled(chosen, ref) : thing(ref));
      const lane = handles && target.closest('[data-role="lane"]') ? laneAt(handles, from) : null;
      if (lane) return onChoose({ kind: 'lane', codes: lane.codes });
      if (!more) onChoose(null);
    };
    const onMove = (e: PointerEvent) => {
      moved ||= Math.hypot(e.clientX - start.x, e.clientY - start.y) > STILL;
      if (moved) carry(pointOf(e));
    };
    const onUp = (e: PointerEvent) => {
      end();
      const to = pointOf(e);
      if (grip?.kind === 'tool') {
        const other = document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-ref]')?.getAttribute('data-ref');
        const held = (at: Point, ref: string | null): Anchor | null =>
          (ref === null && page.plane ? spotAt(page.plane, at) : null) ?? (handles ? anchorAt(handles, at, ref) : null);
        const [a, b] = [held(from, grip.ref), held(to, other ?? null)];
        // An arrow and a frame need two ends.
        if (a && b && (moved || (grip.tool !== 'arrow' && grip.tool !== 'box'))) onPlace(grip.tool, a, b);
        return;
      }
      if (moved) drop(to);
      else click();
    };
    const onCancel = () => {
      end();
      if (grip?.kind === 'flow') line!.cancel();
      if (grip && 'parts' in grip) for (const p of grip.parts) p.removeAttribute('transform');
    };
    const onKey = (e: KeyboardEvent) => e.key === 'Escape' && onCancel();
    const end = () => {
      window.removeEventListener('pointermove', onMove);
      window.removeEventListener('pointerup', onUp);
      window.removeEventListener('pointercancel', onCancel);
      window.removeEventListener('keydown', onKey);
      setCarried(null);
    };
    ending.current = end;
    window.addEventListener('pointermove', onMove);
    window.addEventListener('pointerup', onUp);
    window.addEventListener('pointercancel', onCancel);
    window.addEventListener('keydown', onKey);
  };
  return { onPointerDown, carried };
}

/** Pixels about the pointer in which a thin line is still meant. */
const ABOUT = [3, 6];

/** What is pointed at, or the line that runs by. */
function nearFlow({ target, clientX, clientY }: { target: EventTarget; clientX: number; clientY: number }): Element {
  const own = target as Element;
  if (own.closest('[data-ref], [data-note]')) return own;
  for (const far of ABOUT)
    for (let k = 0; k < 8; k++) {
      const [x, y] = [clientX + far * Math.cos((k * Math.PI) / 4), clientY + far * Math.sin((k * Math.PI) / 4)];
      const found = document.elementFromPoint(x, y);
      if (found?.closest('g[data-role="item"][data-ref]')) return found;
    }
  return own;
}

/** The things whose marks lie in an area, with those that were chosen before. */
function within(svg: SVGSVGElement, a: Point, b: Point, before: Chosen): Chosen {
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
  const refs = new Set(before?.kind === 'things' ? before.refs : []);
  for (const group of svg.querySelectorAll<SVGGElement>('g[data-role="item"]')) {
    const mark = group.querySelector<SVGGraphicsElement>('[data-role="bar"], [data-role="milestone"]');
    const box = mark?.getBBox();
    if (!box || box.x > right || box.x + box.width < left || box.y > bottom || box.y + box.height < top) continue;
    refs.add(group.getAttribute('data-ref')!);
  }
  return refs.size === 0 ? null : { kind: 'things', refs: [...refs] };
}
