import {
  type CodeField,
  type Command,
  codesOutsideBook,
  codesUsed,
  ConditionRefused,
  fieldReader,
  fieldType,
  fillChanges,
  fillCodes,
  makeValue,
  type UsedCode,
  valueText,
} from '@clembo/core';
import type { Held } from './held';

/** A code field with what is in use of it. */
export interface Book {
  field: CodeField;
  /** How many activities have each value of the book, in its order. */
  used: number[];
  outside: UsedCode[];
  /** Activities and groups without any. */
  without: number;
}

export function booksOf({ plan }: Held): Book[] {
  return plan.codeFields.map((field) => {
    const counts = codesUsed(plan, field.id);
    return {
      field,
      used: field.values.map((v) => counts.get(v.code) ?? 0),
      outside: codesOutsideBook(plan, field),
      without: counts.get('') ?? 0,
    };
  });
}

/** What filling a field would do. */
export interface FillPreview {
  caught: { decides: number; catches: number }[];
  none: number;
  /** Some of those that nothing catches. */
  examples: { ref: string; name: string }[];
  /** How many codes would change. */
  changes: number;
  /** Codes that would come, with how often. */
  codes: UsedCode[];
  error: string | null;
}

const EXAMPLES = 6;
const CODES = 40;

export function previewFill({ plan, schedule }: Held, field: CodeField): FillPreview {
  const blank: FillPreview = { caught: [], none: 0, examples: [], changes: 0, codes: [], error: null };
  try {
    // The field may be read by its own rules, and need not be in the plan yet.
    const { codes, caught, none } = fillCodes(plan, schedule, field);
    const counts = new Map<string, number>();
    for (const code of codes) if (code !== '') counts.set(code, (counts.get(code) ?? 0) + 1);
    return {
      ...blank,
      caught,
      none: none.length,
      examples: none.slice(0, EXAMPLES).map((i) => ({ ref: plan.activities[i]!.ref, name: plan.activities[i]!.name })),
      changes: fillChanges(plan, schedule, field).length,
      codes: [...counts].slice(0, CODES).map(([code, count]) => ({ code, count })),
    };
  } catch (error) {
    if (error instanceof ConditionRefused) return { ...blank, error: error.message };
    throw error;
  }
}

/** Keeps the field with how it is filled, fills it, and takes values that come of it into its book. */
export function fillCommand({ plan, schedule }: Held, field: CodeField): Command {
  const codes = fillChanges(plan, schedule, field);
  const known = new Set(field.values.map((v) => v.code));
  const fresh = [...new Set(codes.map(([, code]) => code))].filter((code) => !known.has(code));
  const set: Command = {
    do: 'setCodeField',
    field: {
      ...field,
      values: [...field.values, ...fresh.slice(0, 10_000 - field.values.length).map((code) => makeValue({ code }))],
    },
  };
  return codes.length === 0 ? set : { do: 'all', commands: [set, { do: 'recode', field: field.id, codes }] };
}

/** The texts that a field holds, the most frequent first. */
export function codeTexts({ plan, schedule }: Held, id: string): string[] {
  const read = fieldReader(plan, schedule, id);
  if (!read || fieldType(id) !== 'text') return [];
  const counts = new Map<string, number>();
  for (let i = 0; i < plan.activities.length; i++) {
    const value = read(i);
    for (const text of Array.isArray(value) ? value : [valueText(value, 'text')])
      if (text !== '') counts.set(text, (counts.get(text) ?? 0) + 1);
  }
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .slice(0, 60)
    .map(([text]) => text);
}
