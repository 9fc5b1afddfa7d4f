import type { BuildElement } from './element';
import type { Body } from './geometry';

/** What a newer model brings, by the elements' own identifiers. */
export interface ModelChanges {
  added: ElementChange[];
  changed: ElementChange[];
  gone: ElementChange[];
  same: number;
}

export interface ElementChange {
  ref: string;
  name: string;
  class: string;
  storey: string;
  /** What of it is different, in words. */
  what: string[];
}

/** Bodies whose corners are nearer than this are the same, in metres. */
const NEAR = 1e-3;

const OWN = ['name', 'class', 'type', 'storey'] as const;
const MEASURED = ['length', 'area', 'volume'] as const;

/** Compares two readings of a model; the refs of both begin with the same key. */
export function modelChanges(
  before: { elements: readonly BuildElement[]; body: Body },
  after: { elements: readonly BuildElement[]; body: Body },
): ModelChanges {
  const was = new Map(before.elements.map((e, i) => [e.ref, i]));
  const found: ModelChanges = { added: [], changed: [], gone: [], same: 0 };
  const said = (e: BuildElement, what: string[]): ElementChange => ({
    ref: e.ref,
    name: e.name,
    class: e.class,
    storey: e.storey,
    what,
  });
  after.elements.forEach((e, i) => {
    const j = was.get(e.ref);
    if (j === undefined) {
      found.added.push(said(e, []));
      return;
    }
    was.delete(e.ref);
    const old = before.elements[j]!;
    const what = [
      ...OWN.filter((k) => e[k] !== old[k]).map((k) => `${k}: ${old[k] || 'nothing'} → ${e[k] || 'nothing'}`),
      ...MEASURED.filter((k) => e[k] !== old[k]).map((k) => `${k}: ${old[k] ?? 'unknown'} → ${e[k] ?? 'unknown'}`),
      ...[...new Set([...Object.keys(old.properties), ...Object.keys(e.properties)])]
        .filter((k) => e.properties[k] !== old.properties[k])
        .map((k) => `${k}: ${old.properties[k] ?? 'nothing'} → ${e.properties[k] ?? 'nothing'}`),
      ...(e.classifications.join('\n') === old.classifications.join('\n') ? [] : ['classification']),
      ...(isSameBody(before.body, j, after.body, i) ? [] : ['body']),
    ];
    if (what.length === 0) found.same++;
    else found.changed.push(said(e, what));
  });
  for (const j of was.values()) found.gone.push(said(before.elements[j]!, []));
  return found;
}

function isSameBody(a: Body, i: number, b: Body, j: number): boolean {
  const corners = (body: Body, e: number) => body.cornersOf[e + 1]! - body.cornersOf[e]!;
  const triangles = (body: Body, e: number) => body.trianglesOf[e + 1]! - body.trianglesOf[e]!;
  if (corners(a, i) !== corners(b, j) || triangles(a, i) !== triangles(b, j)) return false;
  if (corners(a, i) === 0) return true;
  for (let k = 0; k < 6; k++) if (Math.abs(a.boxes[i * 6 + k]! - b.boxes[j * 6 + k]!) > NEAR) return false;
  return true;
}
