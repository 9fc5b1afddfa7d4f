import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { parseIsoDate } from '../time/civil';
import { type Condition, isTest, type Operator, type Test } from './condition';
import {
  type Fielded,
  type FieldReader,
  fieldReader,
  fieldType,
  type FieldType,
  type FieldValue,
  isEmptyValue,
  type Promised,
  selectFields,
} from './fields';

/** Whether something holds for the activity at a position. */
export type Holds = (position: number) => boolean;

/** What a test asks cannot be answered: the plan has no such field, or a value is none of its kind. */
export class ConditionRefused extends Error {}

/** A field that can be asked: what it is called, and how it is read at a position. */
export interface AskedField {
  name: string;
  type: FieldType;
  read: FieldReader;
}

/**
 * Makes a condition a question to positions of a plan.
 *
 * @param promised what questions about the promise compare with
 * @throws ConditionRefused with the field and the value in words
 */
export const conditionHolds = (
  plan: Plan,
  s: Schedule,
  condition: Condition,
  promised: Promised | null = null,
): Holds =>
  holdsBy((id) => {
    const read = fieldReader(plan, s, id, promised);
    return read && { name: nameOf(plan, id), type: fieldType(id), read };
  }, condition);

/**
 * Makes a condition a question to positions of whatever has fields.
 *
 * @param fieldOf a field by its id; null where there is none
 * @throws ConditionRefused with the field and the value in words
 */
export function holdsBy(fieldOf: (id: string) => AskedField | null, condition: Condition): Holds {
  const parts = condition.tests.map((t) => (isTest(t) ? testHolds(fieldOf(t.field), t) : holdsBy(fieldOf, t)));
  if (parts.length === 1) return parts[0]!;
  return condition.match === 'all'
    ? (i) => parts.every((p) => p(i))
    : (i) => parts.length === 0 || parts.some((p) => p(i));
}

function testHolds(asked: AskedField | null, { field, is, values }: Test): Holds {
  if (!asked) throw new ConditionRefused(`The plan has no field “${field}” (any more).`);
  const { name, type, read } = asked;
  if (is === 'empty') return (i) => isEmptyValue(read(i));
  if (is === 'filled') return (i) => !isEmptyValue(read(i));
  if (values.length === 0) throw new ConditionRefused(`Say what “${name}” is to be compared with.`);
  return type === 'text' ? textHolds(read, is, values) : sizeHolds(read, is, values, type, name);
}

const nameOf = (plan: Plan, id: string): string => selectFields(plan).find((f) => f.id === id)?.name ?? id;
const plain = (text: string): string => text.trim().toLowerCase();

const TEXT_TESTS: Partial<Record<Operator, (text: string, value: string) => boolean>> = {
  is: (text, value) => text === value,
  begins: (text, value) => text.startsWith(value),
  ends: (text, value) => text.endsWith(value),
  contains: (text, value) => text.includes(value),
};
/** Tests that hold where another does not. */
const OPPOSITE: Partial<Record<Operator, Operator>> = { isNot: 'is', lacks: 'contains' };

function textHolds(read: FieldReader, is: Operator, values: readonly string[]): Holds {
  const wanted = values.map(plain);
  const opposite = OPPOSITE[is];
  const test = TEXT_TESTS[opposite ?? is];
  if (!test) throw new ConditionRefused('Texts are not more or less than others; compare them by their letters.');
  const oneOf = (opposite ?? is) === 'is' ? new Set(wanted) : null;
  const met = (text: string): boolean =>
    oneOf ? oneOf.has(text) : wanted.some((value) => value !== '' && test(text, value));
  const any = (value: FieldValue): boolean =>
    Array.isArray(value)
      ? value.length === 0
        ? met('')
        : value.some((v) => met(plain(v)))
      : met(plain(String(value ?? '')));
  return opposite ? (i) => !any(read(i)) : (i) => any(read(i));
}

const SIZE_TESTS: Partial<Record<Operator, (size: number, value: number) => boolean>> = {
  is: (size, value) => Math.abs(size - value) < 1e-6,
  atLeast: (size, value) => size > value - 1e-6,
  atMost: (size, value) => size < value + 1e-6,
  above: (size, value) => size > value + 1e-6,
  below: (size, value) => size < value - 1e-6,
};

/** Where there is nothing, nothing holds of its size, but that it is not some value. */
function sizeHolds(read: FieldReader, is: Operator, values: readonly string[], type: FieldType, name: string): Holds {
  const test = SIZE_TESTS[is === 'isNot' ? 'is' : is];
  if (!test)
    throw new ConditionRefused(`“${name}” holds ${type === 'day' ? 'days' : 'numbers'}; compare them by size.`);
  const wanted = values.map((text) => {
    const value = type === 'day' ? parseIsoDate(text.trim()) : text.trim() === '' ? null : Number(text);
    if (value === null || !Number.isFinite(value))
      throw new ConditionRefused(
        `“${text}” is no ${type === 'day' ? 'day (as in 2026-07-31)' : 'number'}, which “${name}” is compared with.`,
      );
    return value;
  });
  const met = (i: number): boolean => {
    const size = read(i);
    return typeof size === 'number' && wanted.some((value) => test(size, value));
  };
  return is === 'isNot' ? (i) => !met(i) : met;
}

/** What operators are called, for texts, numbers and days. */
export const OPERATOR_WORDS: Record<Operator, [text: string, number: string, day: string]> = {
  is: ['is', 'is', 'is'],
  isNot: ['is not', 'is not', 'is not'],
  begins: ['begins with', '', ''],
  ends: ['ends with', '', ''],
  contains: ['contains', '', ''],
  lacks: ['does not contain', '', ''],
  atLeast: ['', 'is at least', 'is on or after'],
  atMost: ['', 'is at most', 'is on or before'],
  above: ['', 'is more than', 'is after'],
  below: ['', 'is less than', 'is before'],
  empty: ['is empty', 'is empty', 'is empty'],
  filled: ['is filled', 'is filled', 'is filled'],
};
const COLUMN: Record<FieldType, 0 | 1 | 2> = { text: 0, number: 1, day: 2 };

/** What may be asked of fields of a kind, each with its words. */
export const operatorsFor = (type: FieldType): [Operator, string][] =>
  (Object.keys(OPERATOR_WORDS) as Operator[]).flatMap((is): [Operator, string][] => {
    const words = OPERATOR_WORDS[is][COLUMN[type]];
    return words === '' ? [] : [[is, words]];
  });

/** A value as it stands in a sentence: in quotes where it would be taken for more than one, or for nothing. */
export const valueWords = (value: string): string =>
  value === '' || /[,;()“”"]|\.(?=\s|$)|\b(?:and|or)\b|^\s|\s$|\s\s/i.test(value)
    ? `“${value.replace(/[“”]/g, '"')}”`
    : value;

/** A condition as a person would say it: `phase is Build and name contains pile`. */
export function conditionWords(plan: Fielded, { match, tests }: Condition): string {
  if (tests.length === 0) return 'everything';
  const names = new Map(selectFields(plan).map((f) => [f.id, f.name]));
  const titles = (field: string, value: string): string =>
    plan.codeFields.find((f) => `code.${f.id}` === field)?.values.find((v) => v.code === value)?.title ?? value;
  return tests
    .map((t) => {
      if (!isTest(t))
        return tests.length > 1 && t.tests.length > 1 ? `(${conditionWords(plan, t)})` : conditionWords(plan, t);
      const says = OPERATOR_WORDS[t.is][COLUMN[fieldType(t.field)]] || t.is;
      const values =
        t.is === 'empty' || t.is === 'filled'
          ? ''
          : ` ${t.values.map((v) => valueWords(titles(t.field, v))).join(' or ')}`;
      return `${names.get(t.field) ?? t.field} ${says}${values}`;
    })
    .join(match === 'all' ? ' and ' : ' or ');
}
