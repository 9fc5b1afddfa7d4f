/** Attributes of an entity as web-ifc hands them out: a value in an object, a reference, or a list of either. */

/** The text of an attribute; its number or truth as text. */
export function text(attribute: unknown): string {
  const v =
    attribute !== null && typeof attribute === 'object' && 'value' in attribute
      ? (attribute as { value: unknown }).value
      : attribute;
  if (v === null || v === undefined) return '';
  return typeof v === 'boolean' ? (v ? 'yes' : 'no') : String(v);
}

/** A list, empty where there is none. */
export const list = (attribute: unknown): unknown[] => (Array.isArray(attribute) ? attribute : []);

/** The number of the entity that is referred to. */
export const refId = (ref: unknown): number | null =>
  ref !== null && typeof ref === 'object' && typeof (ref as { value?: unknown }).value === 'number'
    ? (ref as { value: number }).value
    : null;
