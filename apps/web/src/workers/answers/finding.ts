import {
  codeOfFieldId,
  fieldReader,
  fieldType,
  finder,
  type Looking,
  replaced,
  type Test,
  valueText,
} from '@clembo/core';
import { editorOf } from '@clembo/formats/typed';
import type { Held } from './held';
import { editText, type LedgerView } from './ledger';

/** A cell in which something was found. */
export interface FoundCell {
  ref: string;
  field: string;
}

export interface FoundCells {
  cells: FoundCell[];
  /** How many of them can be typed into. */
  open: number;
}

/** The cells of the listed rows that hold a text as it is shown, row by row. */
export function foundCells(view: LedgerView, looking: Looking, fields: readonly string[]): FoundCells {
  const holds = finder(looking);
  if (!holds) return { cells: [], open: 0 };
  const cells = view.search(fields, holds);
  return { cells, open: cells.filter((c) => editorOf(c.field) !== null).length };
}

/** The cells with the text replaced, as they would be typed. */
export function replacedCells(
  held: Held,
  view: LedgerView,
  cells: readonly FoundCell[],
  looking: Looking,
  by: string,
): { ref: string; field: string; text: string }[] {
  return cells.flatMap(({ ref, field }) => {
    if (editorOf(field) === null) return [];
    const before = editText(held, ref, field, view.shownOf(ref, field));
    const text = replaced(before, looking, by);
    return text === before ? [] : [{ ref, field, text }];
  });
}

/** The question that only rows with the same value in a field answer. */
export function likeTest({ plan, schedule: s }: Held, ref: string, field: string): Test | null {
  const i = s.outline.indexOf.get(ref);
  const read = fieldReader(plan, s, field);
  if (i === undefined || !read) return null;
  const value = read(i);
  if (value === null || (typeof value !== 'number' && value.length === 0)) return { field, is: 'empty', values: [] };
  if (Array.isArray(value)) return { field, is: 'is', values: value.slice(0, 100) };
  const type = codeOfFieldId(field) === null ? fieldType(field) : 'text';
  return { field, is: 'is', values: [valueText(value, type)] };
}
