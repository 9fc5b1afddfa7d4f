import type { Condition } from '../select/condition';
import { codeOfFieldId, type FieldReader, fieldType, NUMBER_FIELD, type SelectField } from '../select/fields';
import { type Holds, holdsBy } from '../select/select';
import type { BuildElement, ElementCode } from './element';

const OWN: [SelectField, (e: BuildElement) => string | string[] | number | null][] = [
  [{ id: 'element.name', name: 'name', type: 'text' }, (e) => e.name],
  [{ id: 'element.class', name: 'class', type: 'text' }, (e) => e.class],
  [{ id: 'element.type', name: 'type', type: 'text' }, (e) => e.type],
  [{ id: 'element.storey', name: 'storey', type: 'text' }, (e) => e.storey],
  [{ id: 'element.identifier', name: 'identifier', type: 'text' }, (e) => e.ref.slice(e.ref.indexOf('/') + 1)],
  [{ id: 'element.model', name: 'model', type: 'text' }, (e) => e.ref.slice(0, e.ref.indexOf('/'))],
  [{ id: 'element.classification', name: 'classification', type: 'text' }, (e) => e.classifications],
  [{ id: `${NUMBER_FIELD}length`, name: 'length in m', type: 'number' }, (e) => e.length],
  [{ id: `${NUMBER_FIELD}area`, name: 'area in m²', type: 'number' }, (e) => e.area],
  [{ id: `${NUMBER_FIELD}volume`, name: 'volume in m³', type: 'number' }, (e) => e.volume],
];
const READ = new Map(OWN.map(([f, read]) => [f.id, read]));

/** Ids of fields that are properties begin with this; those of numbers have {@link NUMBER_FIELD} before it. */
const PROPERTY = 'property.';

const isNumber = (text: string): boolean => /^-?\d+(?:\.\d+)?(?:e[+-]?\d+)?$/i.test(text);

/** All that can be asked of elements: what every element has, and each property of any; without code fields. */
export function elementFields(elements: readonly BuildElement[]): SelectField[] {
  const numeric = new Map<string, boolean>();
  for (const e of elements)
    for (const [name, value] of Object.entries(e.properties))
      numeric.set(name, (numeric.get(name) ?? true) && isNumber(value));
  return [
    ...OWN.map(([f]) => f),
    ...[...numeric]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(
        ([name, number]): SelectField => ({
          id: `${number ? NUMBER_FIELD : ''}${PROPERTY}${name}`.slice(0, 110),
          name,
          type: number ? 'number' : 'text',
        }),
      ),
  ];
}

/** Codes of elements by code field and reference. */
export function codesOf(codes: readonly ElementCode[]): Map<string, Map<string, string>> {
  const by = new Map<string, Map<string, string>>();
  for (const { field, code, elements } of codes) {
    const own = by.get(field) ?? new Map<string, string>();
    by.set(field, own);
    for (const ref of elements) own.set(ref, code);
  }
  return by;
}

/** Reads one field of the element at a position; null where elements have no such field. */
export function elementReader(
  elements: readonly BuildElement[],
  codes: readonly ElementCode[],
  id: string,
): FieldReader | null {
  const own = READ.get(id);
  if (own) return (i) => own(elements[i]!);
  const code = codeOfFieldId(id);
  if (code !== null) {
    const values = codesOf(codes).get(code);
    return (i) => values?.get(elements[i]!.ref) ?? '';
  }
  const bare = id.startsWith(NUMBER_FIELD) ? id.slice(NUMBER_FIELD.length) : id;
  if (!bare.startsWith(PROPERTY)) return null;
  const name = bare.slice(PROPERTY.length);
  return fieldType(id) === 'number'
    ? (i) => {
        const value = elements[i]!.properties[name];
        return value === undefined ? null : Number(value);
      }
    : (i) => elements[i]!.properties[name] ?? '';
}

/**
 * Makes a condition a question to elements by their positions.
 * @throws ConditionRefused
 */
export const elementsHold = (
  elements: readonly BuildElement[],
  codes: readonly ElementCode[],
  condition: Condition,
): Holds =>
  holdsBy((id) => {
    const read = elementReader(elements, codes, id);
    const named = READ.has(id) ? OWN.find(([f]) => f.id === id)![0].name : id.replace(/^(number\.)?(property\.)?/, '');
    return read && { name: named, type: fieldType(id), read };
  }, condition);
