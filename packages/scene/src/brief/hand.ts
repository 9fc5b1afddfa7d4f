import { MomentValue, SHAPES } from '@clembo/core';
import { z } from 'zod';
import { Picture } from './parts';

/** A colour as pages write it. */
const Colour = z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour is written like #0F6E6E');
/** A distance in sizes of the type of labels, so that it stays in proportion on a page of another size. */
const Distance = z.number().min(-500).max(500);

/** Where a label was put by hand: its left end on the baseline, from an end of its thing. */
export const LabelPlace = z.object({ end: z.enum(['start', 'finish']), x: Distance, y: Distance });
export type LabelPlace = z.infer<typeof LabelPlace>;

export const LOOK_SIDES = ['right', 'left', 'inside', 'above'] as const;

/** How one thing looks other than the brief has it, by the reference of its activity. */
export const Look = z.object({
  ref: z.string().min(1).max(200),
  colour: Colour.optional(),
  shape: z.enum(SHAPES).optional(),
  /** Written in place of its name; nothing for no label at all. */
  text: z.string().max(200).optional(),
  side: z.enum(LOOK_SIDES).optional(),
  at: LabelPlace.optional(),
  /** A strong name and a heavy edge. */
  strong: z.boolean().optional(),
});
export type Look = z.infer<typeof Look>;

/** A place on a line, in thousandths of its unit, and a moment; from there a distance. */
export const SpotAnchor = z.object({
  place: z.int().min(-2_000_000_000_000).max(2_000_000_000_000),
  at: MomentValue,
  dx: Distance.default(0),
  dy: Distance.default(0),
});
export type SpotAnchor = z.infer<typeof SpotAnchor>;

/**
 * A point of a page that stays true when the plan or the dates of the page change: in the row of an activity, at its
 * start, its finish or a moment; from there a distance.
 */
export const RowAnchor = z.object({
  ref: z.string().min(1).max(200),
  at: z.union([z.enum(['start', 'finish']), MomentValue]),
  dx: Distance.default(0),
  dy: Distance.default(0),
});
export type RowAnchor = z.infer<typeof RowAnchor>;

/** What holds a note: something in the plan, or a place and a moment on a page of a line. */
export const Anchor = z.union([RowAnchor, SpotAnchor]);
export type Anchor = z.infer<typeof Anchor>;

/** The activity that holds a note; null where a place does. */
export const heldBy = (a: Anchor): string | null => ('ref' in a ? a.ref : null);

const noted = { id: z.string().min(1).max(40), anchor: Anchor, colour: Colour.optional() };

/** What a person has put onto a page. */
export const Note = z.discriminatedUnion('kind', [
  /** Words whose box begins at the anchor; a line leads to the point that it is held by. */
  z.object({
    ...noted,
    kind: z.literal('text'),
    text: z.string().trim().min(1).max(500),
    /** Lines are at most so wide, in sizes of the type. */
    width: z.number().min(4).max(80).default(16),
    line: z.boolean().default(true),
  }),
  z.object({ ...noted, kind: z.literal('arrow'), to: Anchor }),
  /** A frame from one corner to the other. */
  z.object({ ...noted, kind: z.literal('box'), to: Anchor }),
  z.object({
    ...noted,
    kind: z.literal('picture'),
    picture: Picture,
    width: z.number().min(1).max(120).default(8),
    alt: z.string().max(200).default(''),
  }),
]);
export type Note = z.infer<typeof Note>;

/** So many things can be set by hand on a page. */
export const MOST_BY_HAND = 500;

export const notesByHand = z.array(Note).max(100).default([]);

/** What is set by hand on a page, beside what its sentence says. It belongs to one plan. */
export const byHand = {
  looks: z.array(Look).max(MOST_BY_HAND).default([]),
  marks: notesByHand,
  /** Lanes that are drawn as one row, by the codes on the way to them. */
  folded: z
    .array(z.array(z.string().max(300)).min(1).max(4))
    .max(100)
    .default([]),
};

/** What of a brief is set by hand. */
export const BY_HAND = ['looks', 'marks', 'folded'] as const;

/** The looks with those of one thing changed; parts that are undefined go, and a look without parts goes too. */
export function withLook(looks: readonly Look[], ref: string, change: Partial<Omit<Look, 'ref'>>): Look[] {
  const before = looks.find((l) => l.ref === ref) ?? { ref };
  const now = Object.fromEntries(
    Object.entries({ ...before, ...change }).filter(([, value]) => value !== undefined),
  ) as Look;
  const others = looks.filter((l) => l.ref !== ref);
  return Object.keys(now).length > 1 ? [...others, now] : others;
}
