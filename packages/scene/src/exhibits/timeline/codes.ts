import { type CodeValue, type Plan, SHAPES } from '@clembo/core';
import { categoriesOf } from '../../brief/palette';
import { en } from '../../text/languages/en';
import type { PageLanguage } from '../../text/languages/language';
import type { LaneLevel } from '../../page/lanes';
import { GREY, KELP, NEUTRAL } from '../../graph/ink';

import { STATE_VALUES } from './states';

/** The value of a field, `outline` among them, for the activity at a position; an empty text for none. */
export type Coded = (field: string, position: number) => string;

/** How things of a code value look. */
export interface CodeLook {
  /** What the legend calls it; null where colour says nothing. */
  category: string | null;
  /** The place of the category in the book. */
  categoryRank: number;
  colour: string;
  shape: string;
  /** The number of its pattern for print in grey; 0 for none. */
  pattern: number;
}

/** Stands for things of several values. */
export const SEVERAL = '\u0001several';

const PLAIN: CodeLook = { category: null, categoryRank: 0, colour: KELP, shape: 'diamond', pattern: 0 };

/** Looks by code: those of the book, and for values without a colour the categories in the book's order. */
export function codeLooks(
  plan: Plan,
  field: string | null,
  { print, palette }: { print: 'colour' | 'grey'; palette: readonly string[] } = { print: 'colour', palette: [] },
  language: PageLanguage = en,
): (codes: string[]) => CodeLook {
  const colours = categoriesOf(palette);
  const inPrint = (look: CodeLook): CodeLook =>
    print === 'grey' ? { ...look, colour: GREY } : { ...look, pattern: 0 };
  if (field === null) return () => inPrint(palette.length > 0 ? { ...PLAIN, colour: palette[0]! } : PLAIN);
  const values: { code: string; title: string; colour: string | null; shape?: CodeValue['shape'] }[] =
    STATE_VALUES[field]?.map((v) => ({ ...v, title: language.states[v.code]! })) ??
    plan.codeFields.find((f) => f.id === field)?.values ??
    [];
  const other = (category: string): CodeLook =>
    inPrint({ category, categoryRank: Number.MAX_SAFE_INTEGER, colour: NEUTRAL, shape: 'diamond', pattern: 0 });
  const looks = new Map<string, CodeLook>(
    values.map((v, k) => {
      const colour = v.colour ?? colours[k];
      const shape = v.shape ?? 'diamond';
      return [
        v.code,
        colour
          ? inPrint({ category: v.title, categoryRank: k, colour, shape, pattern: k + 1 })
          : { ...other(language.other), shape },
      ];
    }),
  );
  const several = other(language.several);
  const without = other(language.without);
  const strange = other(language.other);
  return ([code = '']) =>
    code === SEVERAL ? several : code === '' ? (looks.get('') ?? without) : (looks.get(code) ?? strange);
}

/** The shape of a point in time by its code, and what the legend calls it. */
export interface ShapeLook {
  shape: string;
  title: string;
  rank: number;
  /** The name of its field. */
  of: string;
}

/** Shapes by code: those of the book, and for values without one the shapes in the book's order. */
export function shapeLooks(plan: Plan, field: string, language: PageLanguage = en): (code: string) => ShapeLook {
  const book = plan.codeFields.find((f) => f.id === field);
  const of = book?.name ?? field;
  const known = new Map(
    (book?.values ?? []).flatMap((v, rank): [string, ShapeLook][] => {
      const shape = v.shape ?? SHAPES[rank];
      return shape ? [[v.code, { shape, title: v.title, rank, of }]] : [];
    }),
  );
  const other = (title: string): ShapeLook => ({ shape: 'diamond', title, rank: Number.MAX_SAFE_INTEGER, of });
  return (code) => known.get(code) ?? other(code === '' ? language.without : language.other);
}

/** All codes of a book; those of the outline come from what is on the page. */
export const bookOf = (plan: Plan, field: string): string[] =>
  plan.codeFields.find((f) => f.id === field)?.values.map((v) => v.code) ?? [];

/** Titles of code values, and the order of a book: unknown values after it, nothing last. */
export function codeTitles(
  plan: Plan,
  field: string,
  roots: readonly number[],
  language: PageLanguage = en,
): LaneLevel {
  const book =
    field === 'outline'
      ? roots.map((i) => ({ code: plan.activities[i]!.ref, title: plan.activities[i]!.name }))
      : (plan.codeFields.find((f) => f.id === field)?.values ?? []);
  const titles = new Map(book.map((v) => [v.code, v.title]));
  const own = new Map((plan.codeFields.find((f) => f.id === field)?.values ?? []).map((v) => [v.code, v]));
  const ranks = new Map(book.map((v, k) => [v.code, k]));
  return {
    title: (code) =>
      titles.get(code) ?? (code === '' ? (field === 'outline' ? language.wholePlan : language.without) : code),
    colour: (code) => own.get(code)?.colour ?? null,
    height: (code) => own.get(code)?.height ?? null,
    rank: (code) => (code === '' ? Number.MAX_SAFE_INTEGER : (ranks.get(code) ?? book.length)),
  };
}
