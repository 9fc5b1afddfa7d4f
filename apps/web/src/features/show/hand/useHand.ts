'use client';
import type { Anchor } from '@clembo/scene';
import {
  type Brief,
  type Look,
  type Note,
  type Picture,
  type Placed,
  type TimelineBrief,
  withLook,
  withPlaced,
} from '@clembo/scene/brief';
import { useMemo } from 'react';
import type { ComposedPage } from '@/workers/composing';
import { sameLane } from './chosen';
import { pointOnPlane, spotAt } from '../line/onPlane';
import { lanesWith } from './places';

/** What looks can be carried over to other things: neither words nor places. */
export type Looks = Pick<Look, 'colour' | 'shape' | 'side' | 'strong'>;

/** What a person does on a page by hand, as changes of its brief. */
export interface Hand {
  marks: readonly Note[];
  looks: readonly Look[];
  folded: readonly string[][];
  /** Cards that were carried elsewhere. */
  placed: readonly Placed[];
  /** Lanes that were put first. */
  laneFirst: readonly string[];
  /** Whether things and lanes can be set too, or only notes put onto the page. */
  setsThings: boolean;
  look: (refs: readonly string[], change: Partial<Omit<Look, 'ref'>>) => void;
  clearLooks: (refs: readonly string[]) => void;
  addNote: (note: Note) => void;
  changeNote: (id: string, change: Partial<Note>) => void;
  moveNote: (id: string, dx: number, dy: number) => void;
  removeNote: (id: string) => void;
  moveLane: (code: string, slot: number) => void;
  fold: (codes: string[], folded: boolean) => void;
  place: (placed: Placed) => void;
  unplace: (ref: string) => void;
  putLanesBack: () => void;
  clearAll: () => void;
}

const NOTHING: Pick<TimelineBrief, 'looks' | 'folded' | 'laneFirst'> = { looks: [], folded: [], laneFirst: [] };
const hundredth = (n: number): number => Math.round(n * 100) / 100;
const shifted = <A extends Anchor>(a: A, dx: number, dy: number): A => ({
  ...a,
  dx: hundredth(a.dx + dx),
  dy: hundredth(a.dy + dy),
});

/** As {@link shifted}; a point of an arrow or a frame that a place holds is held by another place then. */
function carried(a: Anchor, dx: number, dy: number, page: ComposedPage | null): Anchor {
  const plane = page?.plane;
  if (!('place' in a) || !plane || !page.handles) return shifted(a, dx, dy);
  const from = pointOnPlane(plane, { place: a.place / 1000, time: a.at / 1440 });
  const { size } = page.handles;
  const to = spotAt(plane, { x: from.x + (a.dx + dx) * size, y: from.y + (a.dy + dy) * size });
  return to ?? shifted(a, dx, dy);
}

export function useHand(brief: Brief, page: ComposedPage | null, change: (part: Partial<Brief>) => void): Hand | null {
  return useMemo(() => {
    if (!('marks' in brief)) return null;
    const placed = 'placed' in brief ? brief.placed : [];
    const put = (part: Partial<TimelineBrief & { placed: Placed[] }>) => change(part as Partial<Brief>);
    const { looks, folded, laneFirst } = brief.kind === 'timeline' ? brief : NOTHING;
    const marks = (edit: (m: Note) => Note) => put({ marks: brief.marks.map(edit) });
    return {
      marks: brief.marks,
      looks,
      folded,
      laneFirst,
      setsThings: brief.kind === 'timeline',
      placed,
      look: (refs, part) => put({ looks: refs.reduce((all, ref) => withLook(all, ref, part), [...looks]) }),
      clearLooks: (refs) => put({ looks: looks.filter((l) => !refs.includes(l.ref)) }),
      addNote: (note) => put({ marks: [...brief.marks, note] }),
      changeNote: (id, part) => marks((m) => (m.id === id ? ({ ...m, ...part } as Note) : m)),
      moveNote: (id, dx, dy) =>
        marks((m) =>
          m.id !== id
            ? m
            : {
                ...m,
                // Words keep their line to the place that they are about.
                anchor: 'to' in m ? carried(m.anchor, dx, dy, page) : shifted(m.anchor, dx, dy),
                ...('to' in m ? { to: carried(m.to, dx, dy, page) } : {}),
              },
        ),
      removeNote: (id) => put({ marks: brief.marks.filter((m) => m.id !== id) }),
      moveLane: (code, slot) => {
        if (page?.handles) put({ laneFirst: lanesWith(page.handles, code, slot, [...laneFirst]) });
      },
      fold: (codes, on) => {
        const others = folded.filter((f) => !sameLane(f, codes));
        put({ folded: on ? [...others, codes] : others });
      },
      place: (own) => put({ placed: withPlaced(placed, own) }),
      unplace: (ref) => put({ placed: placed.filter((p) => p.ref !== ref) }),
      putLanesBack: () => put({ laneFirst: [] }),
      clearAll: () => put(brief.kind === 'timeline' ? { looks: [], marks: [], folded: [] } : { marks: [], placed: [] }),
    };
  }, [brief, page, change]);
}

/** A note of a kind between two places, with an id that the page does not have yet. */
export function newNote(
  kind: Note['kind'],
  from: Anchor,
  to: Anchor,
  taken: readonly Note[],
  picture: Picture | null,
): Note | null {
  let n = taken.length + 1;
  while (taken.some((m) => m.id === `n${n}`)) n++;
  const id = `n${n}`;
  switch (kind) {
    case 'text':
      // Words stand a little above what they are about.
      return { kind, id, anchor: shifted(from, 1.5, -3), text: 'Note', width: 16, line: true };
    case 'picture':
      return picture && { kind, id, anchor: from, picture, width: 8, alt: '' };
    default:
      return { kind, id, anchor: from, to };
  }
}
